"""Tests on a real kernel's input: in the test machine, or wherever /dev/uinput may be used."""
