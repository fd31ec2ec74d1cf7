"""The page of how cloths hang."""
