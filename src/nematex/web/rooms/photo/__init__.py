"""Pages of a swatch photo."""
