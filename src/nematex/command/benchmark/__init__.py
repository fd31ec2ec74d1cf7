"""`./nematex benchmark`: speed, size and how well photos are read, as ratios; and a mixed load."""
