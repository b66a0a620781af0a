"""The proven search: zeros, extrema and breaks along one variable, common zeros in a rectangle."""
