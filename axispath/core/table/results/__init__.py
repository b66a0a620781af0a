"""Results of lines of calculation, as they are written."""
