"""Help: the documents in the window, a report that keeps names to itself, and what the program is."""

from __future__ import annotations

import re

from PyQt6.QtCore import QUrl
from PyQt6.QtWidgets import QApplication, QLabel

import nakrel
from nakrel.core.model.profile import MatchBy, Profile, ProgramRule
from nakrel.ui.help.about import About
from nakrel.ui.help.documents import documents, search
from nakrel.ui.help.reader import Reader
from nakrel.ui.help.report import Report
from tests.ui.conftest import Ui


def listed(reader: Reader) -> list[str]:
    return [reader.list.item(row).text() for row in range(reader.list.count())]


def test_all_documents_are_there_and_every_link_between_them_leads_somewhere():
    found = {each.path.name: each for each in documents()}
    assert {"first-macro.md", "questions.md", "permissions.md", "measuring.md", "formats.md"} <= set(found)
    for each in found.values():
        for link in re.findall(r"\]\(([^)#]+)(?:#[^)]*)?\)", each.text):
            if not link.startswith("http"):
                assert (each.path.parent / link).exists(), (each.path.name, link)


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
