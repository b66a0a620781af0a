"""Lines of calculation: trees to exact and enclosed numbers, lists and matrices."""
