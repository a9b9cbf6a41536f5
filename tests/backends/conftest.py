"""What tests of backends share."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

from tests.backends.desk import Desk


@pytest.fixture
def desk() -> Iterator[Desk]:
    with Desk() as desk:
        yield desk
