"""What is worth measuring on a cloth: the measurements that would move most of its pairings."""

from __future__ import annotations

from collections import Counter

from nematex.core.cloth.estimates import Cloth
from nematex.core.judging.measure_next import measure_next, outcomes
from nematex.core.pattern.facts import Wish
from nematex.usecases.cloth.bench.measures import MEASURES
from nematex.usecases.held.drawer import Drawer, spread

MOST_TRIED = 200  # patterns, while somebody waits for the page
MEASURE_OF = {name: measure.name for measure in MEASURES.values() for name in measure.properties}


def worth_measuring(drawer: Drawer, cloth: Cloth) -> dict[str, int]:
    """Measurement → for how many of the patterns tried it is the next one to take; the most first."""
    asked: Counter[str] = Counter()
    found = outcomes(cloth, drawer.tables)
    for record in spread(drawer.records, MOST_TRIED):
        name = measure_next(cloth, drawer.demand(record, Wish()), drawer.tables, found)
        if name in MEASURE_OF:
            asked[MEASURE_OF[name]] += 1
    return dict(asked.most_common())
