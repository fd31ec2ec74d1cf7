"""What can be wrong with a shop's tables."""

from __future__ import annotations

from nematex.core.errors import NematexError


class SchemaFault(NematexError, RuntimeError):
    """The tables are not those that this program knows, or cannot be made; nothing was changed."""
