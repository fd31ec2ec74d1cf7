"""The pairings that may be proposed: suitable, in stock, within the brief; each with its score, its length and its cost."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
import numpy.typing as npt
from propcache.api import cached_property

from nematex.core.amount.length import least_length_m
from nematex.core.amount.many import lengths_m
from nematex.core.cloth.facts import STRUCTURES
from nematex.core.colour.difference import delta_e, lab_from_srgb, read_hex
from nematex.core.errors import FieldFault
from nematex.core.judging.matrix import Matrix
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Wish
from nematex.core.quantity.arrays import Floats, Mask
from nematex.core.set.brief import Brief
from nematex.core.set.choosing import Ids
from nematex.core.set.coverage import Garment, garment_of
from nematex.core.set.palette import labs
from nematex.store.records import ClothRecord, PatternRecord, Pick, Programme
from nematex.tables import colour_names, colour_words
from nematex.usecases.cloth.browse import cloth_named
from nematex.usecases.held.state import State
from nematex.usecases.judging.matrix_view import offered_cloths

FOR_BEGINNERS = ("easy", "improver")
OF_EACH_KIND = 40  # cloths of every kind that is asked for
OF_EACH_MUST = 5  # pairings of every cloth that must be shown, beside the best of all
AT_LEAST = 3  # of each pattern


@dataclass(frozen=True, eq=False)
class Candidates:
    """n pairings: places in the drawer and on the shelf, score 0 to 1, metres (NaN where no table says) and cost.

    The first `own` of them are the programme's own and stand already.
    """

    state: State
    patterns: Ids
    cloths: Ids
    score: Floats
    length_m: Floats
    cost: Floats
    own: int

    def __len__(self) -> int:
        return len(self.patterns)

    def pattern(self, at: int) -> PatternRecord:
        return self.state.drawer.records[int(self.patterns[at])]

    def cloth(self, at: int) -> ClothRecord:
        return self.state.shelf.records[int(self.cloths[at])]

    @cached_property
    def pattern_records(self) -> list[PatternRecord]:
        return [self.pattern(at) for at in range(len(self))]

    @cached_property
    def cloth_records(self) -> list[ClothRecord]:
        return [self.cloth(at) for at in range(len(self))]

    @cached_property
    def garments(self) -> dict[int, Garment]:
        """Place in the drawer → the garment with the bodies that it reaches."""
        records, tables = self.state.drawer.records, self.state.tables
        return {int(at): garment_of(records[at].facts.name, records[at].facts, tables) for at in np.unique(self.patterns)}

    def kind(self, at: int) -> str:
        """The kind of garment of a pairing, as it is drawn."""
        return self.garments[int(self.patterns[at])].kind

    @cached_property
    def ground_lab(self) -> Floats:
        """CIELAB of each cloth's ground, (n, 3); NaN where no colour is known."""
        return ground_lab(self.cloth_records)

    @cached_property
    def ground_family(self) -> npt.NDArray[np.str_]:
        """The family of colour of each ground; "" where it is not known."""
        names = colour_names()
        off = delta_e(self.ground_lab[:, None, :], lab_from_srgb([each.srgb for each in names])[None, :, :])
        known = ~np.isnan(self.ground_lab[:, 0])
        families = np.array([each.family for each in names])
        return np.where(known, families[np.argmin(np.nan_to_num(off, nan=1e9), axis=1)], "")


def ground_lab(records: list[ClothRecord]) -> Floats:
    """CIELAB of the ground of each cloth, (n, 3); NaN where no colour is known."""
    found = np.full((len(records), 3), np.nan)
    known = [at for at, record in enumerate(records) if record.colours]
    if known:
        found[known] = lab_from_srgb([read_hex(records[at].colours[0]) for at in known])
    return found


def new_since(programme: Programme, state: State, today: date) -> date:
    """From when a cloth that arrived is new on the day it is shown."""
    return (programme.shown_on or today) - timedelta(days=state.tables.judging.proposal.new_days)


def anchor_of(state: State, brief: Brief) -> ClothRecord | None:
    """The cloth that the brief names as its anchor; raises FieldFault where there is none of that name."""
    return _named(state, "anchor print", brief.anchor) if brief.anchor else None


def must_show(state: State, brief: Brief) -> list[ClothRecord]:
    """The cloths that the brief names; raises FieldFault for one that is not on the shelf."""
    return [_named(state, "cloths to show", each) for each in brief.cloths]


def _named(state: State, field: str, text: str) -> ClothRecord:
    found = cloth_named(state.shelf, text)
    if found is None:
        raise FieldFault(field, text[:60], "is not on the shelf; write a code or the name of a cloth")
    return found


