"""'I have 1.6 m of 138 cm viscose crepe': what can be made of it, up to which size, best first; no cloth is made for it."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from nematex.core.amount.length import least_length_m
from nematex.core.amount.sizes import OfSize, by_size, largest_within
from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.cloth.lexicon import key
from nematex.core.errors import FieldFault
from nematex.core.judging.matrix import matrix
from nematex.core.judging.saying.aloud import each_its_own
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Wish
from nematex.core.quantity.scan import Figure, once, scan
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.held.drawer import spread
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import one_pairing

WIDTHS_CM = (60.0, 330.0)
MOST_M = 200.0
LONGEST = 200  # letters of a question
SHOWN = 20
MOST_TRIED = 400  # patterns, while somebody waits for the page
SMALL_WORDS = re.compile(
    r"\b(?:i|we|ve|have|has|got|what|can|could|make|made|be|from|with|of|a|an|the|some|wide|width|in|at|about|left|bolt"
    r"|piece|long|x|by)\b|['’?!.,×]",
    re.IGNORECASE,
)


@dataclass(frozen=True)
class Have:
    """A length in m of a cloth that need not stand on the shelf; `record` where it does."""

    length_m: float
    cloth: Cloth
    record: ClothRecord | None = None


@dataclass(frozen=True)
class Makes:
    """One pattern that the length may do for: the view, the largest size it makes (None: none), and what that takes."""

    pattern: PatternRecord
    verdict: Verdict
    view: str
    largest: OfSize | None
    every_size: bool
    takes_m: float
    said: str


def _figures(text: str) -> tuple[Figure | None, Figure | None]:
    """The length and the width among the figures of a text."""
    found = once(text)
    length = next((each for each in found if each.unit in ("m", "yd")), None)
    low, high = WIDTHS_CM
    wide = [each for each in found if each is not length and each.unit in ("cm", "in") and low <= each.cm("cm") <= high]
    if length is None and len(wide) > 1:
        length = wide.pop(0)  # '160 cm of 138 cm crepe'
    return length, wide[0] if wide else None


def is_have(text: str) -> bool:
    """Whether a question begins with a length of cloth: 'I have 1.6 m of …', '2 yards of …'."""
    length, _ = _figures(text[:LONGEST])
    return length is not None and bool(re.search(r"\b(?:of|have|wide|make|from)\b", text, re.IGNORECASE) or length.start < 2)


def read_have(state: State, text: str) -> Have:
    """Length, width and cloth of a question; raises FieldFault naming what is missing or not known."""
    text = text[:LONGEST]
    length, wide = _figures(text)
    if length is None:
        raise FieldFault("length", text, "says no length; write it like 1.6 m of 138 cm viscose crepe")
    length_m = length.cm("m") / 100
    if not 0.05 <= length_m <= MOST_M:
        raise FieldFault("length", f"{length_m:g} m", f"must be from 0.05 to {MOST_M:.0f} m")
    words = text
    for each in sorted(scan(text), key=lambda figure: -figure.start):
        words = f"{words[: each.start]} {words[each.end :]}"
    name = " ".join(SMALL_WORDS.sub(" ", words).split())
    if not name:
        raise FieldFault("cloth", text, "names no cloth; write it like 1.6 m of 138 cm viscose crepe")
    width = wide.cm("cm") if wide else None
    record = _on_the_shelf(state, name)
    if record:
        cloth = state.shelf.cloths[state.shelf.place[record.id]]
        facts = replace(record.facts, width_cm=width) if width else record.facts
        return Have(length_m, known_cloth(facts, state.tables) if width else cloth, record)
    gsm = next((each.value for each in scan(text) if each.unit == "gsm"), None)
    return Have(length_m, _named(name, width, gsm, state.tables))


def _on_the_shelf(state: State, name: str) -> ClothRecord | None:
    """The cloth of the shelf that bears exactly this name, or whose code it is."""
    asked = key(name)
    return next((each for each in state.shelf.records if asked in (key(each.facts.name), key(each.code))), None)


def _named(name: str, width_cm: float | None, gsm: float | None, tables: Tables) -> Cloth:
    """A cloth known by its words alone; a fibre before the name counts as its label."""
    fibres = next((word for word in name.split() if tables.fibres.find(word)), None)
    facts = ClothFacts(name=name, width_cm=width_cm, weight_gsm=gsm)
    cloth = known_cloth(facts, tables)
    return known_cloth(replace(facts, fibres=f"100% {fibres}"), tables) if fibres and cloth.fibres is None else cloth


def makes(shop: Shop, state: State, have: Have, asked: str = "") -> list[Makes]:
    """What suits the cloth, best first: what the length makes before what it does not; `asked` narrows the patterns.

    At most MOST_TRIED patterns are tried, evenly spread over those that hold the words.
    """
    tried = [pattern for pattern in spread(state.drawer.holding(asked), MOST_TRIED) if _can_be_answered(state, pattern)]
    one_column = columns([have.cloth], state.tables)
    judged = matrix(one_column, state.drawer.demands(Wish(), tried), state.tables, threads=1)
    found: list[tuple[tuple[bool, int, float], Makes]] = []
    for pattern, verdict, score in zip(tried, judged.verdict[:, 0], judged.score[:, 0], strict=True):
        if verdict != Verdict.AGAINST:
            one = _made_of(pattern, Verdict(int(verdict)), have, state)
            found.append(((one.largest is None, int(verdict), -float(score)), one))
    shown = [one for _, one in sorted(found, key=lambda each: each[0])[:SHOWN]]
    spoken = (one_pairing(shop, state, one.pattern, have.cloth, Wish()).spoken for one in shown)
    said = each_its_own((one.pattern.facts.name, words) for one, words in zip(shown, spoken, strict=True))
    return [replace(one, said=words) for one, words in zip(shown, said, strict=True)]


def _can_be_answered(state: State, pattern: PatternRecord) -> bool:
    """Whether a pattern can be judged, and says how much of its main cloth it takes."""
    try:
        state.drawer.demand(pattern, Wish())
    except FieldFault:
        return False
    return any(row.use == "main" for row in pattern.facts.requirements)


def _made_of(pattern: PatternRecord, verdict: Verdict, have: Have, state: State) -> Makes:
    """The view in which the length makes the largest size; of equals the first."""
    views = list(dict.fromkeys(row.view for row in pattern.facts.requirements if row.use == "main"))
    best: Makes | None = None
    for view in views:
        sizes = by_size(have.cloth, pattern.facts, Wish(view=view), state.tables, state.voice.units)
        largest = largest_within(sizes, have.length_m)
        least = min((each.amount.length_m for each in sizes), default=least_length_m(pattern.facts))
        one = Makes(
            pattern, verdict, view if len(views) > 1 else "", largest, largest is sizes[-1] if sizes else False,
            largest.amount.length_m if largest else least, "",
        )  # fmt: skip
        if best is None or _reach(one, sizes) > _reach(best, sizes):
            best = one
    assert best is not None
    return best


def _reach(one: Makes, sizes: list[OfSize]) -> tuple[int, float]:
    """How far up the sizes it comes; where it makes none, how little is missing."""
    labels = [each.size for each in sizes]
    return (labels.index(one.largest.size) if one.largest and one.largest.size in labels else -1, -one.takes_m)
