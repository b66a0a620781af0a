"""People, sheets and revisions in PostgreSQL."""
