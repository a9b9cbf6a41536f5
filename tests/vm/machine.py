"""The test machine: it runs one command on this machine's files, and its USB devices are moved from out here."""

from __future__ import annotations

import json
import os
import selectors
import socket
import subprocess
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from tests.support import pause
from tests.vm.image import build

__all__ = ["Machine"]

QMP, OUT, HAND = "qmp", "out", "hand"


class Machine:
    """Boots, and runs a shell command in the guest until it says that it is done.

    The guest has three lines to us: `out` for its output, `hand` for what the hand is to do, and the console.
    """

    def __init__(self, cache: Path, command: str, console: Path) -> None:
        kernel, initramfs = build(cache)
        self._folder = tempfile.TemporaryDirectory(prefix="nakrel-vm-")
        self._lines: dict[str, socket.socket] = {}
        arguments = [
            *("qemu-system-x86_64", "-accel", "tcg,thread=multi", "-machine", "q35,i8042=off", "-cpu", "max"),
            *("-smp", "2", "-m", "2G", "-nodefaults", "-display", "none", "-no-reboot"),
            *("-kernel", str(kernel), "-initrd", str(initramfs)),
            # The guest takes the emulated processors' clocks for unlike, and each reading of the time would leave it.
            *("-append", f"console=ttyS0 quiet panic=-1 mitigations=off tsc=reliable nakrel.run={command}"),
            *("-serial", f"file:{console}"),
            *("-fsdev", "local,id=root,path=/,security_model=none,readonly=on,multidevs=remap"),
            *("-device", "virtio-9p-pci,fsdev=root,mount_tag=root"),
            *("-device", "qemu-xhci,id=usb", "-device", "virtio-serial-pci"),
        ]
        for name in (OUT, HAND):
            arguments += ["-chardev", f"socket,id={name},path={self._path(name)},server=on,wait=off"]
            arguments += ["-device", f"virtserialport,chardev={name},name=nakrel.{name}"]
        arguments += ["-qmp", f"unix:{self._path(QMP)},server=on,wait=off"]
        self._qemu = subprocess.Popen(arguments, stdin=subprocess.DEVNULL)
        for name in (QMP, OUT, HAND):
            self._lines[name] = self._connect(name)
        self._qmp_file = self._lines[QMP].makefile("rw")
        self._qmp_file.readline()
        self.ask("qmp_capabilities")

    def run(self, limit_s: float, show: Callable[[str], None]) -> int:
        """Show the guest's output by the line and serve its hand until it ends; returns its exit code, 255 for none in
        time."""
        end = time.monotonic() + limit_s
        selector = selectors.DefaultSelector()
        rest = {OUT: b"", HAND: b""}
        for name in rest:
            selector.register(self._lines[name], selectors.EVENT_READ, name)
        while time.monotonic() < end and self._qemu.poll() is None:
            for key, _ in selector.select(1):
                name = key.data
                data = self._lines[name].recv(65_536)
                if not data:
                    return 255
                *lines, rest[name] = (rest[name] + data).split(b"\n")
                for line in lines:
                    if name == HAND:
                        self._serve(line.decode())
                    elif line.startswith(b"NAKREL-EXIT "):
                        return int(line.split()[1])
                    else:
                        show(line.decode("utf-8", "replace").rstrip("\r"))
        return 255

    def ask(self, command: str, **arguments: Any) -> Any:
        """A QMP request; raises `RuntimeError` where it is refused."""
        self._qmp_file.write(json.dumps({"execute": command, "arguments": arguments}) + "\n")
        self._qmp_file.flush()
        while True:
            answer = json.loads(self._qmp_file.readline())
            if "error" in answer:
                raise RuntimeError(f"{command}: {answer['error']['desc']}")
            if "return" in answer:
                return answer["return"]

    def close(self) -> None:
        """End the machine."""
        if self._qemu.poll() is None:
            try:
                self.ask("quit")
                self._qemu.wait(10)
            except (OSError, ValueError, subprocess.TimeoutExpired):
                self._qemu.kill()
                self._qemu.wait()
        self._qmp_file.close()
        for line in self._lines.values():
            line.close()
        self._folder.cleanup()

    def _serve(self, line: str) -> None:
        """One request of the guest's hand; answered when QEMU has taken it."""
        request = json.loads(line)
        try:
            answer = {"return": self.ask(request["execute"], **request.get("arguments", {}))}
        except RuntimeError as error:
            answer = {"error": str(error)}
        self._lines[HAND].sendall(json.dumps(answer).encode() + b"\n")

    def _path(self, name: str) -> str:
        return os.path.join(self._folder.name, name)

    def _connect(self, name: str) -> socket.socket:
        line = socket.socket(socket.AF_UNIX)
        end = time.monotonic() + 20
        while True:
            try:
                line.connect(self._path(name))
            except OSError:
                if time.monotonic() > end or self._qemu.poll() is not None:
                    raise
                pause(0.05)
            else:
                return line
