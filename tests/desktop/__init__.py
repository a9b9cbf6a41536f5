"""What makes Nakrel a program of the desktop."""
