"""How a pattern looks: its kind of garment and, from its details, sleeves, neck, collar, waist, skirt, closures.

The words of each trait are rows of data/drawn_details.csv; of one trait the first row whose word stands in the pattern
decides. Lengths in cm on a common middle size.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from nematex.core.pattern.facts import Pattern
from nematex.core.tables import Tables, Trait

BOTTOMS = ("skirt", "trousers", "shorts")
USUAL_SLEEVE = {"shirt": "long", "hoodie": "long", "coat": "long", "gown": "long", "slip": "none", "dungarees": "none"}
LEAST_LENGTH_CM = 20.0
USUAL_SKIRT_CM, USUAL_LEG_CM, SHORTS_CM = 62.0, 100.0, 42.0
CROPPED_CM, TUNIC_CM, SLIP_DRESS_CM = -16.0, 16.0, 44.0


@dataclass(frozen=True, slots=True)
class Look:
    """What is seen of it. Lengths in cm; of a skirt from the waist, of a top from the shoulder."""

    kind: str
    length_cm: float
    sleeve: str = "short"
    sleeve_cm: float = 21.0
    neck: str = "round"
    collar: str = ""
    skirt: str = "A-line"
    leg: str = ""
    waist: str = ""
    closure: str = ""
    pockets: bool = False
    flounce: bool = False
    knot: bool = False
    loose: bool = False


def said_of(facts: Pattern, view: str | None = None) -> str:
    """All words of a pattern that tell how it looks, those of the chosen view's options among them."""
    options = (word for each in facts.usual_options(view) for word in (each.name, *each.details))
    parts = (word for part in facts.parts for word in part.details)
    words: Iterable[str] = (facts.name, facts.garment, view or "", *facts.details, *parts, *options)
    return " · ".join(words).casefold()


@dataclass(frozen=True, slots=True)
class _Seen:
    """The pattern's words, and what the table makes of them."""

    text: str
    base: str
    tables: Tables

    def row(self, trait: str) -> Trait | None:
        return next((row for row in self.tables.traits[trait] if any(word in self.text for word in row.words)), None)

    def named(self, trait: str, value: str) -> Trait | None:
        return next((row for row in self.tables.traits[trait] if row.value == value), None)

    def of(self, trait: str, usual: str = "") -> str:
        row = self.row(trait)
        return row.value if row else usual


def look_of(facts: Pattern, tables: Tables, view: str | None = None) -> Look:
    """How a pattern is drawn; a tee where nothing says what it is."""
    base = tables.drawn(f"{facts.name} {facts.garment}") or "tee"
    seen = _Seen(said_of(facts, view), base, tables)
    kind = {"tiered skirt": "skirt", "wide trousers": "trousers", "shift": "dress"}.get(base, base)
    collar = seen.of("collar", "hood" if kind == "hoodie" else "shirt" if kind == "shirt" else "")
    neck = seen.of("neck", "wrap" if kind == "gown" else "round")
    sleeve = seen.row("sleeve") or seen.named("sleeve", USUAL_SLEEVE.get(kind, "short"))
    return Look(
        kind=kind,
        length_cm=max(_length(kind, seen) + facts.longer_cm, LEAST_LENGTH_CM),
        sleeve=sleeve.value if sleeve else "short",
        sleeve_cm=sleeve.cm if sleeve else 0.0,
        neck=neck,
        collar="" if neck in ("lapels", "wrap", "cowl") and collar == "shirt" else collar,
        skirt=seen.of("skirt", "straight" if base == "shift" else "A-line"),
        leg="wide" if base == "wide trousers" else seen.of("leg", "straight"),
        waist=_waist(seen),
        closure=_closure(kind, neck, seen),
        pockets=bool(seen.row("pockets")) or (kind in ("coat", "hoodie") and "pocket" in seen.text),
        flounce=bool(seen.row("flounce")),
        knot=bool(seen.row("knot")),
        loose=base == "shift" or bool(seen.row("loose")),
    )


def _length(kind: str, seen: _Seen) -> float:
    if kind == "shorts":
        return SHORTS_CM
    if kind in ("trousers", "jumpsuit", "dungarees"):
        cropped = seen.row("legs")
        return cropped.cm if cropped else USUAL_LEG_CM
    if top := seen.named("top", kind):
        crop = CROPPED_CM if "crop" in seen.text else 0.0
        tunic = TUNIC_CM if "tunic" in seen.text else 0.0
        return top.cm + crop + tunic + (SLIP_DRESS_CM if kind == "slip" and "dress" in seen.text else 0.0)
    hem = seen.row("hem")
    return hem.cm if hem else USUAL_SKIRT_CM


def _waist(seen: _Seen) -> str:
    found = seen.of("waist")
    if found == "none" or (seen.base == "shift" and not found):
        return "dropped" if seen.of("skirt") == "tiered" else "none"  # a tier hangs from a seam
    return found or "seam"


def _closure(kind: str, neck: str, seen: _Seen) -> str:
    if kind == "shirt" or seen.of("closure") == "buttons":
        return "buttons"
    if kind == "coat":
        return "zip" if "zip" in seen.text else "buttons" if neck != "wrap" else ""
    return seen.of("closure")
