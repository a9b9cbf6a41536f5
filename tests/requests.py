"""Requests of every kind, and what can be wrong with them."""

from __future__ import annotations

import json
import random
from typing import Any

import msgspec

from nakrel import protocol as m
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import Profile, SetUp
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Press, Tap, Wait

__all__ = ["HOLD", "bodies", "broken"]

HOLD = Macro(id="hold", name="Hold", play=Play(Mode.TOGGLE), loop=(Press(control="KEY_W"), Wait(wait_us=500_000_000)))


def bodies() -> list[bytes]:
    """A body of every kind that changes nothing of what plays."""
    macro = Macro(id="m", name="M", loop=(Tap(control="KEY_Q", hold_us=5_000), Wait(wait_us=5_000)))
    profile = Profile(id="p", name="P", setups=(SetUp("Main", {"BTN_SIDE": RunMacro("m")}),))
    made = (
        *(m.Hello("fuzz", m.PROTOCOL), m.Hello("fuzz", 0), m.GetLibrary(), m.GetStatus(), m.GetDevices()),
        *(m.GetJournal(3), m.GetVersions("macro", "m"), m.GetVersions("profile"), m.PutMacro(macro)),
        *(m.DeleteMacro("m"), m.PutProfile(profile), m.DeleteProfile("p"), m.DeleteProfile("everyday")),
        *(m.ChangeSettings(SettingsPatch(layout="us")), m.Pin(""), m.Pin("nobody"), m.UseSetUp("everyday", "Main")),
        *(m.UseSetUp("everyday", "None"), m.UseStage(), m.GetRun("hold"), m.GetPlaces(), m.GetFacts(("a",), ("sh",))),
        *(m.StopRecording(), m.Listen(0), m.InFront(False), m.PressStandIn("none", "KEY_Q", 1), m.Play_("none")),
    )
    return [msgspec.json.encode(each) for each in made]


def broken(body: bytes, chance: random.Random) -> bytes:
    """A body with something wrong in it that leaves it JSON."""
    value: Any = json.loads(body)
    keys = [key for key in value if key != "is"]
    match chance.randrange(6):
        case 0:
            value["is"] = chance.choice(["Explode", "", "Library", 7])
        case 1 if keys:
            value[chance.choice(keys)] = chance.choice([None, 10**30, -1, [], {}, "\ud800", "x" * 20_000, "\0"])
        case 2 if keys:
            del value[chance.choice(keys)]
        case 3:
            value["surplus"] = 1
        case 4:
            value = chance.choice([None, 5, "GetStatus", [], [value], {"is": value}])
        case _:
            return b'{"is":"PutMacro","macro":%s%s}' % (b"[" * 2_000, b"]" * 2_000)
    return json.dumps(value).encode()
