"""Messages: what one end says, the other end reads, and nothing else."""

from __future__ import annotations

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel import protocol as m
from nakrel.core.model.cues import Cue
from nakrel.core.model.programs import Program
from nakrel.core.model.recording import RecordingSettings, Waits
from nakrel.core.model.settings import Settings, SettingsPatch, WindowState
from nakrel.core.model.tuning import Question, Target, Trial, Tuning
from nakrel.protocol.wire import decode_body, decode_head, encode_line
from tests.strategies import SWITCHES, ids, macros, names, plays, profiles, remarks, steps, waits_us

texts = st.text(st.characters(exclude_categories=["Cs"]), max_size=20)
numbers = st.integers(-(2**62), 2**62)
statuses = st.builds(
    m.Status, texts, texts, st.floats(0, 1e10), texts, texts, texts, recording=st.booleans(), listening=st.booleans()
)
entries = st.builds(m.Entry, st.floats(0, 1e10), texts, texts, texts)
seen = st.builds(m.SeenEvent, texts, texts, numbers, numbers)
looks = st.sampled_from(["system", "light", "night"])
shown = st.builds(WindowState, texts, texts, texts)
layouts = st.from_regex(r"[a-z]{2}(:[a-z]+)?|", fullmatch=True)
routes = st.builds(RecordingSettings, st.booleans(), st.booleans(), st.booleans(), st.sampled_from(Waits))
bounces = st.dictionaries(
    names, st.dictionaries(st.sampled_from(SWITCHES), st.integers(0, 50_000), max_size=2), max_size=2
)
settings = st.builds(Settings, texts, texts, texts, looks, st.booleans(), layouts, routes, shown, debounce=bounces)

patches = st.builds(SettingsPatch.between, settings, settings)
tunings = st.builds(
    Tuning,
    st.builds(Question, st.integers(0, 1_000), st.integers(2_000, 9_000), st.floats(0.5, 0.999)),
    st.sampled_from(Target),
    st.integers(0, 99),
    trials=st.lists(st.builds(Trial, waits_us, st.booleans()), max_size=3).map(tuple),
)
by_kind = {
    m.Hello: st.builds(m.Hello, texts, numbers),
    m.Subscribe: st.builds(m.Subscribe, st.booleans()),
    m.GetLibrary: st.builds(m.GetLibrary),
    m.GetStatus: st.builds(m.GetStatus),
    m.GetBatteries: st.builds(m.GetBatteries),
    m.GetDevices: st.builds(m.GetDevices),
    m.GetChecks: st.builds(m.GetChecks),
    m.ChooseRoute: st.builds(m.ChooseRoute),
    m.GetPrograms: st.builds(m.GetPrograms, st.booleans()),
    m.GetApplications: st.builds(m.GetApplications, texts),
    m.GetLegends: st.builds(m.GetLegends, st.sampled_from(["", "de", "us:intl"])),
    m.GetTuning: st.builds(m.GetTuning, ids),
    m.PutTuning: st.builds(m.PutTuning, ids, st.none() | tunings),
    m.TryMacro: st.builds(m.TryMacro, macros, st.lists(st.sampled_from(SWITCHES), max_size=2).map(tuple)),
    m.EndTrial: st.builds(m.EndTrial, remarks),
    m.Judge: st.builds(m.Judge, st.booleans()),
    m.MeasureMotion: st.builds(m.MeasureMotion, texts, st.integers(1, 10)),
    m.AddTake: st.builds(m.AddTake, ids, st.lists(steps(), max_size=3).map(tuple)),
    m.GetTakes: st.builds(m.GetTakes, ids),
    m.GetVersions: st.builds(m.GetVersions, st.sampled_from(["profile", "macro"]), ids | st.just("")),
    m.GetJournal: st.builds(m.GetJournal, st.integers(1, 10_000)),
    m.PutMacro: st.builds(m.PutMacro, macros),
    m.DeleteMacro: st.builds(m.DeleteMacro, ids),
    m.PutProfile: st.builds(m.PutProfile, profiles),
    m.DeleteProfile: st.builds(m.DeleteProfile, ids),
    m.ChangeSettings: st.builds(m.ChangeSettings, patches),
    m.Pin: st.builds(m.Pin, texts),
    m.UseSetUp: st.builds(m.UseSetUp, ids, texts),
    m.UseStage: st.builds(m.UseStage, texts, st.sampled_from([-1, 1])),
    m.Play_: st.builds(m.Play_, ids, st.none() | plays()),
    m.TypeText: st.builds(m.TypeText, texts.filter(bool), st.integers(1, 250)),
    m.GetRun: st.builds(m.GetRun, ids),
    m.GetPlaces: st.builds(m.GetPlaces, texts),
    m.GetFacts: st.builds(m.GetFacts, *[st.lists(texts, max_size=3).map(tuple)] * 3),
    m.PutSecret: st.builds(m.PutSecret, texts.filter(bool), texts),
    m.Stop: st.builds(m.Stop, texts),
    m.StartRecording: st.builds(m.StartRecording, routes, st.lists(texts, max_size=3).map(tuple)),
    m.StopRecording: st.builds(m.StopRecording, st.lists(texts, max_size=3).map(tuple)),
    m.Listen: st.builds(m.Listen, st.integers(0, 60)),
    m.InFront: st.builds(m.InFront, st.booleans()),
    m.PressStandIn: st.builds(m.PressStandIn, texts, texts, st.integers(0, 100)),
    m.ServeSession: st.builds(m.ServeSession, texts, texts),
    m.OpenWindow: st.builds(m.OpenWindow, st.lists(texts, max_size=2).map(tuple), st.booleans(), texts),
    m.TryCue: st.builds(m.TryCue, st.sampled_from(Cue)),
    m.Shutdown: st.builds(m.Shutdown),
}
requests = st.one_of(*by_kind.values())
notices = st.one_of(
    st.builds(m.StatusIs, statuses),
    st.builds(m.Journal, st.lists(entries, max_size=3).map(tuple)),
    st.builds(m.Recorded, st.lists(steps(), max_size=4).map(tuple), st.booleans(), st.integers(0, 99)),
    st.builds(m.MacroChanged, ids, st.none() | macros),
    st.builds(m.ProfileChanged, ids, st.none() | profiles),
    st.builds(m.SettingsChanged, settings),
    st.builds(m.Seen, st.lists(seen, max_size=4).map(tuple), st.integers(0, 9)),
    st.builds(m.Judged, st.booleans()),
    st.builds(m.WindowAsked, st.lists(texts, max_size=2).map(tuple), st.booleans(), texts),
    st.builds(m.ShutDown),
    st.builds(m.Fault, texts),
)


