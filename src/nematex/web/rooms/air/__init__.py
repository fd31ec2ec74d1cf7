"""Pages for the hour of filming."""
