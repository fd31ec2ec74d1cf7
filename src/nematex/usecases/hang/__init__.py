"""Two or three cloths hung as one garment."""
