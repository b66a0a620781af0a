"""A sheet as a report: parts with headings, formulas, words and tables, for whoever writes them."""
