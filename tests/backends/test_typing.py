"""Texts to keys: against libxkbcommon's own tools, and the places where desktops keep their layout."""

from __future__ import annotations

import ctypes
import re
import shutil
import subprocess
from pathlib import Path

import pytest
import xcffib
import xcffib.xkb

from nakrel.backends.layout import Layout, find_layout, parse_layout
from nakrel.backends.protocols import BackendUnavailable
from nakrel.backends.typist import Typist
from nakrel.backends.x11.keymap import keymap_of
from nakrel.core.analysis.typed_text import TypedText
from nakrel.core.model.controls import CONTROLS
from nakrel.core.play.acts import Stroke
from tests.on_a_bus import Plasma
from tests.support import XServer, start_bus

tool = pytest.mark.skipif(not shutil.which("xkbcli"), reason="needs xkbcli (libxkbcommon-tools)")


def _ways(layout: Layout, char: str) -> set[tuple[int, frozenset[str]]]:
    """Every way to type the character by `xkbcli how-to-type`: the evdev key number and the modifiers."""
    command = ["xkbcli", "how-to-type", "--layout", layout.layout, "--variant", layout.variant, str(ord(char))]
    told = subprocess.run(command, capture_output=True, text=True, check=True).stdout
    found = set()
    for line in told.splitlines():
        if row := re.match(r"^(\d+)\s+\S+\s+1\s+.*?\d+\s+\[(.*)\]\s*$", line):
            held = {"Shift": "KEY_LEFTSHIFT", "Mod5": "KEY_RIGHTALT"}
            names = row[2].split()
            if set(names) <= set(held):
                found.add((int(row[1]) - 8, frozenset(held[name] for name in names)))
    return found


@tool
@pytest.mark.parametrize("name", ["us", "de", "fr", "ch:fr", "gb", "us:dvorak", "es", "pl", "ru", "gr"])
def test_each_character_is_typed_in_a_way_that_xkb_knows(name: str):
    layout = parse_layout(name, "the test")
    typist = Typist(layout)
    letters = {"ru": "яжё!", "gr": "αω;"}.get(name, "azAZ09.,;:!?-_@#/()=+*")
    for char in letters:
        (stroke,), missing = typist.strokes(char)
        assert not missing
        assert (CONTROLS[stroke.control].number, frozenset(stroke.held)) in _ways(layout, char), char


@pytest.mark.parametrize("name", ["us", "de", "fr", "gb", "us:dvorak", "es", "pl", "ru", "gr"])
def test_keys_make_the_text_again_that_they_were_found_for(name: str):
    typist = Typist(parse_layout(name, "the test"))
    text = {"ru": "яжёЖ !", "gr": "αωΑ; "}.get(name, "azAZ 09.,;:!?-_@#/()=+*")
    typed = TypedText(typist.levels)
    made = ""
    for stroke in typist.strokes(text)[0]:
        keys = (*stroke.held, stroke.control)
        made += "".join(typed.feed(key, 1) for key in keys)
        made += "".join(typed.feed(key, 0) for key in reversed(keys))
    assert made == text


def test_a_key_with_control_is_a_command_and_no_text():
    typed = TypedText(Typist(Layout("us")).levels)
    assert [typed.feed(key, 1) for key in ("KEY_LEFTCTRL", "KEY_C", "KEY_F5")] == ["", "", ""]
    typed.feed("KEY_LEFTCTRL", 0)
    assert typed.feed("KEY_C", 1) == "c"
    assert typed.feed("KEY_C", 0) == ""


def test_accents_that_have_no_key_are_typed_with_a_dead_key():
    strokes, missing = Typist(Layout("fr")).strokes("ê^")
    dead = Stroke("KEY_LEFTBRACE")
    assert strokes[:2] == [dead, Stroke("KEY_E")]
    assert missing == ""
    spanish, _ = Typist(Layout("es")).strokes("á")
    assert spanish == [Stroke("KEY_APOSTROPHE"), Stroke("KEY_A")]


