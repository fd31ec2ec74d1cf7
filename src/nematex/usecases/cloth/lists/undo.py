"""Taking an import back: what it changed is set to what it was, except where somebody has changed it since."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Any

from nematex.store.cloth import cloths as cloth_store
from nematex.store.cloth import readings as reading_store
from nematex.store.cloth import uploads
from nematex.store.cloth.cloths import cloth_values
from nematex.usecases.held.shop import Shop

MONEY = ("price_per_m", "sale_price_per_m")
DATES = ("arrived",)


@dataclass(frozen=True)
class Undone:
    """How many cloths were taken off or set back, and what was left because it changed since: (code, column)."""

    removed: int
    restored: int
    left: list[tuple[str, str]]


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


def undo(shop: Shop, upload_id: int) -> Undone | None:
    """Take an applied import back; None if there is nothing to take back."""
    removed: list[int] = []
    restored: dict[int, dict[str, Any]] = {}
    left: list[tuple[str, str]] = []
    with shop.database.work() as work:
        steps = uploads.steps_of(work, upload_id)
        if not steps:
            return None
        cloth_store.announce_change(work)  # from here nobody else changes a cloth
        now = cloth_store.cloths_by_code(work, [code for code, _before, _after in steps])
        reading_store.drop_readings_of_import(work, upload_id)
        for code, before, after in steps:
            record = now.get(code.casefold())
            if record is None:
                left.append((code, "the cloth is gone"))
                continue
            current = plain(cloth_values(record))
            touched = [name for name in after if not _equal(name, current[name], after[name])]
            if before is None:
                if touched:
                    left.append((code, ", ".join(touched)))
                else:
                    removed.append(record.id)
                continue
            changed = [name for name in after if not _equal(name, before[name], after[name])]
            back = {name: _typed(name, before[name]) for name in changed if name not in touched}
            left += [(code, name) for name in changed if name in touched]
            if back:
                restored[record.id] = back
        cloth_store.remove_cloths(work, removed)
        cloth_store.change_cloths(work, restored)
        uploads.drop_steps(work, upload_id)
        uploads.set_state(work, upload_id, applied=False, state="", message="")
    return Undone(len(removed), len(restored), left)
