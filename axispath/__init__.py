"""Axis Path: define functions, plot them, and know where they go."""
