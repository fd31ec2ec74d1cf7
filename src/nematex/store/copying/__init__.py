"""All rows of a shop as lines of JSON, and back. What is read is filled in as values: nothing of it is a statement."""
