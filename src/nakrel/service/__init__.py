"""The service: a process of its own, without Qt and NumPy, that runs the engine."""
