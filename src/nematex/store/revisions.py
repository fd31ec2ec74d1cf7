"""Which revisions of the tables this program knows, and which a database is at; read without the library that changes them."""

from __future__ import annotations

import re
from functools import cache
from pathlib import Path

from sqlalchemy import Connection, inspect, text

FOLDER = Path(__file__).parent / "migrations" / "versions"
NAMED = re.compile(r'^(revision|down_revision)\b[^=\n]*= "([^"]+)"', re.MULTILINE)
HOLDS = "alembic_version"  # the library's own table


@cache
def _steps() -> dict[str, str]:
    """Each revision, and the one before it; "" before the first."""
    found = (dict(NAMED.findall(path.read_text())) for path in FOLDER.glob("*.py"))
    return {each["revision"]: each.get("down_revision", "") for each in found if "revision" in each}


def known() -> frozenset[str]:
    return frozenset(_steps())


def newest() -> str:
    """The one that no other comes after."""
    (found,) = known() - set(_steps().values())
    return found


def revision_of(connection: Connection) -> str:
    """The revision that the tables are at; "" where there are none."""
    if not inspect(connection).has_table(HOLDS):
        return ""
    return str(connection.execute(text(f"select version_num from {HOLDS}")).scalar() or "")
