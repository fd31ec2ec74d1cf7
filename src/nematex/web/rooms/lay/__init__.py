"""The lay: a pattern's pieces laid out on a cloth."""
