"""The keys that always work: to stop everything, and to begin and end a recording in a game."""

from __future__ import annotations

from functools import partial

from PyQt6.QtWidgets import QGridLayout, QWidget

from nakrel.core.model.controls import KNOWN, Kind
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.settings import SettingsPatch
from nakrel.ui import commands
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label
from nakrel.ui.widgets.capture import Capture
from nakrel.words import tr

__all__ = ["KeySettings"]

_KEYS = (
    ("stop_key", tr("Stop everything"), tr("ends all macros, whatever is in front"), False),
    (
        "record_key",
        tr("Begin a recording in a game"),
        tr("into the macro that the window shows; the same key ends it"),
        True,
    ),
    ("record_stop_key", tr("End a recording"), tr("works in every window"), False),
)


class KeySettings(QWidget):
    """A row a key: what it is for, which one it is, and a way to choose another by pressing it."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._store = store
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setColumnStretch(4, 1)
        self.shown = {field: label("", "heading") for field, *_ in _KEYS}
        self.buttons = {}
        self._asking = ""
        self.capture = Capture(store)
        for row, (field, text, says, may_be_none) in enumerate(_KEYS):
            grid.addWidget(label(text), row, 0)
            grid.addWidget(self.shown[field], row, 1)
            self.buttons[field] = made = button(tr("Press to choose"), partial(self._ask, field))
            made.setAccessibleName(tr("Press to choose the key: {value}").format(value=text))
            grid.addWidget(made, row, 2)
            if may_be_none:
                none = button(tr("no key"), partial(self._set, field, ""), "link")
                none.setAccessibleName(tr("No key: {value}").format(value=text))
                grid.addWidget(none, row, 3)
            grid.addWidget(label(says, "soft", wrap=True), row, 4)
        grid.addWidget(self.capture, len(_KEYS), 0, 1, 5)
        self._said = label("", "alarm", wrap=True)
        grid.addWidget(self._said, len(_KEYS) + 1, 0, 1, 5)
        self.capture.captured.connect(lambda code: self._set(self._asking, code))
        store.settings_changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show the keys as they are set."""
        for field, shown in self.shown.items():
            code = getattr(self._store.settings, field)
            shown.setText(control_label(code) if code else tr("none"))

    def _ask(self, field: str) -> None:
        self._asking = field
        self._said.setText("")
        self.capture.arm()

    def _set(self, field: str, code: str) -> None:
        settings = self._store.settings
        others = {getattr(settings, other): text for other, text, *_ in _KEYS if other != field}
        known = KNOWN.get(code)
        if code and (known is None or known.kind is Kind.WHEEL or code in ("BTN_LEFT", "BTN_RIGHT")):
            self._said.setText(tr("Take a key, or a button that the window isn't worked with."))
        elif code and code in others and "stop_key" in (field, *(f for f, *_ in _KEYS if getattr(settings, f) == code)):
            self._said.setText(tr("{button} is taken: {value}.").format(button=control_label(code), value=others[code]))
        else:
            self._said.setText("")
            patch = {field: code}
            commands.change_settings(self._store, tr("a key of Nakrel"), SettingsPatch(**patch))  # type: ignore[arg-type]
