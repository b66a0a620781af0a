"""What a line of calculation can come to: exact and enclosed numbers, lists, matrices."""
