"""The checker: whether what a search says of a place is so, by itself and with more digits.

It shares nothing with the searches but formulas, exact numbers and balls, so that a mistake of
theirs is no mistake of its own (R. M. McConnell, K. Mehlhorn, S. Näher and P. Schweitzer 2011,
Certifying algorithms). ``places.py`` is about formulas at a place, ``lying.py`` about lanes,
``survey.py`` about everything that one look at a sheet found.
"""
