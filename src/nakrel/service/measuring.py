"""How often a mouse reports."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from nakrel import protocol as m
from nakrel.backends.kernel.backend import KernelBackend
from nakrel.core.model.errors import DataError
from nakrel.service.later import Found, Later
from nakrel.service.loop import monotonic_us
from nakrel.service.server import Client
from nakrel.service.service import Service
from nakrel.service.worker import Outcome
from nakrel.words import tr

__all__ = ["Measuring"]


class Measuring:
    """Handles the request for it, one at a time."""

    def __init__(self, service: Service) -> None:
        self._service = service
        self._busy = False

    def measure(self, client: Client, number: int, body: m.MeasureMotion) -> Found:
        """Note the times of a device's reports for a while. Raises `DataError` where that can't be."""
        backend = self._service.routes.real
        if not isinstance(backend, KernelBackend):
            raise DataError(tr("devices aren't read through the kernel, so their reports can't be timed here"))
        if self._busy:
            raise DataError(tr("another device is being measured; try again in a few seconds"))
        try:
            backend.measure(body.device, on=True)
        except KeyError:
            raise DataError(
                tr("there is no device {device} any more; plug it in again").format(device=body.device)
            ) from None
        self._busy = True

        def begin(done: Callable[[Outcome[Any]], object]) -> None:
            until_us = monotonic_us() + body.seconds * 1_000_000
            self._service.loop.at("measuring", until_us, lambda: self._end(backend, body.device, done))

        return Later(begin, lambda found: m.MotionTimes(found))

    def _end(self, backend: KernelBackend, device: str, done: Callable[[Outcome[Any]], object]) -> None:
        self._busy = False
        if backend is not self._service.routes.real:
            done(Outcome(None, DataError(tr("the devices are read in another way now; try again"))))
            return
        try:
            times = backend.measure(device, on=False)
        except KeyError:
            done(Outcome(None, DataError(tr("the device was unplugged meanwhile"))))
        else:
            done(Outcome(tuple(times)))
