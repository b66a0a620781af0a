"""Practice: answers marked by what the proven path knows, and never by more than that."""
