"""The colours of a set: which cloths share one, which nearly do, and whether all of it is one tone.

Distances are CIEDE2000. Where people see "the same", "of one tone" and "almost, which looks like a mistake" stands in
data/judging.toml (common practice, no source).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np

from nematex.core.colour.difference import delta_e, lab_from_srgb, read_hex
from nematex.core.quantity.arrays import Floats
from nematex.core.rules.reckoning import ColourRules


@dataclass(frozen=True)
class Coloured:
    """A cloth by its place in the set: its colours as "#rrggbb", the ground first, and whether it is printed."""

    place: int
    name: str
    colours: tuple[str, ...]
    printed: bool


@dataclass(frozen=True)
class Tone:
    """One colour of the set, and the cloths that have it on their ground or in their print."""

    colour: str
    grounds: tuple[Coloured, ...]
    prints: tuple[Coloured, ...]

    @property
    def cloths(self) -> tuple[Coloured, ...]:
        return self.grounds + self.prints


@dataclass(frozen=True)
class Tie:
    """Two cloths and their nearest colours, so far apart."""

    first: Coloured
    second: Coloured
    colours: tuple[str, str]
    off: float


def labs(colours: Sequence[str]) -> Floats:
    """CIELAB of colours, (n, 3)."""
    return lab_from_srgb([read_hex(each) for each in colours]).reshape(-1, 3) if colours else np.zeros((0, 3))


def palette(cloths: Sequence[Coloured], rule: ColourRules) -> list[Tone]:
    """The tones of a set, those of most cloths first: a colour joins the first tone that it is of."""
    tones: list[tuple[str, list[Coloured], list[Coloured]]] = []
    for order in (True, False):  # grounds first: they carry the set
        for cloth in cloths:
            for colour in cloth.colours[:1] if order else cloth.colours[1:]:
                tone = _tone_of(colour, tones, rule.tone)
                (tone[1] if order else tone[2]).append(cloth)
    found = [Tone(colour, tuple(grounds), _each(prints, grounds)) for colour, grounds, prints in tones]
    return sorted(found, key=lambda tone: (-len(tone.cloths), -len(tone.grounds)))


def _each(prints: list[Coloured], grounds: list[Coloured]) -> tuple[Coloured, ...]:
    return tuple(dict.fromkeys(each for each in prints if each not in grounds))


def _tone_of(
    colour: str, tones: list[tuple[str, list[Coloured], list[Coloured]]], within: float
) -> tuple[str, list[Coloured], list[Coloured]]:
    if tones:
        off = delta_e(labs([each[0] for each in tones]), labs([colour]))
        nearest = int(np.argmin(off))
        if off[nearest] <= within:
            return tones[nearest]
    tones.append((colour, [], []))
    return tones[-1]


def ties(cloths: Sequence[Coloured], most: float) -> list[Tie]:
    """The pairs of cloths that share a colour within so much, the closest first."""
    found = []
    for first, second in combinations([each for each in cloths if each.colours], 2):
        off = delta_e(labs(first.colours)[:, None, :], labs(second.colours)[None, :, :])
        at, other = np.unravel_index(int(np.argmin(off)), off.shape)
        if off[at, other] <= most:
            found.append(Tie(first, second, (first.colours[at], second.colours[other]), float(off[at, other])))
    return sorted(found, key=lambda tie: tie.off)


def near_misses(cloths: Sequence[Coloured], rule: ColourRules) -> list[Tie]:
    """Pairs of plain grounds that are almost the same and not quite: side by side they look like a mistake."""
    plains = [each for each in cloths if each.colours and not each.printed]
    found = []
    for first, second in combinations(plains, 2):
        off = float(delta_e(labs(first.colours[:1]), labs(second.colours[:1]))[0])
        if rule.hair < off <= rule.near_miss:
            found.append(Tie(first, second, (first.colours[0], second.colours[0]), off))
    return sorted(found, key=lambda tie: tie.off)


def is_monotone(cloths: Sequence[Coloured], rule: ColourRules) -> bool:
    """Whether every ground of a set of three or more is within one family of tones."""
    grounds = [each.colours[0] for each in cloths if each.colours]
    if len(grounds) < rule.monotone_from:
        return False
    lab = labs(grounds)
    return bool(np.max(delta_e(lab[:, None, :], lab[None, :, :])) <= rule.monotone)
