"""Sample data for the demo and the pictures; every name and number in it is invented."""
