"""The programs that run, the kernel's word of starts, and the installed applications."""

from __future__ import annotations

import os
import select
import subprocess
import sys
from pathlib import Path

import psutil
import pytest
from msgspec.structs import replace

from nakrel.backends.applications import applications
from nakrel.backends.proc import now_us, read_program
from nakrel.backends.process_events import ProcessEvents
from nakrel.backends.processes import ProcessWatch
from nakrel.backends.protocols import BackendUnavailable
from nakrel.backends.x11.wire import whole_ms
from nakrel.core.model.programs import Application
from tests.support import wait_for


def test_a_process_tells_its_parent_and_the_id_of_its_application():
    environment = {**os.environ, "FLATPAK_ID": "org.example.Kelp", "SECRET": "x"}
    process = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(30)"], env=environment)
    try:
        watch = ProcessWatch()
        wait_for(
            lambda: watch.look([process.pid], lambda program: True) or process.pid in watch.programs, "the process"
        )
        found = watch.programs[process.pid]
        assert found.parent == os.getpid()
        assert found.application == "FLATPAK_ID=org.example.Kelp"
        assert "SECRET" not in repr(found)
    finally:
        process.kill()
        process.wait()
    assert watch.look([process.pid], lambda program: True)
    assert process.pid not in watch.programs


def test_what_is_read_of_a_process_is_what_psutil_reads(tmp_path: Path):
    """psutil is the reference: a library that reads the same files (proc(5)) in a way of its own."""
    script = tmp_path / "a (b) c\td"
    script.symlink_to(sys.executable)
    process = subprocess.Popen([str(script), "-c", "import time; time.sleep(30)", "", "two words"])
    try:
        wait_for(lambda: "sleep" in " ".join(psutil.Process(process.pid).cmdline()), "the program")
        compared = 0
        for each in psutil.process_iter():
            try:
                with each.oneshot():
                    if each.uids().effective != os.getuid() or each.status() == psutil.STATUS_ZOMBIE:
                        continue
                    path, parent, started = each.exe(), each.ppid(), each.create_time() - psutil.boot_time()
                    command = each.cmdline()
                    # Ours has no empty arguments at the end: who writes a title of its own leaves many.
                    while command and not command[-1]:
                        command.pop()
                    told = (each.pid, each.name()[:15], tuple(command), path, parent)
            except psutil.Error:
                continue
            found = read_program(each.pid, os.getuid())
            if found is None:
                # The kernel's own have no command; another may have ended meanwhile.
                assert not told[2] or not psutil.pid_exists(each.pid)
                continue
            assert (found.pid, found.name, found.command, found.path, found.parent) == told
            assert abs(found.started_us / 1_000_000 - started) < 1
            compared += 1
        assert compared >= 2
        ours = read_program(process.pid, os.getuid())
        assert ours
        assert ours.name == "a (b) c\td"
        assert ours.command[-2:] == ("", "two words")
    finally:
        process.kill()
        process.wait()
    assert read_program(process.pid, os.getuid()) is None


def test_only_programs_that_are_wanted_are_kept_of_those_that_start():
    process = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(30)"])
    try:
        # A process has no command for a moment after it was started.
        wait_for(lambda: read_program(process.pid, os.getuid()), "the program to have begun")
        watch = ProcessWatch()
        assert not watch.look([process.pid], lambda program: False)
        assert watch.programs == {}
        assert watch.look([process.pid], lambda program: True)
        # It has taken another name, by which it is no longer wanted.
        assert watch.look([process.pid], lambda program: False)
        assert watch.programs == {}
    finally:
        process.kill()
        process.wait()


def test_a_number_that_another_process_has_got_is_another_program():
    """Nobody tells of it, and the number is there before and after."""
    process = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(30)"])
    try:
        watch = ProcessWatch()
        wait_for(lambda: watch.scan() or process.pid in watch.programs, "the process")
        was = watch.programs[process.pid]
        watch.programs[process.pid] = replace(was, name="another", started_us=1)
        wait_for(lambda: watch.scan() and watch.programs.get(process.pid) == was, "the program that it is now")
        watch.programs[process.pid] = replace(was, name="another", started_us=1)
        assert watch.scan(all_of_them=True)
        assert watch.programs[process.pid] == was
    finally:
        process.kill()
        process.wait()


def test_a_program_that_was_found_between_two_scans_is_gone_with_its_end():
    """The kernel tells of its start, so it is looked at alone."""
    watch = ProcessWatch()
    watch.scan()
    process = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(30)"])
    wait_for(lambda: watch.look([process.pid], lambda program: True), "the process")
    process.kill()
    process.wait()
    assert watch.scan()
    assert process.pid not in watch.programs


