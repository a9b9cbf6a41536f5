"""Recordings of the standard Linux input tools in and out, and plans as VCD and CSV.

The formats: evemu's (evemu-format, evemu 2.7), `libinput record`'s (libinput-record(1), libinput 1.22, a YAML file),
and value change dumps (IEEE 1364-2005, clause 18).
"""

from __future__ import annotations

import csv
import io
import re
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from pathlib import Path
from typing import NamedTuple

from nakrel.core.edit.rows import rows
from nakrel.core.model.controls import CONTROLS, OPEN, OTHERS, POINTER, TEXT, Kind, by_number
from nakrel.core.model.errors import DataError
from nakrel.core.model.lengths import length_us
from nakrel.core.model.macro import Macro
from nakrel.core.model.runs import RunRecord
from nakrel.core.model.step_words import describe, number_text
from nakrel.core.model.steps import Branch, Note, Otherwise, Step
from nakrel.core.model.units import format_ms
from nakrel.core.play.events import Pressed, Released, Turned
from nakrel.core.play.recorder import Recorder
from nakrel.core.play.simulate import PlanRow
from nakrel.reading import NotReadable, read_limited
from nakrel.words import counted, tr

__all__ = [
    "WRITERS",
    "InputEvent",
    "events_csv",
    "left_out",
    "read_recording",
    "run_csv",
    "run_left_out",
    "run_vcd",
    "steps_csv",
    "to_evemu",
    "to_libinput",
    "to_vcd",
]

# A recording of an hour's play is a tenth of this.
MOST_BYTES = 64 * 1024 * 1024
MOST_STEPS = 200_000
# Lists and tables within each other in a recording; libinput's have eight.
_MOST_DEPTH = 30
_SYN, _KEY, _REL = 0, 1, 2
_WHEELS = {8: ("WHEEL_DOWN", "WHEEL_UP"), 6: ("WHEEL_LEFT", "WHEEL_RIGHT")}
_EVEMU_EVENT = re.compile(
    r"E:[ \t]*(\d{1,12})\.(\d{1,12})[ \t]+([0-9a-fA-F]{1,8})[ \t]+([0-9a-fA-F]{1,8})[ \t]+(-?\d{1,12})(?!\w)"
)
# What a virtual device is told of itself; evemu and libinput make such a device to play a recording.
_NAME = "Nakrel recording"
_ID = (6, 0, 1, 1)


_LIBINPUT_HEAD = """\
# {title}
version: 1
ndevices: 1
libinput:
  version: "1.22.1"
  git: "unknown"
system:
  os: "unknown"
  kernel: "unknown"
  dmi: "unknown"
devices:
- node: /dev/input/event0
  evdev:
    # Name: {name}
    name: "{name}"
    id: {id}
    codes:
{codes}    absinfo: {{}}
    properties: []
  hid: [ ]
  udev:
    properties: []
  quirks: []
  events:
"""


class InputEvent(NamedTuple):
    """An event of the kernel's: time in microseconds, type, code, value (linux/input-event-codes.h)."""

    at_us: int
    kind: int
    code: int
    value: int


# Reading


def read_recording(path: Path) -> list[Step]:
    """The steps of a recording by evemu, by `libinput record`, or of a table of events as CSV, told apart by what is in
    it.

    Raises `DataError` naming the file, the reason and what would help.
    """
    try:
        text = read_limited(path, MOST_BYTES).decode()
    except NotReadable as error:
        hint = tr("; record a shorter time") if error.too_large else ""
        raise DataError(f"{path}: {error}{hint}") from None
    except UnicodeDecodeError:
        raise DataError(
            tr("{path} is not text; it takes recordings of evemu-record and of libinput record").format(path=path)
        ) from None
    if text.startswith("time_us,control,value"):
        events = list(_csv_events(path, text))
    elif re.search(r"^[ \t]*devices:", text, re.MULTILINE):
        events = list(_libinput_events(path, text))
    elif _EVEMU_EVENT.search(text):
        events = list(_evemu_events(path, text))
    else:
        raise DataError(
            tr("{path} is no recording of evemu-record or libinput record: there is no event in it").format(path=path)
        )
    steps = _steps(events)
    if len(steps) > MOST_STEPS:
        raise DataError(
            tr("{path} makes {steps} steps, more than the {most} that a macro can have; cut it").format(
                path=path, steps=len(steps), most=MOST_STEPS
            )
        )
    return steps


