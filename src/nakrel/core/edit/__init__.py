"""Edits: pure changes of macros, their layout in time, checks, builders, bundles. The service loads none of it."""