def gather(
    state: State,
    judged: Matrix,
    brief: Brief,
    programme: Programme,
    new_from: date,
    shown: frozenset[tuple[int, int]] = frozenset(),
) -> Candidates:
    """The best pairings within the brief, the programme's own places first; `shown` are pairings shown not long ago."""
    rule = state.tables.judging.proposal
    score = judged.score / 100
    usable = (judged.verdict <= Verdict.WITH_CARE) & allowed_patterns(state, brief)[:, None]
    usable &= allowed_cloths(state, brief)[None, :]
    for cloth_id, pattern_id in (*programme.refused, *shown):
        at, place = state.drawer.place.get(pattern_id), state.shelf.place.get(cloth_id)
        if at is not None and place is not None:
            usable[at, place] = False
    standing = [pick for pick in programme.picks if not pick.proposed]
    taken = _places(state, standing)  # a pattern or cloth that stands in the set is not shown twice
    usable[[at for at, _ in taken], :] = False
    usable[:, [place for _, place in taken]] = False
    offered = np.where(usable, score + _liking(state, brief)[None, :], -1.0).astype(np.float32)
    patterns, cloths = _best(offered, rule.pairings, _musts(state, brief, new_from, offered))
    own = _places(state, [pick for at, pick in enumerate(standing) if not pick.with_before or not at])
    patterns = np.concatenate([np.array([at for at, _ in own], dtype=np.intp), patterns])
    cloths = np.concatenate([np.array([place for _, place in own], dtype=np.intp), cloths])
    length = _lengths(state, patterns, cloths)
    cost = length * prices(state)[cloths]
    found = Candidates(state, patterns, cloths, score[patterns, cloths].astype(np.float64), length, cost, len(own))
    return _taken(found, _within(found, brief))


def _places(state: State, picks: Iterable[Pick]) -> list[tuple[int, int]]:
    """Where the pattern and the cloth of each pick stand in drawer and shelf."""
    found = ((state.drawer.place.get(pick.pattern_id), state.shelf.place.get(pick.cloth_id)) for pick in picks)
    return [(at, place) for at, place in found if at is not None and place is not None]


def prices(state: State) -> Floats:
    """Price per m today of each cloth in the currency that most of the shelf is priced in; NaN for the others, (cloths,)."""
    today = date.today()
    found: Floats | None = state.worked_out.get(("prices", today))
    if found is None:
        said = [record.currency for record in state.shelf.records]
        usual = Counter(each for each in said if each).most_common(1)
        ours = np.array([not usual or each == usual[0][0] for each in said], dtype=np.bool_)
        found = state.worked_out["prices", today] = np.where(ours, state.shelf.filed.price_on(today), np.nan)
    return found


def allowed_patterns(state: State, brief: Brief) -> Mask:
    """Which patterns the brief allows."""
    children = brief.audience == "those who sew for children"
    found = [
        (record.facts.wearer != "adult") == children
        and (brief.audience != "beginners" or record.difficulty in FOR_BEGINNERS)
        and (not brief.season or _in_season(record.season, brief.season))
        for record in state.drawer.records
    ]
    return np.array(found, dtype=np.bool_)


def _in_season(text: str, season: str) -> bool:
    return not text or season in text or "all year" in text


def allowed_cloths(state: State, brief: Brief) -> Mask:
    """Which cloths the brief allows: in stock, no lining, of the season, on a ground as wanted."""
    shelf, rule = state.shelf, state.tables.judging.proposal
    keep = offered_cloths(state) & (shelf.may_have_m > 0)
    if brief.season:
        keep &= np.array([not seasons or brief.season in seasons for seasons in shelf.filed.seasons], dtype=np.bool_)
    if brief.grounds:
        light = ground_lab(shelf.records)[:, 0]
        keep &= light <= rule.dark_below if brief.grounds == "dark" else light >= rule.light_above
    for record in must_show(state, brief):
        keep[shelf.place[record.id]] = True
    anchor = anchor_of(state, brief)
    if anchor:
        keep[shelf.place[anchor.id]] = True
    return keep


def _musts(state: State, brief: Brief, new_from: date, offered: npt.NDArray[np.float32]) -> list[int]:
    """Places of cloths of which some pairings are weighed in any case: those named, and the best of each kind asked for."""
    shelf = state.shelf
    named = [*must_show(state, brief), *filter(None, [anchor_of(state, brief)])]
    found = [shelf.place[record.id] for record in named]
    best = offered.max(axis=0, initial=-1.0)
    for members in _kinds_asked(state, brief, new_from):
        places = np.flatnonzero(members & (best >= 0))
        found += [int(at) for at in places[np.argsort(-best[places], kind="stable")][:OF_EACH_KIND]]
    return list(dict.fromkeys(found))