def test_the_third_level_is_held_by_the_key_that_holds_it():
    """xkeyboard-config's option lv3:caps_switch, and layouts whose right Alt is a plain Alt (symbols/us)."""
    assert Typist(Layout("de")).strokes("@")[0] == [Stroke("KEY_Q", ("KEY_RIGHTALT",))]
    assert Typist(Layout("de", options="lv3:caps_switch")).strokes("@")[0] == [Stroke("KEY_Q", ("KEY_CAPSLOCK",))]
    # Alt with a key would be a command.
    us = Typist(Layout("us"))
    assert us.strokes("¦") == ([], "¦")
    assert us.levels["KEY_8"] == ("8", "*", "", "")
    # A letter of the sixth level takes both (symbols/de, neo).
    (stroke,), _ = Typist(Layout("de", "neo")).strokes("Γ")
    assert (stroke.control, len(stroke.held)) == ("KEY_I", 2)
    assert "KEY_RIGHTALT" not in stroke.held


def test_characters_without_keys_are_named_once_each():
    strokes, missing = Typist(Layout("us")).strokes("a€b€字")
    assert [stroke.control for stroke in strokes] == ["KEY_A", "KEY_B"]
    assert missing == "€字"


def test_with_caps_lock_on_letters_take_shift_the_other_way_round_and_signs_as_ever():
    """The X Keyboard Extension: Protocol Specification, on the canonical key types: ALPHABETIC heeds Lock, TWO_LEVEL
    doesn't; and on Lock, which makes a capital of a letter whose type doesn't heed it."""
    us, _ = Typist(Layout("us", caps=True)).strokes("aA1! ")
    assert us == [
        Stroke("KEY_A", ("KEY_LEFTSHIFT",)), Stroke("KEY_A"), Stroke("KEY_1"), Stroke("KEY_1", ("KEY_LEFTSHIFT",)),
        Stroke("KEY_SPACE"),
    ]  # fmt: skip
    german, missing = Typist(Layout("de", caps=True)).strokes("üÜ@Éß")
    assert german[:3] == [
        Stroke("KEY_LEFTBRACE", ("KEY_LEFTSHIFT",)), Stroke("KEY_LEFTBRACE"), Stroke("KEY_Q", ("KEY_RIGHTALT",)),
    ]  # fmt: skip
    assert german[3:5] == [Stroke("KEY_EQUAL"), Stroke("KEY_E")]
    # No key makes a small ß then, so it is off for that.
    caps = Stroke("KEY_CAPSLOCK")
    assert german[5:] == [caps, Stroke("KEY_MINUS"), caps]
    assert missing == ""


@tool
@pytest.mark.parametrize("name", ["us", "de", "fr", "ch:fr", "us:dvorak", "es"])
def test_with_caps_lock_on_every_character_has_its_key_still(name: str):
    layout = parse_layout(name, "the test")
    plain, locked = Typist(layout), Typist(layout._replace(caps=True))
    for char in "azAZ09.,;:!?-_@#/()=+*":
        # A capital that was one with Shift is one without; everything else is typed as before.
        before, after = plain.strokes(char), locked.strokes(char)
        assert after[1] == before[1] == ""
        if not char.isalpha():
            assert after == before, char
    assert (locked.legends, locked.levels) == (plain.legends, plain.levels)


