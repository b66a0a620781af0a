"""A sheet on pages of paper: a PDF to be printed."""
