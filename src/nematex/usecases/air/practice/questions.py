"""The questions: does this cloth suit that pattern, and why; how heavy is it; how does it hang: of what the shop knows."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from datetime import date
from random import Random

from nematex.core.cloth.estimates import Cloth
from nematex.core.judging.pairing import Pairing
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Wish
from nematex.core.quantity.estimate import Estimate, Known
from nematex.store.air import practice as store
from nematex.store.records import ClothRecord, Override, PatternRecord
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.overrides import latest
from nematex.usecases.judging.ranking import Filters, one_pairing, rank_cloths

PAIRING, WEIGHT, DRAPE = "pairing", "weight", "drape"
KINDS = (PAIRING, WEIGHT, PAIRING, DRAPE)  # in which order new ones come
ASKED = (Verdict.SUITS, Verdict.WITH_CARE, Verdict.AGAINST)
TRIES = 12
APART = 3  # answers before the same question comes again


@dataclass(frozen=True)
class Question:
    """A question with what answers it. `pairing`, `hand`: of a pairing; `known`: of a number."""

    key: str
    kind: str
    record: ClothRecord
    cloth: Cloth
    pattern: PatternRecord | None = None
    pairing: Pairing | None = None
    hand: Override | None = None
    known: Estimate | None = None

    @property
    def right(self) -> list[Verdict]:
        """The verdicts that count: the rules', and the hands' where they part."""
        found = [self.pairing.verdict] if self.pairing else []
        return [*found, *([Verdict.from_word(self.hand.verdict)] if self.hand else [])]

    @property
    def decides(self) -> list[str]:
        """The checks that are as strict as the verdict; none where it suits in all."""
        if self.pairing is None or self.pairing.verdict is Verdict.SUITS:
            return ["nothing"]
        return [name for name, check in self.pairing.checks.items() if check.verdict is self.pairing.verdict]


def read_question(shop: Shop, state: State, key: str) -> Question | None:
    """The question of a key; None where its cloth or pattern is gone, or the number is not known any more."""
    kind, *numbers = key.split(":")
    if kind not in KINDS or not all(each.isdecimal() and each.isascii() and len(each) < 10 for each in numbers):
        return None
    ids = [int(each) for each in numbers]
    found = state.cloth(ids[0]) if ids else None
    if found is None:
        return None
    record, cloth = found
    if kind == PAIRING and len(ids) == 2:
        pattern = state.pattern(ids[1])
        if pattern is None:
            return None
        pairing = one_pairing(shop, state, pattern, cloth, Wish())
        hand = latest(shop, pattern.id, record.id).get((record.id, pattern.id))
        parted = hand if hand and hand.verdict != pairing.verdict.word else None
        return Question(key, kind, record, cloth, pattern, pairing, parted)
    known = cloth.weight if kind == WEIGHT else cloth.bending_length
    if kind == PAIRING or len(ids) != 1 or not is_known(known):
        return None
    return Question(key, kind, record, cloth, known=known)


def is_known(estimate: Estimate) -> bool:
    """Whether a number was measured or stated, so that a judgement of it can be held against something.

    A simulated one is in force in the made-up shop alone, and counts there.
    """
    return estimate.known in (Known.STATED, Known.MEASURED, Known.SIMULATED) and estimate.best > 0


def next_question(shop: Shop, state: State, who: str, today: date) -> Question | None:
    """What is due, but was not asked just now; else something new, else what is due; None where there is nothing to ask."""
    with shop.database.work() as work:
        waiting, met = store.due(work, who, today, 20), store.known_questions(work, who)
        just = [each.question for each in store.last_answers(work, who, APART)]
    fresh = _first(shop, state, [key for key in waiting if key not in just])
    if fresh:
        return fresh
    random = Random(f"{who} {len(met)} {today}")
    for at in range(TRIES):
        if found := _new(shop, state, met, random, KINDS[(len(met) + at) % len(KINDS)]):
            return found
    return _first(shop, state, waiting)


def _first(shop: Shop, state: State, keys: Collection[str]) -> Question | None:
    """The first of the questions that can still be asked."""
    return next((found for key in keys if (found := read_question(shop, state, key))), None)


def _new(shop: Shop, state: State, met: Collection[str], random: Random, kind: str) -> Question | None:
    if kind == PAIRING:
        return _new_pairing(shop, state, met, random)
    numbers = [
        record.id
        for record, cloth in zip(state.shelf.records, state.shelf.cloths, strict=True)
        if is_known(cloth.weight if kind == WEIGHT else cloth.bending_length)
    ]
    fresh = [number for number in numbers if f"{kind}:{number}" not in met]
    return read_question(shop, state, f"{kind}:{random.choice(fresh)}") if fresh else None


def _new_pairing(shop: Shop, state: State, met: Collection[str], random: Random) -> Question | None:
    """Every third a case in which hands and rules part, as long as there are any; else each verdict as often."""
    parted = [each for each in latest(shop).values() if each.verdict != each.rules]
    fresh = [key for each in parted if (key := f"{PAIRING}:{each.cloth_id}:{each.pattern_id}") not in met]
    if fresh and random.random() < 1 / 3:
        return read_question(shop, state, random.choice(fresh))
    if not state.drawer.records or not state.shelf.records:
        return None
    pattern = random.choice(state.drawer.records)
    wanted = Filters(verdict=ASKED[len(met) % len(ASKED)].word, page=random.randint(1, 3))
    rows = rank_cloths(shop, state, pattern, Wish(), wanted).rows
    keys = [key for row in rows if (key := f"{PAIRING}:{row.cloth_record.id}:{pattern.id}") not in met]
    return read_question(shop, state, random.choice(keys)) if keys else None
