"""Takes from installed libraries what Nakrel doesn't use: scripts/package calls it with their folder.

Of Qt it keeps the modules that are imported, the plugins that desktops need, and the libraries that those link to.
"""

from __future__ import annotations

import re
import shutil
import subprocess
import sys
from pathlib import Path

MODULES = ("QtCore", "QtGui", "QtWidgets", "QtDBus", "QtSvg")
PLUGINS = (
    "iconengines", "imageformats", "platforminputcontexts", "platforms", "platformthemes", "xcbglintegrations",
    "wayland-decoration-client", "wayland-graphics-integration-client", "wayland-shell-integration",
)  # fmt: skip
# Screens without a window system, and formats of pictures that nothing here shows.
NOT_USED = re.compile(r"eglfs|linuxfb|vnc|vkkhr|pdf|tiff|webp|jp2|tga|wbmp|icns|brcm|emu|shm|virtualkeyboard|qmsdf")
LANGUAGES = re.compile(r"^qt(base)?_(de|en)\.qm$")


def linked(path: Path) -> set[str]:
    """The names of the libraries that one asks for."""
    told = subprocess.run(["objdump", "-p", str(path)], capture_output=True, text=True, check=True).stdout
    return set(re.findall(r"NEEDED\s+(\S+)", told))


def trim_qt(package: Path) -> None:
    """Leave of PyQt6 what is used."""
    qt = package / "Qt6"
    for each in ("qml", "qsci"):
        shutil.rmtree(qt / each, ignore_errors=True)
    for path in (*package.glob("*.pyi"), *(qt / "translations").iterdir()):
        if not LANGUAGES.match(path.name):
            path.unlink()
    for path in package.glob("Qt*.abi3.so"):
        if path.name.split(".")[0] not in MODULES:
            path.unlink()
    for each in ("uic", "lupdate", "bindings"):
        shutil.rmtree(package / each, ignore_errors=True)
    for folder in (qt / "plugins").iterdir():
        if folder.name not in PLUGINS:
            shutil.rmtree(folder)
            continue
        for path in folder.iterdir():
            if NOT_USED.search(path.name):
                path.unlink()
    wanted: set[str] = set()
    ask = [*package.glob("*.so"), *(qt / "plugins").glob("*/*.so")]
    while ask:
        for name in linked(ask.pop()) - wanted:
            if (qt / "lib" / name).exists():
                wanted.add(name)
                ask.append(qt / "lib" / name)
    for path in (qt / "lib").iterdir():
        if path.is_dir():
            shutil.rmtree(path)
        elif path.name not in wanted:
            path.unlink()


def main(site: Path) -> None:
    """Trim all of it."""
    trim_qt(site / "PyQt6")
    for path in [*site.rglob("tests"), *site.rglob("__pycache__")]:
        if path.is_dir() and "nakrel" not in path.relative_to(site).parts[0]:
            shutil.rmtree(path, ignore_errors=True)
    for each in ("numpy/f2py", "numpy/_core/include", "numpy/_core/lib", "numpy/random/lib", "numpy/typing"):
        shutil.rmtree(site / each, ignore_errors=True)
    for path in site.rglob("*.pyi"):
        path.unlink()


if __name__ == "__main__":
    main(Path(sys.argv[1]))
