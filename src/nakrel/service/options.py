"""How the service is set up."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from nakrel.backends.kernel.backend import KernelBackend
from nakrel.backends.protocols import Host

if TYPE_CHECKING:
    from nakrel.backends.x11.holds import Holds

__all__ = ["Options"]


@dataclass(frozen=True)
class Options:
    """How the service is set up. `backend` is one of `nakrel.service.BACKENDS`; `injector_is_xtest` is for tests, where
    what presses is a program that injects; `holds` is told what the X server holds for us; `kernel` opens the kernel's
    input, which a measurement does on devices of its own."""

    backend: str = "auto"
    display: str | None = None
    injector_is_xtest: bool = False
    holds: Holds | None = None
    kernel: Callable[[Host], KernelBackend] = KernelBackend
