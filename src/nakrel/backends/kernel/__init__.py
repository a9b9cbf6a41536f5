"""The kernel's input: devices are read through evdev with an exclusive grab, and output goes through uinput."""
