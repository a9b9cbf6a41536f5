"""The devices' page."""
