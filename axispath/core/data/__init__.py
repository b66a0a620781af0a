"""Measured numbers: columns, what is computed from them, and what describes them."""
