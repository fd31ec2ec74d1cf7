"""Kinds of cloth and fibres, whether the shelf has them or not: which serve a pattern, how one behaves, today's bolts of it."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass

import numpy as np

from nematex.core.cloth.columns import SET_ASIDE
from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import SHEERNESS
from nematex.core.cloth.lexicon import ClothType, key
from nematex.core.cloth.likeness import kinds_like
from nematex.core.cloth.typical import typical_cloths, typical_columns
from nematex.core.errors import FieldFault
from nematex.core.judging.judge import judge
from nematex.core.judging.pairing import Pairing, explain
from nematex.core.judging.saying.blanks import made_for
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Wish
from nematex.core.tables import FibreCare, Tables
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.held.state import State
from nematex.usecases.quantity.saying import Voice, hand_word

MOST_BOLTS, ALIKE = 60, 4
NAMED = "The envelope names it."
FRAYS = ("hardly frays", "frays a little", "frays", "frays badly: finish its edges at once")
PRESSES = ("takes no press", "presses weakly", "takes a press", "takes a sharp press and keeps it")
SEWS = (
    "", "easy to sew: for a first garment", "no trouble to sew", "wants some practice", "wants a practised hand",
    "for whoever has sewn such cloth before",
)  # fmt: skip


@dataclass(frozen=True)
class KindRow:
    """A kind held against a pattern: its verdict, why, how it is, and how many cloths of it are on the shelf and in stock."""

    name: str
    verdict: Verdict
    why: str
    handle: str
    on_shelf: int
    in_stock: int


@dataclass(frozen=True)
class KindPage:
    """One kind in full: (label, words) of how it behaves, what its fibres ask, what is like it, and today's bolts."""

    kind: ClothType
    facts: tuple[tuple[str, str], ...]
    care: tuple[FibreCare, ...]
    alike: tuple[str, ...]
    bolts: tuple[ClothRecord, ...]
    named_by: tuple[PatternRecord, ...]


@dataclass(frozen=True)
class FibrePage:
    """A fibre: what it asks, what else is known of it, the kinds that are made of it, and today's bolts that hold it."""

    name: str
    care: FibreCare | None
    note: str
    kinds: tuple[ClothType, ...]
    bolts: tuple[ClothRecord, ...]


def kinds_for(state: State, pattern: PatternRecord, wish: Wish) -> list[KindRow]:
    """The kinds that may serve a pattern, best first; of one verdict those first that the envelope names in so many words.

    What is sold for something else, and what is refused, is left out.
    """
    tables, demand = state.tables, state.drawer.demand(pattern, wish)
    cloths, kinds = typical_cloths(tables), typical_columns(tables)
    types = tables.lexicon.types
    judged = judge(kinds, demand, tables)
    left_out = (judged.verdict == Verdict.AGAINST) | kinds.used_for(*SET_ASIDE) & ~judged.named
    shelf, stocked = _counts(state)
    rows = []
    for at in judged.order().tolist():
        if not left_out[at]:
            said = explain(judged, cloths[at], at, tables, state.voice.units)
            why = _why(said, types[at], bool(judged.named[at]))
            row = KindRow(cloths[at].name, said.verdict, why, _handle(types[at], state.voice), shelf[at], stocked[at])
            rows.append(row)
    return sorted(rows, key=lambda row: (row.verdict, row.why != NAMED))


def _why(said: Pairing, kind: ClothType, named: bool) -> str:
    """Where all is well whose word it rests on, else what there is to say."""
    if said.verdict is not Verdict.SUITS or not said.demand.named:
        return said.sentence
    envelope = f" {key(said.demand.pattern.recommended)} "
    if any(f" {key(name)} " in envelope for name in (kind.name, *kind.aliases)):
        return NAMED
    return "A word of the envelope means it among others." if named else "Of the sort that the envelope names."


def _handle(kind: ClothType, voice: Voice) -> str:
    """'Fluid to soft, 95–140 g/m²'."""
    return f"{_hand(kind, voice)}, {voice.lead(voice.weight_range(kind.weight_gsm.low, kind.weight_gsm.high))}"


def _hand(kind: ClothType, voice: Voice) -> str:
    low, high = (hand_word(cm, voice.tables) for cm in (kind.bend_cm.low, kind.bend_cm.high))
    return low if low == high else f"{low} to {high}"


def _counts(state: State) -> tuple[list[int], list[int]]:
    """Of each kind, how many cloths the shelf has, and of how many there is some."""
    kinds, shelf = len(state.tables.lexicon.types), state.shelf
    types = shelf.columns.type if shelf.records else np.zeros(0, dtype=np.int32)
    known = types >= 0
    stocked = known & (shelf.may_have_m > 0) if shelf.records else known
    return (
        np.bincount(types[known], minlength=kinds).tolist(),
        np.bincount(types[stocked], minlength=kinds).tolist(),
    )


