"""Proposing a set from its brief: the pairings that may be chosen, what is wanted of the whole, and why each was chosen."""
