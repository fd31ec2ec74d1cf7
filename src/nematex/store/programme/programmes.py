"""Programmes and their picks."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date, datetime
from typing import Any, TypeVar

from sqlalchemy import Row, delete, func, select, update

from nematex.store.database import Work
from nematex.store.models import PickRow, ProgrammeRow
from nematex.store.records import Pick, Programme
from nematex.store.versions import PROGRAMMES, next_version

T = TypeVar("T")


def _pick(row: PickRow | Row[Any]) -> Pick:
    options = None if row.options is None else tuple(row.options)
    wish = (row.view, row.size, row.look, row.school, options)
    more = (row.other_size, row.part, row.with_before, tuple(row.hacks or ()), row.instead_of)
    planned = (row.proposed, tuple(row.why or ()), row.question or "")
    return Pick(row.id, row.cloth_id, row.pattern_id, row.line, *wish, *more, *planned)


def _picks(work: Work, programme_id: int) -> list[PickRow]:
    chosen = select(PickRow).where(PickRow.programme_id == programme_id, PickRow.binned_at.is_(None))
    return list(work.scalars(chosen.order_by(PickRow.place, PickRow.id)))


def _programme(row: ProgrammeRow | Row[Any], picks: Sequence[PickRow] | Sequence[Row[Any]]) -> Programme:
    """A programme of its picks in their order: those that wait go behind the pick that they follow."""
    waiting: dict[int, list[Pick]] = {}
    shown: list[PickRow | Row[Any]] = []
    leads = 0
    for pick in picks:
        if pick.waits and leads:
            waiting.setdefault(leads, []).append(_pick(pick))
        else:
            shown.append(pick)
            leads = leads if pick.with_before and leads else pick.id
    return Programme(
        row.id,
        row.name,
        row.shown_on,
        row.intro,
        tuple(map(_pick, shown)),
        row.brief or {},
        {pick_id: tuple(found) for pick_id, found in waiting.items()},
        frozenset((cloth_id, pattern_id) for cloth_id, pattern_id in row.refused or ()),
        row.proposal,
        row.public_key,
    )


def all_programmes(work: Work) -> list[Programme]:
    """By date, those without one last, each with its picks. Plain rows: nothing is changed here, and there are thousands."""
    picks: dict[int, list[Row[Any]]] = {}
    chosen = select(*PickRow.__table__.columns).where(PickRow.binned_at.is_(None))
    for row in work.execute(chosen.order_by(PickRow.place, PickRow.id)):
        picks.setdefault(row.programme_id, []).append(row)
    rows = select(*ProgrammeRow.__table__.columns).where(ProgrammeRow.binned_at.is_(None))
    rows = rows.order_by(ProgrammeRow.shown_on.is_(None), ProgrammeRow.shown_on, ProgrammeRow.id)
    return [_programme(row, picks.get(row.id, ())) for row in work.execute(rows)]


def programme(work: Work, programme_id: int) -> Programme | None:
    """A programme; None where there is none, or it is in the bin."""
    row = work.get(ProgrammeRow, programme_id)
    return _programme(row, _picks(work, row.id)) if row and row.binned_at is None else None


def programme_of_key(work: Work, key: str) -> Programme | None:
    """The programme whose look-book everybody may read at this key."""
    row = work.scalar(select(ProgrammeRow).where(ProgrammeRow.public_key == key, ProgrammeRow.binned_at.is_(None)))
    return _programme(row, _picks(work, row.id)) if row else None


def set_public_key(work: Work, programme_id: int, key: str | None) -> None:
    next_version(work, PROGRAMMES)
    work.get_one(ProgrammeRow, programme_id).public_key = key


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
            proposed=pick.proposed,
            why=list(pick.why) or None,
            question=pick.question or None,
        )
    )


def save_brief(work: Work, programme_id: int, brief: Mapping[str, str]) -> None:
    """The brief of a programme as it was typed."""
    next_version(work, PROGRAMMES)
    work.get_one(ProgrammeRow, programme_id).brief = {name: text for name, text in brief.items() if text} or None


def refuse(work: Work, programme_id: int, pick_id: int) -> None:
    """Take a proposed pick out, and remember that its pairing is not to be proposed here again."""
    row, kept = work.get(PickRow, pick_id), work.get(ProgrammeRow, programme_id)
    if row is None or kept is None or row.programme_id != programme_id:
        return
    next_version(work, PROGRAMMES)
    pair = [row.cloth_id, row.pattern_id]
    kept.refused = [*(each for each in kept.refused or () if each != pair), pair]
    row.binned_at = datetime.now().replace(microsecond=0)


def forget_refused(work: Work, programme_id: int) -> None:
    """Let everything be proposed again."""
    next_version(work, PROGRAMMES)
    work.get_one(ProgrammeRow, programme_id).refused = None


def note_proposal(work: Work, programme_id: int, said: Mapping[str, Any]) -> None:
    """Which job proposes for a programme, or what it said in the end."""
    next_version(work, PROGRAMMES)
    work.get_one(ProgrammeRow, programme_id).proposal = dict(said)


def drop_proposed(work: Work, programme_id: int) -> None:
    """Take away what was proposed and not taken up: nobody's work hangs on it."""
    next_version(work, PROGRAMMES)
    asked = (PickRow.programme_id == programme_id, PickRow.proposed, PickRow.binned_at.is_(None))
    work.execute(delete(PickRow).where(*asked))


