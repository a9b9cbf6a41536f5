"""The values that everything is made of: a value that exists is valid."""
