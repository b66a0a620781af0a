"""Speed, as ratios to a plain way of doing the same in the same run."""