def _csv_events(path: Path, text: str) -> Iterator[InputEvent]:
    """The events of a table with the columns time_us, control and value, as `events_csv` writes it."""
    for number, row in enumerate(_csv_rows(path, text), 2):
        known = CONTROLS.get(row.get("control") or "")
        if known is None and row.get("control") in OTHERS:
            continue
        try:
            if known is None:
                raise ValueError
            at_us, value = int(row["time_us"]), int(row["value"])
        except (TypeError, ValueError, KeyError):
            found = ",".join(str(each) for each in row.values())[:60]
            raise DataError(
                tr("{path}, line {number}: {found!r} is no event; it should read 1000,KEY_Q,1").format(
                    path=path, number=number, found=found
                )
            ) from None
        if known.kind is Kind.WHEEL:
            sign = 1 if known.code in ("WHEEL_UP", "WHEEL_RIGHT") else -1
            yield InputEvent(at_us, _REL, known.number, sign * value)
        else:
            yield InputEvent(at_us, _KEY, known.number, value)


def _csv_rows(path: Path, text: str) -> Iterator[dict[str, str]]:
    try:
        yield from csv.DictReader(io.StringIO(text))
    except csv.Error as error:
        raise DataError(tr("{path} is no proper table: {reason}").format(path=path, reason=error)) from None


def _evemu_events(path: Path, text: str) -> Iterator[InputEvent]:
    for number, line in enumerate(text.splitlines(), 1):
        if line.startswith("E:"):
            found = _EVEMU_EVENT.match(line)
            if not found:
                raise DataError(
                    tr("{path}, line {number}: {line!r} is no event; it should read E: 0.000001 0001 001e 0001").format(
                        path=path, number=number, line=line[:60]
                    )
                )
            seconds, micros, kind, code, value = found.groups()
            at_us = int(seconds) * 1_000_000 + int(micros[:6].ljust(6, "0"))
            yield InputEvent(at_us, int(kind, 16), int(code, 16), int(value))


def _libinput_events(path: Path, text: str) -> Iterator[InputEvent]:
    # Loaded here: it takes 15 ms, and few starts of the window need it.
    import yaml

    try:
        loader = getattr(yaml, "CSafeLoader", yaml.SafeLoader)
        depth = 0
        # Looked through before it is built: an alias may stand for more than any memory holds, and none is needed.
        for part in yaml.parse(text, Loader=loader):
            depth += isinstance(part, yaml.CollectionStartEvent) - isinstance(part, yaml.CollectionEndEvent)
            if isinstance(part, yaml.AliasEvent) or depth > _MOST_DEPTH:
                raise ValueError
        loaded = yaml.load(text, Loader=loader)
        found = [
            InputEvent(int(event[0]) * 1_000_000 + int(event[1]), *map(int, event[2:5]))
            for device in loaded["devices"]
            for entry in device.get("events") or ()
            for event in entry.get("evdev") or ()
        ]
    except yaml.YAMLError as error:
        raise DataError(
            tr("{path} is no proper YAML: {reason}").format(path=path, reason=str(error).splitlines()[0][:200])
        ) from None
    except (TypeError, KeyError, IndexError, ValueError, AttributeError, OverflowError, RecursionError):
        raise DataError(
            tr("{path} is not built like a recording of libinput record; was it edited?").format(path=path)
        ) from None
    yield from sorted(found, key=lambda event: event.at_us)


def _steps(events: Iterable[InputEvent]) -> list[Step]:
    recorder = Recorder()
    for at_us, kind, code, value in events:
        if kind == _REL and code in _WHEELS and value:
            recorder.feed(Turned(_WHEELS[code][value > 0], min(abs(value), 1_000)), at_us)
        elif kind == _KEY and value in (0, 1) and (control := by_number(code)):
            recorder.feed(Pressed(control.code) if value else Released(control.code), at_us)
    return list(recorder.finish())


# Writing


def _events(plan: Sequence[PlanRow]) -> Iterator[InputEvent]:
    for at_us, control, value, text in plan:
        if text:
            # A pointer on a screen, a text and a program are no events of this device.
            continue
        known = CONTROLS[control]
        if known.kind is Kind.WHEEL:
            sign = 1 if control in ("WHEEL_UP", "WHEEL_RIGHT") else -1
            yield InputEvent(at_us, _REL, known.number, sign * value)
        else:
            yield InputEvent(at_us, _KEY, known.number, value)
        yield InputEvent(at_us, _SYN, 0, 0)


