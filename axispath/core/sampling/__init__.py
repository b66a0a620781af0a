"""Curves as polylines that tell the truth at the size at which they are drawn."""
