"""The shop's tutorials by technique: which of them belong to the patterns shown."""

from __future__ import annotations

import re
from collections.abc import Sequence

from nematex.core.errors import FieldFault
from nematex.core.links import read_link
from nematex.core.signs import without_controls
from nematex.store.records import PatternRecord
from nematex.store.texts import put_text, text_of
from nematex.usecases.held.shop import Shop

TUTORIALS = "tutorials"  # the shop's text
MOST_LETTERS, MOST = 20_000, 300


def tutorials_text(shop: Shop) -> str:
    with shop.database.work() as work:
        return text_of(work, TUTORIALS) or ""


def read_tutorials(text: str) -> list[tuple[str, str]]:
    """Techniques and links, a line for each: 'gathering = https://shop.example/gathering'. Raises FieldFault."""
    if len(text) > MOST_LETTERS:
        raise FieldFault(TUTORIALS, f"{text[:40]}…", f"is {len(text)} letters long; at most {MOST_LETTERS} are kept")
    found = []
    for number, line in enumerate((each.strip() for each in without_controls(text).splitlines()), 1):
        if not line:
            continue
        technique, sign, link = (part.strip() for part in line.partition("="))
        if not (technique and sign and link):
            raise FieldFault(
                TUTORIALS, line[:60], f"(line {number}) must read like: gathering = https://shop.example/gathering"
            )
        found.append((technique, read_link(link, TUTORIALS)))
    if len(found) > MOST:
        raise FieldFault(TUTORIALS, f"{len(found)} lines", f"are too many; at most {MOST} are kept")
    return found


def keep_tutorials(shop: Shop, text: str) -> None:
    """Keep the tutorials as typed; raises FieldFault."""
    found = read_tutorials(text)
    with shop.database.work() as work:
        put_text(work, TUTORIALS, "\n".join(f"{technique} = {link}" for technique, link in found))


def tutorials_for(text: str, patterns: Sequence[PatternRecord]) -> list[dict[str, str]]:
    """Those whose technique is among what a pattern has: its details, its notions, its name."""
    said = " ".join(" ".join((*each.facts.details, each.facts.notions, each.facts.name)) for each in patterns).casefold()
    return [
        {"technique": technique, "link": link}
        for technique, link in read_tutorials(text)
        if re.search(rf"(?<!\w){re.escape(technique.casefold())}", said)
    ]
