"""The figures of this tree and of another commit, in turns, so that the hour's noise falls on both."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import tempfile
from pathlib import Path

__all__ = ["compare"]

_ROOT = Path(__file__).parent.parent


def _measured(tree: Path, arguments: list[str], folder: Path) -> dict[str, str]:
    """What a tree's own benchmark says, by the name of the figure."""
    report = folder / "rows.json"
    report.unlink(missing_ok=True)
    path = os.pathsep.join((str(tree / "src"), str(tree)))
    environment = {**os.environ, "PYTHONPATH": path}
    command = [sys.executable, "-m", "bench", *arguments, "--json", str(report)]
    done = subprocess.run(command, cwd=tree, env=environment, stdout=subprocess.DEVNULL)
    if done.returncode or not report.exists():
        return {"(the benchmark failed)": f"exit code {done.returncode}"}
    return {row["what"]: row["measured"] for row in json.loads(report.read_text())}


def compare(revision: str, turns: int, arguments: list[str]) -> int:
    """Print each figure of both, a column of all turns each; returns the exit code."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        other = folder / "tree"
        made = ["git", "-C", str(_ROOT), "worktree", "add", "--detach", "--quiet", str(other), revision]
        if subprocess.run(made).returncode:
            return 2
        try:
            found: dict[str, dict[str, list[str]]] = {}
            for turn in range(turns):
                for which, tree in ((revision, other), ("here", _ROOT)):
                    sys.stderr.write(f"turn {turn + 1} of {turns}: {which}\n")
                    for what, measured in _measured(tree, arguments, folder).items():
                        found.setdefault(what, {revision: [], "here": []})[which].append(measured)
        finally:
            subprocess.run(["git", "-C", str(_ROOT), "worktree", "remove", "--force", str(other)])
    width = max(len(revision), 4)
    for what, both in found.items():
        sys.stdout.write(f"{what}\n")
        for which, turns_of in both.items():
            sys.stdout.write("".join(f"    {which:{width}}  {each}\n" for each in turns_of or ["–"]))
    return 0
