"""Keeps the tables of texts in step with the sources; see scripts/languages."""

from __future__ import annotations

import ast
import re
import shutil
import subprocess
import sys
import xml.etree.ElementTree as ET
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

import polib

ROOT = Path(__file__).resolve().parent.parent
SOURCE = ROOT / "src" / "nakrel"
FOLDER = SOURCE / "languages"
CONTEXT = "Nakrel"
# How many forms a number has, and which of them is for which number (Qt's rules; gettext manual, 11.2.6).
FORMS = {"de": (2, "nplurals=2; plural=(n != 1);")}


class Text(NamedTuple):
    """A text that is looked up: what it is about where that is told, and whether it depends on a number."""

    text: str
    about: str = ""
    counts: bool = False


def _words(node: ast.expr) -> str | None:
    return node.value if isinstance(node, ast.Constant) and isinstance(node.value, str) else None


def texts_in(tree: ast.AST) -> Iterator[Text]:
    """Each text of a module."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
            if node.func.id in ("tr", "noted") and node.args and (text := _words(node.args[0])):
                yield Text(text, (_words(node.args[1]) or "") if len(node.args) > 1 else "")
            elif node.func.id == "counted" and len(node.args) >= 3 and (text := _words(node.args[2])):
                yield Text(text, counts=True)


def all_texts() -> dict[Text, list[str]]:
    """All of them, each with the files that it stands in."""
    from nakrel.cli.main import main as commands
    from nakrel.command_help import texts_of
    from nakrel.core.model.controls import CONTROLS
    from nakrel.practice.__main__ import main as practice

    found: dict[Text, list[str]] = {}
    for path in (*sorted(SOURCE.rglob("*.py")), ROOT / "scripts" / "desktop_data.py"):
        name = path.relative_to(SOURCE).as_posix() if path.is_relative_to(SOURCE) else path.name
        for text in texts_in(ast.parse(path.read_text(encoding="utf-8"))):
            found.setdefault(text, []).append(name)
    for command, name in ((commands, "cli/main.py"), (practice, "practice/__main__.py")):
        for each, about in texts_of(command):
            if each:
                found.setdefault(Text(each, about), []).append(name)
    for control in CONTROLS.values():
        # What stands on a key as a letter, a figure or a number is the same everywhere.
        if re.search(r"[A-Za-z]{2}", control.label):
            found.setdefault(Text(control.label, "key"), []).append("core/model/control_table.py")
    return found


def known(path: Path) -> dict[Text, list[str]]:
    """What a table has: the forms of each text."""
    if not path.exists():
        return {}
    found = {}
    for message in ET.parse(path).getroot().iter("message"):
        translation = message.find("translation")
        text = Text(message.findtext("source", ""), message.findtext("comment", ""), message.get("numerus") == "yes")
        if translation is not None and translation.get("type") != "unfinished":
            forms = [form.text or "" for form in translation.iter("numerusform")]
            found[text] = forms or [translation.text or ""]
    return found


def table(language: str, texts: dict[Text, list[str]], have: dict[Text, list[str]]) -> tuple[str, int]:
    """A table in Qt's format for translators, and how many texts it lacks."""
    root = ET.Element("TS", version="2.1", language=language, sourcelanguage="en")
    context = ET.SubElement(root, "context")
    ET.SubElement(context, "name").text = CONTEXT
    missing = 0
    for text, files in sorted(texts.items(), key=lambda each: (each[1][0], each[0])):
        message = ET.SubElement(context, "message", **({"numerus": "yes"} if text.counts else {}))
        ET.SubElement(message, "location", filename=files[0])
        ET.SubElement(message, "source").text = text.text
        if text.about:
            ET.SubElement(message, "comment").text = text.about
        forms = have.get(text)
        translation = ET.SubElement(message, "translation", **({} if forms else {"type": "unfinished"}))
        missing += not forms
        if text.counts:
            for form in forms or [""] * FORMS[language][0]:
                ET.SubElement(translation, "numerusform").text = form
        elif forms:
            translation.text = forms[0]
    ET.indent(root, "    ")
    head = '<?xml version="1.0" encoding="utf-8"?>\n<!DOCTYPE TS>\n'
    return head + ET.tostring(root, encoding="unicode") + "\n", missing


def catalogue(language: str, have: dict[Text, list[str]]) -> polib.POFile:
    """The same for gettext, which processes without Qt read."""
    made = polib.POFile()
    made.metadata = {"Content-Type": "text/plain; charset=UTF-8", "Plural-Forms": FORMS[language][1]}
    for text, forms in sorted(have.items()):
        if text.counts:
            entry = polib.POEntry(msgid=text.text, msgid_plural=text.text, msgstr_plural=dict(enumerate(forms)))
        else:
            entry = polib.POEntry(msgid=text.text, msgstr=forms[0], msgctxt=text.about or None)
        made.append(entry)
    return made


def compiled(path: Path, language: str) -> None:
    """Make the program's tables of a translator's one, and click's of the one for that."""
    clicks = FOLDER / language / "LC_MESSAGES" / "click.mo"
    clicks.parent.mkdir(parents=True, exist_ok=True)
    polib.pofile(FOLDER / f"click_{language}.po").save_as_mofile(str(clicks))
    tool = next((found for name in ("lrelease", "/usr/lib/qt6/bin/lrelease") if (found := shutil.which(name))), None)
    if tool is None:
        sys.exit("Compiling needs Qt's lrelease; install it with:  sudo apt-get install qt6-l10n-tools")
    subprocess.run([tool, "-silent", str(path), "-qm", str(path.with_suffix(".qm"))], check=True)
    catalogue(language, known(path)).save_as_mofile(str(path.with_suffix(".mo")))


def main() -> None:
    """All languages."""
    texts = all_texts()
    FOLDER.mkdir(exist_ok=True)
    for language in FORMS:
        path = FOLDER / f"nakrel_{language}.ts"
        made, missing = table(language, texts, known(path))
        path.write_text(made, encoding="utf-8")
        sys.stdout.write(f"{language}: {len(texts)} texts, {missing} missing\n")
        if missing:
            for suffix in (".qm", ".mo"):
                path.with_suffix(suffix).unlink(missing_ok=True)
        else:
            compiled(path, language)


if __name__ == "__main__":
    main()
