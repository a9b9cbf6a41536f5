"""The practice game: a window that is a game for all purposes, and writes down what it saw."""
