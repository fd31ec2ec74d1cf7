"""Roles and the one table of what each may do (data/rights.csv)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

ROLES = ("owner", "buyer", "presenter", "viewer")


@dataclass(frozen=True)
class Right:
    """Something that a person may do: its name, what it lets do, and the roles that have it."""

    name: str
    lets: str
    roles: frozenset[str]


Rights = Mapping[str, Right]


def may(role: str, right: str, rights: Rights) -> bool:
    """Whether a role has a right; an unknown role has none. Raises KeyError for a right that no table has."""
    return role in rights[right].roles
