"""Interfacing: about as heavy as the cloth and never heavier, a knit one on knits, sewn in where heat would spoil.

The kinds are in data/interfacings.csv. Common practice, no source. Weights in g/m².
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from nematex.core.cloth.estimates import Cloth
from nematex.core.judging.demand import Demand
from nematex.core.pattern.chosen import rows_for
from nematex.core.pattern.facts import Requirement
from nematex.core.tables import Role, Tables

ASKED = re.compile(r"\b(light|medium|firm|heavy)[ -]?(?:weight)?\s+(?:fusible\s+|woven\s+|knit\s+)*interfacing", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Interfaced:
    """What to interface, with what, and why."""

    places: tuple[str, ...]
    kind: str
    gsm: tuple[float, float]
    reason: str
    length_m: float | None = None  # by the pattern's own table
    width_cm: float | None = None


def _hates_heat(cloth: Cloth) -> str:
    """Why a cloth should not be fused; "" where it may be."""
    if cloth.nap and cloth.structure == "woven" and (cloth.type is None or cloth.type.family == "pile"):
        return "its pile would be crushed"
    names = set(cloth.fibres.shares) if cloth.fibres else set(cloth.type.fibres[0]) if cloth.type else set()
    if names & {"acetate", "triacetate"}:
        return "acetate melts under the iron"
    if cloth.type and any(word in cloth.type.name for word in ("sequin", "lace", "tulle", "chiffon", "organza")):
        return "the glue would show or melt it"
    return ""


def places(demand: Demand) -> tuple[str, ...]:
    """The details made that want interfacing."""
    return tuple(detail.name for detail in demand.made.all_details if Role.INTERFACED in detail.roles)


def _row(demand: Demand) -> Requirement | None:
    """The pattern's own row of interfacing for the view and size; the longest where several stand."""
    rows = rows_for(demand.pattern, "interfacing", demand.wish)
    return max(rows, key=lambda row: row.length_m, default=None)


def interfacing(cloth: Cloth, demand: Demand, tables: Tables) -> Interfaced | None:
    """The kind for this cloth and how much; None where nothing is made that wants it and the table has no row of it."""
    where, row = places(demand), _row(demand)
    if not where and row is None:
        return None
    tailored = any(Role.TAILORED in detail.roles for detail in demand.made.all_details)
    asked = ASKED.search(demand.pattern.notions)
    found = _kind(where, tailored, cloth, tables, asked[1].lower().replace("heavy", "firm") if asked else "")
    return replace(found, length_m=row.length_m, width_cm=row.width_cm) if row else found


def _kind(where: tuple[str, ...], tailored: bool, cloth: Cloth, tables: Tables, asked: str = "") -> Interfaced:
    """The weight the envelope's notions ask for where the cloth carries it, else the heaviest no heavier than the cloth."""
    heat = _hates_heat(cloth)
    knit = cloth.structure == "knit"
    most = cloth.weight.best * tables.judging.interfacing.from_share
    known = [kind for kind in tables.interfacings if tailored or not kind.tailored]
    light = [kind for kind in known if kind.fused == (not heat) and kind.gsm.low <= most]
    fits = [kind for kind in light if kind.knit == knit] or light
    if not fits:
        text = f"at {cloth.weight.best:.0f} g/m² nothing is lighter: use a layer of the cloth itself"
        return Interfaced(where, "a second layer of the cloth", (0.0, cloth.weight.best), text.capitalize() + ".")
    as_asked = [kind for kind in fits if asked and kind.name.startswith(asked)]
    best = max(as_asked or fits, key=lambda kind: kind.gsm.low)
    top = min(best.gsm.high, cloth.weight.best)
    how = f"sewn in, because {heat}" if heat else "fused"
    reason = (
        f"{best.name.capitalize()}, {how}: {best.gsm.low:.0f} to {top:.0f} g/m² on a cloth of {cloth.weight.best:.0f}, "
        f"never heavier than it{', as the envelope asks' if as_asked else ''}. Try it on a scrap."
    )
    return Interfaced(where, best.name, (best.gsm.low, top), reason)
