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

__all__ = ["actions_of"]


def actions_of(window: Any, action: Callable[..., QAction]) -> dict[str, list[QAction]]:
    """The actions of the main window; `action` makes one of a text, what it does and its keys."""
    undo = window.store.undo_stack.createUndoAction(window, "Undo")
    redo = window.store.undo_stack.createRedoAction(window, "Redo")
    assert undo
    assert redo
    # Their texts tell what would be undone; the sheet of shortcuts says it plainly.
    undo.setStatusTip("Undo")
    redo.setStatusTip("Redo")
    undo.setShortcut(QKeySequence.StandardKey.Undo)
    redo.setShortcut(QKeySequence.StandardKey.Redo)
    return {
        "Edit": [undo, redo, action("Find", window.find_here, "Ctrl+F")],
        "Profile": [
            action("New profile", window.column.new_profile, "Ctrl+N"),
            action("Link a program", window.open_link, "Ctrl+L"),
            action("Rename the profile", window.column.rename_shown),
            action("Duplicate the profile", partial(_duplicate_profile, window)),
            action("Empty the profile", window.column.empty_shown),
            action("Delete the profile", window.column.delete_shown),
            action("New variant", window.sheet.setups.add, "Ctrl+U"),
            action("Game keys", window.profile_details.open_keys, "Ctrl+G"),
            action("Versions of the profile", partial(_versions, window, "profile")),
            action("Deleted profiles", lambda: window.column.open_history("profile")),
            action("Export the selected profiles…", window.bundles.ask_export, "Ctrl+Shift+E"),
            action("Import a profile file…", window.bundles.ask_import, "Ctrl+Shift+I"),
            action("Tell me when a profile goes live", window.toggle_notices),
            action("Load with games, or pin the live profile", window.column.follow.click, "Ctrl+P"),
        ],
        "Macro": [
            action("New macro", window.column.new_macro, "Ctrl+M"),
            action("Versions of the macro", partial(_versions, window, "macro")),
            action("Deleted macros", lambda: window.column.open_history("macro")),
            action("Record", window.record, "Ctrl+R"),
            action("Use a take…", partial(_use_take, window)),
            action("Attach to a button", partial(_attach, window), "Ctrl+B"),
            action("Join into taps", window.macro.step_actions.to_taps, "Ctrl+T"),
            action("Duplicate steps", window.macro.step_actions.duplicate_selected, "Ctrl+D"),
            action("Pick places on the screen", window.macro.step_actions.pick_places, "Ctrl+K"),
            action("Show on screen", window.macro.step_actions.show_places, "Ctrl+Shift+K"),
            action("Import a recording or text…", window.macro.exchange.ask_import, "Ctrl+I"),
            action("Export what the macro plays", window.macro.exchange.ask_export, "Ctrl+E"),
            action("Stop everything", window.strip.stop.click, "Ctrl+."),
        ],
        "View": [
            *(
                action(f"{PAGE_LABELS[page]} page", partial(window.shown.show_page, page), f"Ctrl+{n}")
                for n, page in enumerate(PAGES, 1)
            ),
            action("Light", lambda: window.set_look("light")),
            action("Night", lambda: window.set_look("night")),
            action("Like the desktop", lambda: window.set_look("system")),
        ],
        "Program": [
            action("Cues…", partial(_cues, window)),
            action("Start at login", lambda: window.program.set_login(not window.program.at_login)),
            action("Add Nakrel to the desktop's menu", window.program.install),
            action("Take back the permissions for kernel input…", window.program.take_back.ask),
        ],
        "Help": [
            action("Documents", lambda: Reader(window).show(), "Shift+F1"),
            action("Shortcuts", window.open_shortcuts, "F1"),
            action("Start the practice game", window.devices.start_practice),
            action("Report a problem…", lambda: Report(window.store, window).show()),
            action("About Nakrel", lambda: About(window).show()),
            action("Menu", window.open_menu, "F10"),
        ],
    }


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
