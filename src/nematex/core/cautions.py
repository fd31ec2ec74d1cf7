"""Cautions that a pairing calls for. The texts are in data/cautions.csv; they defer to local rules."""

from __future__ import annotations

from nematex.core.cloth import Cloth
from nematex.core.demand import Demand
from nematex.core.tables import Tables

SYNTHETIC = ("synthetic", "semi-synthetic")


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


def cautions(cloth: Cloth, demand: Demand, tables: Tables) -> list[str]:
    """The sentences to say with this pairing."""
    pattern, made = demand.pattern, demand.made
    details = {detail.name for detail in made.all_details}
    words = {word.casefold() for word in (*pattern.details, *(d for part in pattern.parts for d in part.details))}
    child = pattern.wearer == "child"
    night = pattern.nightwear or bool(details & {"sleepwear", "dressing gown"})
    kind, limits = cloth.type, tables.judging["cautions"]
    sheer = cloth.sheer.best >= tables.judging["cover"]["caution_from"]
    rules = {
        "child nightwear": night and child,
        "nightwear": night,
        "child cords": child and any("drawstring" in word or "cord" in word or word in ("tie", "ties") for word in words),
        "child small parts": child and any("button" in word or "pompom" in word or "bead" in word for word in words),
        "knit in woven": demand.structure == "woven" and cloth.structure == "knit",
        "sheer bottom": sheer and made.bifurcated and not pattern.lined,
        "sheer": sheer and not made.bifurcated and not pattern.lined,
        "one-way": cloth.print.direction == "one-way",
        "big motif": (cloth.print.scale_cm or 0) > tables.judging["print"]["large_cm"],
        "ruled out prints": bool(demand.reading.avoid_prints & {"stripe", "check"}) and cloth.print.direction != "none",
        "nap": cloth.nap,
        "shrink": cloth.shrink.high >= limits["shrinks_from_pct"],
        "fray": bool(kind and kind.fray >= limits["frays_from"]),
        "creep": cloth.structure == "woven" and cloth.bend.best < limits["fluid_below_cm"],
        "furnishing": bool(kind and kind.use == "furnishing"),
        "occasion": bool(kind and kind.use == "occasion"),
        "heat": _share(cloth, SYNTHETIC, tables) >= limits["synthetic_from"],
        "wool itch": _has(cloth, limits["itches_from"], "wool", "mohair", "alpaca"),
        "bamboo": "bamboo" in f"{cloth.name} {cloth.fibres.label if cloth.fibres else ''}".casefold()
        or bool(kind and "bamboo" in kind.name),
        "dust": bool(kind and kind.name in ("sequin knit", "faux fur", "teddy fleece")),
        "latex": any(tables.details.by_key["elastic casing"] is detail for detail in made.details),
        "deadstock": cloth.deadstock,
    }
    return [tables.cautions[code] for code, holds in rules.items() if holds]