def _kinds_asked(state: State, brief: Brief, new_from: date) -> Iterator[Mask]:
    """For each kind of cloth that the brief asks for, which cloths are of it."""
    shelf, rule = state.shelf, state.tables.judging.proposal
    if brief.deadstock:
        yield np.array([cloth.deadstock for cloth in shelf.cloths], dtype=np.bool_)
    if brief.arrivals:
        yield np.asarray(shelf.filed.arrived >= new_from.toordinal())
    if brief.overstock:
        yield np.asarray(shelf.stock_m >= rule.overstock_m)
    for fibre in brief.fibres:
        yield np.array([bool(each.fibres and each.fibres.share(fibre)) for each in shelf.cloths], dtype=np.bool_)
    for structure in brief.structures:
        yield np.asarray(shelf.columns.structure == STRUCTURES.index(structure))


def _liking(state: State, brief: Brief) -> Floats:
    """What each cloth gains by a word of the theme and by a colour of the anchor print, (cloths,)."""
    shelf, rule = state.shelf, state.tables.judging.proposal
    found = np.zeros(len(shelf.records))
    coloured = colour_words().by_word
    for word in brief.theme:
        near = shelf.filed.distance(read_hex(coloured[word.casefold()])) if word.casefold() in coloured else None
        hit = near <= state.tables.judging.likeness.colour_off if near is not None else shelf.holding(word)
        found += rule.theme * hit / len(brief.theme)
    anchor = anchor_of(state, brief)
    if anchor and anchor.colours:
        off = delta_e(ground_lab(shelf.records)[:, None, :], labs(anchor.colours)[None, :, :])
        found += rule.harmony * (np.nan_to_num(off, nan=np.inf).min(axis=1) <= state.tables.judging.outfit.shares_within)
    return found


def liking(found: Candidates, brief: Brief) -> Floats:
    """The same for pairings, (n,)."""
    return _liking(found.state, brief)[found.cloths]


def _best(offered: npt.NDArray[np.float32], count: int, musts: list[int]) -> tuple[Ids, Ids]:
    """Places of the best pairings: some of every pattern, then the best of all; and some of every cloth that must be shown."""
    patterns, cloths = offered.shape
    if not patterns or not cloths:
        return np.zeros(0, np.intp), np.zeros(0, np.intp)
    each = min(cloths, max(AT_LEAST, 2 * count // patterns))
    top = np.argpartition(offered, cloths - each, axis=1)[:, cloths - each :]
    flat = (np.arange(patterns)[:, None] * cloths + top).ravel()
    flat = flat[np.argsort(-offered.ravel()[flat], kind="stable")][: 2 * count]
    of_musts = [np.argsort(-offered[:, at], kind="stable")[:OF_EACH_MUST] * cloths + at for at in musts]
    both = np.unique(np.concatenate([flat, *of_musts]))
    both = both[offered.ravel()[both] >= 0]
    return both // cloths, both % cloths


def _lengths(state: State, patterns: Ids, cloths: Ids) -> Floats:
    """Metres that each pairing takes in the largest size of its table; NaN where the pattern has none."""
    found = np.full(len(patterns), np.nan)
    for pattern in np.unique(patterns):
        here = np.flatnonzero(patterns == pattern)
        takes = lengths_m(state.shelf.columns.take(cloths[here]), state.drawer.records[pattern].facts, Wish(), state.tables)
        if takes is not None:
            found[here] = takes
    return found


def _within(found: Candidates, brief: Brief) -> Mask:
    """Which are within the budget and deep enough in stock; the programme's own always are."""
    rule = found.state.tables.judging.proposal
    least = np.array([least_length_m(record.facts) for record in found.pattern_records])
    wanted = np.where(np.isnan(found.length_m), least, found.length_m) * (brief.makers * rule.spare if brief.makers else 1.0)
    keep = found.state.shelf.may_have_m[found.cloths] >= wanted - 1e-6
    if brief.budget is not None:
        keep &= found.cost <= brief.budget  # what has no price cannot be said to be within it
    keep[: found.own] = True
    return np.asarray(keep, dtype=np.bool_)


def _taken(found: Candidates, keep: Mask) -> Candidates:
    at = np.flatnonzero(keep)
    parts = (found.patterns[at], found.cloths[at], found.score[at], found.length_m[at], found.cost[at])
    return Candidates(found.state, *parts, found.own)
