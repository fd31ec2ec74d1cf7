"""Pages of programmes and their notes."""
