"""Quantities: units and their factors, one scanner and one reader for whatever is typed, money,
estimates with how they are known, and many of them as arrays.
"""
