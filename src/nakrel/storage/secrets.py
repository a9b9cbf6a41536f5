"""Secret texts: kept by the desktop's keyring (freedesktop.org Secret Service and its like), and nowhere else."""

from __future__ import annotations

from typing import Any

from nakrel.words import tr

__all__ = ["SecretError", "get", "put"]

# What the desktop's own tools list them under.
SERVICE = "Nakrel"


class SecretError(Exception):
    """The keyring can't be had, or doesn't know the secret; the message says what would help."""


def put(name: str, text: str) -> None:
    """Keep the text under this name; an empty one is forgotten. Raises `SecretError`. It may wait for the user."""
    keyring = _keyring()
    try:
        if text:
            keyring.set_password(SERVICE, name, text)
        elif keyring.get_password(SERVICE, name) is not None:
            keyring.delete_password(SERVICE, name)
    except Exception as error:
        raise SecretError(_refusal_reason(error)) from None


def get(name: str) -> str:
    """The text that is kept under this name. Raises `SecretError`. It may wait for the user to unlock the keyring."""
    keyring = _keyring()
    try:
        text = keyring.get_password(SERVICE, name)
    except Exception as error:
        raise SecretError(_refusal_reason(error)) from None
    if text is None:
        raise SecretError(
            tr("the keyring has no secret {name!r} for Nakrel; type it once at the step, under Secret").format(
                name=name
            )
        )
    return str(text)


def _keyring() -> Any:
    # Loaded by the first secret: it brings a library for D-Bus and one for ciphers.
    import keyring

    return keyring


def _refusal_reason(error: Exception) -> str:
    """Of a backend's error only its kind: none of its words may carry a secret into a log."""
    kind = type(error).__name__
    if kind in ("NoKeyringError", "InitError"):
        return tr("no keyring answers; start the desktop's (gnome-keyring, KWallet or KeePassXC with Secret Service)")
    if kind == "KeyringLocked":
        return tr("the keyring is locked; unlock it and try again")
    return tr("the keyring refused ({kind}); look at it with the desktop's own tool").format(kind=kind)
