"""Overrides by hand, and numbers of the tables as the shop has set them."""
