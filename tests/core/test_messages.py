"""Messages: what one end says, the other end reads, and nothing else."""

from __future__ import annotations

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel import protocol as m
from nakrel.core.model.recording import RecordingSettings, Waits
from nakrel.core.model.settings import Settings, WindowState
from tests.strategies import ids, macros, plays, profiles, steps

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
settings = st.builds(Settings, texts, texts, texts, looks, st.booleans(), layouts, routes, shown)

requests = st.one_of(
    st.builds(m.Hello, texts, numbers),
    st.builds(m.Subscribe, st.booleans()),
    st.sampled_from([m.GetLibrary(), m.GetStatus(), m.GetDevices(), m.GetPrograms(), m.Shutdown()]),
    st.builds(m.StartRecording, routes),
    st.sampled_from([m.GetChecks(), m.ChooseRoute()]),
    st.builds(m.GetRun, ids),
    st.builds(m.GetPrograms, st.booleans()),
    st.builds(m.GetApplications, texts),
    st.builds(m.GetVersions, st.sampled_from(["profile", "macro"]), ids | st.just("")),
    st.builds(m.UseSetUp, ids, texts),
    st.builds(m.UseStage, texts, st.sampled_from([-1, 1])),
    st.builds(m.GetPlaces, texts),
    st.builds(m.GetFacts, *[st.lists(texts, max_size=3).map(tuple)] * 3),
    st.builds(m.PutSecret, texts.filter(bool), texts),
    st.builds(m.GetJournal, st.integers(1, 10_000)),
    st.builds(m.PutMacro, macros),
    st.builds(m.DeleteMacro, ids),
    st.builds(m.PutProfile, profiles),
    st.builds(m.DeleteProfile, ids),
    st.builds(m.PutSettings, settings),
    st.builds(m.Pin, texts),
    st.builds(m.Play_, ids, st.none() | plays()),
    st.builds(m.TypeText, texts.filter(bool), st.integers(1, 250)),
    st.builds(m.Stop, texts),
    st.builds(m.StopRecording, st.lists(texts, max_size=3).map(tuple)),
    st.builds(m.Listen, st.integers(0, 60)),
    st.builds(m.InFront, st.booleans()),
    st.builds(m.PressStandIn, texts, texts, st.integers(0, 100)),
)
notices = st.one_of(
    st.builds(m.StatusIs, statuses),
    st.builds(m.Journal, st.lists(entries, max_size=3).map(tuple)),
    st.builds(m.Recorded, st.lists(steps(), max_size=4).map(tuple), st.booleans(), st.integers(0, 99)),
    st.builds(m.MacroChanged, ids, st.none() | macros),
    st.builds(m.ProfileChanged, ids, st.none() | profiles),
    st.builds(m.SettingsChanged, settings),
    st.builds(m.Seen, st.lists(seen, max_size=4).map(tuple), st.integers(0, 9)),
    st.builds(m.Fault, texts),
)


@given(st.integers(0, 2**53), requests)
def test_requests_are_read_as_they_were_sent(number: int, body: m.Body):
    line = msgspec.json.encode(m.Request(number, body))
    assert b"\n" not in line
    assert msgspec.json.decode(line, type=m.Request) == m.Request(number, body)


@given(notices)
def test_notices_are_read_as_they_were_sent(notice: m.Notice):
    line = msgspec.json.encode(m.Note(notice))
    assert b"\n" not in line
    assert line.startswith(b'{"notice"')
    assert msgspec.json.decode(line, type=m.Note) == m.Note(notice)


def test_every_request_has_a_case_above():
    made = {type(example) for example in (m.GetLibrary(), m.GetStatus(), m.GetDevices(), m.GetPrograms())}
    made |= {m.StartRecording, m.Shutdown, m.Hello, m.Subscribe, m.GetJournal, m.PutMacro, m.DeleteMacro, m.PutProfile}
    made |= {
        m.DeleteProfile,
        m.PutSettings,
        m.Pin,
        m.Play_,
        m.TypeText,
        m.GetChecks,
        m.ChooseRoute,
        m.GetRun,
        m.GetApplications,
        m.GetVersions,
        m.UseSetUp,
        m.UseStage,
        m.GetPlaces,
        m.GetFacts,
        m.PutSecret,
        m.Stop,
        m.StopRecording,
        m.Listen,
        m.InFront,
        m.PressStandIn,
    }
    assert made == set(m.Body.__args__)


@pytest.mark.parametrize(
    "line",
    [
        b'{"id": 1, "body": {"is": "Listen", "seconds": 61}}',
        b'{"id": 1, "body": {"is": "GetJournal", "count": 0}}',
        b'{"id": 1, "body": {"is": "Pin", "profile": "x", "more": 1}}',
        b'{"id": "1", "body": {"is": "GetStatus"}}',
        b'{"id": 1, "body": {"is": "DeleteMacro", "id": "../x"}}',
        b'{"id": 1, "body": {"is": "PutSettings", "settings": {"layout": "de; rm"}}}',
        b"[" * 100_000,
    ],
)
def test_what_is_out_of_bounds_is_refused(line: bytes):
    with pytest.raises((msgspec.DecodeError, RecursionError)):
        msgspec.json.decode(line, type=m.Request)
