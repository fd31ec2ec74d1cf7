"""The vocabulary of envelopes in every language that has a table: phrases to items, longest first."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope.traced import Traced
from nematex.core.quantity.scan import SIGNS, scan
from nematex.core.tables import EnvelopePhrases, Tables

LONGEST = 7  # words in the longest phrase that is looked for
ENDINGS = ("", "e", "er", "es", "en", "em")  # of a German adjective, written 'leicht~' in its table
# Kinds of phrase that stand above the names of cloths, weights and hands, in this order.
BELOW = ("filler", "fabric")
NAMING = ("cloth", "detail", "part", "weight", "hand", "fibre")  # whose value is a name of the trade's tables


@dataclass(frozen=True, slots=True)
class Item:
    """One phrase of the text: its kind, its value, the words as read, and where they stand in the text as it was pasted."""

    kind: str
    value: Any
    words: str
    start: int = 0
    end: int = 0


Vocabulary = dict[str, tuple[str, Any]]


@lru_cache(maxsize=4)
def vocabulary(tables: Tables) -> Vocabulary:
    """Phrase key → (kind, value); later additions win, so group words stand above one-row names."""
    words: Vocabulary = {}
    phrases = tables.envelope_phrases
    for kind in BELOW:
        _add(words, (row for row in phrases if row.kind == kind))
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
    _add(words, (row for row in phrases if row.kind not in (*BELOW, *NAMING)))
    for row in phrases:
        if row.kind in NAMING:
            _name(words, row, tables)
    return words


def _add(words: Vocabulary, rows: Iterable[EnvelopePhrases]) -> None:
    for row in rows:
        words.update(dict.fromkeys(_keys(row), (row.kind, row.value or None)))


def _keys(row: EnvelopePhrases) -> list[str]:
    """The keys of a row's phrases; one that ends in ~ stands for all its endings."""
    every = []
    for phrase in row.phrases:
        every += [phrase[:-1] + ending for ending in ENDINGS] if phrase.endswith("~") else [phrase]
    return [found for found in map(key, every) if found]


def _name(words: Vocabulary, row: EnvelopePhrases, tables: Tables) -> None:
    """Words of another language for something that the trade's tables hold under its English name; raises KeyError."""
    name = key(row.value)
    found: dict[str, Callable[[], Any]] = {
        "cloth": lambda: words[name][1],
        "part": lambda: (tables.parts.by_key[name].name, name),
        "hand": lambda: next(hand for hand in (*tables.pattern_hands, *tables.avoid_hands) if hand == name),
        "weight": lambda: tables.weight_keys[name],
        "detail": lambda: tables.details.by_key[name].name,
        "fibre": lambda: tables.fibres.by_alias[row.value].name,
    }
    words.update(dict.fromkeys(_keys(row), (row.kind, found[row.kind]())))


_TOKEN = re.compile(r"§\d+|[a-z0-9]+(?:['&][a-z]+)*|[,;:/()!?\n]|\.(?!\d)")
_STOPS = ".;!?\n"
_OPEN_FRACTION = re.compile(r"[/½¼¾⅛⅜⅝⅞⅓⅔]")
# Each step is (what is looked for, what is written instead).
_STEPS = tuple(
    (re.compile(pattern), written)
    for pattern, written in (
        ("[ \u00a0\t]+", " "),
        ("[’`´]", "'"),
        ("‑", "-"),
        (r"\s[&+]\s", " and "),
        ("§", " "),  # the sign that marks a figure once it has been lifted out
        (r"\s[–—-]\s(?!\d)", " , "),
        ("[–—]", "-"),
        (r"(?<=\d),(?=\d)", "."),
        (r"\b(e\.g|i\.e|z\.b|u\.a)\.", lambda match: match[1].replace(".", " ") + " "),
        (r"\b(eg|etc|approx|min|max|ca|bzw|mind|inkl|usw)\.", r"\1 "),
        (r"(\d)\s*(?:%|per ?cent\b|prozent\b)", r"\1%"),
        (r"\blight(?:weight)?s?\s*(?:/|-)\s*(?:to\s*-\s*)?(?=medium|mid)", "light to "),
        (r"\b(?:medium|mid)(?:weight)?\s*(?:/|-)\s*(?:to\s*-\s*)?(?=heavy)", "medium to "),
        (r"(?<=[a-z])-(?=[a-z])", " "),
        (r"\b(light|medium|mid|heavy|heavier|lighter)\s*weight(?:s|ed)?\b", r"\1 weight"),
        (r"\b(light|medium|mid|heavy) weight (to|or|and) (medium|mid|heavy|heavier)\b", r"\1 \2 \3"),
    )
)
_DECIMALS = re.compile(r"[^\n]+")


