"""Sheer cloth and its lining: the ways, what each takes and changes, and which cloths would do.

Common practice, no source: a lining is about as light or lighter, hangs the same or softer, is opaque enough, is of
the cloth's structure, matches within a hair or contrasts on purpose, and washes alike. Amounts in m.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nematex.core.cloth.columns import PLAIN, ClothColumns
from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import SHEERNESS
from nematex.core.colour.difference import TONE_IN_TONE, WITHIN_A_HAIR
from nematex.core.judging.demand import Demand
from nematex.core.judging.verdict import Verdict, Window, compare
from nematex.core.quantity.arrays import Codes, Floats
from nematex.core.quantity.estimate import Known
from nematex.core.quantity.said import Units, amount, number
from nematex.core.sayings import Texts
from nematex.core.tables import Tables

RESPECTS = {
    "structure": "a knit with a knit, a woven with a woven",
    "weight": "about as light or lighter",
    "drape": "hangs the same or softer",
    "stretch": "gives as the cloth does",
    "make": "smooth, so that it does not drag",
    "print": "plain, so that nothing shows through",
    "cover": "opaque enough",
    "colour": "near in colour",
    "care": "shrinks no more",
    "slides": "slides",
}


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
    rigid = outer.weight.best * outer.bending_length.best**3 + inner_gsm * inner_bend_cm**3
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


def ways(
    cloth: Cloth,
    demand: Demand,
    main_m: float | None,
    lining_m: float | None,
    tables: Tables,
    units: Units = Units.METRIC,
    drafted_m: float | None = None,
) -> list[Way]:
    """The ways for this cloth on this garment; in m: `main_m` is what the garment takes, `lining_m` what its table says,
    `drafted_m` what its front, back and sleeve pieces take on a lining of the usual width."""
    made, level = demand.made, round(cloth.sheer.best)
    stands = _stands(level, made.bifurcated or made.below_waist, made.slides, demand.pattern.lined, tables)
    amounts = _amounts(main_m, lining_m, drafted_m, tables)
    blanks, sayings = _blanks(cloth, level, tables, units), tables.sayings.cases["lining"]
    return [
        Way(name, stand, *amounts.get(name, (None, "")), sayings[name.replace(" ", "_")].reason.format_map(blanks))
        for name, stand in stands.items()
    ]


def _blanks(cloth: Cloth, level: int, tables: Tables, units: Units) -> dict[str, str]:
    """What the blanks of the sayings stand for; layered is over a usual light lining."""
    rule, knit = tables.judging.lining, cloth.structure == "knit"
    layered = layered_bend_cm(cloth, rule.usual_gsm, rule.usual_bend_cm)
    return {
        "weight": amount(cloth.weight.best, "g/m²", 0, units),
        "layered_weight": number(cloth.weight.best + rule.usual_gsm, "g/m²", 0, units),
        "bend": amount(cloth.bending_length.best, "cm", 1, units),
        "layered_bend": number(layered, "cm", 1, units),
        "knit": tables.sayings.words["line_a_knit"] if knit else "",
        "sheer": SHEERNESS[level],
        "sleeves": tables.sayings.words["sleeves_may_stay"] if level else "",
    }


def _amounts(
    main_m: float | None, lining_m: float | None, drafted_m: float | None, tables: Tables
) -> dict[str, tuple[float | None, str]]:
    """Way → metres of lining and where they come from: the table's own, else the pieces', else a share of the cloth."""
    rule, words = tables.judging.lining, tables.sayings.words
    full: tuple[float | None, str]
    if lining_m:
        full = (lining_m, words["lining_table"])
    elif drafted_m:
        full = (_up(drafted_m), words["lining_pieces"].format(width=f"{rule.usual_width_cm:.0f}"))
    else:
        full = _of(main_m, rule.full_share, words)
    return {
        "full lining": full,
        "partial lining": _of(main_m, rule.partial_share, words),
        "underlining": (main_m, words["same_pieces"] if main_m else ""),
    }


def _of(length_m: float | None, share: float, words: Texts) -> tuple[float | None, str]:
    """A share of the main cloth, up to the next 10 cm, and its receipt."""
    if length_m is None:
        return None, ""
    return _up(length_m * share), words["share_of_main"].format(share=f"{share * 100:.0f} %")


def _up(length_m: float) -> float:
    return float(np.ceil(round(length_m * 10, 4)) / 10)


@dataclass(frozen=True)
class Linings:
    """n cloths held as linings of one: verdict per respect, the whole, and a score from 0 to 100."""

    checks: dict[str, Codes]
    verdict: Codes
    score: Floats
    colour_off: Floats

    def order(self) -> np.ndarray:
        return np.argsort(-self.score, kind="stable")


def _weights(outer: Cloth, tables: Tables) -> tuple[float, float]:
    """The most a lining may weigh beneath this cloth, and what is best, in g/m².

    What shows is itself lighter than a lining; a crisp sheer wants a support that carries it.
    """
    rule, weight = tables.judging.lining, outer.weight.best
    if outer.sheer.best < tables.judging.cover.nothing_beneath_from:
        if outer.structure == "knit":
            return weight, weight * rule.aim_share
        return min(weight, rule.most_gsm), min(weight * rule.aim_share, rule.aim_most_gsm)
    if outer.structure != "knit" and outer.bending_length.best >= tables.judging.sheers.crisp_cm:
        return max(weight, rule.under_crisp_gsm), rule.crisp_aim_gsm
    return max(weight, rule.under_sheer_gsm), min(weight, rule.usual_gsm) if weight > rule.usual_gsm else rule.usual_gsm


def _stiffest_cm(outer: Cloth, tables: Tables) -> float:
    """From where a lining would be a stay, in cm; beneath a crisp sheer it is to be one."""
    crisp = outer.sheer.best >= tables.judging.cover.nothing_beneath_from and outer.bending_length.best >= (
        tables.judging.sheers.crisp_cm
    )
    return np.inf if crisp else tables.judging.lining.stiffest_cm


def _make(cloths: ClothColumns, tables: Tables) -> Codes:
    """By construction: a lining is smooth, so no gauze and no pile; what drags is with care."""
    rule, types = tables.judging.lining, tables.lexicon.types
    of_type = [
        Verdict.AGAINST if kind.family in rule.never else Verdict.WITH_CARE if kind.family in rule.drags else Verdict.SUITS
        for kind in types
    ]
    found: Codes = np.array([*of_type, Verdict.SUITS], dtype=np.int8)[cloths.type]
    return found


def linings(outer: Cloth, cloths: ClothColumns, colour_off: Floats, slides: bool, tables: Tables) -> Linings:
    """Hold a shelf against a cloth as its lining; `colour_off` is ΔE00 to its ground, NaN where not known."""
    rule, shares = tables.judging.lining, tables.judging.shares
    (weight, aim), bend = _weights(outer, tables), outer.bending_length.best
    over = weight * tables.judging.tolerance.weight
    stretch = outer.stretch_cross.best * rule.stretch_share if outer.stretch_cross.best >= rule.stretch_from_pct else 0.0
    fluid, softest = tables.judging.tolerance.drape_cm, min(bend + rule.stiffer_cm, _stiffest_cm(outer, tables))
    see = compare(cloths.sheer, Window(high=rule.sheer_most, tolerance_high=0.5), shares).verdict
    shows = outer.sheer.best >= tables.judging.cover.nothing_beneath_from
    structure = np.where(cloths.knit == (outer.structure == "knit"), Verdict.SUITS, Verdict.AGAINST)
    hair = np.where(colour_off < TONE_IN_TONE, Verdict.SUITS, Verdict.WITH_CARE)
    smooth = cloths.used_for("lining") | (cloths.bending_length.best <= rule.slides_below_cm) & (cloths.natural.best < 0.5)
    shrink = np.where(cloths.shrink.best > outer.shrink.best + rule.shrink_more_pct, Verdict.WITH_CARE, Verdict.SUITS)
    checks = {
        "structure": structure,
        "weight": compare(cloths.weight, Window(high=weight, tolerance_high=over), shares).verdict,
        "drape": compare(cloths.bending_length, Window(high=softest, tolerance_high=fluid), shares).verdict,
        "stretch": compare(
            cloths.stretch_cross, Window(low=stretch, tolerance_low=stretch * rule.stretch_tolerance), shares
        ).verdict,
        "make": _make(cloths, tables),
        "print": np.where(cloths.direction != PLAIN, Verdict.AGAINST if shows else Verdict.WITH_CARE, Verdict.SUITS),
        "cover": np.where(
            shows & (cloths.sheer.best >= tables.judging.cover.nothing_beneath_from),
            Verdict.AGAINST,
            np.minimum(see, Verdict.WITH_CARE),
        ),
        "colour": hair,
        "care": shrink,
        "slides": np.where(smooth | (not slides), Verdict.SUITS, Verdict.WITH_CARE),
    }
    checks = {name: codes.astype(np.int8) for name, codes in checks.items()}
    verdict = np.maximum.reduce(list(checks.values()))
    lighter = np.clip(1 - np.abs(np.log(np.maximum(cloths.weight.best, 1) / aim)), 0, 1)
    near = np.where(np.isnan(colour_off), 0.3, np.clip(1 - colour_off / 40, 0, 1))
    known = cloths.weight.known >= Known.STATED
    within = 0.35 * near + 0.3 * lighter + 0.25 * cloths.used_for("lining") + 0.1 * known
    return Linings(checks, verdict, 25.0 * (Verdict.AGAINST - verdict) + 24.9 * within, colour_off)


def colour_word(off: float) -> str:
    """How far a lining's colour is from the cloth's ground."""
    if np.isnan(off):
        return "colour not known"
    return "within a hair" if off < WITHIN_A_HAIR else "tone in tone" if off < TONE_IN_TONE else "a contrast, on purpose only"
