"""What cannot all be true of a cloth: its numbers against its name, its label, and one another.

Which kinds of cloth commonly have which values is data/cloths.csv; that a value far outside is worth asking about is
common practice, no source.
"""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import SHEERNESS, ClothFacts
from nematex.core.cloth.plausible import doubt
from nematex.core.cloth.properties import Property
from nematex.core.cloth.readings import contradicts

SHEER_STEPS = 2  # an opaque voile is odd from two words apart


@dataclass(frozen=True, slots=True)
class Contradiction:
    """The property it is about, and what does not fit, in a sentence."""

    property: str
    text: str


def _structure(cloth: Cloth) -> Contradiction | None:
    kind = cloth.type
    if kind is None or kind.structure == cloth.structure:
        return None
    return Contradiction(
        "structure", f"It is called {kind.name}, which is a {kind.structure}, and entered as a {cloth.structure}."
    )


def _against_kind(facts: ClothFacts, cloth: Cloth) -> list[Contradiction]:
    """Weight, bending length and see-through against what the kind of cloth commonly has."""
    kind = cloth.type
    if kind is None or kind.structure != cloth.structure:
        return []
    found = []
    for name, usual in (("weight_gsm", kind.weight_gsm), ("bending_length_cm", kind.bend_cm)):
        value = getattr(facts, name)
        if value is not None and (said := doubt(name, value, usual)):
            found.append(Contradiction(name, f"For {kind.name}, {said[0].lower() + said[1:]}"))
    if facts.sheer is not None:
        off = max(kind.sheer.low - SHEERNESS.index(facts.sheer), SHEERNESS.index(facts.sheer) - kind.sheer.high)
        if off >= SHEER_STEPS:
            found.append(Contradiction("sheer", f"It is called {facts.sheer}; {kind.name} commonly is not."))
    return found


def _stretch(facts: ClothFacts, cloth: Cloth) -> Contradiction | None:
    """A firm woven that stretches like a knit without elastane."""
    stretch = facts.stretch_cross_pct
    if stretch is None or cloth.structure != "woven" or cloth.fibres is None or not cloth.fibres.shares:
        return None
    if stretch > 15 and not cloth.fibres.share("elastane", "elastodiene", "elastomultiester", "elastolefin"):
        return Contradiction("stretch_cross_pct", f"A woven without elastane is entered as stretching {stretch:g} %.")
    return None


def contradictions(facts: ClothFacts, cloth: Cloth) -> list[Contradiction]:
    """Everything about the facts that does not fit together."""
    found = [each for each in (_structure(cloth), _stretch(facts, cloth)) if each]
    if cloth.fibres:
        found += [Contradiction("fibres", fault[0].upper() + fault[1:] + ".") for fault in cloth.fibres.faults]
    return found + _against_kind(facts, cloth)


def disagreement(prop: Property, low: float, high: float) -> Contradiction | None:
    """Two readings of one property, both stated or measured, that cannot both be right."""
    if not contradicts(low, high, prop.agree_pct):
        return None
    return Contradiction(prop.name, f"Two readings of its {prop.label} disagree: {low:.4g} and {high:.4g} {prop.unit}.")
