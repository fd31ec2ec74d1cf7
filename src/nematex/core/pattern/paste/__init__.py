"""A pattern envelope pasted as text, or as a table from a spreadsheet, read into the fields of a pattern."""

from nematex.core.pattern.paste.draft import Draft, Line
from nematex.core.pattern.paste.reader import read_paste

__all__ = ["Draft", "Line", "read_paste"]
