"""What is closed to a role, told to the page so that it offers nobody what would be refused."""

from __future__ import annotations

import re

from flask import Flask

from nematex.core.people.rights import may
from nematex.tables import rights
from nematex.web.guard.table import OPEN, all_rights

PLACE = re.compile(r"<(?:(\w+)(?:\([^)]*\))?:)?\w+>")  # of a rule of addresses
MATCHED = {"int": r"\d+", "path": ".+"}


def _pattern(rule: str) -> str:
    """An address with places as a regular expression that the browser reads as well."""
    parts, end = [], 0
    for place in PLACE.finditer(rule):
        parts += [re.escape(rule[end : place.start()]).replace(r"\-", "-"), MATCHED.get(place[1] or "", "[^/]+")]
        end = place.end()
    return "".join(parts) + re.escape(rule[end:]).replace(r"\-", "-")


def closed_to(app: Flask, role: str) -> dict[str, list[str]]:
    """Method → the addresses, as regular expressions, that this role is refused; nothing for who may do all."""
    known: dict[str, dict[str, list[str]]] = app.extensions.setdefault("closed", {})
    if role not in known:
        rules = list(app.url_map.iter_rules())
        asked, every = all_rights(rules), rights()
        found: dict[str, list[str]] = {}
        for rule in rules:
            for method in ("GET", "POST"):
                right = asked.get((rule.endpoint, method), OPEN)
                if right != OPEN and not may(role, right, every):
                    found.setdefault(method, []).append(_pattern(rule.rule))
        known[role] = found
    return known[role]
