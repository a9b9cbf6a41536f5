"""Counts of reliability: long runs that anyone can repeat (`scripts/soak`)."""
