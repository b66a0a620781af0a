"""The plane in cells: where an equation holds, proved cell by cell, and what a region covers."""
