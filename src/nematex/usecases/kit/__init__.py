"""Kits: cloth cut to size from real bolts, with ribbing, thread and notions, what they cost and what is left."""
