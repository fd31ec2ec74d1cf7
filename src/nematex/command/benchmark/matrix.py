"""The matrix, the grid's page and the hang, timed; printed by `./nematex bench`."""

from __future__ import annotations

import random
import resource
import statistics
import time
from collections.abc import Callable, Sequence
from functools import partial

from flask.testing import FlaskClient

from nematex.command.benchmark.meant import HTML, asked
from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import known_cloth
from nematex.core.judging.demand import demand
from nematex.core.judging.judge import judge
from nematex.core.judging.matrix import matrix
from nematex.core.pattern.facts import Pattern, Size, Wish
from nematex.store.records import ClothRecord, PatternRecord
from nematex.tables import trade_tables

PATTERNS = 1000
TIMES = 60


def made_up_patterns(count: int, seed: int = 5) -> list[PatternRecord]:
    """Patterns over the whole lexicon, with details, numbers and finished measurements; invented, for measuring alone."""
    rng, tables = random.Random(seed), trade_tables()
    kinds = [kind for kind in tables.lexicon.types if kind.use == "garment"]
    details = [detail.name for detail in tables.details.rows]
    words = ("Lightweight", "Light to medium weight", "Medium weight", "Heavy")
    found = []
    for number in range(count):
        structure = ("woven", "woven", "knit")[number % 3]
        named = rng.sample([kind.name for kind in kinds if (kind.structure == "knit") == (structure == "knit")], 4)
        text = f"{rng.choice(words)} {structure}s such as {', '.join(named)}"
        bust = rng.uniform(80, 110)
        facts = Pattern(
            name=f"Bench pattern {number}",
            structure=structure,
            recommended=text + (" with at least 30% stretch." if number % 9 == 2 else "."),
            details=tuple(rng.sample(details, number % 4)),
            sizes=(Size("12", bust, finished_bust_cm=bust + rng.uniform(-8, 14)),) if number % 5 == 0 else (),
        )
        found.append(PatternRecord(f"M{number:04}", facts))
    return found


def time_matrix(cloths: Sequence[ClothRecord], count: int = PATTERNS) -> None:
    """Every pattern against every cloth in the core, from the envelopes' words to the verdicts."""
    tables = trade_tables()
    held = columns([known_cloth(record.facts, tables) for record in cloths], tables)
    demands = [partial(demand, record.facts, Wish(), tables) for record in made_up_patterns(count)]
    start = time.perf_counter()
    found = matrix(held, demands, tables)
    spent = time.perf_counter() - start
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    per_s = found.verdict.size / spent / 1e3
    print(f"core: matrix of {len(held)} cloths by {count} patterns in {spent:.1f} s (wanted under 20), ", end="")
    print(f"{per_s:.0f} thousand pairings a second; the process peaked at {peak:.0f} MB (wanted under 2000)")


def time_one_cloth(cloths: Sequence[ClothRecord], count: int = PATTERNS) -> None:
    """Every pattern against one cloth, as plain numbers and, as among others, in arrays."""
    tables = trade_tables()
    held = columns([known_cloth(cloths[0].facts, tables)], tables)
    demands = [demand(record.facts, Wish(), tables) for record in made_up_patterns(count)]
    spent = []
    for each in (held.single(0), held):
        for again in range(2):  # the second time every window is made
            begun = time.perf_counter()
            for wanted in demands:
                judge(each, wanted, tables)
            spent += [time.perf_counter() - begun] if again else []
    print(
        f"core: one cloth by {count} patterns in {spent[0] * 1e3:.0f} ms, {spent[1] / spent[0]:.1f} times as quick as in arrays"
    )


def time_grid(client: FlaskClient, cloth_ids: Sequence[int], pattern_ids: Sequence[int]) -> None:
    """The page of 40 × 40, and the hang's drawing as it is asked for while something is moved."""
    chosen = "&".join([*(f"cloth={each}" for each in cloth_ids[:40]), *(f"pattern={each}" for each in pattern_ids[:40])])
    one, other = cloth_ids[0], cloth_ids[7]
    _print(
        "grid of 40 by 40",
        300,
        lambda n: asked(client, f"/matrix?{chosen}&look={('flowing', 'structured')[n % 2]}", HTML, "<table"),
    )
    drawing = f"/hang/drawing?cloth={one}&cloth={other}&garment=gathered+skirt"
    _print(
        "hang of two cloths",
        100,
        lambda n: asked(client, f"{drawing}&look={n % 20 * 5}&bend.{one}={1 + n / 30:.2f}", HTML, "<svg"),
    )


def _print(name: str, wanted_ms: int, get: Callable[[int], object]) -> None:
    get(0)
    spent = []
    for number in range(TIMES):
        start = time.perf_counter()
        get(number)
        spent.append((time.perf_counter() - start) * 1000)
    spent.sort()
    p95 = spent[int(0.95 * len(spent)) - 1]
    print(f"pages: {name}: median {statistics.median(spent):.0f} ms, p95 {p95:.0f} ms of {TIMES} (wanted under {wanted_ms})")
