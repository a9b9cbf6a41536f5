"""Makes the sounds of the cues: soft tones of a tenth of a second, told apart by going up, going down or repeating."""

from __future__ import annotations

import wave
from pathlib import Path

import numpy as np

FOLDER = Path(__file__).resolve().parent.parent / "src" / "nakrel" / "cues" / "wav"
RATE = 22_050
# Frequencies in hertz and lengths in milliseconds; a pause has the frequency 0.
SOUNDS = {
    "live": ((440, 70), (659, 110)),
    "recording": ((880, 90),),
    "recorded": ((880, 60), (587, 100)),
    "toggle-on": ((523, 45), (784, 65)),
    "toggle-off": ((784, 45), (523, 65)),
    "stop": ((262, 70), (0, 30), (262, 110)),
    "fault": ((311, 60), (0, 25), (294, 60), (0, 25), (277, 120)),
}
_EDGE_S = 0.006


def tone(hertz: float, length_ms: float) -> np.ndarray:
    """One tone with an overtone, that comes and goes softly."""
    count = round(RATE * length_ms / 1_000)
    at = np.arange(count) / RATE
    sound = np.sin(2 * np.pi * hertz * at) + 0.25 * np.sin(4 * np.pi * hertz * at)
    edge = np.minimum(1, np.minimum(at, at[::-1]) / _EDGE_S)
    return sound * edge * np.exp(-6 * at)


for name, tones in SOUNDS.items():
    whole = np.concatenate([tone(*each) for each in tones])
    samples = np.round(whole / np.abs(whole).max() * 0.9 * 32_767).astype("<i2")
    FOLDER.mkdir(parents=True, exist_ok=True)
    with wave.open(str(FOLDER / f"{name}.wav"), "wb") as file:
        file.setnchannels(1)
        file.setsampwidth(2)
        file.setframerate(RATE)
        file.writeframes(samples.tobytes())
