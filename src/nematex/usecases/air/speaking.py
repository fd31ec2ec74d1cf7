"""What is said of a cloth aloud: its facts in the shop's order, and how its words are pronounced."""

from __future__ import annotations

import re
from collections.abc import Iterable

from nematex.core.beneath.lining import ways
from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.signs import without_controls
from nematex.store.records import Programme
from nematex.store.settings import put
from nematex.store.texts import put_text, text_of
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.programme.notes import Entry
from nematex.usecases.programme.whole.season import season_said
from nematex.usecases.quantity.saying import PRINTED, SHOWS

ORDER = "speaking order"  # the setting
FACTS = ("fibre", "weight", "see-through", "direction", "width", "season")
WORDS = "how words are said"  # the shop's text
MOST_LETTERS, MOST_WORDS = 20_000, 400


def order_of(state: State) -> tuple[str, ...]:
    """In which order a cloth's facts are said in this shop."""
    kept = [each for each in state.settings.get(ORDER, "").split(",") if each in FACTS]
    return (*kept, *(each for each in FACTS if each not in kept))


def keep_order(shop: Shop, text: str) -> None:
    """Keep an order of facts, 'weight, fibre, …'; what is not named follows. Raises UnknownChoice."""
    words = [each.strip().casefold() for each in text.split(",") if each.strip()]
    for each in words:
        if each not in FACTS:
            raise UnknownChoice("order of speaking", each[:40], FACTS, "fact")
    with shop.database.work() as work:
        put(work, ORDER, ",".join(dict.fromkeys(words)))


def facts_of(state: State, programme: Programme, entry: Entry, before: Entry | None = None) -> dict[str, str]:
    """What is said of a cloth, by the name of the fact, beside the cloth shown before it; "" where there is nothing to say."""
    record, voice = entry.cloth, state.voice
    cloth = state.shelf.cloths[state.shelf.place[record.id]]
    return {
        "fibre": voice.fibres(cloth.fibres),
        "weight": ", ".join(filter(None, (voice.weight(cloth.weight.best), _beside(state, entry, before)))),
        "see-through": ", ".join(filter(None, (SHOWS.get(cloth.sheerness, cloth.sheerness), _lined(state, entry, cloth)))),
        "direction": PRINTED.get(cloth.print.direction or "", ""),
        "width": f"{voice.width(cloth.width.best)} wide",
        "season": season_said(state, programme, record),
    }


def _beside(state: State, entry: Entry, before: Entry | None) -> str:
    """Its weight beside that of the cloth shown before it."""
    if before is None or before.cloth.id == entry.cloth.id:
        return ""
    weighed, other = (state.shelf.cloths[state.shelf.place[each.cloth.id]].weight.best for each in (entry, before))
    share = weighed / other
    alike = state.tables.judging.run.alike_share
    word = "about as heavy as" if abs(share - 1) <= alike else "heavier than" if share > 1 else "lighter than"
    return f"{word} {before.cloth.facts.name}"


def _lined(state: State, entry: Entry, cloth: Cloth) -> str:
    """Whether one would line it, where it is asked: of what shows."""
    if entry.pairing is None or cloth.sheerness in ("opaque", ""):
        return ""
    found = ways(cloth, entry.pairing.demand, None, None, state.tables)
    wanted = [each.name for each in found if each.stand in ("advised", "as the pattern has it")]
    if wanted:
        return f"I would wear or make it with a {' or a '.join(wanted)}"
    possible = [each.name for each in found if each.stand == "possible"]
    return f"a {possible[0]} is possible, not needed" if possible else "no lining needed"


def words_text(shop: Shop) -> str:
    """How the shop says its words, as typed: a line for each, 'challis = SHAL-ee'."""
    with shop.database.work() as work:
        return text_of(work, WORDS) or ""


def read_words(text: str) -> list[tuple[str, str]]:
    """Words and how they are said; raises FieldFault."""
    if len(text) > MOST_LETTERS:
        raise FieldFault(WORDS, f"{text[:40]}…", f"is {len(text)} letters long; at most {MOST_LETTERS} are kept")
    lines = [line.strip() for line in without_controls(text).splitlines() if line.strip()]
    if len(lines) > MOST_WORDS:
        raise FieldFault(WORDS, f"{len(lines)} lines", f"are too many; at most {MOST_WORDS} are kept")
    found = []
    for number, line in enumerate(lines, 1):
        word, sign, said = (part.strip() for part in line.partition("="))
        if not (word and sign and said):
            raise FieldFault(WORDS, line[:60], f"(line {number}) must read like: challis = SHAL-ee")
        found.append((word, said))
    return found


def keep_words(shop: Shop, text: str) -> None:
    """Keep how words are said; raises FieldFault."""
    found = read_words(text)
    with shop.database.work() as work:
        put_text(work, WORDS, "\n".join(f"{word} = {said}" for word, said in found))


def said_like(words: Iterable[tuple[str, str]], text: str) -> tuple[str, ...]:
    """How the words of the list that stand in a text are said: 'challis: SHAL-ee'."""
    low = text.casefold()
    return tuple(f"{word}: {said}" for word, said in words if re.search(rf"(?<!\w){re.escape(word.casefold())}(?!\w)", low))