def _decimals(text: str) -> str:
    """Numbers with fractions as decimals, so that every later look sees one writing: '5 1/2 in' → '5.5 in'."""
    if not _OPEN_FRACTION.search(text):
        return text
    for figure in reversed(list(scan(text))):
        written = text[figure.start : figure.end]
        if "/" in written.split("g")[0].split("o")[0] or any(sign in written for sign in SIGNS):
            unit = f" {figure.unit}" if figure.unit else ""
            text = f"{text[: figure.start]}{figure.value:g}{unit}{text[figure.end :]}"
    return text


def normalised(text: str) -> Traced:
    """Small letters without accents, plain dashes and quotes, hyphens inside words opened, abbreviations closed."""
    traced = Traced.of(text).folded()
    if _OPEN_FRACTION.search(traced.text):
        traced = traced.sub(_DECIMALS, lambda line: _decimals(line.group()))
    for pattern, written in _STEPS:
        traced = traced.sub(pattern, written)
    return traced


def items(text: Traced, tables: Tables) -> list[Item]:
    """Split normalised text (figures already lifted) into the longest phrases the vocabulary knows."""
    words = vocabulary(tables)
    tokens = [(match.group(), *text.span(*match.span())) for match in _TOKEN.finditer(text.text)]
    stems = [key(token) if token[0].isalnum() else "" for token, _, _ in tokens]
    found: list[Item] = []
    at = 0
    while at < len(tokens):
        token, start, end = tokens[at]
        taken = 1
        if token[0] == "§":
            found.append(Item("figure", int(token[1:]), token, start, end))
        elif not token[0].isalnum():
            found.append(Item("stop" if token in _STOPS else "mark", token, token, start, end))
        else:
            taken = _longest(stems, at, words)
            kind, value = words.get(" ".join(stems[at : at + taken]), ("unknown", None))
            written = " ".join(each for each, _, _ in tokens[at : at + taken])
            found.append(Item(kind, value, written, start, tokens[at + taken - 1][2]))
        at += taken
    return _with_shared_nouns(_with_fibres(found, tables), tables)


def _with_fibres(found: list[Item], tables: Tables) -> list[Item]:
    """'Silk charmeuse', 'bottom weight denim': a fibre or a group directly before a cloth says which of its kind is meant."""
    joined: list[Item] = []
    for item in found:
        before = joined[-1] if joined else None
        fibre = tables.fibres.by_alias.get(key(before.words)) if before and before.kind == "cloth" else None
        if before and before.kind == item.kind == "cloth" and key(item.words) not in tables.fibres.by_alias:
            of_it = tuple(
                name
                for name in item.value
                if name in before.value or (fibre and fibre.name in tables.lexicon.get(name).all_fibres)
            )
            joined[-1] = Item("cloth", of_it or item.value, f"{before.words} {item.words}", before.start, item.end)
        else:
            joined.append(item)
    return joined


def _with_shared_nouns(found: list[Item], tables: Tables) -> list[Item]:
    """'Cotton or viscose jersey' is two jerseys, where the trade has both: a fibre before 'or' shares the noun behind it."""
    words = vocabulary(tables)
    for at in range(len(found) - 3, -1, -1):
        fibre, join, cloth = found[at : at + 3]
        alone = at == 0 or found[at - 1].kind not in ("weight", "hand", "figure")
        if not (join.kind == "join" and cloth.kind == "cloth" and alone and key(fibre.words) in tables.fibres.by_alias):
            continue
        noun = cloth.words.split()[1:]
        shared = words.get(key(" ".join([fibre.words, *noun]))) if noun and _first_is_fibre(cloth, tables) else None
        if shared and shared[0] == "cloth":
            found[at] = Item("cloth", shared[1], fibre.words, fibre.start, fibre.end)
    return found


def _first_is_fibre(cloth: Item, tables: Tables) -> bool:
    return key(cloth.words.split()[0]) in tables.fibres.by_alias


def _longest(stems: list[str], at: int, words: Vocabulary) -> int:
    """How many tokens the longest known phrase that starts here takes; 1 where none is known."""
    for size in range(min(LONGEST, len(stems) - at), 1, -1):
        run = stems[at : at + size]
        if all(run) and " ".join(run) in words:
            return size
    return 1
