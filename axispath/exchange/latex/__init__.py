"""Sheets as LaTeX: formulas, landmarks, tables, and the figure as source that can be edited."""
