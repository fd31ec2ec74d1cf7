"""Cloths, their readings and photos, saved filters, and files sent for import."""
