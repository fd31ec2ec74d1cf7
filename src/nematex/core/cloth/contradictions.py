"""What cannot all be true of a cloth: its numbers against its name, its label, and one another.

Which kinds of cloth commonly have which values is data/cloths.csv; that a value far outside is worth asking about is
common practice, no source.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import SHEERNESS
from nematex.core.cloth.lexicon import FIBRE_WORDS, plain
from nematex.core.cloth.plausible import SLACK, doubt
from nematex.core.cloth.properties import Property
from nematex.core.cloth.readings import contradicts
from nematex.core.quantity.estimate import Known

SHEER_STEPS = 2  # an opaque voile is odd from two words apart
STRETCH_POINTS = 15  # and stretch from so many points beyond what such cloth may well have
OF_THE_KIND = ("cloth", "structure", "weight_gsm", "bending_length_cm", "stretch_cross_pct")
LOOK_ALIKE = re.compile(r"(?:[\s-]+(?:look|feel|touch|type|like|effect|style|blend|mix|optik|griff|mischung|imitat))|-")


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


def _against_kind(cloth: Cloth) -> list[Contradiction]:
    """Weight, bending length and see-through against what the kind of cloth commonly has."""
    kind, facts = cloth.type, cloth.facts
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


def _stretch(cloth: Cloth) -> Contradiction | None:
    """A firm woven that stretches like a knit without elastane."""
    stretch = cloth.facts.stretch_cross_pct
    if stretch is None or cloth.structure != "woven" or cloth.fibres is None or not cloth.fibres.shares:
        return None
    if stretch > 15 and not cloth.fibres.share("elastane", "elastodiene", "elastomultiester", "elastolefin"):
        return Contradiction("stretch_cross_pct", f"A woven without elastane is entered as stretching {stretch:g} %.")
    return None


def _against_name(cloth: Cloth) -> list[Contradiction]:
    """A stretch that no such cloth has: a poplin of 51 %; and a fibre that stands in its name and not on its label."""
    kind, stretch, found = cloth.type, cloth.facts.stretch_cross_pct, []
    if kind and stretch is not None:
        low, high = kind.stretch_cross_pct.low / SLACK - STRETCH_POINTS, kind.stretch_cross_pct.high * SLACK + STRETCH_POINTS
        if not low <= stretch <= high:
            usual = f"{kind.stretch_cross_pct.low:g} to {kind.stretch_cross_pct.high:g} %"
            said = f"It is called {kind.name}, which stretches {usual}, and entered as stretching {stretch:g} %."
            found.append(Contradiction("stretch_cross_pct", said))
    if cloth.fibres and cloth.fibres.shares and not cloth.fibres.unknown:
        found += [Contradiction("cloth", f"It is called {word}, and its label has none.") for word in _not_in_it(cloth)]
    return found


def _not_in_it(cloth: Cloth) -> list[str]:
    """Fibres that the name says and the label has not; 'silk-look' and 'linen feel' say so themselves."""
    said, label = plain(cloth.facts.name), cloth.fibres
    every = ((fibre, found) for fibre, words in FIBRE_WORDS.items() for word in words if (found := _named(word, said)))
    return [found for fibre, found in every if label and not label.share(fibre)]


def _named(word: str, said: str) -> str:
    """A fibre's word where it stands in a name as what the cloth is of; "" where it does not."""
    found = re.search(rf"(?<![\w-]){word}(?![\w])", said)
    return "" if found is None or LOOK_ALIKE.match(said, found.end()) else word


def unsettled(cloth: Cloth) -> list[Contradiction]:
    """What must be settled before such a cloth is proposed: nothing says what it is, or what is said cannot all be so.

    What somebody has measured is so, however unlike its name it is; and what shows through was seen.
    """
    open_ones = (each for each in contradictions(cloth) if each.property in OF_THE_KIND)
    return [each for each in open_ones if cloth.facts.known.get(each.property) != Known.MEASURED.word]


def _placed(cloth: Cloth) -> Contradiction | None:
    if cloth.type or not cloth.guessed:
        return None
    return Contradiction(
        "structure", f"Nothing says what kind of cloth it is: it is taken for a {cloth.structure} until somebody does."
    )


def contradictions(cloth: Cloth) -> list[Contradiction]:
    """Everything about the facts that does not fit together."""
    found = [each for each in (_structure(cloth), _placed(cloth), _stretch(cloth)) if each]
    if cloth.fibres:
        found += [Contradiction("fibres", fault[0].upper() + fault[1:] + ".") for fault in cloth.fibres.faults]
    said = {each.property for each in found}
    return found + _against_kind(cloth) + [each for each in _against_name(cloth) if each.property not in said]


def disagreement(prop: Property, low: float, high: float) -> Contradiction | None:
    """Two readings of one property, both stated or measured, that cannot both be right."""
    if not contradicts(low, high, prop.agree_pct):
        return None
    return Contradiction(prop.name, f"Two readings of its {prop.label} disagree: {low:.4g} and {high:.4g} {prop.unit}.")
