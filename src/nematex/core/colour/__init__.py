"""Colour: how far two colours are apart (CIEDE2000), and the words for them."""
