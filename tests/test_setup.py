"""scripts/setup where there is no dpkg: it calls the package manager that is there, or says what to install."""

from __future__ import annotations

import os
import shutil
import subprocess
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
TOOLS = ("bash", "sh", "env", "dirname", "grep", "cat", "python3")


def run(folder: Path, *managers: str, user: int) -> subprocess.CompletedProcess[str]:
    """Start it with nothing in the search path but usual tools and these, none of whose packages are there."""
    for tool in TOOLS:
        (folder / tool).symlink_to(shutil.which(tool) or tool)
    fakes = {"id": f"echo {user}", "rpm": "exit 1"}
    fakes |= {each: f'[ "$1" = -Q ] && exit 1; echo "CALLED {each} $*"; exit 7' for each in managers}
    for name, does in fakes.items():
        (folder / name).write_text(f"#!/bin/sh\n{does}\n")
        (folder / name).chmod(0o755)
    command = [str(folder / "bash"), str(ROOT / "scripts" / "setup"), "demo"]
    return subprocess.run(command, env={**os.environ, "PATH": str(folder)}, capture_output=True, text=True)


@pytest.mark.parametrize(
    ("manager", "line", "package"),
    [
        ("dnf", "dnf install", "xcb-util-cursor"),
        ("pacman", "pacman -S --needed", "xcb-util-cursor"),
        ("zypper", "zypper install", "libxcb-cursor0"),
    ],
)
def test_other_package_managers(tmp_path: Path, manager: str, line: str, package: str):
    for name, user in (("user", 1000), ("root", 0)):
        folder = tmp_path / name
        folder.mkdir()
        done = run(folder, manager, user=user)
        assert done.returncode != 0
        if user:
            assert f"sudo {line} " in done.stderr
            assert package in done.stderr
        else:
            # Root's own call; the stand-in for the package manager fails, and so does the script.
            assert f"CALLED {manager} " in done.stdout
            assert package in done.stdout


def test_tests_need_debian_and_say_so(tmp_path: Path):
    run(tmp_path, "dnf", user=0)
    command = [str(tmp_path / "bash"), str(ROOT / "scripts" / "setup"), "test"]
    done = subprocess.run(command, env={**os.environ, "PATH": str(tmp_path)}, capture_output=True, text=True)
    assert done.returncode == 1
    assert "Tests and benchmarks need Debian" in done.stderr
