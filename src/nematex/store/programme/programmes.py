"""Programmes and their picks."""

from __future__ import annotations

from datetime import date, datetime
from typing import TypeVar

from sqlalchemy import func, select, update

from nematex.store.database import Work
from nematex.store.models import PickRow, ProgrammeRow
from nematex.store.records import Pick, Programme
from nematex.store.versions import PROGRAMMES, next_version

T = TypeVar("T")


def _pick(row: PickRow) -> Pick:
    options = None if row.options is None else tuple(row.options)
    wish = (row.view, row.size, row.look, row.school, options)
    more = (row.other_size, row.part, row.with_before, tuple(row.hacks or ()), row.instead_of)
    return Pick(row.id, row.cloth_id, row.pattern_id, row.line, *wish, *more)


def _picks(work: Work, programme_id: int) -> list[PickRow]:
    chosen = select(PickRow).where(PickRow.programme_id == programme_id, PickRow.binned_at.is_(None))
    return list(work.scalars(chosen.order_by(PickRow.place, PickRow.id)))


def _programme(work: Work, row: ProgrammeRow) -> Programme:
    return Programme(row.id, row.name, row.shown_on, row.intro, tuple(map(_pick, _picks(work, row.id))))


def all_programmes(work: Work) -> list[Programme]:
    """By date, those without one last, each with its picks."""
    picks: dict[int, list[Pick]] = {}
    for row in work.scalars(select(PickRow).where(PickRow.binned_at.is_(None)).order_by(PickRow.place, PickRow.id)):
        picks.setdefault(row.programme_id, []).append(_pick(row))
    rows = select(ProgrammeRow).where(ProgrammeRow.binned_at.is_(None))
    rows = rows.order_by(ProgrammeRow.shown_on.is_(None), ProgrammeRow.shown_on, ProgrammeRow.id)
    return [Programme(row.id, row.name, row.shown_on, row.intro, tuple(picks.get(row.id, ()))) for row in work.scalars(rows)]


def programme(work: Work, programme_id: int) -> Programme | None:
    """A programme; None where there is none, or it is in the bin."""
    row = work.get(ProgrammeRow, programme_id)
    return _programme(work, row) if row and row.binned_at is None else None


def announce_change(work: Work) -> None:
    """Take the programmes' next number before anything is looked at that is then written, so that writers wait in turn."""
    next_version(work, PROGRAMMES)


def save_programme(work: Work, name: str, shown_on: date | None, intro: str, programme_id: int | None = None) -> int:
    """Make a programme, or change the one of this number, which must be there."""
    next_version(work, PROGRAMMES)
    row = ProgrammeRow() if programme_id is None else work.get_one(ProgrammeRow, programme_id)
    work.add(row)
    row.name, row.shown_on, row.intro = name, shown_on, intro
    work.flush()
    return row.id


def bin_programme(work: Work, programme_id: int) -> None:
    """Take a programme off the list. Its picks stay with it, in the bin."""
    next_version(work, PROGRAMMES)
    row = work.get(ProgrammeRow, programme_id)
    if row:
        row.binned_at = datetime.now().replace(microsecond=0)


def add_pick(work: Work, programme_id: int, pick: Pick) -> None:
    """Append a pick at the end of the running order."""
    next_version(work, PROGRAMMES)  # held to the end, so that two picks added at once do not get the same place
    last = work.scalar(select(func.max(PickRow.place)).where(PickRow.programme_id == programme_id)) or 0
    work.add(
        PickRow(
            programme_id=programme_id,
            cloth_id=pick.cloth_id,
            pattern_id=pick.pattern_id,
            place=last + 1,
            line=pick.line,
            view=pick.view,
            size=pick.size,
            look=pick.look,
            school=pick.school,
            options=None if pick.options is None else list(pick.options),
            other_size=pick.other_size,
            part=pick.part,
            with_before=pick.with_before,
            hacks=list(pick.hacks) or None,
            instead_of=pick.instead_of,
        )
    )


def replace_cloth(work: Work, programme_id: int, pick_id: int, cloth_id: int) -> bool:
    """Another cloth in a pick's place, which remembers the first one it had; whether the pick is there."""
    row = work.get(PickRow, pick_id)
    if row is None or row.programme_id != programme_id or row.binned_at is not None:
        return False
    next_version(work, PROGRAMMES)
    first = row.instead_of or row.cloth_id
    row.instead_of, row.cloth_id = (None if first == cloth_id else first), cloth_id
    return True


def move_pick(work: Work, programme_id: int, pick_id: int, step: int) -> None:
    """Move a pick by `step` places with all that stands as one with it; what stands with another moves beside that.

    At the ends it stays.
    """
    next_version(work, PROGRAMMES)
    together = _together(_picks(work, programme_id))
    block = next((block for block in together if any(row.id == pick_id for row in block)), None)
    if block is None:
        return
    at = next(number for number, row in enumerate(block) if row.id == pick_id)
    if at == 0:
        _shift(together, together.index(block), step, 0)
    else:
        _shift(block, at, step, 1)
    for place, each in enumerate((row for block in together for row in block), 1):
        each.place = place


def _together(rows: list[PickRow]) -> list[list[PickRow]]:
    """The picks in their places: those that stand as one with the pick before them in one list with it."""
    found: list[list[PickRow]] = []
    for row in rows:
        if row.with_before and found:
            found[-1].append(row)
        else:
            found.append([row])
    return found


def _shift(rows: list[T], at: int, step: int, first: int) -> None:
    row = rows.pop(at)
    rows.insert(min(max(at + step, first), len(rows)), row)


def stand_together(work: Work, programme_id: int, pick_id: int, with_before: bool) -> None:
    """Let a pick stand as one with the pick before it, or by itself again."""
    _change(work, programme_id, pick_id, with_before=with_before)


def hold_size(work: Work, programme_id: int, pick_id: int, other_size: str | None) -> None:
    """Hold a second size of a pick, or none."""
    _change(work, programme_id, pick_id, other_size=other_size)


def _change(work: Work, programme_id: int, pick_id: int, **values: object) -> None:
    next_version(work, PROGRAMMES)
    work.execute(update(PickRow).where(PickRow.id == pick_id, PickRow.programme_id == programme_id).values(**values))


def line_of(work: Work, programme_id: int, pick_id: int) -> str | None:
    """The presenter's own line of a pick; None where the pick is gone."""
    chosen = select(PickRow.line).where(PickRow.id == pick_id, PickRow.programme_id == programme_id)
    return work.scalar(chosen.where(PickRow.binned_at.is_(None)))


def write_line(work: Work, programme_id: int, pick_id: int, line: str) -> None:
    _change(work, programme_id, pick_id, line=line)


def bin_pick(work: Work, programme_id: int, pick_id: int) -> None:
    """Take a pick out. It keeps its place and its line, in the bin."""
    _change(work, programme_id, pick_id, binned_at=datetime.now().replace(microsecond=0))
