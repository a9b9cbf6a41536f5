"""Everything that the menu offers, by group, with its shortcut."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from PyQt6.QtGui import QAction, QKeySequence

from nakrel.ui.help.about import About
from nakrel.ui.help.reader import Reader
from nakrel.ui.help.report import Report
from nakrel.ui.shown import PAGE_LABELS, PAGES
from nakrel.ui.window.cues_dialog import CuesDialog
from nakrel.words import noted, tr

__all__ = ["actions_of"]


def actions_of(window: Any, action: Callable[..., QAction]) -> dict[str, list[QAction]]:
    """The actions of the main window; `action` makes one of a text, what it does and its keys."""
    undo = window.store.undo_stack.createUndoAction(window, tr("Undo"))
    redo = window.store.undo_stack.createRedoAction(window, tr("Redo"))
    assert undo
    assert redo
    # Their texts tell what would be undone; the sheet of shortcuts says it plainly.
    undo.setStatusTip(tr("Undo"))
    redo.setStatusTip(tr("Redo"))
    undo.setShortcut(QKeySequence.StandardKey.Undo)
    redo.setShortcut(QKeySequence.StandardKey.Redo)
    return {
        noted("Edit", "menu"): [undo, redo, action(tr("Find"), window.find_here, "Ctrl+F")],
        noted("Profile", "menu"): [
            action(tr("New profile"), window.column.new_profile, "Ctrl+N"),
            action(tr("Link a program"), window.open_link, "Ctrl+L"),
            action(tr("Rename the profile"), window.column.rename_shown),
            action(tr("Duplicate the profile"), partial(_duplicate_profile, window)),
            action(tr("Empty the profile"), window.column.empty_shown),
            action(tr("Delete the profile"), window.column.delete_shown),
            action(tr("New variant"), window.sheet.setups.add, "Ctrl+U"),
            action(tr("Game keys"), window.profile_details.open_keys, "Ctrl+G"),
            action(tr("Versions of the profile"), partial(_versions, window, "profile")),
            action(tr("Deleted profiles"), lambda: window.column.open_history("profile")),
            action(tr("Export the selected profiles…"), window.bundles.ask_export, "Ctrl+Shift+E"),
            action(tr("Import a profile file…"), window.bundles.ask_import, "Ctrl+Shift+I"),
            action(tr("Tell me when a profile goes live"), window.toggle_notices),
            action(tr("Load with games, or pin the live profile"), window.column.follow.click, "Ctrl+P"),
        ],
        noted("Macro", "menu"): [
            action(tr("New macro"), window.column.new_macro, "Ctrl+M"),
            action(tr("Versions of the macro"), partial(_versions, window, "macro")),
            action(tr("Deleted macros"), lambda: window.column.open_history("macro")),
            action(tr("Record"), window.record, "Ctrl+R"),
            action(tr("Use a take…"), partial(_use_take, window)),
            action(tr("Attach to a button"), partial(_attach, window), "Ctrl+B"),
            action(tr("Join into taps"), lambda: window.macro.step_actions.to_taps(), "Ctrl+T"),
            action(tr("Duplicate steps"), lambda: window.macro.step_actions.duplicate_selected(), "Ctrl+D"),
            action(tr("Pick places on the screen"), lambda: window.macro.step_actions.pick_places(), "Ctrl+K"),
            action(tr("Show on screen"), lambda: window.macro.step_actions.show_places(), "Ctrl+Shift+K"),
            action(tr("Import a recording or text…"), lambda: window.macro.exchange.ask_import(), "Ctrl+I"),
            action(tr("Export what the macro plays"), lambda: window.macro.exchange.ask_export(), "Ctrl+E"),
            action(tr("Stop everything"), window.strip.stop.click, "Ctrl+."),
        ],
        noted("View", "menu"): [
            *_pages(window, action),
            action(tr("Light"), lambda: window.set_look("light")),
            action(tr("Night"), lambda: window.set_look("night")),
            action(tr("Like the desktop"), lambda: window.set_look("system")),
        ],
        noted("Program", "menu"): [
            action(tr("Cues…"), partial(_cues, window)),
            action(tr("Start at login"), lambda: window.program.set_login(not window.program.at_login)),
            action(tr("Add Nakrel to the desktop's menu"), window.program.install),
            action(tr("Take back the permissions for kernel input…"), window.program.take_back.ask),
        ],
        noted("Help", "menu"): [
            action(tr("Documents"), lambda: Reader(window).show(), "Shift+F1"),
            action(tr("Shortcuts"), window.open_shortcuts, "F1"),
            action(tr("Start the practice game"), lambda: window.devices.start_practice()),
            action(tr("Report a problem…"), lambda: Report(window.store, window).show()),
            action(tr("About Nakrel"), lambda: About(window).show()),
            action(tr("Menu"), window.open_menu, "F10"),
        ],
    }


def _pages(window: Any, action: Callable[..., QAction]) -> list[QAction]:
    """The pages by their numbers. Where digits need Shift, as in France, the key alone will do."""
    pages = {
        n: action(tr("{page} page").format(page=PAGE_LABELS[page]), partial(window.shown.show_page, page), f"Ctrl+{n}")
        for n, page in enumerate(PAGES, 1)
    }
    keyboard = window.store.keyboard

    def follow() -> None:
        taken = {key.toString() for each in window.actions() if each not in pages.values() for key in each.shortcuts()}
        for n, each in pages.items():
            sign, *_ = keyboard.levels.get(f"KEY_{n}", ("",))
            alone = f"Ctrl+{sign.upper()}"
            names = [f"Ctrl+{n}"] if not sign or alone in taken else [f"Ctrl+{n}", alone]
            each.setShortcuts([QKeySequence(name) for name in dict.fromkeys(names)])

    keyboard.changed.connect(follow)
    return list(pages.values())


def _duplicate_profile(window: Any) -> None:
    if profile := window.shown.profile:
        window.column.duplicate_profile(profile)


def _versions(window: Any, kind: str) -> None:
    """Show the versions of the profile or macro that is shown."""
    if item := getattr(window.shown, kind):
        window.column.open_history(kind, item.id)


def _use_take(window: Any) -> None:
    window.shown.show_page("macro")
    window.macro.use_take()


def _attach(window: Any) -> None:
    window.shown.show_page("macro")
    if window.shown.macro and not window.macro_details.capture.armed:
        window.macro_details.attach_button.click()


def _cues(window: Any) -> None:
    CuesDialog(window.store, window).show()
