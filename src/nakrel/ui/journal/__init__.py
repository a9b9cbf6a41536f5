"""The journal's page."""
