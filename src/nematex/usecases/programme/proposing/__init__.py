"""Proposing a set from its brief: what may be chosen, what is wanted of the whole, why each was chosen."""