def _codes(plan: Sequence[PlanRow]) -> dict[int, set[int]]:
    """The codes of each event type; a device with a wheel has a pointer's axes and button, or nobody reads it."""
    found: dict[int, set[int]] = {_SYN: {0}, _KEY: set(), _REL: set()}
    for _, control, _, text in plan:
        if text:
            continue
        known = CONTROLS[control]
        found[_REL if known.kind is Kind.WHEEL else _KEY].add(known.number)
    if found[_REL] or any(0x110 <= code < 0x120 for code in found[_KEY]):
        found[_REL] |= {0, 1}
        found[_KEY].add(0x110)
    return {kind: codes for kind, codes in found.items() if codes}


def left_out(form: str, plan: Sequence[PlanRow]) -> str:
    """What of the plan this form can't hold, in words; '' for nothing."""
    counts = Counter(row.control for row in plan if row.control in OTHERS)
    if not counts or form in ("csv", "events"):
        return ""
    told: list[str] = []
    if count := counts[POINTER]:
        told.append(counted(count, "{n} move of the pointer", "{n} moves of the pointer"))
    if count := counts[TEXT]:
        told.append(counted(count, "{n} text", "{n} texts"))
    if count := counts[OPEN]:
        told.append(counted(count, "{n} program", "{n} programs"))
    parts = ", ".join(told)
    if form == "vcd":
        return tr("Where to and what is left out of {parts}; a value change dump has only when.").format(parts=parts)
    return tr("Left out: {parts}; a device's recording has keys, buttons and the wheel alone.").format(parts=parts)


