"""A cloth: what is said of it (facts), its label (fibres), the lexicon of cloth names, its properties as a table,
the estimates that the rules work on, its readings, and what does not add up.
"""
