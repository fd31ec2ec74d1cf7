"""The notes of a programme: told by templates that the shop edits, looked over, published, held against what is later."""
