"""The commands of Axis Path: its own PostgreSQL, the server, the tests."""
