"""The line of messages under the head: what went wrong just now, what isn't saved, and where macros reach nothing."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QHBoxLayout, QWidget

from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, restyle
from nakrel.ui.widgets.elided import Elided
from nakrel.words import sentence, tr

__all__ = ["Messages"]

# How long a message stays before it goes by itself; the journal keeps it.
_STAYS_MS = 20_000
_LINE_PX = 24


class Messages(QWidget):
    """A message goes after a while, or when it is taken away; one that speaks of what is shown goes with that. What
    isn't saved stays until it is, and so does word of a service that reaches no program."""

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self._message = ""
        # What was shown when the message came, where it speaks of that.
        self._of: object = None
        self.text = Elided("alarm")
        self.dismiss = button("×", lambda: self.tell(""), "link", tr("Take the message away"))
        self.dismiss.setAccessibleName(tr("Take the message away"))
        self.action = button("", self._act, "link")
        self._does: Callable[[], object] | None = None
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.text, 1)
        layout.addWidget(self.action)
        layout.addWidget(self.dismiss)
        # Its line is there whether it says anything or not: a message moves nothing.
        self.setFixedHeight(_LINE_PX)
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(lambda: self.tell(""))
        store.alarm.connect(self.tell)
        store.fault.connect(self._tell_of_shown)
        store.offer.connect(self._offer)
        store.shut_down.say.connect(self._stay)
        store.saving_changed.connect(self._show)
        store.status_changed.connect(self._show)
        for signal in (shown.page_changed, shown.profile_changed, shown.macro_changed):
            signal.connect(self._forget)
        self.tell(" ".join(store.faults))

    def tell(self, message: str) -> None:
        """Show a message for a while; '' takes it away."""
        # Errors, the service's and our own, begin small: they often stand within other texts.
        self._message, self._of, self._does = sentence(message), None, None
        if message:
            self._timer.start(_STAYS_MS)
        self._show()

    def _tell_of_shown(self, message: str) -> None:
        self.tell(message)
        self._of = self._subject()

    def _offer(self, message: str, text: str, does: Callable[[], object]) -> None:
        self._tell_of_shown(message)
        self._does = does
        self.action.setText(text)
        self._show()

    def _stay(self, message: str, text: str, does: Callable[[], object]) -> None:
        self._offer(message, text, does)
        self._timer.stop()
        self._of = None

    def _act(self) -> None:
        does = self._does
        self.tell("")
        if does is not None:
            does()

    def _forget(self) -> None:
        if self._of is not None and self._of != self._subject():
            self.tell("")

    def _subject(self) -> object:
        profile, macro = self._shown.profile, self._shown.macro
        return self._shown.page, profile and profile.id, macro and macro.id

    def _show(self) -> None:
        not_saved, status = self._store.not_saved, self._store.status
        # The service tells every window of what couldn't be saved; the one whose edit it is has its reason already.
        known = self._message.rstrip(".") in not_saved
        lines = "\n".join(filter(None, ("" if known else self._message, not_saved, status.warning)))
        self.text.set_text(lines)
        self.action.setVisible(self._does is not None and bool(self._message))
        restyle(self.text, "soft" if self._does is not None else "alarm")
        self.dismiss.setVisible(bool(self._message) and not known)
