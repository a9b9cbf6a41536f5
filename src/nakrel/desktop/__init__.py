"""What makes Nakrel a program of the desktop: its menu entry, icons, file type, manuals, completions, and the start at
login."""