def to_evemu(macro: Macro, plan: Sequence[PlanRow]) -> str:
    """A recording that evemu-play plays on a device made by evemu-device."""
    out = ["# EVEMU 1.3", f"# {_one_line(macro.name)}", f"N: {_NAME}", "I: " + " ".join(f"{n:04x}" for n in _ID)]
    if missing := left_out("evemu", plan):
        out.insert(2, f"# {missing}")
    out.append("P: " + " ".join(["00"] * 8))
    for kind, codes in sorted(_codes(plan).items()):
        bits = bytearray(96 if kind == _KEY else 8)
        for code in codes:
            bits[code // 8] |= 1 << code % 8
        for start in range(0, len(bits), 8):
            out.append(f"B: {kind:02x} " + " ".join(f"{byte:02x}" for byte in bits[start : start + 8]))
    for at_us, kind, code, value in _events(plan):
        out.append(f"E: {at_us // 1_000_000}.{at_us % 1_000_000:06d} {kind:04x} {code:04x} {value:04d}")
    return "\n".join(out) + "\n"


def to_libinput(macro: Macro, plan: Sequence[PlanRow]) -> str:
    """A recording that `libinput replay` plays."""
    codes = "".join(f"      {kind}: {sorted(numbers)}\n" for kind, numbers in sorted(_codes(plan).items()))
    title = "\n# ".join(filter(None, (_one_line(macro.name), left_out("libinput", plan))))
    head = _LIBINPUT_HEAD.format(title=title, name=_NAME, id=list(_ID), codes=codes)
    out = [head]
    for at_us, kind, code, value in _events(plan):
        if kind != _SYN:
            out.append("  - evdev:\n")
        out.append(f"    - [{at_us // 1_000_000:3d}, {at_us % 1_000_000:6d}, {kind:3d}, {code:3d}, {value:7d}]\n")
    if len(out) == 1:
        out[0] = head.removesuffix("  events:\n") + "  events: []\n"
    return "".join(out)


def to_vcd(macro: Macro, plan: Sequence[PlanRow]) -> str:
    """A value change dump: a wire a control, 1 while it is down, and a number a wheel direction, its notches so far.

    Pointer, text and open steps are counted like notches.
    """
    return _vcd(macro.name, plan, left_out("vcd", plan))


def _vcd(name: str, plan: Sequence[PlanRow], missing: str) -> str:
    """The dump of these rows; a control may have a scope of its own before it, as in `sent KEY_Q`. `missing` says what
    isn't in it."""
    controls = list(dict.fromkeys(row.control for row in plan))
    marks = {control: _mark(n) for n, control in enumerate(controls)}
    wheel = {control for control in controls if _is_counted(control.rpartition(" ")[2])}
    scope = re.sub(r"\W+", "_", name) or "macro"
    out = [f"$comment {missing} $end"] if missing else []
    out += ["$version Nakrel $end", "$timescale 1 us $end", f"$scope module {scope} $end"]
    for inner in dict.fromkeys(control.rpartition(" ")[0] for control in controls):
        out += [f"$scope module {inner} $end"] if inner else []
        for control in controls:
            if control.rpartition(" ")[0] == inner:
                kind = "integer 32" if control in wheel else "wire 1"
                out.append(f"$var {kind} {marks[control]} {control.rpartition(' ')[2]} $end")
        out += ["$upscope $end"] if inner else []
    out += ["$upscope $end", "$enddefinitions $end", "#0", "$dumpvars"]
    out += [f"b0 {marks[control]}" if control in wheel else f"0{marks[control]}" for control in controls]
    out.append("$end")
    turned, now = dict.fromkeys(wheel, 0), 0
    for at_us, control, value, _ in plan:
        if at_us != now:
            out.append(f"#{at_us}")
            now = at_us
        if control in wheel:
            turned[control] += value
            out.append(f"b{turned[control]:b} {marks[control]}")
        else:
            out.append(f"{value}{marks[control]}")
    return "\n".join(out) + "\n"


def _is_counted(control: str) -> bool:
    return control in OTHERS or (control in CONTROLS and CONTROLS[control].kind is Kind.WHEEL)


def events_csv(macro: Macro, plan: Sequence[PlanRow]) -> str:
    """What is emitted, an event a line: when in microseconds, which control, down (1), up (0) or notches, and words
    where it is no event of a control."""
    return _table(("time_us", "control", "value", "words"), plan)


def steps_csv(macro: Macro, plan: Sequence[PlanRow]) -> str:
    """The macro's rows: section, depth, the step in words, its length in milliseconds, on or off, remark."""
    return _table(("section", "depth", "step", "length_ms", "on", "remark"), _step_rows(macro))


def _step_rows(macro: Macro) -> Iterator[tuple[object, ...]]:
    for section, step, _, _, depth in rows(macro):
        if isinstance(step, Branch):
            yield section.value, depth, f"option of weight {number_text(step.weight)}", "", 1, ""
        elif isinstance(step, Otherwise):
            yield section.value, depth, "otherwise", "", 1, ""
        else:
            text = "note" if isinstance(step, Note) else describe(step)
            remark = step.text if isinstance(step, Note) else step.remark
            yield section.value, depth, text, format_ms(length_us(step)), int(not step.off), remark


class _Lines(list[str]):
    """Rows of a table as the writer gives them, each ended by a line feed alone.

    The writer has to end them with a carriage return, too: before Python 3.13 it quotes only what is in its own line
    end, and readers take a bare carriage return for one.
    """

    def write(self, row: str) -> None:
        self.append(row.removesuffix("\r\n") + "\n")


def _table(header: Sequence[str], lines: Iterable[Sequence[object]]) -> str:
    """Comma-separated values, quoted where RFC 4180 asks for it."""
    out = _Lines()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(header)
    writer.writerows(lines)
    return "".join(out)


# Runs


def run_csv(record: RunRecord) -> str:
    """Each event of a run: control, value, when it was planned and when it went out, and how late that was, in
    microseconds since the run's beginning."""
    return _table(
        ("control", "value", "planned_us", "sent_us", "late_us"),
        ((each.control, each.value, each.due_us, each.at_us, each.at_us - each.due_us) for each in record.events),
    )


def run_vcd(macro: Macro, record: RunRecord) -> str:
    """A value change dump of a run, with two scopes: what was planned, and what was sent."""
    planned = [PlanRow(event.due_us, event.control, event.value) for event in record.events]
    sent = [PlanRow(event.at_us, event.control, event.value) for event in record.events]
    both = [
        *(row._replace(control=f"planned {row.control}") for row in planned),
        *(row._replace(control=f"sent {row.control}") for row in sent),
    ]
    return _vcd(macro.name, sorted(both, key=lambda row: row.time_us), run_left_out(record))


def run_left_out(record: RunRecord) -> str:
    """What of a long run isn't kept, in words; '' where all is."""
    if not record.left_out:
        return ""
    return tr(
        "Left out: {left_out} events in the middle; of a long run its first and its last events are kept."
    ).format(left_out=record.left_out)


def _mark(number: int) -> str:
    """A short name of printable characters, as VCD wants them."""
    text = ""
    while True:
        number, digit = divmod(number, 94)
        text += chr(33 + digit)
        if not number:
            return text


def _one_line(text: str) -> str:
    return " ".join(text.split())


WRITERS = {"vcd": to_vcd, "csv": steps_csv, "events": events_csv, "evemu": to_evemu, "libinput": to_libinput}