def take_up(work: Work, programme_id: int, pick_id: int | None = None) -> None:
    """Make a proposed pick, or all of them, the presenter's own."""
    next_version(work, PROGRAMMES)
    chosen = [PickRow.programme_id == programme_id, PickRow.proposed]
    if pick_id is not None:
        chosen.append(PickRow.id == pick_id)
    work.execute(update(PickRow).where(*chosen).values(proposed=False))


def put_behind(work: Work, programme_id: int, pick: Pick, leads: int, waits: bool) -> None:
    """Put a pick into the place that the pick `leads` opens: to be shown with it, or to wait behind all that is shown."""
    add_pick(work, programme_id, pick)
    work.flush()
    rows = _picks(work, programme_id)
    added = rows.pop()
    added.waits, added.with_before = waits, True
    block = next((each for each in _together(rows) if each[0].id == leads), rows)
    before = block if waits else [row for row in block if not row.waits]
    rows.insert(rows.index(before[-1]) + 1 if before else 0, added)
    for place, each in enumerate(rows, 1):
        each.place = place


def bring_forward(work: Work, programme_id: int, pick_id: int) -> bool:
    """Let a pick that waits change places with the one that opens its place; whether it still waits there."""
    next_version(work, PROGRAMMES)
    block = next((each for each in _together(_picks(work, programme_id)) if any(row.id == pick_id for row in each)), [])
    waiting = next((row for row in block if row.id == pick_id and row.waits), None)
    if waiting is None or block[0].waits:
        return False
    first = block[0]
    waiting.place, first.place = first.place, waiting.place
    waiting.waits, waiting.with_before, first.waits, first.with_before = False, False, True, True
    return True


def replace_cloth(work: Work, programme_id: int, pick_id: int, cloth_id: int) -> bool:
    """Another cloth in a pick's place, which remembers the first one it had; whether the pick is there."""
    row = work.get(PickRow, pick_id)
    if row is None or row.programme_id != programme_id or row.binned_at is not None:
        return False
    next_version(work, PROGRAMMES)
    row.proposed = False
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
    next(row for row in block if row.id == pick_id).proposed = False


def order_picks(work: Work, programme_id: int, leading: Sequence[int]) -> None:
    """Put the places in this order of the picks that open them; a place that is not named keeps behind them."""
    next_version(work, PROGRAMMES)
    blocks = _together(_picks(work, programme_id))
    rank = {pick_id: at for at, pick_id in enumerate(leading)}
    blocks.sort(key=lambda block: rank.get(block[0].id, len(rank)))
    for place, each in enumerate((row for block in blocks for row in block), 1):
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
    _change(work, programme_id, pick_id, with_before=with_before, proposed=False)


def hold_size(work: Work, programme_id: int, pick_id: int, other_size: str | None) -> None:
    """Hold a second size of a pick, or none."""
    _change(work, programme_id, pick_id, other_size=other_size, proposed=False)


def settle_pick(work: Work, programme_id: int, pick: Pick) -> None:
    """Keep what is chosen for a pick as it stands in this record."""
    names = ("view", "size", "other_size", "look", "school")
    chosen = {name: getattr(pick, name) for name in names}
    lists = {"options": None if pick.options is None else list(pick.options), "hacks": list(pick.hacks) or None}
    _change(work, programme_id, pick.id, **chosen, **lists)


def _change(work: Work, programme_id: int, pick_id: int, **values: object) -> None:
    next_version(work, PROGRAMMES)
    work.execute(update(PickRow).where(PickRow.id == pick_id, PickRow.programme_id == programme_id).values(**values))


def line_of(work: Work, programme_id: int, pick_id: int) -> str | None:
    """The presenter's own line of a pick; None where the pick is gone."""
    chosen = select(PickRow.line).where(PickRow.id == pick_id, PickRow.programme_id == programme_id)
    return work.scalar(chosen.where(PickRow.binned_at.is_(None)))


def write_line(work: Work, programme_id: int, pick_id: int, line: str) -> None:
    _change(work, programme_id, pick_id, line=line, proposed=False)


def write_question(work: Work, programme_id: int, pick_id: int, question: str) -> None:
    """What is still open of a pick."""
    _change(work, programme_id, pick_id, question=question or None, proposed=False)


def bin_pick(work: Work, programme_id: int, pick_id: int) -> None:
    """Take a pick out; the first that waits behind it takes its place. It keeps its place and its line, in the bin."""
    block = next((each for each in _together(_picks(work, programme_id)) if each[0].id == pick_id), [])
    follows = next((row for row in block if row.waits), None)
    if follows:
        follows.waits = follows.with_before = False
        for row in block[1 : block.index(follows)]:
            row.place, follows.place = follows.place, row.place
    _change(work, programme_id, pick_id, binned_at=datetime.now().replace(microsecond=0))
