"""Files: profiles, macros, settings, their history and their schemas."""
