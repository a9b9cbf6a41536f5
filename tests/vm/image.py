"""The kernel and the first file system of the test machine, made from Debian's packages."""

from __future__ import annotations

import lzma
import shutil
import subprocess
from pathlib import Path

__all__ = ["build"]

MODULES = (
    *("virtio_pci", "virtio_console", "9pnet_virtio", "9p", "overlay"),
    *("evdev", "uinput", "uhid", "xhci_pci", "usbhid", "hid_generic"),
)
_XZ = b"\xfd7zXZ\x00"
_INIT = """#!/bin/busybox sh
/bin/busybox --install -s /bin
mount -t proc proc /proc; mount -t sysfs sys /sys; mount -t devtmpfs dev /dev
for module in $(cat /modules); do insmod /lib/$module || echo "no module $module"; done
mkdir -p /lower /upper /root
mount -t 9p -o trans=virtio,version=9p2000.L,msize=1048576,cache=loose,ro root /lower
mount -t tmpfs tmpfs /upper; mkdir /upper/up /upper/work
mount -t overlay -o lowerdir=/lower,upperdir=/upper/up,workdir=/upper/work overlay /root
mount -t proc proc /root/proc; mount -t sysfs sys /root/sys; mount -t devtmpfs dev /root/dev
mkdir -p /root/dev/shm /root/dev/pts
mount -t tmpfs tmpfs /root/dev/shm; mount -t tmpfs tmpfs /root/tmp; mount -t tmpfs tmpfs /root/run
mount -t devpts devpts /root/dev/pts
ip link set lo up
exec switch_root /root /bin/sh -c "$(cat /proc/cmdline | sed 's/.*nakrel.run=//')"
"""


def build(folder: Path) -> tuple[Path, Path]:
    """Make (or find) the kernel and the initramfs in this folder; returns both.

    Raises `RuntimeError` saying what is missing.
    """
    kernel, initramfs = folder / "vmlinux", folder / "initramfs"
    if kernel.exists() and initramfs.exists():
        return kernel, initramfs
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(parents=True)
    _download(folder)
    packed = next((folder / "package" / "boot").glob("vmlinuz-*"))
    modules = next((folder / "package" / "lib" / "modules").iterdir())
    subprocess.run(["depmod", "-b", str(folder / "package"), modules.name], check=True)
    _pack(folder, modules, initramfs)
    kernel.write_bytes(_unpack(packed.read_bytes()))
    shutil.rmtree(folder / "package")
    return kernel, initramfs


def _download(folder: Path) -> None:
    """The newest kernel of this Debian release, unpacked and not installed."""
    told = subprocess.run(["apt-cache", "depends", "linux-image-amd64"], capture_output=True, text=True).stdout
    name = next((line.split()[-1] for line in told.splitlines() if "Depends: linux-image-" in line), "")
    if not name:
        raise RuntimeError("Debian's package linux-image-amd64 isn't known here: run apt-get update, on Debian")
    subprocess.run(["apt-get", "download", "-qq", name], cwd=folder, check=True, capture_output=True)
    (package,) = folder.glob("*.deb")
    subprocess.run(["dpkg", "-x", package.name, "package"], cwd=folder, check=True)
    package.unlink()


def _unpack(packed: bytes) -> bytes:
    """The bare kernel in a bzImage: it boots at once, where the packed one would unpack itself under emulation."""
    start = packed.find(_XZ)
    if start < 0:
        raise RuntimeError("the kernel isn't packed with xz; the test machine knows no other way")
    return lzma.LZMADecompressor().decompress(packed[start:])


def _pack(folder: Path, modules: Path, target: Path) -> None:
    """An initramfs of busybox, the modules and the script that mounts this machine's files read-only."""
    busybox = shutil.which("busybox")
    if busybox is None:
        raise RuntimeError("busybox is missing: install busybox-static")
    root = folder / "root"
    for name in ("bin", "lib", "proc", "sys", "dev"):
        (root / name).mkdir(parents=True)
    shutil.copy(busybox, root / "bin" / "busybox")
    order = _in_order(modules)
    for module in order:
        data = module.read_bytes()
        plain = root / "lib" / module.name.removesuffix(".xz")
        plain.write_bytes(lzma.decompress(data) if module.suffix == ".xz" else data)
    (root / "modules").write_text("\n".join(module.name.removesuffix(".xz") for module in order))
    init = root / "init"
    init.write_text(_INIT)
    init.chmod(0o755)
    names = "\n".join(str(path.relative_to(root)) for path in sorted(root.rglob("*")))
    with target.open("wb") as out:
        subprocess.run(
            [busybox, "cpio", "-o", "-H", "newc"], input=names.encode(), cwd=root, stdout=out, check=True,
            stderr=subprocess.DEVNULL,
        )  # fmt: skip
    shutil.rmtree(root)


def _in_order(modules: Path) -> list[Path]:
    """The modules with all that they need before them, after modules.dep."""
    needs = {}
    for line in (modules / "modules.dep").read_text().splitlines():
        name, _, others = line.partition(":")
        needs[name] = others.split()
    by_name = {Path(path).name.split(".")[0].replace("-", "_"): path for path in needs}
    order: list[str] = []
    for wanted in MODULES:
        if path := by_name.get(wanted):
            order += [each for each in (*reversed(needs[path]), path) if each not in order]
    return [modules / path for path in order]
