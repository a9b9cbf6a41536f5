"""A part of a column under its heading, which folds it away; the window remembers what is folded."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from nakrel.ui.widgets.basics import button
from nakrel.words import tr

__all__ = ["Fold"]


class Fold(QWidget):
    """`content` under `title`; `extra` stands at the right of the heading. `folded` says how it is at first, and
    `remember` is told of each change."""

    def __init__(
        self,
        title: str,
        content: QWidget,
        *,
        folded: bool = False,
        remember: Callable[[bool], object] = lambda on: None,
        extra: QWidget | None = None,
    ) -> None:
        super().__init__()
        self._title, self.content, self._remember = title, content, remember
        self.head = button("", self.toggle, "fold")
        self.head.setCheckable(True)
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.head, 1)
        if extra is not None:
            row.addWidget(extra)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 6)
        layout.setSpacing(4)
        layout.addLayout(row)
        layout.addWidget(content)
        self._folded = folded
        self._show()

    @property
    def folded(self) -> bool:
        """Whether only the heading is seen."""
        return self._folded

    def set_title(self, title: str) -> None:
        """Call it this."""
        if title != self._title:
            self._title = title
            self._show()

    def toggle(self) -> None:
        """Fold it, or unfold it."""
        self._folded = not self._folded
        self._remember(self._folded)
        self._show()

    def _show(self) -> None:
        self.head.setText(f"{'▸' if self._folded else '▾'} {self._title}")
        self.head.setAccessibleName(
            (tr("{title}, folded") if self._folded else tr("{title}, unfolded")).format(title=self._title)
        )
        self.head.setChecked(not self._folded)
        self.content.setVisible(not self._folded)
