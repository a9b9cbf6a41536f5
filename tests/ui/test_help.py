"""Help: the documents in the window, a report that keeps names to itself, and what the program is."""

from __future__ import annotations

import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from PyQt6.QtCore import QUrl
from PyQt6.QtWidgets import QApplication, QLabel

import nakrel
from nakrel import language, words
from nakrel.core.model.profile import MatchBy, Profile, ProgramRule
from nakrel.ui.help.about import About
from nakrel.ui.help.documents import NAMES, anchor, documents, plain, search
from nakrel.ui.help.reader import Reader
from nakrel.ui.help.report import Report
from tests.ui.conftest import Ui


def listed(reader: Reader) -> list[str]:
    return [reader.list.item(row).text() for row in range(reader.list.count())]


DOCS = Path(__file__).parents[2] / "docs"
LANGUAGES = sorted(path.name for path in DOCS.iterdir() if len(path.name) == 2)


@pytest.fixture(params=["en", *LANGUAGES])
def in_language(request: pytest.FixtureRequest) -> Iterator[str]:
    words.install(lambda text, about, count: None, request.param, words.Marks())
    yield request.param
    words.install(lambda text, about, count: None, "en", words.Marks())


def test_every_language_of_the_window_has_all_documents():
    assert sorted(path.stem.removeprefix("nakrel_") for path in language.FOLDER.glob("*.qm")) == LANGUAGES
    for each in (DOCS, *(DOCS / name for name in LANGUAGES)):
        assert {path.stem for path in each.glob("*.md")} - {"figures"} == set(NAMES)


def test_all_documents_are_there_and_every_link_between_them_leads_somewhere(in_language: str):
    found = {each.path.name: each for each in documents()}
    assert [name.removesuffix(".md") for name in found] == list(NAMES)
    headings = {name: {anchor(plain(line)) for line in each.text.splitlines() if line.startswith("#")}
                for name, each in found.items()}  # fmt: skip
    for each in found.values():
        assert (each.path.parent.name == in_language) == (in_language != "en")
        for link, place in re.findall(r"\]\(([^)#]*)(?:#([^)]*))?\)", each.text):
            if not link.startswith("http"):
                assert (each.path.parent / link).exists(), (each.path.name, link)
                assert not place or place in headings[Path(link).name], (each.path.name, link, place)


def _bones(text: str) -> tuple[object, ...]:
    """What is the same in every language: its headings' levels, rows of tables, lists, pictures, and blocks of code."""
    lines = re.sub(r"```.*?```", "```", text, flags=re.S).splitlines()
    return (
        [re.match("#+", line)[0] for line in lines if line.startswith("#")],  # type: ignore[index]
        [line.count(" | ") for line in lines if line.startswith("|")],
        [re.match(r" *(-|\d\.)", line)[0] for line in lines if re.match(r" *(-|\d\.) ", line)],  # type: ignore[index]
        re.findall(r"screenshots/[\w-]+\.png", text),
        len(re.findall(r"```", text)),
    )


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("other", LANGUAGES)
def test_a_document_says_the_same_in_each_language(name: str, other: str):
    english, translated = ((folder / f"{name}.md").read_text() for folder in (DOCS, DOCS / other))
    assert _bones(translated) == _bones(english)
    # Figures are facts, whatever is put between them.
    counts = [set(re.findall(r"\b\d+\b", re.sub(r"(?<=\d)[.,](?=\d)", "", text))) for text in (english, translated)]
    assert counts[0] == counts[1]


def test_headings_are_found_before_what_stands_under_others():
    hits = search(documents(), "RAPID fire")
    assert hits[0].line == "Where is rapid fire?"
    assert all("rapid fire" in hit.line.casefold() for hit in hits)
    assert search(documents(), "  ") == []
    assert search(documents(), "quite certainly in none of them") == []


def test_documents_are_read_and_searched_in_the_window(ui: Ui):
    reader = Reader(ui.window)
    reader.show()
    assert listed(reader)[0] == "Your first macro"
    assert reader.pages.toPlainText().startswith("Your first macro")
    reader.pages.anchorClicked.emit(QUrl("permissions.md#two-commands"))
    assert reader.pages.toPlainText().startswith("Permissions")
    link = QUrl("devices.md#under-x11-without-permission")
    reader.pages.anchorClicked.emit(link)
    assert reader.pages.textCursor().block().text() == "Under X11, without permission"
    assert 0 <= reader.pages.cursorRect().top() < 5
    # No user's document, and so in no list; the link leads there all the same.
    reader.pages.anchorClicked.emit(QUrl("figures.md"))
    assert reader.pages.toPlainText().startswith("Figures")
    reader.field.setText("is it allowed")
    assert listed(reader)[0] == "Questions · Is it allowed?"
    assert reader.count.text() == f"{reader.list.count()} places"
    assert reader.pages.textCursor().selectedText() == "Is it allowed?"
    reader.field.setText("no such words at all")
    assert listed(reader) == []
    reader.field.clear()
    assert reader.count.text() == f"{len(documents())} documents"
    reader.close()


def test_a_report_names_nothing_unless_that_is_wanted(ui: Ui):
    ui.store.put_profile(
        Profile(id="slate", name="Slate Derby", programs=(ProgramRule(match=MatchBy.NAME, value="slate-derby"),))
    )
    ui.wait(lambda: not ui.store.saving, "it on the disk")
    ui.store.pin("slate")
    ui.wait(lambda: ui.store.status.live == "slate", "the profile to be live")
    ui.wait(lambda: any("Slate Derby" in each.what for each in ui.store.journal), "the journal")
    report = Report(ui.store, ui.window)
    report.show()
    ui.wait(lambda: "keyboard layout" in report.text.toPlainText(), "the doctor's answer")
    text = report.text.toPlainText()
    assert f"Nakrel {nakrel.__version__}" in text
    assert "(name) is live" in text
    assert "Slate Derby" not in text
    assert "slate-derby" not in text
    # What the route means is said once, though it is a warning, too.
    said = ui.store.status.backend_note
    assert said
    assert text.count(said) == 1
    report.names.click()
    assert "Slate Derby is live" in report.text.toPlainText()
    report.names.click()
    report.copy_button.click()
    assert QApplication.clipboard().text() == text
    report.close()


def test_about_tells_the_version_and_the_licences(ui: Ui):
    about = About(ui.window)
    texts = " ".join(each.text() for each in about.findChildren(QLabel))
    assert f"Nakrel {nakrel.__version__}" in texts
    assert "GNU General Public License" in texts
    about.close()
