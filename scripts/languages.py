"""Keeps the tables of texts in step with the sources; see scripts/languages."""

from __future__ import annotations

import ast
import shutil
import subprocess
import sys
import xml.etree.ElementTree as ET
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
SOURCE, FOLDER = ROOT / "src" / "nakrel", ROOT / "src" / "nakrel" / "ui" / "languages"
CONTEXT = "Nakrel"
# How many forms a number has (Qt's rules for the language).
FORMS = {"de": 2}


def _text(node: ast.expr) -> str | None:
    return node.value if isinstance(node, ast.Constant) and isinstance(node.value, str) else None


def texts_in(tree: ast.AST) -> Iterator[tuple[str, bool]]:
    """Each text that is looked up, and whether it depends on a number."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
            if node.func.id in ("tr", "noted") and node.args and (text := _text(node.args[0])):
                yield text, False
            elif node.func.id == "counted" and len(node.args) == 3 and (text := _text(node.args[2])):
                yield text, True


def all_texts() -> dict[str, tuple[bool, list[str]]]:
    """All of them, each with whether it depends on a number, and the files that it stands in."""
    found: dict[str, tuple[bool, list[str]]] = {}
    for path in sorted(SOURCE.rglob("*.py")):
        for text, counts in texts_in(ast.parse(path.read_text(encoding="utf-8"))):
            found.setdefault(text, (counts, []))[1].append(str(path.relative_to(SOURCE)))
    return found


def known(path: Path) -> dict[str, list[str]]:
    """What a table has: the forms of each text."""
    if not path.exists():
        return {}
    found = {}
    for message in ET.parse(path).getroot().iter("message"):
        translation = message.find("translation")
        source = message.findtext("source", "")
        if translation is not None and translation.get("type") != "unfinished":
            forms = [form.text or "" for form in translation.iter("numerusform")]
            found[source] = forms or [translation.text or ""]
    return found


def write(path: Path, language: str, texts: dict[str, tuple[bool, list[str]]], have: dict[str, list[str]]) -> int:
    """Write a table in Qt's format for translators; returns how many texts it lacks."""
    root = ET.Element("TS", version="2.1", language=language, sourcelanguage="en")
    context = ET.SubElement(root, "context")
    ET.SubElement(context, "name").text = CONTEXT
    missing = 0
    for text, (counts, files) in sorted(texts.items(), key=lambda each: (each[1][1][0], each[0])):
        message = ET.SubElement(context, "message", **({"numerus": "yes"} if counts else {}))
        ET.SubElement(message, "location", filename=files[0])
        ET.SubElement(message, "source").text = text
        forms = have.get(text)
        translation = ET.SubElement(message, "translation", **({} if forms else {"type": "unfinished"}))
        missing += not forms
        if counts:
            for form in forms or [""] * FORMS[language]:
                ET.SubElement(translation, "numerusform").text = form
        elif forms:
            translation.text = forms[0]
    ET.indent(root, "    ")
    head = '<?xml version="1.0" encoding="utf-8"?>\n<!DOCTYPE TS>\n'
    path.parent.mkdir(exist_ok=True)
    path.write_text(head + ET.tostring(root, encoding="unicode") + "\n", encoding="utf-8")
    return missing


def compiled(path: Path) -> None:
    """Make the program's table of a translator's one."""
    tool = next((found for name in ("lrelease", "/usr/lib/qt6/bin/lrelease") if (found := shutil.which(name))), None)
    if tool is None:
        sys.exit("Compiling needs Qt's lrelease; install it with:  sudo apt-get install qt6-l10n-tools")
    subprocess.run([tool, "-silent", str(path), "-qm", str(path.with_suffix(".qm"))], check=True)


def main() -> None:
    """All languages."""
    texts = all_texts()
    for language in FORMS:
        path = FOLDER / f"nakrel_{language}.ts"
        missing = write(path, language, texts, known(path))
        sys.stdout.write(f"{language}: {len(texts)} texts, {missing} missing\n")
        if missing:
            path.with_suffix(".qm").unlink(missing_ok=True)
        else:
            compiled(path)


if __name__ == "__main__":
    main()
