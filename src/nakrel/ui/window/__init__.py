"""The window's frame: pages and their heads, the details column, the live strip."""
