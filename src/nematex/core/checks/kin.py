"""The nearest relative: is there a cloth on the list that this one is like in weight, drape and stretch at once?

A list that runs from chiffon to denim spans everything between them; a soft cloth of denim's weight lies inside both
spans and is like neither. Common practice, no source: such a cloth is with care at most.
"""

from __future__ import annotations

from math import log, log1p

import numpy as np
import numpy.typing as npt

from nematex.core.checks.finding import Bench, Finding, Words
from nematex.core.cloth import Cloth
from nematex.core.lexicon import ClothType
from nematex.core.verdict import Floats, Verdict


def _gap(best: Floats, low: list[float], high: list[float]) -> Floats:
    """How far each of n cloths lies outside each of m named ranges: m × n."""
    below, above = np.array(low)[:, None] - best, best - np.array(high)[:, None]
    outside: Floats = np.maximum(np.maximum(below, above), 0.0)
    return outside


def distance_to_kin(bench: Bench, named: list[ClothType], at: npt.NDArray[np.intp]) -> Floats:
    """From each of these cloths to the nearest of the named ones, in steps of `handles_like`: 0 is inside its ranges."""
    step, pad = bench.tables.judging["handles_like"], bench.tables.judging["list"]
    cloths = bench.cloths
    weight = _gap(
        np.log(np.maximum(cloths.weight.best[at], 1.0)),
        [log(row.weight_gsm.low * (1 - pad["pad_weight"])) for row in named],
        [log(row.weight_gsm.high * (1 + pad["pad_weight"])) for row in named],
    )
    drape = _gap(
        cloths.bend.best[at],
        [row.bend_cm.low - pad["pad_drape_cm"] for row in named],
        [row.bend_cm.high + pad["pad_drape_cm"] for row in named],
    )
    apart = (weight / step["weight_log"]) ** 2 + (drape / step["drape_cm"]) ** 2
    # Whether a knit may stand in for a woven is another check's question: only knits are compared by their stretch.
    knits = [row.structure == "knit" for row in named]
    if any(knits):
        stretch = _gap(
            np.log1p(cloths.stretch_cross.best[at] / 10),
            [log1p(row.stretch_cross_pct.low / 10) for row in named],
            [log1p(row.stretch_cross_pct.high / 10) for row in named],
        )
        both = np.array(knits)[:, None] & cloths.knit[at]
        apart += both * (stretch / step["stretch_log"]) ** 2
    nearest: Floats = np.sqrt(apart.min(axis=0))
    return nearest


def _within_spans(bench: Bench, named: list[ClothType]) -> npt.NDArray[np.intp]:
    """The cloths inside both spans of the list: of the others the spans themselves speak."""
    weight, bend = bench.cloths.weight.best, bench.cloths.bend.best
    inside = (weight >= min(row.weight_gsm.low for row in named)) & (weight <= max(row.weight_gsm.high for row in named))
    inside &= (bend >= min(row.bend_cm.low for row in named)) & (bend <= max(row.bend_cm.high for row in named))
    return np.flatnonzero(inside & ~bench.named & ~bench.welcome)


def like_none(bench: Bench) -> Finding | None:
    """The finding, or None where the list is too short to have an inside that is empty."""
    demand, rule = bench.demand, bench.tables.judging["list"]
    if len(demand.named) < 2 or demand.made.band or demand.made.fit == "free":
        return None
    named = [bench.tables.lexicon.types[at] for at in sorted(demand.named)]
    at = _within_spans(bench, named)
    verdict = np.zeros(len(bench.cloths), dtype=np.int8)
    verdict[at[distance_to_kin(bench, named, at) > rule["kin_steps"]]] = Verdict.WITH_CARE

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        if verdict is Verdict.SUITS:
            return "", ""
        lexicon = bench.tables.lexicon
        near = lexicon.nearest(cloth.weight.best, cloth.bend.best, cloth.stretch_cross.best, cloth.structure, 1, named)[0]
        kin = lexicon.get(near)
        has = f"{cloth.weight.best:.0f} g/m² bending at {cloth.bend.best:.1f} cm"
        its = (
            f"{kin.weight_gsm.low:.0f} to {kin.weight_gsm.high:.0f} g/m² and {kin.bend_cm.low:.1f} to {kin.bend_cm.high:.1f} cm"
        )
        return (
            f"Like none of the cloths named: {has}, where the nearest, {near}, has {its}.",
            "Hold it beside the nearest one, or make up a sleeve first.",
        )

    return bench.flat("like none", verdict, say)
