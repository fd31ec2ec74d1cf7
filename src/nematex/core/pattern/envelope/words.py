"""The vocabulary of envelopes: phrases to items, longest first."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from nematex.core.cloth.lexicon import key, stem
from nematex.core.quantity.scan import SIGNS, scan
from nematex.core.tables import EnvelopePhrases, Tables

LONGEST = 6  # words in the longest phrase that is looked for
# Kinds of phrase that stand above the names of cloths, weights and hands, in this order.
ABOVE = ("structure", "stretch", "print", "sheer", "press", "natural", "positive", "weak", "negative", "without", "if", "lined",
         "such", "join", "for", "remark")  # fmt: skip


@dataclass(frozen=True, slots=True)
class Item:
    """One phrase of the text: its kind, its value and the words as written."""

    kind: str
    value: Any
    words: str


Vocabulary = dict[str, tuple[str, Any]]


@lru_cache(maxsize=4)
def vocabulary(tables: Tables) -> Vocabulary:
    """Phrase key → (kind, value); later additions win, so group words stand above one-row names."""
    words: Vocabulary = {}
    phrases = tables.envelope_phrases
    for kind in ("filler", "fabric"):
        _add(words, phrases, kind)
    words |= {name: ("detail", detail.name) for name, detail in tables.details.by_key.items()}
    for name, part in tables.parts.by_key.items():
        if words.get(name, ("filler",))[0] in ("filler", "detail"):
            words[name] = ("part", (part.name, name))
    words |= {key(alias): ("fibre", fibre.name) for alias, fibre in tables.fibres.by_alias.items()}
    words["bamboo"] = ("cloth", ("bamboo viscose jersey", "viscose challis"))
    words |= {name: ("cloth", (kind.name,)) for name, kind in tables.lexicon.by_key.items()}
    words |= {key(name): ("cloth", tuple(kind.name for kind in kinds)) for name, kinds in tables.lexicon.groups.items()}
    words["lining"] = ("part", ("lining", "lining"))  # on an envelope a part, on the shelf a cloth
    words |= {hand: ("hand", hand) for hand in (*tables.avoid_hands, *tables.pattern_hands)}
    for weight, word in tables.weight_keys.items():
        words[weight] = words[f"{weight} weight"] = ("weight", word)
    for kind in ABOVE:
        _add(words, phrases, kind)
    return words


def _add(words: Vocabulary, phrases: Sequence[EnvelopePhrases], kind: str) -> None:
    for row in phrases:
        if row.kind == kind:
            words.update(dict.fromkeys(filter(None, map(key, row.phrases)), (kind, row.value or None)))


_TOKEN = re.compile(r"§\d+|[a-z0-9]+(?:[’'&][a-z]+)*|[,;:/()!\n]|\.(?!\d)")


def _decimals(text: str) -> str:
    """Numbers with fractions as decimals, so that every later look sees one writing: '5 1/2 in' → '5.5 in'."""
    for figure in reversed(list(scan(text))):
        written = text[figure.start : figure.end]
        if "/" in written.split("g")[0].split("o")[0] or any(sign in written for sign in SIGNS):
            unit = f" {figure.unit}" if figure.unit else ""
            text = f"{text[: figure.start]}{figure.value:g}{unit}{text[figure.end :]}"
    return text


def normalise(text: str) -> str:
    """Lower case, plain dashes and quotes, hyphens inside words opened, abbreviations closed."""
    text = text.casefold().replace("\u00a0", " ").replace("’", "'").replace("‑", "-")
    text = "\n".join(filter(None, (" ".join(line.split()) for line in text.split("\n"))))
    text = _decimals(text)
    text = text.replace("§", " ")  # the sign that marks a figure once it has been lifted out
    text = re.sub(r"[–—]", " - ", text)
    text = re.sub(r"\b(e\.g|i\.e|eg|etc|approx|min|max)\.", lambda match: match[1].replace(".", " ") + " ", text)
    text = re.sub(r"(\d)\s+%", r"\1%", text)
    text = re.sub(r"\blight(?:weight)?s?\s*(?:/|-|–)\s*(?:to\s*-\s*)?(?=medium|mid)", "light to ", text)
    text = re.sub(r"\b(?:medium|mid)(?:weight)?\s*(?:/|-|–)\s*(?:to\s*-\s*)?(?=heavy)", "medium to ", text)
    text = re.sub(r"(?<=[a-z])-(?=[a-z])", " ", text)
    text = re.sub(r"\b(light|medium|mid|heavy|heavier|lighter)\s*weight(?:s|ed)?\b", r"\1 weight", text)
    return re.sub(r"\b(light|medium|mid|heavy) weight (to|or|and) (medium|mid|heavy|heavier)\b", r"\1 \2 \3", text)


def items(text: str, tables: Tables) -> list[Item]:
    """Split normalised text (figures already lifted) into the longest phrases the vocabulary knows."""
    words = vocabulary(tables)
    tokens = _TOKEN.findall(text)
    found: list[Item] = []
    at = 0
    while at < len(tokens):
        token = tokens[at]
        if token[0] == "§":
            found.append(Item("figure", int(token[1:]), token))
            at += 1
            continue
        if not token[0].isalnum():
            found.append(Item("stop" if token in ".;!\n" else "mark", token, token))
            at += 1
            continue
        at += _longest(tokens, at, words, found)
    return found


def _longest(tokens: list[str], at: int, words: Vocabulary, found: list[Item]) -> int:
    """Append the longest known phrase that starts here; returns how many tokens it took."""
    for size in range(min(LONGEST, len(tokens) - at), 0, -1):
        run = tokens[at : at + size]
        if not all(token[0].isalnum() for token in run):
            continue
        known = words.get(" ".join(stem(token) for token in " ".join(run).replace("'", "'").split()))
        if known:
            found.append(Item(known[0], known[1], " ".join(run)))
            return size
    found.append(Item("unknown", None, tokens[at]))
    return 1


class Cursor:
    """The items of a text and the place that is read."""

    def __init__(self, every: list[Item]) -> None:
        self.every = every
        self.place = 0

    def peek(self, steps: int = 1) -> Item | None:
        """The item so many steps ahead (or back, where negative); None beyond the ends."""
        place = self.place + steps
        return self.every[place] if 0 <= place < len(self.every) else None

    def ahead(self, most: int) -> list[Item]:
        return self.every[self.place + 1 : self.place + 1 + most]
