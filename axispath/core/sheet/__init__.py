"""A sheet: lanes, names, dependencies, and what an edit makes of them."""
