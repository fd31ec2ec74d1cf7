"""What was chosen when a pick was kept, as it can still be shown: what its pattern has no more falls back, and is said.

Total: whatever stands in a row, a pick comes out that every page can open. The row itself stays as it is until somebody
chooses anew, so a view or a size that comes back is chosen again.
"""

from __future__ import annotations

from dataclasses import replace

from nematex.core.errors import NematexError
from nematex.core.pattern.chosen import size_meant, view_shown
from nematex.core.pattern.facts import LOOKS, SCHOOLS, USUAL_SCHOOL
from nematex.core.pattern.hacks import read_hack
from nematex.core.tables import Tables
from nematex.store.records import PatternRecord, Pick, Programme
from nematex.usecases.held.drawer import Drawer

USUAL = {"look": "balanced", "school": USUAL_SCHOOL}


def as_shown(programme: Programme, drawer: Drawer, tables: Tables) -> Programme:
    """A programme with every pick as it can be shown, and pick → what is said of what was chosen and is gone."""
    lost: dict[int, tuple[str, ...]] = {}

    def one(pick: Pick) -> Pick:
        found, said = _shown(pick, drawer.by_id.get(pick.pattern_id), tables)
        if said:
            lost[pick.id] = said
        return found

    picks = tuple(map(one, programme.picks))
    waiting = {leads: tuple(map(one, behind)) for leads, behind in programme.waiting.items()}
    return replace(programme, picks=picks, waiting=waiting, lost=lost) if lost else programme


def _shown(pick: Pick, pattern: PatternRecord | None, tables: Tables) -> tuple[Pick, tuple[str, ...]]:
    if pattern is None:
        return pick, ()
    falls_back, said = _of_the_tables(pick, pattern)
    hacks = tuple(each for each in pick.hacks if _means_something(each, tables))
    if hacks != pick.hacks:
        falls_back["hacks"] = hacks
        said.append("a change to the pattern cannot be read any more and is left out")
    for name, known in (("look", LOOKS), ("school", SCHOOLS)):
        if getattr(pick, name) not in known:
            falls_back[name] = USUAL[name]
            said.append(f"the {name} {getattr(pick, name)!r} is not known any more; {USUAL[name]} is shown")
    return (replace(pick, **falls_back) if falls_back else pick), tuple(said)  # type: ignore[arg-type]


def _of_the_tables(pick: Pick, pattern: PatternRecord) -> tuple[dict[str, object], list[str]]:
    """View, sizes and options that the pattern's tables have no more."""
    facts = pattern.facts
    sizes = facts.table_sizes
    options = {each.name for each in facts.options}
    falls_back: dict[str, object] = {}
    said: list[str] = []
    if pick.view and not view_shown(facts, pick.view):
        falls_back["view"] = None
        said.append(f"view {pick.view} is not in this pattern any more; all of it is shown")
    if pick.size and not size_meant(pick.size, sizes):
        falls_back["size"] = None
        said.append(f"size {pick.size} is not in this pattern any more; the largest is reckoned")
    if pick.other_size and not size_meant(pick.other_size, sizes):
        falls_back["other_size"] = None
        said.append(f"the second size {pick.other_size} is not in this pattern any more; it is left out")
    if pick.options is not None and (gone := [name for name in pick.options if name not in options]):
        falls_back["options"] = tuple(name for name in pick.options if name in options) if options else None
        said.append(f"{', '.join(gone)} is no option of this pattern any more; it is left out")
    return falls_back, said


def _means_something(hack: str, tables: Tables) -> bool:
    try:
        read_hack(hack, tables)
    except NematexError:
        return False
    return True
