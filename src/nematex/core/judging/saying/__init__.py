"""What is said of a finding: a case is chosen (cases), its words come from a table (sayings), its blanks are filled.

The bench's voice gives numbers, edges and how things are known; the voice aloud gives one sentence to a viewer.
"""
