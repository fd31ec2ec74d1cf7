"""The lay: a pattern's pieces on the usable width, so that they take the least length. x along the grain, y across, cm."""
