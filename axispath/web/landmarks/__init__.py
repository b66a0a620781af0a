"""Landmarks on the page and on the wire."""
