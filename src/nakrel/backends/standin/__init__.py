"""Simulated devices and a sink: Nakrel without any hardware or permission. They ship with it."""
