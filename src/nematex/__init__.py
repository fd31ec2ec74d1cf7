"""Nematex: which cloth suits which pattern, how much it takes, and why."""

__version__ = "0.3.0"
