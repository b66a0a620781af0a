"""Blocks of equations: unknowns found from what is written, in whatever order that is."""
