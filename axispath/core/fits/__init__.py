"""Curves through measured points by least squares, with how sure their coefficients are."""
