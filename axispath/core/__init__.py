"""The mathematics of Axis Path: no web, no database, no files, no clock."""
