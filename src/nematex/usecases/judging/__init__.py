"""Pairings: rankings both ways, the whole matrix, why, overrides by hand, several cloths in one garment."""
