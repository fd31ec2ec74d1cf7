"""The formulas of the cutting table: bending length, drape of a disc, stretch, mass and shrinkage,
each with its standard.
"""
