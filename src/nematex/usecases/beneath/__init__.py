"""Linings from the shelf, interfacing, thread and notions for a pairing."""
