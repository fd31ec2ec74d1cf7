"""Words that promise something of a cloth, and whether anything known of it is a ground for them.

The words and whose rule they fall under stand in data/claims.csv. A word is only looked at in what the shop typed itself; the
product's own sentences make no claims. Check the rules where you live.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from nematex.core.cloth.fibres import FibreContent, FibreNames


@dataclass(frozen=True)
class Claim:
    """A word that promises; `ground` is what of a cloth would bear it: a certificate, a fibre, or nothing ("")."""

    word: str
    ground: str
    why: str
    source: str


@dataclass(frozen=True)
class Shown:
    """A cloth as far as claims go: its name, fibres, certificate, and a maker who is not to be named ("" where any may be)."""

    name: str
    fibres: FibreContent | None
    certificate: str
    secret_maker: str = ""


_WHOLE = re.compile(r"\b(?:100 ?%|pure|all|solid|entirely|nothing but)[ -]+([^\W\d_]+)", re.IGNORECASE)
_MONEY = re.compile(r"[£$€]\s?(\d+(?:[.,]\d{1,2})?)|(\d+(?:[.,]\d{1,2})?)\s?(?:[£€]|GBP|EUR|USD)\b")


def _has(word: str, text: str) -> bool:
    return re.search(rf"(?<!\w){re.escape(word.casefold())}(?!\w)", text.casefold()) is not None


def ungrounded(text: str, shown: Sequence[Shown], claims: Iterable[Claim]) -> list[Claim]:
    """The claims of a text for which no cloth shown gives a ground."""
    return [claim for claim in claims if _has(claim.word, text) and not any(_bears(each, claim) for each in shown)]


def _bears(shown: Shown, claim: Claim) -> bool:
    if claim.ground == "certificate":
        return bool(shown.certificate)
    if claim.ground and shown.fibres:
        return shown.fibres.share(claim.ground) > 0
    return False


def not_whole(text: str, shown: Sequence[Shown], names: FibreNames) -> list[str]:
    """'pure linen' where a cloth shown is a blend with it or has none of it: the words, as typed.

    All of one fibre is said of 100 % of it alone (Regulation (EU) No 1007/2011, article 7, from memory).
    """
    found = []
    for match in _WHOLE.finditer(text):
        fibre = names.by_alias.get(match[1].casefold())
        if fibre is None:
            continue
        if not any(each.fibres and each.fibres.share(fibre.name) >= 0.995 for each in shown):
            found.append(" ".join(match[0].split()))
    return list(dict.fromkeys(found))


def makers_named(text: str, shown: Iterable[Shown]) -> list[str]:
    """The makers in a text who asked not to be named."""
    return list(dict.fromkeys(each.secret_maker for each in shown if each.secret_maker and _has(each.secret_maker, text)))


def other_prices(text: str, known: Iterable[str]) -> list[str]:
    """Sums in a text that are in nothing the shop says of prices here, as typed."""
    said = {_sum(match) for each in known for match in _MONEY.finditer(each)}
    return list(dict.fromkeys(match[0].strip() for match in _MONEY.finditer(text) if _sum(match) not in said))


def _sum(match: re.Match[str]) -> float:
    return float((match[1] or match[2]).replace(",", "."))
