"""Taking an import back: what it changed is set to what it was, except where somebody has changed it since."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Any

from nematex.core.codes import code_key
from nematex.store.bin import hanging, standing
from nematex.store.cloth import cloths as cloth_store
from nematex.store.cloth import readings as reading_store
from nematex.store.cloth import uploads
from nematex.store.cloth.cloths import cloth_values
from nematex.store.records import ClothRecord
from nematex.usecases.held.shop import Shop

MONEY = ("price_per_m", "sale_price_per_m")
DATES = ("arrived",)
IN_BIN = "in bin"  # in what a step remembers: the cloth was in the bin when the list brought it back


@dataclass(frozen=True)
class Kept:
    """A new cloth that stays on the shelf, because something hangs on it: picks, and hand verdicts."""

    code: str
    name: str
    picks: int
    verdicts: int


@dataclass(frozen=True)
class Undone:
    """How many cloths went into the bin or were set back; which were kept; what was changed since: (code, column)."""

    removed: int
    restored: int
    left: list[tuple[str, str]]
    kept: list[Kept]
    programmes: int  # in which the kept ones stand


def plain(values: dict[str, Any]) -> dict[str, Any]:
    """Column values as JSON can hold them."""
    return {
        name: format(value, "f") if isinstance(value, Decimal) else value.isoformat() if isinstance(value, date) else value
        for name, value in values.items()
    }


def _typed(name: str, value: Any) -> Any:
    if value is None:
        return None
    return Decimal(value) if name in MONEY else date.fromisoformat(value) if name in DATES else value


def _equal(name: str, one: Any, other: Any) -> bool:
    if name in MONEY and one is not None and other is not None:
        return Decimal(one) == Decimal(other)
    return bool(one == other)


@dataclass
class _Plan:
    """What taking an import back comes to: cloths it made or brought from the bin, what to set back, what moved since."""

    made: dict[int, ClothRecord]
    back: dict[int, dict[str, Any]]
    binned_again: dict[int, ClothRecord]
    left: list[tuple[str, str]]


def _plan(steps: list[uploads.Step], now: dict[str, ClothRecord]) -> _Plan:
    plan = _Plan({}, {}, {}, [])
    for code, before, after in steps:
        record = now.get(code_key(code))
        if record is None:
            plan.left.append((code, "the cloth is gone"))
            continue
        current = plain(cloth_values(record))
        touched = [name for name in after if not _equal(name, current[name], after[name])]
        if before is None:
            if touched:
                plan.left.append((code, ", ".join(touched)))
            else:
                plan.made[record.id] = record
            continue
        if before.get(IN_BIN) and not touched:
            plan.binned_again[record.id] = record
        changed = [name for name in after if not _equal(name, before[name], after[name])]
        back = {name: _typed(name, before[name]) for name in changed if name not in touched}
        plan.left += [(code, name) for name in changed if name in touched]
        if back:
            plan.back[record.id] = back
    return plan


def undo(shop: Shop, upload_id: int) -> Undone | None:
    """Take an applied import back; None if there is nothing to take back. Nothing that hangs on a cloth is lost."""
    with shop.database.work() as work:
        cloth_store.announce_change(work)  # from here nobody else changes a cloth
        steps = uploads.steps_of(work, upload_id)
        if not steps:
            return None
        plan = _plan(steps, cloth_store.cloths_by_code(work, [code for code, _before, _after in steps]))
        gone = plan.made | plan.binned_again
        picks, hung = standing(work, gone), hanging(work, "cloth", gone)
        verdicts = {cloth_id: found["hand verdicts"] for cloth_id, found in hung.items() if "hand verdicts" in found}
        staying = {cloth_id for cloth_id in gone if cloth_id in picks or cloth_id in verdicts}
        kept = [
            Kept(record.code, record.facts.name, len(picks.get(cloth_id, ())), verdicts.get(cloth_id, 0))
            for cloth_id, record in gone.items()
            if cloth_id in staying
        ]
        removed = [cloth_id for cloth_id in gone if cloth_id not in staying]
        reading_store.drop_readings_of_import(work, upload_id, set(plan.made))
        cloth_store.bin_cloths(work, removed)
        cloth_store.change_cloths(work, plan.back)
        uploads.drop_steps(work, upload_id)
        uploads.set_state(work, upload_id, applied=False)
    stand_in = {programme for cloth_id in staying for programme in picks.get(cloth_id, ())}
    return Undone(len(removed), len(plan.back), plan.left, kept, len(stand_in))
