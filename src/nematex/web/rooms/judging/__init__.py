"""Pages of pairings, the matrix, why, and where hands disagree."""