def every_kind(state: State, asked: str) -> dict[str, list[tuple[ClothType, int]]]:
    """The kinds whose name, other names, fibre or use holds what is asked, by what they are; with how many are in stock."""
    _, stocked = _counts(state)
    words = key(asked).split()
    found: dict[str, list[tuple[ClothType, int]]] = defaultdict(list)
    for at, kind in enumerate(state.tables.lexicon.types):
        text = key(" ".join((kind.name, *kind.aliases, kind.family, kind.surface, *kind.all_fibres, *kind.end_uses)))
        if all(word in text for word in words):
            found[f"{kind.structure}: {kind.family}"].append((kind, stocked[at]))
    wovens_first = {"woven": 0, "knit": 1}
    return dict(sorted(found.items(), key=lambda each: (wovens_first.get(each[0].partition(":")[0], 2), -len(each[1]))))


def kind_page(state: State, name: str) -> KindPage | None:
    """Everything about a kind; None where there is none of that name."""
    tables = state.tables
    kind = tables.lexicon.by_key.get(key(name))
    if kind is None:
        return None
    at = tables.lexicon.index[kind.name]
    typical = typical_cloths(tables)[at]
    bolts = _bolts(state, (state.shelf.columns.type == at) if state.shelf.records else np.zeros(0, dtype=np.bool_))
    named = tuple(each for each in state.drawer.records if _names(state, each, at))
    return KindPage(
        kind,
        _behaves(kind, typical, state.voice),
        tuple(tables.fibre_care[fibre] for fibre in _fibres(kind, tables)),
        tuple(kinds_like(typical, tables, ALIKE)),
        bolts,
        named[:MOST_BOLTS],
    )


def _names(state: State, pattern: PatternRecord, at: int) -> bool:
    """Whether the envelope means this kind; one that cannot be judged says nothing."""
    try:
        return at in state.drawer.demand(pattern, Wish()).named
    except FieldFault:
        return False


def _fibres(kind: ClothType, tables: Tables) -> list[str]:
    """The fibres that it usually is of, of which something is written down."""
    return [name for name in dict.fromkeys(name for blend in kind.fibres for name in blend) if name in tables.fibre_care]


def _bolts(state: State, mask: np.ndarray) -> tuple[ClothRecord, ...]:
    """The cloths of the mask, those in stock first."""
    found = [state.shelf.records[at] for at in np.flatnonzero(mask).tolist()]
    return tuple(sorted(found, key=lambda each: each.stock_m == 0)[:MOST_BOLTS])


def _behaves(kind: ClothType, typical: Cloth, voice: Voice) -> tuple[tuple[str, str], ...]:
    """How a kind is, in words with the figures behind them."""
    bend, stretch = kind.bend_cm, kind.stretch_cross_pct
    shows = [SHEERNESS[round(level)] for level in (kind.sheer.low, kind.sheer.high)]
    washes = f"may shrink up to {kind.shrink_hi_pct:g} % in length" if kind.shrink_hi_pct else "does not shrink"
    first = "steam it before you cut" if typical.is_wool else "wash it before you cut"
    least = voice.tables.judging.cautions.shrinks_from_pct
    return (
        ("Weighs", voice.weight_range(kind.weight_gsm.low, kind.weight_gsm.high)),
        ("Handle", f"{_hand(kind, voice)}, bends at {bend.low:g} to {bend.high:g} cm"),
        ("Stretch across", f"{stretch.low:g} to {stretch.high:g} %"),
        ("Shows through", " to ".join(dict.fromkeys(shows))),
        ("Wash", f"{washes}; {first}" if kind.shrink_hi_pct >= least else washes),
        ("Cut edges", FRAYS[kind.fray]),
        ("Iron", PRESSES[kind.press]),
        ("To sew", SEWS[kind.sewing]),
        ("Lies", f"usually {voice.width(kind.width_cm)} wide" + ("; with a nap" if kind.nap else "")),
        ("Made for", made_for(kind, voice.tables.sayings.words)),
        ("Season", kind.season),
    )


def fibre_page(state: State, name: str) -> FibrePage | None:
    """Everything about a fibre; None where there is none of that name."""
    tables = state.tables
    fibre = tables.fibres.by_name.get(name)
    if fibre is None:
        return None
    kinds = tuple(kind for kind in tables.lexicon.types if name in kind.all_fibres)
    holds = np.array([bool(cloth.fibres and cloth.fibres.share(name)) for cloth in state.shelf.cloths], dtype=np.bool_)
    return FibrePage(name, tables.fibre_care.get(name), fibre.note, kinds, _bolts(state, holds))
