"""What is worth measuring on a cloth: the measurements that would move most of its pairings."""

from __future__ import annotations

from collections import Counter

from nematex.core.cloth.estimates import Cloth
from nematex.core.judging.measure_next import measure_next
from nematex.core.pattern.facts import Wish
from nematex.usecases.cloth.bench.measures import MEASURES
from nematex.usecases.held.drawer import Drawer

MEASURE_OF = {name: measure.name for measure in MEASURES.values() for name in measure.properties}


def worth_measuring(drawer: Drawer, cloth: Cloth) -> dict[str, int]:
    """Measurement → for how many patterns it is the next one to take; the most first."""
    asked: Counter[str] = Counter()
    for record in drawer.records:
        name = measure_next(cloth, drawer.demand(record, Wish()), drawer.tables)
        if name in MEASURE_OF:
            asked[MEASURE_OF[name]] += 1
    return dict(asked.most_common())
