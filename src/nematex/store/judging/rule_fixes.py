"""Numbers of the trade's tables as the shop has set them."""

from __future__ import annotations

from dataclasses import asdict

from sqlalchemy import delete, select
from sqlalchemy.dialects.mysql import insert

from nematex.store.database import Work
from nematex.store.models import RuleFixRow
from nematex.store.records import RuleFix
from nematex.store.versions import RULES, next_version

FIELDS = ("place", "row", "field", "value", "was", "reason", "by_whom", "set_at", "id")


def rule_fixes(work: Work) -> list[RuleFix]:
    """All of them, the latest last."""
    rows = work.scalars(select(RuleFixRow).order_by(RuleFixRow.set_at, RuleFixRow.id))
    return [RuleFix(**{name: getattr(row, name) for name in FIELDS}) for row in rows]


def announce_rules(work: Work) -> None:
    """Hold the rules until the unit of work ends: nobody else sets one meanwhile."""
    next_version(work, RULES)


def set_rule(work: Work, fix: RuleFix) -> None:
    """Set a number; set again, it is replaced, and what it shipped with stays."""
    values = {name: value for name, value in asdict(fix).items() if name not in ("id", "set_at")}
    statement = insert(RuleFixRow).values(values)
    kept = {name: statement.inserted[name] for name in ("value", "reason", "by_whom")}
    next_version(work, RULES)
    work.execute(statement.on_duplicate_key_update(kept))


def unset_rule(work: Work, fix_id: int) -> None:
    """Back to the number that ships."""
    next_version(work, RULES)
    work.execute(delete(RuleFixRow).where(RuleFixRow.id == fix_id))
