"""A Debian kernel under software emulation, with emulated USB devices, for tests on real input devices."""
