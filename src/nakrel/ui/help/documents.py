"""The user's documents, as they come with the program, and searching them."""

from __future__ import annotations

import re
from pathlib import Path
from typing import NamedTuple

import nakrel
from nakrel.words import language

__all__ = ["Document", "Hit", "NAMES", "anchor", "document", "documents", "search"]

# Those for users, in the order in which they are read.
NAMES = (
    "first-macro", "questions", "profiles", "devices", "permissions", "measuring", "command-line", "notation",
    "formats",
)  # fmt: skip
_MOST_HITS = 40
_SIGNS = re.compile(r"[*`_|#>]|\[|\]\([^)]*\)|!\[[^\]]*\]\([^)]*\)")


class Document(NamedTuple):
    """One document: its title, where it is, and its text as Markdown."""

    title: str
    path: Path
    text: str


class Hit(NamedTuple):
    """A line that was searched for: its document, the heading that it stands under, and what it says."""

    document: Document
    heading: str
    line: str


def _folder() -> Path:
    """What was installed has them inside; a checkout beside the sources."""
    inside = Path(nakrel.__file__).parent / "docs"
    return inside if inside.is_dir() else Path(nakrel.__file__).parents[2] / "docs"


def documents() -> list[Document]:
    """All of them, each in the language in use where it is there, in the order in which they are read."""
    return [found for name in NAMES if (found := document(name))]


def document(name: str) -> Document | None:
    """The document of this name, in the language in use, else in English; None where there is none."""
    folder = _folder()
    for path in (folder / language() / f"{name}.md", folder / f"{name}.md"):
        if path.is_file():
            text = path.read_text(encoding="utf-8")
            title = text.lstrip().partition("\n")[0].lstrip("# ").strip() or name
            return Document(title, path, text)
    return None


def anchor(heading: str) -> str:
    """The name by which a link leads to a heading, as web sites that show Markdown make it."""
    return re.sub(r"[^\w\- ]", "", heading.strip().lower()).replace(" ", "-")


def plain(line: str) -> str:
    """A line of Markdown as it reads."""
    return " ".join(_SIGNS.sub("", line).split())


def search(within: list[Document], wanted: str) -> list[Hit]:
    """The lines that have all of the words in them, in any case of letters; headings come before what stands under
    others."""
    words = wanted.casefold().split()
    hits: list[tuple[int, Hit]] = []
    for document in within if words else ():
        heading = document.title
        for line in document.text.splitlines():
            title = line.startswith("#")
            if title:
                heading = plain(line)
            text = plain(line)
            if all(word in text.casefold() for word in words):
                hits.append((0 if title else 1, Hit(document, heading, text)))
    hits.sort(key=lambda each: each[0])
    return [hit for _, hit in hits[:_MOST_HITS]]