@given(st.integers(0, 2**53), requests)
def test_requests_are_read_as_they_were_sent(number: int, body: m.Body):
    line = msgspec.json.encode(m.Request(number, body))
    assert b"\n" not in line
    assert msgspec.json.decode(line, type=m.Request) == m.Request(number, body)


@given(st.integers(1, 2**53 - 1), requests)
def test_a_request_is_read_in_two_steps_as_in_one(number: int, body: m.Body):
    line = encode_line(m.Request(number, body)).rstrip(b"\n")
    told, raw = decode_head(line)
    assert (told, decode_body(raw, msgspec.json.Decoder(m.Body))) == (number, body)


@given(settings, settings, patches)
def test_a_change_of_settings_leaves_all_others_as_they_are(before: Settings, after: Settings, other: SettingsPatch):
    patch = SettingsPatch.between(before, after)
    assert patch.applied_to(before) == after
    back = SettingsPatch.between(after, before)
    meanwhile = other.applied_to(patch.applied_to(before))
    undone = back.applied_to(meanwhile)
    for name in Settings.__struct_fields__:
        touched = getattr(patch, name) is not msgspec.UNSET
        assert getattr(undone, name) == getattr(before if touched else meanwhile, name)
    assert patch.then(other).applied_to(before) == meanwhile


@pytest.mark.parametrize(
    "whole", [m.Answer(1, m.Refused("caf\udce9.json is damaged")), m.Note(m.Fault("caf\udce9.json"))]
)
def test_what_is_told_of_a_name_that_is_no_utf_8_is_not_kept_back(whole: m.Answer | m.Note):
    line = encode_line(whole)
    assert "caf\ufffd.json" in line.decode()
    assert msgspec.json.decode(line, type=type(whole))


def test_names_that_are_not_utf_8_are_told_with_replacement_characters():
    program = Program(1, "caf\udce9.exe", command=("caf\udce9.exe", "\ud800"))
    line = encode_line(m.Answer(3, m.Programs((program,))))
    told = msgspec.json.decode(line, type=m.Answer).body.programs[0]
    assert (told.name, told.command) == ("caf\ufffd.exe", ("caf\ufffd.exe", "\ufffd"))


@given(notices)
def test_notices_are_read_as_they_were_sent(notice: m.Notice):
    line = msgspec.json.encode(m.Note(notice))
    assert b"\n" not in line
    assert line.startswith(b'{"notice"')
    assert msgspec.json.decode(line, type=m.Note) == m.Note(notice)


def test_every_request_has_a_case_above():
    assert set(by_kind) == set(m.Body.__args__)


@given(st.data())
def test_each_case_makes_what_it_says(data: st.DataObject):
    kind = data.draw(st.sampled_from(list(by_kind)))
    assert type(data.draw(by_kind[kind])) is kind


@pytest.mark.parametrize(
    "line",
    [
        b'{"id": 1, "body": {"is": "Listen", "seconds": 61}}',
        b'{"id": 1, "body": {"is": "GetJournal", "count": 0}}',
        b'{"id": 1, "body": {"is": "Pin", "profile": "x", "more": 1}}',
        b'{"id": "1", "body": {"is": "GetStatus"}}',
        b'{"id": 1, "body": {"is": "DeleteMacro", "id": "../x"}}',
        b'{"id": 1, "body": {"is": "ChangeSettings", "patch": {"layout": "de; rm"}}}',
        b"[" * 100_000,
    ],
)
def test_what_is_out_of_bounds_is_refused(line: bytes):
    with pytest.raises((msgspec.DecodeError, RecursionError)):
        msgspec.json.decode(line, type=m.Request)
