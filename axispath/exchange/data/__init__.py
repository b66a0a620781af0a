"""Data sets in and out: text, spreadsheets."""
