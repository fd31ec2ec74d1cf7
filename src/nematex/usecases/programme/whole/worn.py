"""A programme's places as garments that are worn: each with its cloth, its pattern and its layer."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.cloth.estimates import Cloth
from nematex.core.colour.difference import delta_e
from nematex.core.pattern.look import layer_of, look_of
from nematex.core.set.outfits import Piece
from nematex.core.set.palette import Coloured, labs
from nematex.store.records import ClothRecord, PatternRecord, Pick, Programme
from nematex.usecases.held.state import State

PLAIN = ("", "solid")


@dataclass(frozen=True)
class Worn:
    """A place of a programme, by the pick that opens it."""

    pick: Pick
    record: ClothRecord
    cloth: Cloth
    pattern: PatternRecord
    kind: str
    layer: str


def is_printed(record: ClothRecord) -> bool:
    return record.print_kind not in PLAIN


def worn(state: State, programme: Programme) -> list[Worn]:
    """The garments in running order; what stands with another pick is part of it."""
    found: list[Worn] = []
    for pick in programme.picks:
        cloth, pattern = state.cloth(pick.cloth_id), state.pattern(pick.pattern_id)
        if cloth is None or pattern is None or (pick.with_before and found):
            continue
        kind = look_of(pattern.facts, state.tables, pick.view).kind
        found.append(Worn(pick, *cloth, pattern, kind, layer_of(pattern.facts, state.tables)))
    return found


def coloured(place: int, record: ClothRecord) -> Coloured:
    return Coloured(place, record.facts.name, record.colours, is_printed(record))


def is_loud(state: State, record: ClothRecord) -> bool:
    """Whether its print speaks up: large enough to be seen and far enough from its ground."""
    rule, printed = state.tables.judging.outfit, record.facts.print
    size = printed.scale_cm or printed.repeat_length_cm or printed.repeat_width_cm or rule.loud_from_cm
    if not is_printed(record) or size < rule.loud_from_cm or len(record.colours) < 2:
        return False
    ground, inks = labs(record.colours[:1]), labs(record.colours[1:])
    return bool((delta_e(ground, inks) >= rule.loud_contrast).any())


def piece(state: State, record: ClothRecord, cloth: Cloth, layer: str, name: str) -> Piece:
    return Piece(name, layer, record.colours, is_loud(state, record), cloth.weight.best)