def test_a_clock_that_is_set_back_makes_no_process_young(monkeypatch: pytest.MonkeyPatch):
    watch = ProcessWatch()
    watch.scan()
    old = {pid for pid, program in watch.programs.items() if program.started_us < now_us() - 4_000_000}
    monkeypatch.setattr("time.time", lambda: 0.0)
    watch.programs = {pid: program for pid, program in watch.programs.items() if pid in old}
    assert not watch.unsettled


@pytest.mark.parametrize(
    ("told", "now", "whole"),
    [
        (5_000, 5_002, 5_000),
        # After 49.7 days of uptime, and a moment before and after the wrap.
        (1_000, 2**32 + 1_003, 2**32 + 1_000),
        (2**32 - 4, 2**32 + 3, 2**32 - 4),
        # A server's time may be a little later than ours.
        (7, 2**32 + 5, 2**32 + 7),
        (3, 2**32 - 2, 2**32 + 3),
        (123, 3 * 2**32 + 200, 3 * 2**32 + 123),
    ],
)
def test_times_of_an_x_server_do_not_wrap(told: int, now: int, whole: int):
    """Times are 32-bit milliseconds (X11 protocol, TIMESTAMP)."""
    assert whole_ms(told, now) == whole


def test_the_kernel_tells_of_programs_that_start():
    try:
        events = ProcessEvents()
    except BackendUnavailable as error:
        pytest.skip(str(error))
    process = subprocess.Popen([sys.executable, "-c", "pass"])
    process.wait()
    found: set[int] = set()

    def told() -> bool:
        if select.select([events], [], [], 0.1)[0]:
            found.update(events.started() or ())
        return process.pid in found

    wait_for(told, "the start")
    events.close()


def entry(folder: Path, name: str, *lines: str) -> None:
    folder.mkdir(parents=True, exist_ok=True)
    (folder / name).write_text("\n".join(("[Desktop Entry]", "Type=Application", *lines)) + "\n")


def test_desktop_entries_are_read_as_menus_read_them(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    """Desktop Entry Specification 1.5: Exec's field codes, NoDisplay, localised names, the first folder's wins."""
    home, system = tmp_path / "home", tmp_path / "system"
    monkeypatch.setenv("XDG_DATA_HOME", str(home))
    monkeypatch.setenv("XDG_DATA_DIRS", str(system))
    script = tmp_path / "kiln.sh"
    script.write_text("#!/bin/sh\n")
    menu = system / "applications"
    names = ("Name=Kiln Race", "Name[de]=Ofenrennen", "Icon=kiln")
    entry(menu, "kiln.desktop", *names, f'Exec=env A=1 "{script}" --full %U')
    entry(menu, "kelp.desktop", "Name=Kelp", "Exec=/opt/kelp", "StartupWMClass=Kelp-Garden")
    entry(menu, "hidden.desktop", "Name=Hidden", "Exec=/opt/x", "NoDisplay=true")
    entry(menu, "no-exec.desktop", "Name=Nothing")
    (menu / "broken.desktop").write_text("Name=x\n[[[")
    (menu / "binary.desktop").write_bytes(b"\xff\xfe\x00")
    entry(menu, "sub.desktop", "Name=System's", "Exec=/opt/sub")
    entry(home / "applications", "sub.desktop", "Name=Mine", "Exec=/opt/mine")
    assert applications() == (
        Application("Kelp", "/opt/kelp", "Kelp-Garden", "", False),
        Application("Kiln Race", str(script), "", "kiln", True),
        Application("Mine", "/opt/mine", "", "", False),
    )
    assert "Ofenrennen" in [each.name for each in applications("de")]


def test_a_process_that_has_no_command_for_a_moment_is_found_with_the_next_look(monkeypatch: pytest.MonkeyPatch):
    """So it is while it becomes another program: the kernel has taken down the old one's memory (execve(2))."""
    process = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(30)"])
    try:
        # It may still be on its way from one program to the other.
        wait_for(lambda: read_program(process.pid, os.getuid()), "the program to have begun")
        watch = ProcessWatch()
        with monkeypatch.context() as patch:
            patch.setattr("nakrel.backends.proc._command", lambda content: ())
            watch.scan()
        assert process.pid not in watch.programs
        watch.scan()
        assert process.pid in watch.programs
    finally:
        process.kill()
        process.wait()
