"""How far a pattern is from a garment that somebody described, and which changes bring it nearer.

Both are seen as looks: kind, lengths, sleeve, neck, collar, skirt, leg, waist, closures. What a difference counts stands in
data/judging.toml (common practice, no source). Lengths in cm.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from nematex.core.pattern.look import BOTTOMS, Look
from nematex.core.rules.reckoning import CopyRules
from nematex.core.tables import Tables

LENGTH_NOTICED_CM = 4.0
LONG = ("long", "full", "bell", "three-quarter")
# Of a trait that is there or not: the change that adds it, the one that leaves it off.
CHANGED_BY = (("flounce", "flounce", ""), ("pockets", "pocket", "no pocket"), ("knot", "", ""), ("loose", "", ""))
SHORT = ("short", "cap", "flutter", "puff", "elbow", "grown-on")


@dataclass(frozen=True, slots=True)
class Step:
    """One difference: in what, what is wanted and what there is, what it counts, and a change that closes it ("": none)."""

    respect: str
    wanted: str
    has: str
    counts: float
    hack: str = ""


# Which rows of the table of traits tell of a respect.
TOLD_BY = {"length": ("hem", "legs"), "sleeve": ("sleeve",), "closure": ("closure",), "pockets": ("pockets",)}


def told(text: str, tables: Tables) -> frozenset[str]:
    """The respects that a description says something of; of the others any pattern will do."""
    words = text.casefold()
    found = {name for name, rows in tables.traits.items() if any(word in words for row in rows for word in row.words)}
    return frozenset(found | {name for name, traits in TOLD_BY.items() if found & set(traits)})


def steps_to(want: Look, has: Look, said: frozenset[str], rule: CopyRules) -> list[Step] | None:
    """The differences between a described garment and a pattern in what is `said` of it; None for another kind of garment."""
    if want.kind != has.kind:
        return None
    every = (*_length(want, has, rule), *_sleeve(want, has, rule), *_words(want, has, rule), *_details(want, has, rule))
    return [each for each in every if each.respect in said]


def distance(steps: list[Step], rule: CopyRules) -> float:
    """What all differences count together; one that a change closes counts for less."""
    return sum(each.counts * (rule.closed_share if each.hack else 1.0) for each in steps)


def _length(want: Look, has: Look, rule: CopyRules) -> Iterator[Step]:
    off = want.length_cm - has.length_cm
    if abs(off) > LENGTH_NOTICED_CM:
        kind = "lengthen" if off > 0 else "shorten"
        hack = f"{kind}(by_cm={min(abs(off), rule.most_length_cm):.0f})"
        yield Step("length", f"{want.length_cm:.0f} cm", f"{has.length_cm:.0f} cm", min(abs(off) / rule.length_cm, 1.0), hack)


def _sleeve(want: Look, has: Look, rule: CopyRules) -> Iterator[Step]:
    if want.sleeve == has.sleeve or want.kind in BOTTOMS:
        return
    hack = ""
    off = want.sleeve_cm - has.sleeve_cm
    if want.sleeve == "none":
        hack = "no sleeve"
    elif want.sleeve == "full" and has.sleeve in LONG:
        hack = "fuller sleeve(by_pct=40)"
    elif has.sleeve == "none":
        hack = ""  # a sleeve needs an armhole that was drafted for it
    elif want.sleeve in SHORT and has.sleeve in LONG:
        hack = f"short sleeve(by_cm={max(-off, LENGTH_NOTICED_CM + 1):.0f})"
    elif want.sleeve in LONG and has.sleeve in SHORT:
        hack = f"longer sleeve(by_cm={max(off, LENGTH_NOTICED_CM + 1):.0f})"
    yield Step("sleeve", want.sleeve, has.sleeve, rule.sleeve, hack)


def _words(want: Look, has: Look, rule: CopyRules) -> Iterator[Step]:
    """Neck, collar, skirt, leg and waist: most of these are another draft."""
    named: tuple[str, ...] = ("neck", "collar") if want.kind not in BOTTOMS else ()
    if want.kind in ("dress", "skirt", "slip"):
        named += ("skirt",)
    if want.kind in ("trousers", "jumpsuit", "dungarees", "shorts"):
        named += ("leg",)
    for name in (*named, "waist"):
        wanted, there = getattr(want, name), getattr(has, name)
        if (wanted and wanted != there) or (name == "collar" and wanted != there):
            yield Step(name, wanted or "none", there or "none", getattr(rule, name), _word_hack(name, wanted, there))


def _word_hack(name: str, wanted: str, has: str) -> str:
    if name == "skirt" and wanted == "tiered":
        return "tier"
    if name == "leg":
        return {"wide": "wider leg", "tapered": "tapered leg"}.get(wanted, "") if has else ""
    return ""


def _details(want: Look, has: Look, rule: CopyRules) -> Iterator[Step]:
    if want.closure != has.closure and want.closure:
        yield Step("closure", want.closure, has.closure or "none", rule.closure, "zip" if want.closure == "zip" else "")
    for name, add, leave in CHANGED_BY:
        wanted, there = getattr(want, name), getattr(has, name)
        if wanted != there and (wanted or leave or name == "loose"):
            said = ("with", "without") if wanted else ("without", "with")
            yield Step(name, said[0], said[1], getattr(rule, name), add if wanted else leave)
