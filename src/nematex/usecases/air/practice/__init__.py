"""A trainer for a new presenter: the shop's own cloths and patterns with the verdict hidden."""
