"""Drawings as numbers and paths: the tape, swatches, garments, how cloth hangs."""
