"""What looks at the desktop, on a thread of its own: programs, windows, screens. It hands finished values over."""
