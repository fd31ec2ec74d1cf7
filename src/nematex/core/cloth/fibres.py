"""Reading a fibre label: generic names in both vocabularies, shares, and what is wrong with it.

Generic names after EU Regulation 1007/2011 Annex I and US 16 CFR 303.7 (both from memory); the table is
data/fibres.csv.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from difflib import get_close_matches

from propcache.api import cached_property

NOISE = re.compile(
    r"\b(?:organic|recycled|bci|brushed|combed|mercerised|certified|virgin|pure|real|from|of|and|the|with|fibre|fiber|"
    r"fibres|fibers|made|content|composition|approx|blend|mix|woven|knit|knitted|woven|washed|eco|ecological)\b"
)


@dataclass(frozen=True, slots=True)
class Fibre:
    """One generic fibre: its kind and whether it breathes."""

    name: str
    kind: str
    breathes: bool
    note: str


WOOLS = frozenset(("wool", "mohair", "alpaca", "cashmere", "camel"))


@dataclass(frozen=True)
class FibreContent:
    """Shares of a cloth by generic fibre name (0 to 1), with the faults found on the label."""

    label: str
    shares: Mapping[str, float]
    faults: tuple[str, ...]
    cautions: tuple[str, ...] = ()
    unknown: tuple[str, ...] = ()  # words that are no generic fibre name

    @cached_property
    def main(self) -> str | None:
        return max(self.shares, key=lambda name: self.shares[name]) if self.shares else None

    @property
    def by_share(self) -> dict[str, float]:
        """By falling share, as a label says them (Regulation (EU) No 1007/2011, article 9, from memory)."""
        return dict(sorted(self.shares.items(), key=lambda each: -each[1]))

    def share(self, *names: str) -> float:
        return sum(self.shares.get(name, 0.0) for name in names)


class FibreNames:
    """All fibre names that a label may carry: in both vocabularies, as short codes, and in other languages.

    Each row is a fibre, its English aliases, and what only a label carries: codes ("CO") and names from abroad.
    """

    def __init__(self, rows: list[tuple[Fibre, tuple[str, ...], tuple[str, ...]]]) -> None:
        self.by_name = {fibre.name: fibre for fibre, *_ in rows}
        self.place = {name: place for place, name in enumerate(self.by_name)}
        self.by_alias = {alias: fibre for fibre, aliases, _ in rows for alias in (fibre.name, *aliases)}
        self.on_labels = {word.casefold(): fibre for fibre, _, words in rows for word in words} | self.by_alias

    def nearest(self, words: str) -> str | None:
        """The name that a misspelt word most likely means, in English before other languages."""
        for names in (self.by_alias, self.on_labels):
            known = [name for name in names if len(name) >= LEAST_LETTERS]
            if near := get_close_matches(words.casefold()[:MOST_LETTERS], known, n=1, cutoff=ALIKE):
                return near[0]
        return None

    def find(self, words: str) -> Fibre | None:
        """The fibre meant by a label's words, or None."""
        text = " ".join(words.casefold().split())
        for candidate in (text, " ".join(NOISE.sub(" ", text).split())):
            if candidate in self.on_labels:
                return self.on_labels[candidate]
        return None


LEAST_LETTERS, MOST_LETTERS, ALIKE = 4, 60, 0.72  # of a word that may be misspelt, and how alike the two must be
NEAR_ENOUGH_PCT = 0.51  # labels are rounded
_PIECE = re.compile(r"\d+(?:[.,]\d+)?|[^\W\d_](?:[^\W\d_]|['\- ])*")
_BETWEEN = re.compile(r"(?<!\d),|,(?!\d)|[;/+&]|\band\b")
_BAMBOO = re.compile(r"\bbamboo\b")


def _pieces(text: str) -> list[str]:
    """The numbers and words of a label in their order, percent signs left out."""
    pieces = [piece.strip(" -'") for piece in _PIECE.findall(re.sub(r"%|\bper ?cent\b|\bpct\b", " ", text))]
    return [piece for piece in pieces if piece]


def _pairs(text: str) -> list[tuple[str, float]]:
    """(words, percent) pairs: '95% viscose' or 'cotton 55', whichever way round; what has no number is the rest."""
    parts = [_pieces(part) for part in _BETWEEN.split(text)]
    names = [" ".join(piece for piece in part if not piece[0].isdecimal()) for part in parts]
    numbers = [[float(piece.replace(",", ".")) for piece in part if piece[0].isdecimal()] for part in parts]
    if not all(names) or max(map(len, numbers)) != 1:
        return _in_one_run(_pieces(text))
    left = 100 - sum(map(sum, numbers))
    rest = left if numbers.count([]) == 1 else 0.0
    # Where the numbers make the whole, what has none is a remark: '100 % cotton, combed'.
    said = [(name, number) for name, number in zip(names, numbers, strict=True) if number or left > NEAR_ENOUGH_PCT]
    return [(name, number[0] if number else rest) for name, number in said]


def _in_one_run(pieces: list[str]) -> list[tuple[str, float]]:
    """The pairs of a label without commas: '60% cotton 40% linen', 'cotton 55 linen 45'."""
    if not any(piece[0].isdecimal() for piece in pieces):
        return []
    names_first = pieces[-1][0].isdecimal()
    found: list[tuple[str, float]] = []
    words: list[str] = []
    for piece in pieces if names_first else reversed(pieces):
        if piece[0].isdecimal():
            said = words if names_first else reversed(words)
            found.append((" ".join(said), float(piece.replace(",", "."))))
            words = []
        else:
            words.append(piece)
    return found if names_first else found[::-1]


def read_fibres(label: str, names: FibreNames) -> FibreContent:
    """Read a fibre label; faults are returned, not raised."""
    text = label.casefold().replace("\u00a0", " ").strip()
    faults: list[str] = []
    cautions: list[str] = []
    shares: dict[str, float] = {}
    if not text:
        return FibreContent(label, {}, ("the label is empty",))
    if _BAMBOO.search(text):
        cautions.append("bamboo")
        text = re.sub(r"\b(?:viscose|rayon)\s*(?:\(?\s*(?:from|of|made from|made of)?\s*bamboo\)?)", "viscose", text)
        text = re.sub(r"\bbamboo\s+(?:viscose|rayon)\b|\bbamboo\b", "viscose", text)
    pairs = _pairs(text)
    if not pairs:
        words = [part.strip() for part in re.split(r"[,/;+&]|\band\b", text) if part.strip()]
        share = 100.0 if len(words) == 1 else 0.0
        pairs = [(word, share) for word in words]
        if len(words) > 1:
            faults.append("no percentages given")
    unknown: list[str] = []
    for said, percent in pairs:
        fibre = names.find(said)
        if fibre is None:
            near = names.nearest(said)
            faults.append(f"“{said or '?'}” is not a generic fibre name{f': {near}?' if near else ''}")
            unknown.append(said)
            continue
        shares[fibre.name] = shares.get(fibre.name, 0.0) + percent / 100
    total = sum(percent for _, percent in pairs)
    if pairs and total and abs(total - 100) > NEAR_ENOUGH_PCT:
        faults.append(f"the shares add up to {total:g} %, not 100 %")
    if not total and shares:
        shares = {name: 1 / len(shares) for name in shares}
    return FibreContent(label, shares, tuple(faults), tuple(cautions), tuple(unknown))
