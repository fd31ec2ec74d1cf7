"""Sheer cloth and its lining: the ways, what each takes and changes, and which cloths would do.

Common practice, no source: a lining is about as light or lighter, hangs the same or softer, is opaque enough, is of
the cloth's structure, matches within a hair or contrasts on purpose, and washes alike. Amounts in m.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nematex.core.cloth.columns import ClothColumns
from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import SHEERNESS
from nematex.core.judging.demand import Demand
from nematex.core.judging.verdict import Verdict, Window, compare
from nematex.core.quantity.arrays import Codes, Floats
from nematex.core.quantity.estimate import Known
from nematex.core.tables import Tables

HAIR, TONE = 2.0, 10.0  # ΔE00: within a hair; tone in tone


@dataclass(frozen=True, slots=True)
class Way:
    """One way to deal with a sheer or bare cloth: how it stands here, what it takes in m, and what it changes."""

    name: str
    stand: str
    amount_m: float | None
    receipt: str
    changes: str


def layered_bend_cm(outer: Cloth, inner_gsm: float, inner_bend_cm: float) -> float:
    """Bending length of two layers that move as one: rigidities and weights add."""
    rigid = outer.weight.best * outer.bend.best**3 + inner_gsm * inner_bend_cm**3
    return float((rigid / (outer.weight.best + inner_gsm)) ** (1 / 3))


WAYS = ("full lining", "partial lining", "underlining", "slip or vest", "leave it")


def _stands(level: int, bottom: bool, slides: bool, lined: bool, tables: Tables) -> dict[str, str]:
    """How each way stands, by how sheer it is (0 to 3), and whether it is worn on the legs or over other clothes."""
    rule = tables.judging.lining
    stands = rule.stands[SHEERNESS[level]]
    row = rule.lined if lined else stands.bottom if bottom else stands.top
    found = dict(zip(WAYS, row, strict=True))
    if slides and level == 0 and not lined:
        found["full lining"] = "advised"  # it slides over what is worn beneath
    return found


def ways(cloth: Cloth, demand: Demand, main_m: float | None, lining_m: float | None, tables: Tables) -> list[Way]:
    """The ways for this cloth on this garment; `main_m` is what the garment takes, `lining_m` what its table says."""
    rule = tables.judging.lining
    level = round(cloth.sheer.best)
    made = demand.made
    stands = _stands(level, made.bifurcated or made.below_waist, made.slides, demand.pattern.lined, tables)
    light, soft = rule.usual_gsm, rule.usual_bend_cm
    together = layered_bend_cm(cloth, light, soft)
    knit = " Line a knit with a knit." if cloth.structure == "knit" else ""
    heavier = f"{cloth.weight.best:.0f} g/m² becomes about {cloth.weight.best + light:.0f}"
    changes = {
        "full lining": f"A separate layer: seams hidden, warmer, the cloth still hangs by itself.{knit}",
        "partial lining": "Front and back to the hip or across the seat, like a deep facing; the hem stays light.",
        "underlining": f"Both layers basted and sewn as one: seams invisible, more body. {heavier}, and it bends at "
        f"{together:.1f} instead of {cloth.bend.best:.1f} cm over a light lining.",
        "slip or vest": "Nothing is changed on the garment; say what to wear beneath.",
        "leave it": f"It is {SHEERNESS[level]}. Sleeves may stay sheer in any case.",
    }
    own_table = (lining_m, "the pattern's own lining table")
    amounts = {
        "full lining": own_table if lining_m else _of(main_m, rule.full_share),
        "partial lining": _of(main_m, rule.partial_share),
        "underlining": (main_m, "the same pieces as the main cloth" if main_m else ""),
    }
    return [Way(name, stand, *amounts.get(name, (None, "")), changes[name]) for name, stand in stands.items()]


def _of(length_m: float | None, share: float) -> tuple[float | None, str]:
    """A share of the main cloth, up to the next 10 cm, and its receipt."""
    if length_m is None:
        return None, ""
    return float(np.ceil(round(length_m * share * 10, 4)) / 10), f"{share * 100:.0f} % of the main cloth"


@dataclass(frozen=True)
class Linings:
    """n cloths held as linings of one: verdict per respect, the whole, and a score from 0 to 100."""

    checks: dict[str, Codes]
    verdict: Codes
    score: Floats
    colour_off: Floats

    def order(self) -> np.ndarray:
        return np.argsort(-self.score, kind="stable")


def linings(outer: Cloth, cloths: ClothColumns, colour_off: Floats, slides: bool, tables: Tables) -> Linings:
    """Hold a shelf against a cloth as its lining; `colour_off` is ΔE00 to its ground, NaN where not known."""
    rule, shares = tables.judging.lining, tables.judging.shares
    weight, bend = outer.weight.best, outer.bend.best
    over = weight * tables.judging.tolerance.weight
    stretch = outer.stretch_cross.best * rule.stretch_share if outer.stretch_cross.best >= rule.stretch_from_pct else 0.0
    fluid = tables.judging.tolerance.drape_cm
    see = compare(cloths.sheer, Window(high=rule.sheer_most, tolerance_high=1.0), shares).verdict
    structure = np.where(cloths.knit == (outer.structure == "knit"), Verdict.SUITS, Verdict.AGAINST)
    hair = np.where(colour_off < TONE, Verdict.SUITS, Verdict.WITH_CARE)
    smooth = cloths.used_for("lining") | (cloths.bend.best <= rule.slides_below_cm) & (cloths.natural.best < 0.5)
    shrink = np.where(cloths.shrink.best > outer.shrink.best + rule.shrink_more_pct, Verdict.WITH_CARE, Verdict.SUITS)
    checks = {
        "structure": structure,
        "weight": compare(cloths.weight, Window(high=weight, tolerance_high=over), shares).verdict,
        "drape": compare(cloths.bend, Window(high=bend + rule.stiffer_cm, tolerance_high=fluid), shares).verdict,
        "stretch": compare(
            cloths.stretch_cross, Window(low=stretch, tolerance_low=stretch * rule.stretch_tolerance), shares
        ).verdict,
        "cover": np.minimum(see, Verdict.WITH_CARE),
        "colour": hair,
        "care": shrink,
        "slides": np.where(smooth | (not slides), Verdict.SUITS, Verdict.WITH_CARE),
    }
    checks = {name: codes.astype(np.int8) for name, codes in checks.items()}
    verdict = np.maximum.reduce(list(checks.values()))
    lighter = np.clip(1 - np.abs(np.log(np.maximum(cloths.weight.best, 1) / (weight * rule.aim_share))), 0, 1)
    near = np.where(np.isnan(colour_off), 0.3, np.clip(1 - colour_off / 40, 0, 1))
    known = cloths.weight.known >= Known.STATED
    within = 0.35 * near + 0.3 * lighter + 0.25 * cloths.used_for("lining") + 0.1 * known
    return Linings(checks, verdict, 25.0 * (Verdict.AGAINST - verdict) + 24.9 * within, colour_off)


def colour_word(off: float) -> str:
    """How far a lining's colour is from the cloth's ground."""
    if np.isnan(off):
        return "colour not known"
    return "within a hair" if off < HAIR else "tone in tone" if off < TONE else f"a contrast (ΔE00 {off:.0f}): on purpose only"
