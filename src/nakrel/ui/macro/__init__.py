"""The macro page: diagram, steps, recording, and how it plays."""
