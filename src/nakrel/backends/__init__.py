"""The ways in and out: adapters that carry events and hold no policy."""
