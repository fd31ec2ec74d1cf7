"""Programmes: their picks in order, and the notes to publish."""
