"""The bin: what was taken away, what hangs on it, putting it back, and letting it go for good."""

from __future__ import annotations

from collections.abc import Collection
from datetime import datetime
from typing import Any

from sqlalchemy import delete, func, literal, select, update

from nematex.store.database import Work
from nematex.store.models import (
    Base,
    ClothRow,
    KitOfferRow,
    MakeRow,
    OverrideRow,
    PatternRow,
    PhotoRow,
    PickRow,
    ProgrammeRow,
    ReadingRow,
    SewAlongRow,
)
from nematex.store.records import Binned
from nematex.store.versions import DRAWER, PROGRAMMES, SHELF, next_version

TABLES: dict[str, Any] = {
    "cloth": ClothRow,
    "pattern": PatternRow,
    "programme": ProgrammeRow,
    "pick": PickRow,
    "hand verdict": OverrideRow,
    "sew-along": SewAlongRow,
    "make": MakeRow,
    "kit": KitOfferRow,
}
COUNTERS = dict.fromkeys(TABLES, PROGRAMMES) | {"cloth": SHELF, "pattern": DRAWER}
VERSIONED = ("cloth", "pattern")
# What goes for good with a row: by kind, the tables and the column by which they hang on it.
HANGING: dict[str, tuple[tuple[str, Any], ...]] = {
    "cloth": (
        ("picks", PickRow.cloth_id),
        ("hand verdicts", OverrideRow.cloth_id),
        ("readings", ReadingRow.cloth_id),
        ("photos", PhotoRow.cloth_id),
        ("makes", MakeRow.cloth_id),
        ("kits", KitOfferRow.cloth_id),
    ),
    "pattern": (
        ("picks", PickRow.pattern_id),
        ("hand verdicts", OverrideRow.pattern_id),
        ("makes", MakeRow.pattern_id),
        ("sew-alongs", SewAlongRow.pattern_id),
        ("kits", KitOfferRow.pattern_id),
    ),
    "programme": (("picks", PickRow.programme_id),),
}


def hanging(work: Work, kind: str, ids: Collection[int]) -> dict[int, dict[str, int]]:
    """Id → what hangs on a row, and how much of it; picks and verdicts that were taken out themselves count too."""
    found: dict[int, dict[str, int]] = {}
    for what, column in HANGING.get(kind, ()):
        chosen = select(column, func.count()).where(column.in_(ids)).group_by(column)
        for row_id, number in work.execute(chosen) if ids else ():
            found.setdefault(row_id, {})[what] = number
    return found


Named = tuple[str, int, str, datetime]  # kind, id, what it is called, when it was taken away


def _things(work: Work) -> list[Named]:
    """Cloths, patterns, programmes, sew-alongs and kits in the bin."""
    found: list[Named] = []
    for kind, code in (
        ("cloth", ClothRow.code),
        ("pattern", PatternRow.code),
        ("programme", literal("")),
        ("sew-along", literal("")),
        ("kit", literal("")),
    ):
        row = TABLES[kind]
        for each in work.execute(select(row.id, code, row.name, row.binned_at).where(row.binned_at.is_not(None))):
            row_id, said, name, when = each
            found.append((kind, row_id, f"{name} ({said})" if said else name, when))
    return found


def _pairings(work: Work) -> list[Named]:
    """Picks, verdicts by hand and garments made in the bin."""
    found: list[Named] = []
    for kind, words in (("pick", PickRow.line), ("hand verdict", OverrideRow.reason), ("make", literal(""))):
        row = TABLES[kind]
        chosen = select(row.id, ClothRow.name, PatternRow.name, words, row.binned_at).where(row.binned_at.is_not(None))
        chosen = chosen.join(ClothRow, ClothRow.id == row.cloth_id).join(PatternRow, PatternRow.id == row.pattern_id)
        for row_id, cloth, pattern, said, when in work.execute(chosen):
            found.append((kind, row_id, f"{cloth} for {pattern}{f': {said}' if said else ''}", when))
    return found


def binned(work: Work) -> list[Binned]:
    """All that is in the bin, the latest first."""
    named = _things(work) + _pairings(work)
    hung = {kind: hanging(work, kind, [row_id for which, row_id, *_ in named if which == kind]) for kind in HANGING}
    found = [Binned(kind, row_id, name, when, hung.get(kind, {}).get(row_id, {})) for kind, row_id, name, when in named]
    return sorted(found, key=lambda each: (each.binned_at, each.kind, each.id), reverse=True)


def put_back(work: Work, kind: str, row_id: int) -> bool:
    """Take something out of the bin, whole; whether it was there."""
    row, version = TABLES[kind], next_version(work, COUNTERS[kind])
    values = {"binned_at": None, **({"version": version} if kind in VERSIONED else {})}
    done = work.execute(update(row).where(row.id == row_id, row.binned_at.is_not(None)).values(values))
    return bool(done.rowcount)  # type: ignore[attr-defined]


def let_go(work: Work, kind: str, row_id: int) -> bool:
    """Remove something that is in the bin for good, with what hangs on it; whether it was there."""
    next_version(work, COUNTERS[kind])
    next_version(work, PROGRAMMES)
    table = Base.metadata.tables[TABLES[kind].__tablename__]
    done = work.execute(delete(table).where(table.c.id == row_id, table.c.binned_at.is_not(None)))
    return bool(done.rowcount)  # type: ignore[attr-defined]


def standing(work: Work, cloth_ids: Collection[int]) -> dict[int, list[int]]:
    """Cloth id → the programme of each of its picks. What is in the bin does not count."""
    found: dict[int, list[int]] = {}
    chosen = select(PickRow.cloth_id, PickRow.programme_id).join(ProgrammeRow, ProgrammeRow.id == PickRow.programme_id)
    chosen = chosen.where(PickRow.binned_at.is_(None), ProgrammeRow.binned_at.is_(None), PickRow.cloth_id.in_(cloth_ids))
    for cloth_id, programme_id in work.execute(chosen) if cloth_ids else ():
        found.setdefault(cloth_id, []).append(programme_id)
    return found
