"""One blueprint per room of the shop."""
