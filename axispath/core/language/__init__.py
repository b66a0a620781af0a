"""Text to tree and back: the written mathematics of a sheet."""
