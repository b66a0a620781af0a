"""Values of lanes at one x and at many."""
