"""Help: the user's documents, what this program is, and a report of a problem."""
