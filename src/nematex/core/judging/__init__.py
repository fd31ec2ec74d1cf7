"""Does this cloth suit this pattern? What is demanded (demand, windows), five checks, the verdict, the whole matrix,
why, and what is said of it (saying). The only place that decides suitability.
"""
