"""Cautions that a pairing calls for, from the table data/cautions.csv. They defer to local rules.

A row names what must hold of the garment, the wearer, the cloth, the details and the notions; each column holds words
of which one must be there ("a|b"), or must not ("!a"); an empty column asks nothing.
"""

from __future__ import annotations

import re

from nematex.core.cloth.estimates import Cloth
from nematex.core.judging.demand import Demand
from nematex.core.tables import Caution, Role, Tables

SYNTHETIC = ("synthetic", "semi-synthetic")
HURTS = 3  # how grave what may hurt somebody is, in the table


def _share(cloth: Cloth, kinds: tuple[str, ...], tables: Tables) -> float:
    if cloth.fibres and cloth.fibres.shares:
        return sum(part for name, part in cloth.fibres.shares.items() if tables.fibres.by_name[name].kind in kinds)
    if cloth.type is None:
        return 0.0
    return float(
        all(
            any(tables.fibres.by_name[f].kind in kinds for f in blend if f in tables.fibres.by_name)
            for blend in cloth.type.fibres
        )
    )


def _has(cloth: Cloth, least: float, *names: str) -> bool:
    if cloth.fibres and cloth.fibres.shares:
        return cloth.fibres.share(*names) >= least
    return cloth.type is not None and all(bool(set(blend) & set(names)) for blend in cloth.type.fibres)


def cloth_words(cloth: Cloth, tables: Tables) -> set[str]:
    """What a caution may ask of a cloth, in the table's words."""
    limits, kind = tables.judging.cautions, cloth.type
    label = f"{cloth.name} {cloth.fibres.label if cloth.fibres else ''}".casefold()
    shrinks = cloth.shrink.high >= limits.shrinks_from_pct
    silk = _has(cloth, tables.judging.fibre.mostly, "silk")
    words = {
        "knit": cloth.structure == "knit",
        "woven": cloth.structure != "knit",
        "sheer": cloth.sheer.best >= tables.judging.cover.caution_from,
        cloth.sheerness: True,
        "one-way": cloth.print.direction == "one-way",
        "printed": cloth.print.direction != "none",
        "large motif": (cloth.print.scale_cm or 0) > tables.judging.print.large_cm,
        "nap": cloth.nap,
        "woven pile": bool(kind and kind.surface == "pile") and cloth.structure == "woven",
        "sequins": bool(kind and kind.surface == "sequinned"),
        "creases": cloth.structure == "woven" and _has(cloth, limits.creases_from, "linen", "ramie"),
        "shrinks": shrinks and not (cloth.is_wool or silk),
        "wool shrinks": shrinks and cloth.is_wool,
        "silk shrinks": shrinks and silk,
        "frays": bool(kind and kind.fray >= limits.frays_from),
        "creeps": cloth.structure == "woven" and cloth.bending_length.best < limits.fluid_below_cm,
        "synthetic": _share(cloth, SYNTHETIC, tables) >= limits.synthetic_from,
        "itchy wool": _has(cloth, limits.itches_from, "wool", "mohair", "alpaca"),
        "bamboo": "bamboo" in label or bool(kind and "bamboo" in kind.name),
        "sheds": bool(kind and kind.name in limits.sheds),
        "deadstock": cloth.deadstock,
        kind.use if kind else "garment": True,
    }
    return {word for word, holds in words.items() if holds}


def _pattern_words(demand: Demand) -> dict[str, set[str]]:
    """What a caution may ask of the garment, its wearer, its details and its notions."""
    pattern, made = demand.pattern, demand.made
    details = {detail.name for detail in made.all_details}
    said = [*pattern.details, *(word for part in pattern.parts for word in part.details)]
    said += [word for option in pattern.options for word in (option.name, *option.details)]
    words = set(re.findall(r"[a-z]+", " ".join(said).casefold()))
    garment = {demand.structure, "lined" if pattern.lined else "unlined"}
    garment |= {"legs"} if made.bifurcated else {"no legs"}
    garment |= {"bust"} if not (made.below_waist or pattern.wearer == "child") else set()
    if pattern.nightwear or any(Role.NIGHTWEAR in detail.roles for detail in made.all_details):
        garment.add("nightwear")
    if demand.interpretation.avoid_prints & {"stripe", "check"}:
        garment.add("rules out stripes or checks")
    notions = set(re.findall(r"[a-z]+", pattern.notions.casefold()))
    return {
        "garment": garment,
        "wearer": {pattern.wearer},
        "detail": details | words | {word.removesuffix("s") for word in words},
        "notion": notions | {word.removesuffix("s") for word in notions},
    }


def _holds(asked: str, words: set[str]) -> bool:
    """Whether one of the words asked is there, and none that must not be."""
    if not asked:
        return True
    every = asked.split("|")
    wanted = [word for word in every if not word.startswith("!")]
    barred = [word[1:] for word in every if word.startswith("!")]
    return (not wanted or any(word in words for word in wanted)) and not any(word in words for word in barred)


def _applies(row: Caution, words: dict[str, set[str]]) -> bool:
    """Details and notions are alternatives where a row names both: a button is one whether drawn or listed."""
    either = [getattr(row, name) for name in ("detail", "notion")]
    drawn = any(asked and _holds(asked, words[name]) for name, asked in zip(("detail", "notion"), either, strict=True))
    if any(either) and not drawn:
        return False
    return all(_holds(getattr(row, name), words[name]) for name in ("garment", "wearer", "cloth"))


def cautions(cloth: Cloth, demand: Demand, tables: Tables) -> list[Caution]:
    """What to say with this pairing, the gravest first: no more than a hand can count, but for what may hurt somebody."""
    words = {**_pattern_words(demand), "cloth": cloth_words(cloth, tables)}
    found = sorted((row for row in tables.cautions.values() if _applies(row, words)), key=lambda row: -row.grave)
    return [row for at, row in enumerate(found) if at < tables.judging.cautions.most or row.grave >= HURTS]
