"""What is drawn of a pattern: its kind of garment and, from its details, sleeves, neck, collar, waist, skirt, closures.

Lengths in cm on a common middle size. Common practice, no source; every word is looked for in the pattern's own words.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from nematex.core.tables import Tables
from nematex.store.records import PatternRecord

# Each list is read from its beginning: the first word that stands in the pattern decides.
Choices = tuple[tuple[str, tuple[str, ...]], ...]
SLEEVES: Choices = (
    (
        "none",
        ("sleeveless", "strapless", "spaghetti", "camisole", "halter", "shoulder ties", "slip dress", "pinafore", "vest top"),
    ),
    ("puff", ("puff",)),
    ("flutter", ("flutter", "angel", "petal sleeve", "ruffle sleeve")),
    ("full", ("full sleeve", "balloon", "bishop", "billow", "statement sleeve", "lantern", "gathered sleeve")),
    ("bell", ("bell sleeve",)),
    ("grown-on", ("grown-on", "kimono sleeve", "cut-on", "dolman", "batwing")),
    ("cap", ("cap sleeve",)),
    ("elbow", ("elbow", "half sleeve")),
    ("three-quarter", ("three-quarter", "3/4")),
    ("long", ("long sleeve", "sleeve tab", "cuff")),
    ("short", ("short sleeve",)),
)
SLEEVE_CM = {
    "none": 0.0, "puff": 22.0, "flutter": 22.0, "full": 57.0, "bell": 56.0, "grown-on": 22.0, "cap": 9.0, "elbow": 32.0,
    "three-quarter": 43.0, "long": 58.0, "short": 21.0,
}  # fmt: skip
NECKS: Choices = (
    ("wrap", ("wrap", "surplice", "crossover", "cross-over")),
    ("lapels", ("lapel", "revers", "blazer")),
    ("cowl", ("cowl", "draped neck", "draped front", "waterfall front")),
    ("v", ("v-neck", "v neck")),
    ("scoop", ("scoop", "low neck")),
    ("square", ("square neck",)),
    ("boat", ("boat neck", "slash neck")),
)
COLLARS: Choices = (
    ("hood", ("hood",)),
    ("ruffle", ("ruffle collar", "frill collar", "ruffle on collar", "pie-crust", "ruffled collar", "collar ruffle")),
    ("stand", ("stand collar", "mandarin", "funnel", "neckband collar")),
    ("shirt", ("collar",)),
)
SKIRTS: Choices = (
    ("tiered", ("tier",)),
    ("pleated", ("pleat",)),
    ("straight", ("pencil", "straight skirt", "sheath", "tulip")),
    ("flared", ("circle", "flared", "full skirt", "bias", "godet", "flounce")),
    ("gathered", ("gather", "dirndl", "smock", "shirr")),
)
LENGTHS: tuple[tuple[float, tuple[str, ...]], ...] = (
    (42.0, ("mini", "above the knee", "thigh")),
    (96.0, ("maxi", "full-length", "ankle", "floor")),
    (78.0, ("midi", "calf")),
    (58.0, ("knee",)),
)
BOTTOMS = ("skirt", "trousers", "shorts")
TOP_CM = {"tee": 62.0, "shirt": 72.0, "hoodie": 66.0, "coat": 102.0, "gown": 118.0, "slip": 64.0}
USUAL_SLEEVE = {"shirt": "long", "hoodie": "long", "coat": "long", "gown": "long", "slip": "none", "dungarees": "none"}


@dataclass(frozen=True, slots=True)
class Drawn:
    """What the drawing shows. Lengths in cm; of a skirt from the waist, of a top from the shoulder."""

    kind: str
    length_cm: float
    sleeve: str = "short"
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


def _first(choices: Choices, text: str, usual: str) -> str:
    return next((name for name, words in choices if any(word in text for word in words)), usual)


def _any(text: str, *words: str) -> bool:
    return any(word in text for word in words)


def said_of(record: PatternRecord, view: str | None = None) -> str:
    """All words of a pattern that tell how it looks, those of the chosen view's options among them."""
    facts = record.facts
    options = (word for each in facts.usual_options(view) for word in (each.name, *each.details))
    parts = (word for part in facts.parts for word in part.details)
    words: Iterable[str] = (facts.name, facts.garment, view or "", *facts.details, *parts, *options)
    return " · ".join(words).casefold()


def drawn_of(record: PatternRecord, tables: Tables, view: str | None = None) -> Drawn:
    """How a pattern is drawn; a tee where nothing says what it is."""
    text = said_of(record, view)
    base = tables.drawn(f"{record.facts.name} {record.facts.garment}") or "tee"
    kind = {"tiered skirt": "skirt", "wide trousers": "trousers", "shift": "dress"}.get(base, base)
    collar = _first(COLLARS, text, "hood" if kind == "hoodie" else "shirt" if kind == "shirt" else "")
    neck = _first(NECKS, text, "wrap" if kind == "gown" else "round")
    return Drawn(
        kind,
        _length(kind, text),
        _first(SLEEVES, text, USUAL_SLEEVE.get(kind, "short")),
        neck,
        "" if neck in ("lapels", "wrap", "cowl") and collar == "shirt" else collar,
        _first(SKIRTS, text, "straight" if base == "shift" else "A-line"),
        "wide" if base == "wide trousers" or _any(text, "wide leg", "wide-leg", "palazzo", "culotte") else _leg(text),
        _waist(base, text),
        _closure(kind, neck, text),
        _any(text, "patch pocket", "cargo") or (kind in ("coat", "hoodie") and "pocket" in text),
        _any(text, "flounce", "ruffle hem", "ruffled hem", "frill", "peplum", "waterfall hem"),
        _any(text, "knot", "twist", "tied front", "tie front", "bow"),
        base == "shift" or _any(text, "cocoon", "boxy", "oversized", "smock", "loose", "tunic"),
    )  # fmt: skip


def _length(kind: str, text: str) -> float:
    if kind == "shorts":
        return 42.0
    if kind in ("trousers", "jumpsuit", "dungarees"):
        return 78.0 if _any(text, "cropped", "culotte") else 100.0
    if kind in TOP_CM:
        return TOP_CM[kind] - (16.0 if "crop" in text else 0.0) + (16.0 if "tunic" in text else 0.0) + _dress_slip(kind, text)
    return next((cm for cm, words in LENGTHS if any(word in text for word in words)), 62.0)


def _dress_slip(kind: str, text: str) -> float:
    return 44.0 if kind == "slip" and "dress" in text else 0.0


def _leg(text: str) -> str:
    return "gathered in" if _any(text, "jogger", "sweatpants") else "tapered" if _any(text, "taper", "slim") else "straight"


def _waist(base: str, text: str) -> str:
    if _any(text, "elastic", "shirr", "casing", "drawstring waist"):
        return "elastic"
    if _any(text, "drop waist", "dropped waist"):
        return "dropped"
    if _any(text, "empire"):
        return "empire"
    if base == "shift" or _any(text, "cocoon", "smock", "tunic", "boxy"):
        return "none"
    return "seam"


def _closure(kind: str, neck: str, text: str) -> str:
    if kind == "shirt" or _any(text, "button band", "button front", "button-up", "placket", "buttons", "shirt dress"):
        return "buttons"
    if kind == "coat":
        return "zip" if "zip" in text else "buttons" if neck != "wrap" else ""
    return "zip" if _any(text, "exposed zip", "front zip", "zip front") else ""
