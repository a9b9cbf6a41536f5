"""The service: a process of its own, without Qt and NumPy, that runs the engine."""

__all__ = ["BACKENDS"]

# The routes to the programs that can be asked for.
BACKENDS = ("auto", "kernel", "x11", "stand-in")
