"""Landmarks: found, proved and put in order."""