def test_the_keyboards_light_tells_of_caps_lock_where_no_x_server_does(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    """Documentation/leds/leds-class.rst of the Linux kernel: a light's `brightness` is 0 where it is off."""
    monkeypatch.setenv("PATH", str(tmp_path))
    for number, (text, on) in enumerate((("0\n", False), ("nonsense", False), ("1\n", True))):
        light = tmp_path / f"sys/class/leds/input{number}::capslock"
        light.mkdir(parents=True)
        (light / "brightness").write_text(text)
        assert find_layout("", {"WAYLAND_DISPLAY": "wayland-0"}, tmp_path).caps is on
    assert not find_layout("", {}, tmp_path).caps


def test_line_ends_and_tabs_are_keys():
    strokes, _ = Typist(Layout("us")).strokes("\n\t")
    assert strokes == [Stroke("KEY_ENTER"), Stroke("KEY_TAB")]


def test_a_layout_that_does_not_exist_is_named():
    with pytest.raises(BackendUnavailable, match=r"no keyboard layout 'xyz:abc' \(from the settings\)"):
        Typist(find_layout("xyz:abc"))


@pytest.mark.parametrize("text", ["ch:fr", "ch(fr)", "ch+fr", " ch:fr "])
def test_a_layout_can_be_written_in_the_usual_ways(text: str):
    assert parse_layout(text, "s")[:2] == ("ch", "fr")


def test_the_system_files_are_read(tmp_path: Path):
    assert find_layout("", {}, tmp_path) == Layout("us")
    x11 = tmp_path / "etc/X11/xorg.conf.d"
    x11.mkdir(parents=True)
    (x11 / "00-keyboard.conf").write_text(
        'Section "InputClass"\n  Option "XkbLayout" "fr,us"\n  Option "XkbVariant" "bepo,"\nEndSection\n'
    )
    assert find_layout("", {}, tmp_path) == Layout("fr", "bepo", "localectl")
    (tmp_path / "etc/default").mkdir()
    (tmp_path / "etc/default/keyboard").write_text("# comment\nXKBLAYOUT=\"de,us\"\nXKBVARIANT='nodeadkeys,'\n")
    assert find_layout("", {}, tmp_path) == Layout("de", "nodeadkeys", "/etc/default/keyboard")


def test_a_compositor_without_settings_has_the_layout_of_its_session(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    """libxkbcommon's documentation, on `xkb_rule_names`."""
    monkeypatch.setenv("PATH", str(tmp_path))
    names = {"XKB_DEFAULT_LAYOUT": "de,us", "XKB_DEFAULT_VARIANT": "nodeadkeys,", "XKB_DEFAULT_OPTIONS": "grp:toggle"}
    found = Layout("de", "nodeadkeys", "XKB_DEFAULT_LAYOUT", "grp:toggle")
    assert find_layout("", {"WAYLAND_DISPLAY": "wayland-0", **names}, tmp_path) == found
    assert find_layout("fr", {"WAYLAND_DISPLAY": "wayland-0", **names}, tmp_path).layout == "fr"
    assert find_layout("", {"XKB_DEFAULT_LAYOUT": ""}, tmp_path) == Layout("us")


def test_a_wayland_desktop_is_asked_by_its_own_settings(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    environment = {"WAYLAND_DISPLAY": "wayland-0", "XDG_CONFIG_HOME": str(tmp_path)}
    (tmp_path / "kxkbrc").write_text("[Layout]\nLayoutList=no,us\nVariantList=winkeys,\nOptions=lv3:caps_switch\n")
    monkeypatch.setenv("PATH", str(tmp_path))
    kde = find_layout("", environment, tmp_path)
    assert (*kde[:2], kde.options) == ("no", "winkeys", "lv3:caps_switch")
    gsettings = tmp_path / "gsettings"
    told = """
case $3 in
    mru-sources) echo "@a(ss) []" ;;
    sources) echo "[('ibus', 'x'), ('xkb', 'gb+extd'), ('xkb', 'us')]" ;;
    xkb-options) echo "$OPTIONS" ;;
esac
"""
    gsettings.write_text(f"#!/bin/sh\n{told}")
    gsettings.chmod(0o755)
    for options, found in (("['lv3:win_switch', 'compose:ralt']", "lv3:win_switch,compose:ralt"), ("@as []", "")):
        monkeypatch.setenv("OPTIONS", options)
        gnome = find_layout("", environment, tmp_path)
        assert (*gnome[:2], gnome.options) == ("gb", "extd", found)


def test_plasma_says_which_of_its_layouts_is_on(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    if not shutil.which("dbus-daemon"):
        pytest.skip("needs dbus-daemon")
    environment = {"WAYLAND_DISPLAY": "wayland-0", "XDG_CONFIG_HOME": str(tmp_path), "XDG_CURRENT_DESKTOP": "KDE"}
    (tmp_path / "kxkbrc").write_text("[Layout]\nLayoutList=us,ru\nVariantList=,phonetic\n")
    # What another desktop has kept isn't asked here.
    gsettings = tmp_path / "gsettings"
    gsettings.write_text("#!/bin/sh\necho \"[('xkb', 'gb')]\"\n")
    gsettings.chmod(0o755)
    address = f"unix:path={tmp_path / 'bus'}"
    monkeypatch.setenv("DBUS_SESSION_BUS_ADDRESS", address)
    assert find_layout("", environment, tmp_path)[:2] == ("us", "")
    bus = start_bus(address)
    monkeypatch.setenv("PATH", str(tmp_path))
    try:
        assert find_layout("", environment, tmp_path)[:2] == ("us", "")
        plasma = Plasma(address)
        for chosen, found in ((1, ("ru", "phonetic")), (0, ("us", "")), (7, ("us", ""))):
            plasma.chosen = chosen
            assert find_layout("", environment, tmp_path)[:2] == found
    finally:
        bus.terminate()
        bus.wait(10)


def lock_group(display: str, group: int) -> None:
    """Go over to another of the layouts, as desktops do."""
    conn = xcffib.connect(display)
    xkb = conn(xcffib.xkb.key)
    xkb.UseExtension(1, 0).reply()
    core_keyboard = 0x100
    xkb.LatchLockState(core_keyboard, 0, 0, True, group, 0, False, 0)
    # Its answer tells that the server has done it.
    assert xkb.GetState(core_keyboard).reply().group == group
    conn.disconnect()


@pytest.mark.x11
@pytest.mark.skipif(bool(XServer.missing()) or not shutil.which("setxkbmap"), reason="needs Xvfb and setxkbmap")
def test_an_x_server_is_asked_which_layout_is_on():
    server = XServer()
    try:
        subprocess.run(["setxkbmap", "ch,us", "fr,"], env=server.environment, check=True)
        found = find_layout("", {"DISPLAY": server.display})
        assert found[:3] == ("French (Switzerland)", "", "the X server")
        for group, layout, key in ((1, "English (US)", "KEY_Y"), (0, "French (Switzerland)", "KEY_Z")):
            lock_group(server.display, group)
            found = find_layout("", {"DISPLAY": server.display})
            assert found.layout == layout
            assert Typist(found).strokes("y")[0] == [Stroke(key)]
        # Single keys that were changed count, and take nothing from the layout's name that is known.
        swapped = ["xmodmap", "-e", "keycode 38 = q Q", "-e", "keycode 24 = a A"]
        subprocess.run(["setxkbmap", "us"], env=server.environment, check=True)
        subprocess.run(swapped, env=server.environment, check=True)
        found = find_layout("", {"DISPLAY": server.display})
        assert found.layout
        assert Typist(found).strokes("aQ") == ([Stroke("KEY_Q"), Stroke("KEY_A", ("KEY_LEFTSHIFT",))], "")
        for on in (True, False):
            server.injector("key", "Caps_Lock")
            assert find_layout("", {"DISPLAY": server.display}).caps is on
            # A layout of the user's own doesn't tell of it.
            assert find_layout("de", {"DISPLAY": server.display})[:1] == ("de",)
            assert find_layout("de", {"DISPLAY": server.display}).caps is on
    finally:
        server.end_server()


@pytest.mark.x11
@pytest.mark.skipif(bool(XServer.missing()) or not shutil.which("setxkbmap"), reason="needs Xvfb and setxkbmap")
@pytest.mark.parametrize("name", ["us", "de", "de:neo", "ch:fr", "ru", "us:intl", "jp"])
def test_the_servers_own_keymap_says_what_the_names_say(name: str):
    layout = parse_layout(name, "the test")
    server = XServer()
    try:
        options = ["-layout", layout.layout, "-variant", layout.variant]
        subprocess.run(["setxkbmap", *options], env=server.environment, check=True)
        found = find_layout("", {"DISPLAY": server.display})
        assert found.keymap
        by_names, asked = Typist(layout), Typist(found)
        assert asked.legends == by_names.legends
        text = "".join(char for levels in by_names.levels.values() for char in levels[:3])
        assert asked.strokes(text) == by_names.strokes(text)
    finally:
        server.end_server()


def test_without_the_servers_keymap_its_names_count(monkeypatch: pytest.MonkeyPatch):
    if XServer.missing() or not shutil.which("setxkbmap"):
        pytest.skip("needs Xvfb and setxkbmap")
    server = XServer()
    try:
        subprocess.run(["setxkbmap", "ch,us", "fr,"], env=server.environment, check=True)
        monkeypatch.setattr("nakrel.backends.x11.keymap._libraries", lambda: ctypes.CDLL("libnothing.so.9"))
        assert find_layout("", {"DISPLAY": server.display})[:3] == ("ch", "fr", "the X server")
    finally:
        server.end_server()


def test_where_no_server_is_there_is_no_keymap():
    assert keymap_of(":987") == ""
