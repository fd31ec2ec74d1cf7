"""Pages of the drawer and its patterns."""
