"""Installing for a user and taking it back, judged by the platform's own tools."""

from __future__ import annotations

import os
import shutil
import stat
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest

from nakrel.core.edit.bundle import bundle_of
from nakrel.core.model.profile import Profile
from nakrel.desktop.names import APP_ID, MIME_TYPE, SHARE
from nakrel.storage.bundles import write_bundle
from tests.desktop.conftest import User

sys.path.insert(0, str(Path(__file__).parents[2] / "scripts"))


def tool(name: str) -> str:
    found = shutil.which(name)
    if found is None:
        pytest.skip(f"needs {name}")
    return found


def run(user: User, *command: str) -> str:
    done = subprocess.run(command, env=user.environment, capture_output=True, text=True, timeout=60)
    assert done.returncode == 0, done.stdout + done.stderr
    return done.stdout + done.stderr


def test_it_is_installed_and_taken_back_without_a_trace(user: User):
    before = user.files()
    said = user.nakrel("install")
    assert "in the menu now" in said
    assert "not in your search path" in said
    launcher = user.places.launcher
    assert stat.S_IMODE(os.stat(launcher).st_mode) == 0o755
    assert run(user, str(launcher), "--version").startswith("nakrel, version")
    assert "--spread" in run(user, str(user.places.practice), "--help")
    entry = (user.places.data / "applications" / f"{APP_ID}.desktop").read_text()
    assert "Exec=nakrel" not in entry
    user.nakrel("login", "on")
    assert "starts when you log in" in user.nakrel("login")
    user.nakrel("pin")
    user.nakrel("install")
    said = user.nakrel("uninstall")
    assert "stay, in" in said
    left = user.files() - before
    assert {path for path in left if not path.startswith((".config/nakrel/", ".local/state/nakrel/", "run/"))} == set()
    assert ".config/nakrel/profiles/Everyday.json" in left
    assert "doesn't start" in user.nakrel("login")
    user.nakrel("uninstall", "--purge", "--yes")
    assert user.files() == before
    assert "isn't installed" in user.nakrel("uninstall", code=1)


def test_a_program_of_the_same_name_is_left_alone(user: User):
    launcher = user.places.launcher
    launcher.parent.mkdir(parents=True)
    launcher.write_text("#!/bin/sh\necho mine\n")
    assert "left as it is" in user.nakrel("install")
    user.nakrel("uninstall")
    assert launcher.read_text().endswith("mine\n")


def test_a_folder_that_cannot_be_written_is_named(user: User):
    user.places.programs.parent.mkdir(parents=True)
    user.places.programs.write_text("a file in its place")
    said = user.nakrel("install", code=1)
    assert str(user.places.programs) in said
    assert "Traceback" not in said


def test_purge_asks_first(user: User):
    user.nakrel("pin")
    command = [sys.executable, "-m", "nakrel", "uninstall", "--purge"]
    done = subprocess.run(command, env=user.environment, input="n\n", capture_output=True, text=True, timeout=60)
    assert done.returncode == 1
    assert (user.home.profiles / "Everyday.json").exists()


def test_the_desktop_entry_is_valid(user: User):
    run(user, tool("desktop-file-validate"), str(SHARE / "applications" / f"{APP_ID}.desktop"))
    user.nakrel("install")
    run(user, tool("desktop-file-validate"), str(user.places.data / "applications" / f"{APP_ID}.desktop"))
    user.nakrel("login", "on")
    run(user, tool("desktop-file-validate"), str(user.places.config / "autostart" / f"{APP_ID}.desktop"))


def test_the_metainfo_is_valid(user: User):
    run(user, tool("appstreamcli"), "validate", "--no-net", str(SHARE / "metainfo" / f"{APP_ID}.metainfo.xml"))


def test_profile_files_are_known_and_open_with_nakrel(user: User):
    mime = tool("xdg-mime")
    tool("update-mime-database")
    user.nakrel("install")
    file = user.folder / "Kiln.nakrel.zip"
    write_bundle(file, bundle_of([Profile(id="kiln", name="Kiln Race")], {}))
    assert zipfile.is_zipfile(file)
    assert run(user, tool("gio"), "info", "-a", "standard::content-type", str(file)).strip().endswith(MIME_TYPE)
    assert run(user, mime, "query", "default", MIME_TYPE).strip() == f"{APP_ID}.desktop"


def test_the_manuals_are_clean():
    pages = sorted((SHARE / "man").rglob("*.1"))
    assert len(pages) == 4
    for page in pages:
        done = subprocess.run(
            [tool("mandoc"), "-T", "lint", "-W", "warning", str(page)], capture_output=True, text=True
        )
        assert done.stdout == ""
        assert done.returncode == 0


def test_manuals_and_completions_are_those_of_the_commands():
    """`scripts/desktop-data` makes them anew."""
    from desktop_data import texts

    for path, text in texts().items():
        assert (SHARE / path).read_text() == text, path


def test_the_unit_is_one_that_systemd_reads(user: User):
    unit = user.folder / "nakrel.service"
    text = (SHARE / "systemd" / "user" / "nakrel.service").read_text()
    # The program and the manual have to be there for this tool.
    unit.write_text(text.replace("/usr/bin/nakrel", "/bin/true").replace("Documentation=man:nakrel(1)\n", ""))
    run(user, tool("systemd-analyze"), "verify", "--user", "--man=no", str(unit))


ASKED = {
    "bash": """. {share}/bash-completion/completions/nakrel; COMP_WORDS=(nakrel pin Ev); COMP_CWORD=2
        _nakrel_completion nakrel; echo "${{COMPREPLY[@]}}\"""",
    "fish": 'complete --do-complete "nakrel pin Ev"',
    # zsh shows completions at a terminal alone: that it finds the function, and what that asks the program.
    "zsh": """fpath=({share}/zsh/site-functions $fpath); autoload -Uz compinit; compinit -D -u
        export COMP_WORDS="nakrel pin Ev" COMP_CWORD=2 _NAKREL_COMPLETE=zsh_complete
        [[ $_comps[nakrel] = _nakrel ]] && nakrel""",
}


@pytest.mark.parametrize("shell", list(ASKED))
def test_shells_complete_the_names_that_there_are(user: User, shell: str):
    user.nakrel("install")
    user.nakrel("pin")
    environment = {**user.environment, "PATH": f"{user.places.programs}:{os.environ['PATH']}"}
    command = [tool(shell), "-c", ASKED[shell].format(share=user.places.data)]
    done = subprocess.run(command, env=environment, capture_output=True, text=True, timeout=60)
    assert "Everyday" in done.stdout, done.stdout + done.stderr
