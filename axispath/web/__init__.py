"""Pages and the API that their scripts call."""
