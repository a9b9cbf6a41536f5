"""The journal, read while more comes."""

from __future__ import annotations

from nakrel.protocol import Entry
from nakrel.ui.journal.page import _KEPT
from tests.ui.conftest import Ui


def entries(first: int, count: int) -> list[Entry]:
    return [Entry(1_000.0 + n, "run", f"Reel in {n}", "finished") for n in range(first, first + count)]


def test_an_entry_that_is_read_stays_chosen_and_where_it_is(ui: Ui):
    ui.window.shown.show_page("journal")
    page, store = ui.window.journal, ui.store
    store.journal = entries(0, 300)
    store.journal_changed.emit()
    table = page.table
    bar = table.verticalScrollBar()
    assert bar
    for at, value in ((299, bar.maximum()), (150, 140), (2, 0)):
        newest = len(store.journal)
        table.choose(page._proxy.index(at, 2))
        bar.setValue(min(value, bar.maximum()))
        told, top = table.currentIndex().data(), table.visualRect(table.currentIndex()).top()
        store.journal += entries(newest, 3)
        store.journal_changed.emit()
        assert table.currentIndex().data() == told
        assert [each.data() for each in table.selectedIndexes() if each.column() == 2] == [told]
        assert page._proxy.index(0, 2).data() == f"Reel in {newest + 2}"
        # At the top the newest are seen, and elsewhere the same as before.
        shift = table.visualRect(table.currentIndex()).top() - top
        assert shift == (3 * table.rowHeight(0) if value == 0 else 0)


def test_it_shows_what_a_filter_lets_through_and_forgets_the_oldest(ui: Ui):
    ui.window.shown.show_page("journal")
    page, store = ui.window.journal, ui.store
    store.journal = entries(0, _KEPT)
    store.journal_changed.emit()
    page.search.setText("in 19")
    before = page._proxy.rowCount()
    store.journal += [*entries(_KEPT, 1), Entry(9_000.0, "run", "Reel in 19 times", "finished")]
    store.journal_changed.emit()
    assert page.model.rowCount() == _KEPT
    assert page.model.index(_KEPT - 1, 2).data() == "Reel in 2"
    assert page._proxy.rowCount() == before + 1
    assert page._proxy.index(0, 2).data() == "Reel in 19 times"
    # Another journal is shown as it is.
    page.search.clear()
    store.journal = entries(5, 2)
    store.journal_changed.emit()
    assert [page._proxy.index(row, 2).data() for row in range(page._proxy.rowCount())] == ["Reel in 6", "Reel in 5"]
    store.journal = []
    store.journal_changed.emit()
    assert page._proxy.rowCount() == 0
