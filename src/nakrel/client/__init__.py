"""The service's clients: the socket protocol's other end, and how to start a service that doesn't run."""
