"""A keyring in a file, in the place of the desktop's: which file, says the environment."""

from __future__ import annotations

import json
import os
from pathlib import Path

from keyring.backend import KeyringBackend

__all__ = ["FileKeyring"]


class FileKeyring(KeyringBackend):
    """Implements the keyring library's own protocol."""

    priority = 1  # type: ignore[assignment]

    def _path(self) -> Path:
        return Path(os.environ["NAKREL_TEST_KEYRING"])

    def _all(self) -> dict[str, str]:
        return json.loads(self._path().read_text()) if self._path().exists() else {}

    def get_password(self, service: str, username: str) -> str | None:
        """What is kept."""
        return self._all().get(f"{service}/{username}")

    def set_password(self, service: str, username: str, password: str) -> None:
        """Keep it."""
        self._path().write_text(json.dumps({**self._all(), f"{service}/{username}": password}))

    def delete_password(self, service: str, username: str) -> None:
        """Forget it."""
        left = self._all()
        left.pop(f"{service}/{username}")
        self._path().write_text(json.dumps(left))
