"""What a Wayland compositor tells: which window is in front, and the keyboard."""
