"""What is not known or does not add up on the shelf, how many pairings hang on it, and what is worth measuring."""
