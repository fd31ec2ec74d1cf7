"""The vocabulary of envelopes: phrases to items, longest first."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from nematex.core.lexicon import key, stem
from nematex.core.tables import Tables

LONGEST = 6

FABRIC = "fabric fabrics cloth cloths material materials textile textiles fabrication fabrications weight weights"
FILLER = """a an the of in with that have has having is are be will would can could should or's such any most all
suitable for suited ideal best great good well works work perfect recommended recommend recommends recommendation
recommendations suggested suggest suggestion suggestions we our you your this these those it its pattern garment dress
top shirt skirt trousers blouse jacket coat project style design make makes made making sew sewn sewing choose use used
using try pick look looking also even very quite fairly slightly nice nicely lovely beautiful beautifully type types
variety range wide including include includes included e g eg i.e. ie etc example examples other others similar
anything something some both either more less than as like from to into on at by so too then out ones one little bit
lot lots plenty required requirement requirements essential must need needs needed only see note please work's
printed plain solid pattern's apparel garments fashion dressmaking quality qualities blend blends mix mixed mixes
versions version summer winter autumn spring season year round warm cool breathable washable comfortable natural
handle hand feel drape drapes feel handling finish surface weave weaves woven's weights grade their them which
especially particularly preferably ideally mainly mostly usually always options option choice choices chosen available
stretch stretchy quality content percentage fibre fibres fiber fibers not's effect look looks volume wear wearing
easy beginners beginner day evening special occasion occasions yardage structured's small size sizes extra
""".split()
NEGATIVE = (
    "not suitable for|not suitable|not suited to|unsuitable for|unsuitable|not recommended for|not recommended|not ideal for|"
    "not appropriate for|not designed for|not advised|not intended for|avoid|avoiding|do not use|don't use|dont use|"
    "steer clear of|stay away from|will not work in|does not work in|won't work in|does not work with|will not work with|"
    "doesn't work in|except|except for|excluding|other than|but not|but avoid|not for|never use|rather not"
).split("|")
POSITIVE = "use|choose|try|pick|instead|stick to|look for|go for|opt for|prefer|best in|works best in|suitable for|recommended fabrics|recommended".split("|")
WEAK_NEGATIVE = "not|no|nothing|non|never|neither|nor|not too|nothing too|not very|too".split("|")
WITHOUT = "without|minus|omitting|leaving out|leave out|left out|omit|skip|skipping|leave off|leaving off|no need for".split("|")
IF = "if|when|provided|provided that|as long as|so long as|unless".split("|")
STRUCTURE = {
    "woven": "woven|wovens|woven fabric|woven cloth|wovens only|woven only|non stretch woven|nonstretch woven|non stretch",
    "knit": "knit|knits|knit fabric|knitted fabric|knitted|stretch knit|stretch knits|knit only|knits only|jersey knit|stretch jersey fabric",
}
STRETCH = {
    "stretchy": "stretch fabric|stretchy fabric|two way stretch|2 way stretch|good stretch|plenty of stretch|lots of stretch|with stretch|stretchy|moderate stretch",
    "both": "four way stretch|4 way stretch|four way|4 way",
    "stable": "stable|low stretch|minimal stretch|little stretch|limited stretch|stable stretch|slight stretch|a little stretch|some stretch|small amount of stretch|a bit of stretch|a touch of stretch",
    "rigid": "no stretch|without stretch|non stretch|nonstretch|rigid woven|without elastane|without spandex",
    "recovery": "recovery|good recovery|great recovery|excellent recovery|stretch recovery|with recovery|elastane|spandex|with elastane|with spandex|elastane content|spandex content",
}
PRINTS = {
    "one-way": "one way print|one way design|one way prints|one way designs|directional print|directional prints|directional|one way|one way pattern|border print|border prints|obvious diagonal|diagonal",
    "stripe": "stripe|stripes|striped",
    "check": "check|checks|plaid|plaids|tartan",
    "large": "large print|large prints|large scale print|large motif|big print|bold print|large pattern",
    "nap": "nap|napped|with nap|pile|napped fabric|pile fabric|pile fabrics|brushed",
}
SHEER = "sheer|see through|transparent|sheer fabric|see through fabric|semi sheer"
PRESS = "press well|presses well|press easily|hold a press|holds a press|hold a crease|holds a crease|takes a press|hold a pleat|crisp press|press crisply"
NATURAL = "natural fibre|natural fibres|natural fiber|natural fibers|natural fabric|natural fabrics|natural material"


@dataclass(frozen=True, slots=True)
class Item:
    """One phrase of the text: its kind, its value and the words as written."""

    kind: str
    value: Any
    words: str


Vocabulary = dict[str, tuple[str, Any]]


def _add(vocabulary: Vocabulary, phrases: Any, kind: str, value: Any = None) -> None:
    for phrase in phrases:
        if key(phrase):
            vocabulary[key(phrase)] = (kind, value)


@lru_cache(maxsize=4)
def vocabulary(tables: Tables) -> Vocabulary:
    """Phrase key → (kind, value); later additions win, so group words stand above one-row names."""
    words: Vocabulary = {}
    _add(words, FILLER, "filler")
    _add(words, FABRIC.split(), "fabric")
    for detail in tables.details.by_key:
        words[detail] = ("detail", tables.details.by_key[detail].name)
    for part in tables.parts.by_key:
        if words.get(part, ("filler",))[0] in ("filler", "detail"):
            words[part] = ("part", (tables.parts.by_key[part].name, part))
    for alias, fibre in tables.fibres.by_alias.items():
        words[key(alias)] = ("fibre", fibre.name)
    words["bamboo"] = ("cloth", ("bamboo viscose jersey", "viscose challis"))
    words["polyester"] = ("fibre", "polyester")
    for name, item in tables.lexicon.by_key.items():
        words[name] = ("cloth", (item.name,))
    for group, types in tables.lexicon.groups.items():
        words[key(group)] = ("cloth", tuple(item.name for item in types))
    for hand in (*tables.avoid_hands, *tables.pattern_hands):
        words[hand] = ("hand", hand)
    for weight, word in tables.weight_keys.items():
        words[weight] = ("weight", word)
        words[f"{weight} weight"] = ("weight", word)
    for structure, phrases in STRUCTURE.items():
        _add(words, phrases.split("|"), "structure", structure)
    for kind, phrases in STRETCH.items():
        _add(words, phrases.split("|"), "stretch", kind)
    for print_kind, phrases in PRINTS.items():
        _add(words, phrases.split("|"), "print", print_kind)
    _add(words, SHEER.split("|"), "sheer")
    _add(words, PRESS.split("|"), "press")
    _add(words, NATURAL.split("|"), "natural")
    _add(words, POSITIVE, "positive")
    _add(words, WEAK_NEGATIVE, "weak")
    _add(words, NEGATIVE, "negative")
    _add(words, WITHOUT, "without")
    _add(words, IF, "if")
    _add(words, ["lined", "fully lined", "underlined", "with a lining", "you line it", "it is lined"], "lined")
    _add(words, ["such as", "like", "including", "e g", "for example", "for instance", "namely"], "such")
    _add(words, ["and", "or", "&", "plus", "and or"], "join")
    _add(words, ["for"], "for")
    return words


_TOKEN = re.compile(r"§\d+|[a-z0-9]+(?:[’'&][a-z]+)*|[,;:/()!\n]|\.(?!\d)")


def normalise(text: str) -> str:
    """Lower case, plain dashes and quotes, hyphens inside words opened, abbreviations closed."""
    text = text.casefold().replace("\u00a0", " ").replace("’", "'").replace("‑", "-")
    text = re.sub(r"[–—]", " - ", text)
    text = re.sub(r"\b(e\.g|i\.e|eg|etc|approx|min|max)\.", lambda match: match[1].replace(".", " ") + " ", text)
    text = re.sub(r"(\d)\s+%", r"\1%", text)
    text = re.sub(r"\blight(?:weight)?s?\s*(?:/|-|–)\s*(?:to\s*-\s*)?(?=medium|mid)", "light to ", text)
    text = re.sub(r"\b(?:medium|mid)(?:weight)?\s*(?:/|-|–)\s*(?:to\s*-\s*)?(?=heavy)", "medium to ", text)
    text = re.sub(r"(?<=[a-z])-(?=[a-z])", " ", text)
    text = re.sub(r"\b(light|medium|mid|heavy|heavier|lighter)\s*weight(?:s|ed)?\b", r"\1 weight", text)
    text = re.sub(r"\b(light|medium|mid|heavy) weight (to|or|and) (medium|mid|heavy|heavier)\b", r"\1 \2 \3", text)
    return text


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
