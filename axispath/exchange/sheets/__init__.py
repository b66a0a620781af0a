"""Sheets as files: JSON with a published schema, and many of them in one archive."""
