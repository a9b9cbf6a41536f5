"""What is this user's alone stays so, whatever others have put in its way."""

from __future__ import annotations

import os
import socket
import stat
import subprocess
import sys
from pathlib import Path

import pytest

from nakrel.client.connection import ClientError, ServiceConnection
from nakrel.private import NotPrivate, open_private, private_folder, socket_address
from nakrel.storage.home import Home
from tests.support import ServiceProcess


def mode(path: Path) -> int:
    return stat.S_IMODE(path.stat().st_mode)


def test_a_folder_is_made_for_its_user_alone_and_a_link_is_refused(tmp_path: Path):
    private_folder(tmp_path / "a" / "b")
    assert mode(tmp_path / "a" / "b") == 0o700
    (tmp_path / "open").mkdir(mode=0o777)
    (tmp_path / "open").chmod(0o777)
    private_folder(tmp_path / "open")
    assert mode(tmp_path / "open") == 0o700
    (tmp_path / "link").symlink_to(tmp_path / "open")
    with pytest.raises(NotPrivate, match="isn't a folder of yours"):
        private_folder(tmp_path / "link")


@pytest.mark.skipif(os.getuid() != 0, reason="only root can give a folder away")
def test_a_folder_of_another_user_is_refused(tmp_path: Path):
    (tmp_path / "theirs").mkdir()
    os.chown(tmp_path / "theirs", 12_345, 12_345)
    with pytest.raises(NotPrivate, match="another user's"):
        private_folder(tmp_path / "theirs")


def test_a_link_in_a_files_place_is_not_written_through(tmp_path: Path):
    victim = tmp_path / "precious"
    victim.write_text("precious")
    (tmp_path / "service.lock").symlink_to(victim)
    with pytest.raises(OSError, match="Too many levels"):
        os.close(open_private(tmp_path / "service.lock", os.O_RDWR | os.O_CREAT))
    assert victim.read_text() == "precious"


def test_without_a_folder_of_the_session_nothing_is_in_a_shared_place(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    monkeypatch.delenv("NAKREL_HOME")
    monkeypatch.delenv("XDG_RUNTIME_DIR", raising=False)
    home = Home.find()
    assert home.runtime == home.state / "run"
    shared = tmp_path / "shared"
    shared.mkdir()
    shared.chmod(0o777)
    for session in (str(shared), "relative/folder", str(tmp_path / "missing")):
        monkeypatch.setenv("XDG_RUNTIME_DIR", session)
        assert Home.find().runtime == home.runtime
    shared.chmod(0o700)
    monkeypatch.setenv("XDG_RUNTIME_DIR", str(shared))
    assert Home.find().runtime == shared / "nakrel"


def test_a_socket_works_at_a_path_of_any_length(tmp_path: Path):
    """sun_path holds 108 bytes (unix(7))."""
    folder = tmp_path.joinpath(*["deep" * 20] * 4)
    service = ServiceProcess(folder, "--backend", "stand-in")
    assert len(os.fsencode(service.home.socket)) > 108
    assert service.home.socket.is_relative_to(folder)
    assert mode(service.home.runtime) == 0o700
    assert service.end() == 0


def test_journal_log_lock_and_socket_are_their_users_alone(tmp_path: Path):
    (tmp_path / "state").mkdir()
    (tmp_path / "state" / "service.log").touch(mode=0o644)
    service = ServiceProcess(tmp_path, "--backend", "stand-in")
    assert service.end() == 0
    for path in (service.home.journal, service.home.log, service.home.lock):
        assert mode(path) == 0o600


def test_what_another_user_listens_at_is_sent_nothing(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    path = tmp_path / "service.sock"
    with socket.socket(socket.AF_UNIX) as listening, socket_address(path) as address:
        listening.bind(address)
        listening.listen()
        monkeypatch.setattr("nakrel.client.connection.peer_uid", lambda sock: os.getuid() + 1)
        with pytest.raises(ClientError, match="another user's"):
            ServiceConnection.connect(path, "test")
        accepted, _ = listening.accept()
        with accepted:
            assert accepted.recv(100) == b""


def test_a_service_that_cannot_have_its_folder_says_so(tmp_path: Path):
    (tmp_path / "run").symlink_to(tmp_path)
    command = [sys.executable, "-m", "nakrel", "--home", str(tmp_path), "live"]
    run = subprocess.run(command, capture_output=True, text=True, timeout=30)
    assert run.returncode != 0
    assert "isn't a folder of yours" in run.stderr
