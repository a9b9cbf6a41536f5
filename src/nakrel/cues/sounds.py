"""Playing the cues' sounds through the desktop's sound server (miniaudio: PulseAudio, PipeWire, ALSA)."""

from __future__ import annotations

import array
import contextlib
import threading
import wave
from collections.abc import Generator
from pathlib import Path
from typing import Any

__all__ = ["Sounds"]

_FOLDER = Path(__file__).parent / "wav"
# Small, so that a sound begins soon.
_BUFFER_MS = 20


class Sounds:
    """All sounds in memory. Where there is no sound server nothing is heard, and nothing fails."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._waiting = array.array("h")
        self._sounds: dict[str, array.array[int]] = {}
        self._rate = 22_050
        for path in _FOLDER.glob("*.wav"):
            with wave.open(str(path), "rb") as file:
                self._rate = file.getframerate()
                self._sounds[path.stem] = array.array("h", file.readframes(file.getnframes()))
        self._device: Any = None

    @property
    def names(self) -> set[str]:
        """What can be played."""
        return set(self._sounds)

    def open(self) -> bool:
        """Be ready to play at once; False where there is no sound server."""
        if self._device is None:
            with contextlib.suppress(Exception):
                # Only who hears sounds pays for them; a machine without any has no device, or not even the library.
                import miniaudio  # type: ignore[import-untyped]

                device = miniaudio.PlaybackDevice(
                    output_format=miniaudio.SampleFormat.SIGNED16,
                    nchannels=1,
                    sample_rate=self._rate,
                    buffersize_msec=_BUFFER_MS,
                    app_name="Nakrel",
                )
                frames = self._frames()
                next(frames)
                device.start(frames)
                self._device = device
        return self._device is not None

    def play(self, name: str, volume: int) -> bool:
        """Play a sound after what still plays; False where it can't be heard."""
        if name not in self._sounds or not self.open():
            return False
        # Loudness is felt as the square of the amplitude, roughly.
        factor = (volume / 100) ** 2
        louder = array.array("h", (round(each * factor) for each in self._sounds[name]))
        with self._lock:
            self._waiting = louder
        return True

    def close(self) -> None:
        """Let the sound server go."""
        device, self._device = self._device, None
        if device is not None:
            device.close()

    def _frames(self) -> Generator[array.array[int], int, None]:
        wanted = yield array.array("h")
        while True:
            with self._lock:
                now, self._waiting = self._waiting[:wanted], self._waiting[wanted:]
            now.extend([0] * (wanted - len(now)))
            wanted = yield now
