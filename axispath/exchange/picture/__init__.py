"""The plot as a picture to take away: PNG, SVG or PDF, drawn from the same core as the screen."""
