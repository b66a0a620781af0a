"""Landmarks of curves along which a parameter runs."""
