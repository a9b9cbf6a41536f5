"""The main job in the real window, on a real X server with a window manager."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

import pytest

from tests.support import XServer

pytestmark = [
    pytest.mark.x11,
    pytest.mark.timeout(400),
    pytest.mark.skipif(bool(XServer.missing()), reason=f"needs {XServer.missing()}"),
]
SCENARIOS = Path(__file__).parent / "in_x"


@pytest.mark.parametrize("scenario", sorted(path.stem for path in SCENARIOS.glob("test_*.py")))
def test_scenario(scenario: str, tmp_path: Path):
    """Each file of in_x passes when run on a server of its own."""
    server = XServer()
    try:
        run = subprocess.run(
            [sys.executable, "-m", "pytest", "-q", "-x", "-p", "no:cacheprovider", str(SCENARIOS / f"{scenario}.py")],
            env={**server.environment, "NAKREL_STORY": server.display},
            capture_output=True,
            text=True,
            timeout=380,
        )
    finally:
        server.end_server()
    assert run.returncode == 0, run.stdout[-6_000:] + run.stderr[-2_000:]
    assert " passed" in run.stdout
