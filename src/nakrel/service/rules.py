"""The permissions that the kernel's input needs, and the script that gives them."""

from __future__ import annotations

__all__ = [
    "MODULES_PATH",
    "PACKAGED_QUIRKS",
    "PACKAGED_RULES",
    "QUIRKS_PATH",
    "RULES",
    "RULES_PATH",
    "fix_script",
    "take_back_script",
]

RULES_PATH = "/etc/udev/rules.d/70-nakrel.rules"
# Where a package of the system puts them.
PACKAGED_RULES, PACKAGED_QUIRKS = "/usr/lib/udev/rules.d/70-nakrel.rules", "/usr/share/libinput/60-nakrel.quirks"
MODULES_PATH = "/etc/modules-load.d/nakrel.conf"
# The number must be below 73, where the device manager hands devices with this tag to the user at the seat
# (systemd's 73-seat-late.rules). What the system knows of mice, such as their resolution, by which desktops reckon how
# fast they are, it looks up for those on a bus alone (systemd's 70-mouse.rules; 3 and 5 are the kernel's numbers of the
# busses), and a virtual one is on none.
_TWIN = (
    'KERNEL=="event*", SUBSYSTEM=="input", ENV{{ID_INPUT_MOUSE}}=="1", '
    'KERNELS=="input*", ATTRS{{phys}}=="nakrel/*", ATTRS{{id/bustype}}=="{number}", '
    """IMPORT{{builtin}}="hwdb 'mouse:{bus}:v$attr{{id/vendor}}p$attr{{id/product}}:name:$attr{{name}}:'"\n"""
)
RULES = """\
# Nakrel: the user who sits at this machine may read its keyboards and mice and make virtual ones.
KERNEL=="uinput", SUBSYSTEM=="misc", OPTIONS+="static_node=uinput", TAG+="uaccess"
KERNEL=="event*", SUBSYSTEM=="input", ENV{ID_INPUT_KEYBOARD}=="1", TAG+="uaccess"
KERNEL=="event*", SUBSYSTEM=="input", ENV{ID_INPUT_KEY}=="1", TAG+="uaccess"
KERNEL=="event*", SUBSYSTEM=="input", ENV{ID_INPUT_MOUSE}=="1", TAG+="uaccess"
# A mouse that is captured is as fast as otherwise: what the system knows of it counts for its virtual twin.
""" + "".join(_TWIN.format(number=number, bus=bus) for number, bus in (("0003", "usb"), ("0005", "bluetooth")))
# libinput, which most desktops read their devices through, takes a button that goes up and down within 25 ms for a worn
# switch and leaves such clicks out. With this model it doesn't, for our device alone. It reads the file when the
# desktop starts.
QUIRKS_PATH = "/etc/libinput/local-overrides.quirks"
QUIRKS = """\
[Nakrel]
MatchName=Nakrel keyboard and mouse
ModelBouncingKeys=1
"""


def fix_script() -> str:
    """A shell script, to be run as root, that installs all this, loads the module and applies the rules at once."""
    return f"""\
set -e
mkdir -p /etc/udev/rules.d /etc/modules-load.d /etc/libinput
cat > {RULES_PATH} <<'END'
{RULES}END
echo uinput > {MODULES_PATH}
grep -qs '^.Nakrel.$' {QUIRKS_PATH} || cat >> {QUIRKS_PATH} <<'END'
{QUIRKS}END
modprobe uinput || true
udevadm control --reload
udevadm trigger --action=change --subsystem-match=input --subsystem-match=misc
udevadm settle --timeout=10
"""


def take_back_script() -> str:
    """A shell script, to be run as root, that removes what the other one installed, and nothing else of these files."""
    return f"""\
set -e
rm -f {RULES_PATH} {MODULES_PATH}
if [ -f {QUIRKS_PATH} ]; then
    sed -i '/^.Nakrel.$/,/^ModelBouncingKeys=1$/d' {QUIRKS_PATH}
    [ -s {QUIRKS_PATH} ] || rm -f {QUIRKS_PATH}
fi
udevadm control --reload
udevadm trigger --action=change --subsystem-match=input --subsystem-match=misc
udevadm settle --timeout=10
"""
