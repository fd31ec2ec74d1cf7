"""Colours as people write them: "petrol, rust and lilac", "#24404a", or both together."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass

from propcache.api import cached_property

from nematex.core.errors import FieldFault, UnknownChoice

MOST_WORDS = 3  # of a colour's name
LONGEST = 300  # letters
ENDINGS, SHORTEST_BASE = ("es", "er", "en", "em", "e"), 3
_CODE = re.compile(r"#[0-9a-f]{6}(?![0-9a-f])")
_APART = re.compile(r"[,;/|+&·()\n]|\b(?:and|with|on|und|et|mit)\b")


@dataclass(frozen=True)
class ColourWords:
    """`names`: name → "#rrggbb"; `others`: another word → the name it stands for."""

    names: Mapping[str, str]
    others: Mapping[str, str]

    @cached_property
    def by_word(self) -> dict[str, str]:
        """Every word that is known → "#rrggbb"."""
        return {word: self.names[name] for word, name in self.others.items()} | dict(self.names)

    @cached_property
    def by_code(self) -> dict[str, str]:
        return {code: name for name, code in self.names.items()}

    def find(self, phrase: str) -> str | None:
        """The colour of a phrase, also of a German adjective in any of its endings: 'hellgraue'."""
        if phrase in self.by_word:
            return self.by_word[phrase]
        bases = (phrase.removesuffix(ending) for ending in ENDINGS if phrase.endswith(ending))
        return next((self.by_word[base] for base in bases if len(base) >= SHORTEST_BASE and base in self.by_word), None)

    def said(self, colours: tuple[str, ...]) -> str | None:
        """The words that these colours were read from; None where one of them is no word's."""
        names = [self.by_code.get(colour) for colour in colours]
        return ", ".join(name for name in names if name) if all(names) else None


@dataclass(frozen=True, slots=True)
class Palette:
    """Colours as "#rrggbb", the ground first; whether a word stood for one of them; words that are not known."""

    colours: tuple[str, ...]
    by_word: bool = False
    unknown: tuple[str, ...] = ()


class UnknownColours(UnknownChoice):
    """Some words are no colours; `palette` holds those that are."""

    def __init__(self, field: str, palette: Palette, words: ColourWords) -> None:
        super().__init__(field, ", ".join(palette.unknown), [*words.by_word, "or a code like #24404a"], "colour word")
        self.palette = palette


def read_palette(text: str, words: ColourWords) -> Palette:
    """Every colour of a text in its order, each once."""
    colours: list[str] = []
    unknown: list[str] = []
    by_word = False
    for part in _APART.split(text.casefold()[:LONGEST].replace("-", " ")):
        tokens = part.split()
        at = 0
        while at < len(tokens):
            if _CODE.fullmatch(tokens[at]):
                colours.append(tokens[at])
                at += 1
                continue
            taken = next((n for n in range(MOST_WORDS, 0, -1) if words.find(" ".join(tokens[at : at + n]))), 0)
            if taken:
                colours.append(words.find(" ".join(tokens[at : at + taken])) or "")
                by_word = True
            else:
                unknown.append(tokens[at])
            at += taken or 1
    return Palette(tuple(dict.fromkeys(colours)), by_word, tuple(dict.fromkeys(unknown)))


def read_colours(text: str, field: str, words: ColourWords) -> Palette:
    """The colours of a cell or field; raises FieldFault, UnknownColours."""
    if len(text) > LONGEST:
        raise FieldFault(field, f"{text[:30]}…", f"is {len(text)} letters long; at most {LONGEST} are kept")
    found = read_palette(text, words)
    if found.unknown:
        raise UnknownColours(field, found, words)
    return found
