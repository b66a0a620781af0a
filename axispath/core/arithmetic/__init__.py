"""One tree, several arithmetics: floats for pictures and tables, balls for proofs."""
