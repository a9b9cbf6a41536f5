"""The documents inside the program: to read and to search, without a network."""

from __future__ import annotations

from typing import Any

from PyQt6.QtCore import Qt, QUrl
from PyQt6.QtGui import QImage, QTextCursor, QTextDocument
from PyQt6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QTextBrowser,
    QVBoxLayout,
    QWidget,
)

from nakrel.ui.help.documents import Document, Hit, anchor, document, documents, search
from nakrel.ui.widgets.basics import button, label
from nakrel.ui.widgets.search_field import SearchField
from nakrel.words import counted, tr

__all__ = ["Reader"]

_LIST_PX = 250
_MOST_PICTURE_PX = 560


class _Pages(QTextBrowser):
    """Shows documents; links between them work, and others lead nowhere."""

    def __init__(self) -> None:
        super().__init__()
        self.setOpenLinks(False)
        self.setAccessibleName(tr("Document"))
        self.anchorClicked.connect(self._follow)

    def show_document(self, document: Document) -> None:
        """Show a document from its beginning."""
        self.setSearchPaths([str(document.path.parent)])
        page = self.document()
        assert page
        page.setBaseUrl(QUrl.fromLocalFile(f"{document.path.parent}/"))
        self.setMarkdown(document.text)
        self.moveCursor(self.textCursor().MoveOperation.Start)

    def loadResource(self, kind: int, name: QUrl) -> Any:
        """Pictures no wider than the page."""
        found = super().loadResource(kind, name)
        if kind == QTextDocument.ResourceType.ImageResource.value:
            picture = QImage()
            if picture.loadFromData(found) and picture.width() > _MOST_PICTURE_PX:
                return picture.scaledToWidth(_MOST_PICTURE_PX, Qt.TransformationMode.SmoothTransformation)
        return found

    def _follow(self, link: QUrl) -> None:
        dialog = self.window()
        if isinstance(dialog, Reader):
            dialog.open_name(link.path().rpartition("/")[2])
            if link.fragment():
                self._go_to(link.fragment())

    def _go_to(self, wanted: str) -> None:
        """Show the heading of this anchor at the top."""
        page, bar = self.document(), self.verticalScrollBar()
        block = page.begin() if page else None
        while block is not None and block.isValid():
            if block.blockFormat().headingLevel() and anchor(block.text()) == wanted:
                cursor = QTextCursor(block)
                self.setTextCursor(cursor)
                if bar:
                    bar.setValue(bar.value() + self.cursorRect(cursor).top())
                return
            block = block.next()


class Reader(QDialog):
    """The list of documents, or what was found in them, beside the one that is read."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Help"))
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.resize(960, 640)
        self._documents = documents()
        self.field = SearchField(tr("Search the documents"))
        self.list, self.pages = QListWidget(), _Pages()
        self.list.setAccessibleName(tr("Documents"))
        self.list.setFixedWidth(_LIST_PX)
        self.list.setWordWrap(True)
        self.list.setSpacing(4)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.count = label("", "soft")
        left = QVBoxLayout()
        left.addWidget(self.field)
        left.addWidget(self.count)
        left.addWidget(self.list, 1)
        body = QHBoxLayout()
        body.addLayout(left)
        body.addWidget(self.pages, 1)
        layout = QVBoxLayout(self)
        layout.addLayout(body, 1)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(button(tr("Close"), self.accept))
        layout.addLayout(row)
        self.field.textChanged.connect(self._search)
        self.list.currentItemChanged.connect(lambda now, before: self._open(now))
        self._search("")
        self.field.lead_to(self.list)
        self.field.setFocus()

    def open_name(self, name: str) -> None:
        """Show the document of this file name."""
        for row in range(self.list.count()):
            item = self.list.item(row)
            found = item.data(Qt.ItemDataRole.UserRole) if item else None
            if isinstance(found, Document) and found.path.name == name:
                self.list.setCurrentRow(row)
                return
        # The list may have what was searched for; and some, such as the figures, are never in it.
        if found := document(name.removesuffix(".md")):
            self.pages.show_document(found)

    def _search(self, wanted: str) -> None:
        self.list.clear()
        if not wanted.strip():
            self.count.setText(tr("{count} documents").format(count=len(self._documents)))
            for document in self._documents:
                self._add(document.title, document)
            self.list.setCurrentRow(0)
            return
        hits = search(self._documents, wanted)
        self.count.setText(counted(len(hits), "{n} place", "{n} places"))
        for hit in hits:
            text = hit.line if len(hit.line) < 110 else f"{hit.line[:108]}…"
            place = dict.fromkeys((hit.document.title, hit.heading))
            self._add(" · ".join(place) if hit.heading == hit.line else f"{' · '.join(place)}\n{text}", hit)
        if hits:
            self.list.setCurrentRow(0)

    def _add(self, text: str, what: Document | Hit) -> None:
        item = QListWidgetItem(text)
        item.setData(Qt.ItemDataRole.UserRole, what)
        self.list.addItem(item)

    def _open(self, item: QListWidgetItem | None) -> None:
        found = item.data(Qt.ItemDataRole.UserRole) if item else None
        if isinstance(found, Document):
            self.pages.show_document(found)
        elif isinstance(found, Hit):
            self.pages.show_document(found.document)
            # What stands in several columns of a table is found by its beginning.
            for part in (found.line, found.line[:40], self.field.text()):
                if self.pages.find(part):
                    break
