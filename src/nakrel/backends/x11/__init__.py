"""X11 without special permission: passive grabs for attached controls, XTEST for output."""
