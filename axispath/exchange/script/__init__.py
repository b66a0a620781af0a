"""Sheets as plain Python that computes them again: a script, or a notebook of the same parts."""
