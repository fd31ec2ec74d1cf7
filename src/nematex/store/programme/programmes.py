"""Programmes and their picks."""

from __future__ import annotations

from datetime import date

from sqlalchemy import delete, func, select

from nematex.store.database import Work
from nematex.store.models import PickRow, ProgrammeRow
from nematex.store.records import Pick, Programme
from nematex.store.versions import PROGRAMMES, next_version


def _pick(row: PickRow) -> Pick:
    options = None if row.options is None else tuple(row.options)
    return Pick(row.id, row.cloth_id, row.pattern_id, row.line, row.view, row.size, row.look, row.school, options)


def _picks(work: Work, programme_id: int) -> list[PickRow]:
    return list(work.scalars(select(PickRow).where(PickRow.programme_id == programme_id).order_by(PickRow.place, PickRow.id)))


def _programme(work: Work, row: ProgrammeRow) -> Programme:
    return Programme(row.id, row.name, row.shown_on, row.intro, tuple(map(_pick, _picks(work, row.id))))


def all_programmes(work: Work) -> list[Programme]:
    """By date, those without one last, each with its picks."""
    picks: dict[int, list[Pick]] = {}
    for row in work.scalars(select(PickRow).order_by(PickRow.place, PickRow.id)):
        picks.setdefault(row.programme_id, []).append(_pick(row))
    rows = select(ProgrammeRow).order_by(ProgrammeRow.shown_on.is_(None), ProgrammeRow.shown_on, ProgrammeRow.id)
    return [Programme(row.id, row.name, row.shown_on, row.intro, tuple(picks.get(row.id, ()))) for row in work.scalars(rows)]


def programme(work: Work, programme_id: int) -> Programme | None:
    row = work.get(ProgrammeRow, programme_id)
    return _programme(work, row) if row else None


def save_programme(work: Work, name: str, shown_on: date | None, intro: str, programme_id: int | None = None) -> int:
    next_version(work, PROGRAMMES)
    row = work.get(ProgrammeRow, programme_id) if programme_id else None
    if row is None:
        row = ProgrammeRow()
        work.add(row)
    row.name, row.shown_on, row.intro = name, shown_on, intro
    work.flush()
    return row.id


def remove_programme(work: Work, programme_id: int) -> None:
    next_version(work, PROGRAMMES)
    work.execute(delete(ProgrammeRow).where(ProgrammeRow.id == programme_id))


def add_pick(work: Work, programme_id: int, pick: Pick) -> None:
    """Append a pick at the end of the running order."""
    next_version(work, PROGRAMMES)
    # The programme's row is locked, so that two picks added at once do not get the same place.
    work.execute(select(ProgrammeRow.id).where(ProgrammeRow.id == programme_id).with_for_update())
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
        )
    )


def move_pick(work: Work, programme_id: int, pick_id: int, step: int) -> None:
    """Move a pick by `step` places; at the ends it stays."""
    next_version(work, PROGRAMMES)
    rows = _picks(work, programme_id)
    at = next((number for number, row in enumerate(rows) if row.id == pick_id), None)
    if at is None:
        return
    row = rows.pop(at)
    rows.insert(min(max(at + step, 0), len(rows)), row)
    for place, each in enumerate(rows, 1):
        each.place = place


def write_line(work: Work, programme_id: int, pick_id: int, line: str) -> None:
    next_version(work, PROGRAMMES)
    row = work.get(PickRow, pick_id)
    if row and row.programme_id == programme_id:
        row.line = line


def remove_pick(work: Work, programme_id: int, pick_id: int) -> None:
    next_version(work, PROGRAMMES)
    work.execute(delete(PickRow).where(PickRow.id == pick_id, PickRow.programme_id == programme_id))
