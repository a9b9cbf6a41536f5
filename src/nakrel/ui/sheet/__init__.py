"""The button sheet: a row for each control, and what it does."""
