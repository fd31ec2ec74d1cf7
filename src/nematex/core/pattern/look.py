"""How a pattern looks: its kind of garment and, from its details, sleeves, neck, collar, waist, skirt, closures.

The words of each trait are rows of data/drawn_details.csv; of one trait the first row whose word stands in the pattern
decides. What goes without saying of a kind of garment stands in its row of data/garments.csv. Lengths in cm on a common
middle size.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from nematex.core.pattern.facts import Pattern
from nematex.core.tables import Garment, Tables, Trait

BOTTOMS = ("skirt", "trousers", "shorts")
WITH_LEGS = ("trousers", "jumpsuit", "dungarees")
USUAL_SLEEVE = dict.fromkeys(("shirt", "hoodie", "coat", "gown"), "long") | dict.fromkeys(
    ("slip", "dungarees", "waistcoat", "cape", "apron", "bag", "hat"), "none"
)
USUAL_NECK = {"gown": "wrap", "waistcoat": "v"}
USUAL_COLLAR = {"hoodie": "hood", "shirt": "shirt"}
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


def garment_row(facts: Pattern, tables: Tables) -> Garment | None:
    """Which kind of garment it is: the one that its garment names; of a 'dress' that is called a shift, the shift."""
    named = tables.garments.find_within(facts.name)
    row = tables.garments.find_within(facts.garment)
    if row is None:
        return named
    closer = named is not None and row.general and (named.layer, named.bifurcated) == (row.layer, row.bifurcated)
    return named if closer else row


def layer_of(facts: Pattern, tables: Tables) -> str:
    """At which layer of an outfit it is worn; a garment that is not known as a top."""
    found = garment_row(facts, tables)
    return found.layer if found else "top"


@dataclass(frozen=True, slots=True)
class _Seen:
    """The pattern's words, what the table makes of them, and what goes without saying of its garment."""

    text: str
    usual: Mapping[str, str]
    tables: Tables

    def row(self, trait: str) -> Trait | None:
        return next((row for row in self.tables.traits[trait] if any(word in self.text for word in row.words)), None)

    def named(self, trait: str, value: str) -> Trait | None:
        return next((row for row in self.tables.traits[trait] if row.value == value), None)

    def of(self, trait: str, usual: str = "") -> str:
        row = self.row(trait)
        return row.value if row else self.usual.get(trait, usual)

    def flag(self, trait: str) -> bool:
        return bool(self.row(trait)) or trait in self.usual


def look_of(facts: Pattern, tables: Tables, view: str | None = None) -> Look:
    """How a pattern is drawn; a tee where nothing says what it is. What its details say goes before its kind's usual."""
    garment = garment_row(facts, tables)
    kind = garment.drawn if garment else "tee"
    seen = _Seen(said_of(facts, view), garment.look if garment else {}, tables)
    neck = seen.of("neck", USUAL_NECK.get(kind, "round"))
    collar = seen.of("collar", USUAL_COLLAR.get(kind, ""))
    named_sleeve = seen.usual.get("sleeve", USUAL_SLEEVE.get(kind, "short"))
    sleeve = seen.row("sleeve") or seen.named("sleeve", named_sleeve)
    return Look(
        kind=kind,
        length_cm=max(_length(kind, seen) + facts.longer_cm, LEAST_LENGTH_CM),
        sleeve=sleeve.value if sleeve else "short",
        sleeve_cm=sleeve.cm if sleeve else 0.0,
        neck=neck,
        collar="" if neck in ("lapels", "wrap", "cowl") and collar == "shirt" else collar,
        skirt=seen.of("skirt", "A-line"),
        leg=seen.of("leg", "straight"),
        waist=_waist(seen),
        closure=_closure(kind, neck, seen),
        pockets=seen.flag("pockets") or (kind in ("coat", "hoodie") and "pocket" in seen.text),
        flounce=seen.flag("flounce"),
        knot=seen.flag("knot"),
        loose=seen.flag("loose"),
    )


def _length(kind: str, seen: _Seen) -> float:
    """From the words of the hem, else as the garment usually is, else as its kind is."""
    said = seen.row("legs" if kind in WITH_LEGS else "hem") if kind in (*WITH_LEGS, "skirt", "dress") else None
    if said:
        return said.cm
    usual = float(seen.usual.get("length", 0))
    if kind in WITH_LEGS:
        return usual or USUAL_LEG_CM
    if kind == "shorts":
        return usual or SHORTS_CM
    if top := seen.named("top", kind):
        crop = CROPPED_CM if "crop" in seen.text and not usual else 0.0
        tunic = TUNIC_CM if "tunic" in seen.text and not usual else 0.0
        slip = SLIP_DRESS_CM if kind == "slip" and "dress" in seen.text and not usual else 0.0
        return (usual or top.cm) + crop + tunic + slip
    return usual or USUAL_SKIRT_CM


def _waist(seen: _Seen) -> str:
    found = seen.of("waist", "seam")
    return "dropped" if found == "none" and seen.of("skirt") == "tiered" else found  # a tier hangs from a seam


def _closure(kind: str, neck: str, seen: _Seen) -> str:
    if kind in ("shirt", "waistcoat") or seen.of("closure") == "buttons":
        return "buttons"
    if kind == "coat":
        if "zip" in seen.text or seen.of("closure") == "zip":
            return "zip"
        return "buttons" if neck != "wrap" else ""
    return seen.of("closure")
