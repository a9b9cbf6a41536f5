"""The doctor on made-up systems: what is wrong is named, with the reason and the remedy."""

from __future__ import annotations

import os
import stat
import subprocess
import sys
from pathlib import Path

import pytest

from nakrel.protocol import Check, CheckState, Status
from nakrel.service.doctor import System, examine
from nakrel.service.rules import PACKAGED_QUIRKS, PACKAGED_RULES, QUIRKS, QUIRKS_PATH, RULES, RULES_PATH, fix_script

OK, NOTE, BAD = CheckState.OK, CheckState.NOTE, CheckState.BAD


class Made(System):
    """A system under a folder, whose X server answers as told; permission is the file's own bit for its owner."""

    def __init__(self, root: Path, x_fault: str = "", **environment: str) -> None:
        super().__init__(root, environment, user=1000)
        self.x_fault = x_fault
        self.clicks_seen_first = False

    def may(self, path: Path, mode: int) -> bool:
        return bool(path.stat().st_mode & (stat.S_IRUSR if mode == os.R_OK else stat.S_IWUSR))

    def x_server(self) -> str:
        return self.x_fault

    def looks_at_clicks(self) -> bool:
        return self.clicks_seen_first

    def file(self, path: str, text: str = "", mode: int = 0o600) -> None:
        made = self.at(path)
        made.parent.mkdir(parents=True, exist_ok=True)
        made.write_text(text)
        made.chmod(mode)


def found(system: System, status: Status | None = None) -> dict[str, Check]:
    return {check.link: check for check in examine(system, status)}


def test_a_bare_system_is_told_what_is_missing_and_how_to_get_it(tmp_path: Path):
    checks = found(Made(tmp_path))
    assert [link for link, check in checks.items() if check.state is BAD] == [
        "virtual devices",
        "input devices",
    ]
    assert checks["virtual devices"].remedy == "nakrel doctor --fix"
    for check in checks.values():
        if check.state is BAD:
            assert check.why
            assert check.remedy


def test_our_own_virtual_devices_are_no_device_that_was_found(tmp_path: Path):
    system = Made(tmp_path)
    for number, phys in enumerate(("usb-0000:00:14.0-1/input0", "nakrel/hands", "nakrel/usb-0000:00:14.0-1/input0")):
        system.file(f"/dev/input/event{number}")
        system.file(f"/sys/class/input/event{number}/device/phys", f"{phys}\n")
    assert found(system)["input devices"].found == "1 of 1 devices can be read"
    system.at("/dev/input/event0").unlink()
    assert "there is nothing under /dev/input" in found(system)["input devices"].found


def test_where_an_x_server_does_the_work_the_kernels_links_are_notes(tmp_path: Path):
    checks = found(Made(tmp_path, DISPLAY=":0"))
    assert not [check for check in checks.values() if check.state is BAD]
    # Under Wayland it can't.
    assert found(Made(tmp_path, DISPLAY=":0", WAYLAND_DISPLAY="wayland-0"))["virtual devices"].state is BAD


def test_a_window_manager_that_looks_at_clicks_first_is_told_with_what_that_costs(tmp_path: Path):
    system = Made(tmp_path, DISPLAY=":0")
    assert "window manager" not in found(system)
    system.clicks_seen_first = True
    check = found(system)["window manager"]
    assert check.state is NOTE
    assert "10 ms" in check.why
    assert "10 ms" in check.remedy


def test_nodes_without_permission_need_the_rules_and_then_a_seat(tmp_path: Path):
    system = Made(tmp_path)
    system.file("/dev/uinput", mode=0)
    for n in range(3):
        system.file(f"/dev/input/event{n}", mode=0)
    checks = found(system)
    assert "can't be written" in checks["virtual devices"].found
    assert "none of the 3 devices" in checks["input devices"].found
    assert checks["input devices"].remedy == checks["virtual devices"].remedy == "nakrel doctor --fix"
    system.file(RULES_PATH)
    assert "log out and in" in found(system)["virtual devices"].remedy


def test_a_mended_system_is_fine(tmp_path: Path):
    system = Made(tmp_path, DISPLAY=":0", DBUS_SESSION_BUS_ADDRESS="unix:path=/x")
    system.file("/dev/uinput")
    system.file("/dev/input/event0")
    system.file("/dev/input/event1", mode=0)
    system.file(QUIRKS_PATH, "[Nakrel]\nMatchName=Nakrel keyboard and mouse\n")
    system.file(RULES_PATH, RULES)
    system.file("/usr/share/dbus-1/services/a.service", "[D-BUS Service]\nName=org.freedesktop.secrets\n")
    checks = found(system, Status("everyday", "", 0, "", "kernel", ""))
    checks.pop("priority")
    assert {link for link, check in checks.items() if check.state is not OK} == set()
    assert checks["input devices"].found == "1 of 2 devices can be read"


def test_what_a_package_of_the_system_brought_counts_as_well(tmp_path: Path):
    system = Made(tmp_path)
    checks = found(system)
    assert (checks["captured mice"].state, checks["fast clicks"].state) == (NOTE, NOTE)
    # Rules of before, which said nothing of captured mice.
    system.file(RULES_PATH, 'KERNEL=="uinput", TAG+="uaccess"\n')
    assert found(system)["captured mice"].remedy == "nakrel doctor --fix"
    system.at(RULES_PATH).unlink()
    system.file(PACKAGED_RULES, RULES)
    system.file(PACKAGED_QUIRKS, QUIRKS)
    checks = found(system)
    assert (checks["captured mice"].state, checks["fast clicks"].state) == (OK, OK)
    system.file("/dev/uinput", mode=0)
    assert "log out and in" in found(system)["virtual devices"].remedy


def test_a_service_that_reaches_nothing_says_why(tmp_path: Path):
    check = found(Made(tmp_path), Status("everyday", "", 0, "", "standin", "Nothing reaches other windows: x"))[
        "service"
    ]
    assert check.state is BAD
    assert "Nothing reaches" in check.why


def test_the_fix_is_a_shell_script_that_parses_and_the_rules_come_before_the_seats():
    subprocess.run(["sh", "-n"], input=fix_script(), text=True, check=True)
    # systemd hands tagged devices out in 73-seat-late.rules.
    assert Path(RULES_PATH).name < "73-seat-late.rules"


def test_root_is_refused_unless_told(tmp_path: Path):
    if os.geteuid() != 0:
        pytest.skip("this isn't root")
    environment = {name: value for name, value in os.environ.items() if name != "NAKREL_AS_ROOT"}
    environment["QT_QPA_PLATFORM"] = "offscreen"
    for command in (["-m", "nakrel.service"], ["-m", "nakrel", "--home", str(tmp_path)], ["-m", "nakrel", "live"]):
        told = subprocess.run([sys.executable, *command], env=environment, capture_output=True, text=True)
        assert told.returncode != 0
        assert "doesn't run as root" in told.stderr
        assert "NAKREL_AS_ROOT=1" in told.stderr
