"""What viewers ask while it is filmed, answered beforehand for a pairing: ounces, another structure, colours, hips, cost …

Each answer carries the words by which it is found, so that a camera view answers without asking the shop.
"""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.amount.sizes import by_size
from nematex.core.beneath.lining import ways
from nematex.core.cloth.estimates import Cloth
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.sizing import covers
from nematex.core.quantity.estimate import Estimate, Known
from nematex.store.records import ClothRecord
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import Filters, fitting_wish, rank_cloths
from nematex.usecases.programme.by_cloth import wish_of
from nematex.usecases.programme.notes import Entry, price_said
from nematex.usecases.programme.whole.costs import whole_cost
from nematex.usecases.quantity.saying import colour_word

PLACES = ("bust", "waist", "hip")


@dataclass(frozen=True)
class Answer:
    """A question as viewers put it, other words by which it is found, and the answer."""

    question: str
    words: str
    answer: str


def answers(shop: Shop, state: State, entry: Entry) -> tuple[Answer, ...]:
    """What may be asked of a pick; questions to which nothing is known are left away."""
    cloth = state.shelf.cloths[state.shelf.place[entry.cloth.id]]
    found = [*_of_cloth(state, entry.cloth, cloth)]
    if not entry.companion:
        found += _of_pattern(shop, state, entry, cloth)
        found.append(Answer(*_other_structure(shop, state, entry)))
    return tuple(each for each in found if each.answer)


def _of_cloth(state: State, record: ClothRecord, cloth: Cloth) -> list[Answer]:
    voice = state.voice
    stock = voice.length(record.stock_m) if record.stock_m is not None else ""
    stretch = cloth.stretch_cross
    return [
        Answer("How heavy, in ounces?", "weight grams gsm oz", f"{voice.weight(cloth.weight.best)} ({_known(cloth.weight)})"),
        Answer("How wide?", "width inches cm selvedge", voice.width(cloth.width.best)),
        Answer("What is it made of?", "fibre content blend", voice.fibres(cloth.fibres)),
        Answer("How many colours?", "colourways shades", _colours(record)),
        Answer("What does it cost?", "price metre yard pounds", price_said(record, voice)),
        Answer("Is there enough?", "stock left sold out metres", f"{stock} left" if stock else ""),
        Answer("How is it washed?", "care wash iron press tumble", record.care or record.press),
        Answer("Does it shrink?", "shrinkage prewash", _shrinks(cloth)),
        Answer("Does it stretch?", "stretch recovery give", f"about {stretch.best:.0f} % across ({_known(stretch)})"),
        Answer("Which way does the print run?", "direction one-way repeat nap", _print(cloth)),
    ]


def _known(estimate: Estimate) -> str:
    return "typical for its name" if estimate.known is Known.TYPICAL else estimate.known.word


def _colours(record: ClothRecord) -> str:
    if record.colourways:
        names = ", ".join(each.name for each in record.colourways)
        return f"{len(record.colourways)}: {names}"
    words = ", ".join(dict.fromkeys(colour_word(each) for each in record.colours))
    return f"this one: {words}" if words else ""


def _shrinks(cloth: Cloth) -> str:
    found = cloth.shrink
    return f"{found.best:.0f} % in length ({_known(found)})"


def _print(cloth: Cloth) -> str:
    said = [cloth.print.direction or "", "with a nap" if cloth.nap else ""]
    if cloth.print.repeat_length_cm:
        said.append(f"repeats every {cloth.print.repeat_length_cm:.0f} cm")
    return ", ".join(each for each in said if each)


def _of_pattern(shop: Shop, state: State, entry: Entry, cloth: Cloth) -> list[Answer]:
    pattern, voice = entry.pattern, state.voice
    wish = fitting_wish(pattern, wish_of(entry.pick))
    found = [
        Answer(f"Up to which {place}?", f"{place} size sizes body measurements", voice.body_range(*reach))
        for place in PLACES
        if (reach := covers(pattern.facts, place))
    ]
    rows = by_size(cloth, pattern.facts, wish, state.tables)
    if rows and rows[0].size:
        lengths = "; ".join(f"{each.size}: {voice.lead(voice.length(each.amount.length_m))}" for each in rows)
        found.append(Answer("How much for my size?", "amount metres yards fabric length", lengths))
    cost = whole_cost(shop, state, pattern, entry.cloth, wish)
    if cost is not None:
        said = f"about {voice.money(cost, entry.cloth.currency)}"
        found.append(Answer("What does the whole garment cost?", "price total cost notions", said))
    found += [
        Answer("How hard is it?", "difficulty beginner easy", pattern.difficulty),
        Answer(
            "How is the pattern sold?", "paper pdf download house", ", ".join(filter(None, (pattern.house, pattern.sold_as)))
        ),
        Answer("What goes inside?", "interfacing thread lining", "; ".join(entry.inside)),
        Answer("Which notions?", "zip buttons elastic", "; ".join(entry.notions)),
        Answer("What else behaves like it?", "instead alternative similar", _alike(entry)),
        Answer("Does it need a lining?", "line lining sheer see-through slip", _advised(state, entry, cloth)),
    ]
    return found


def _alike(entry: Entry) -> str:
    return ", ".join(entry.pairing.handles_like) if entry.pairing else ""


def _advised(state: State, entry: Entry, cloth: Cloth) -> str:
    if entry.pairing is None:
        return ""
    found = ways(cloth, entry.pairing.demand, None, None, state.tables)
    said = [f"{each.name}: {each.stand}" for each in found if each.stand not in ("not needed", "no", "fine")]
    return "; ".join(said) or "no"


def _other_structure(shop: Shop, state: State, entry: Entry) -> tuple[str, str, str]:
    """Whether the pattern takes a cloth of the other structure, and the best one of the shelf."""
    other = "woven" if _is_knit(state, entry) else "knit"
    ranking = rank_cloths(shop, state, entry.pattern, wish_of(entry.pick), Filters(structure=other, in_stock=True), most=1)
    question, words = f"In a {other}?", "knit jersey stretch woven other"
    if not ranking.rows or ranking.rows[0].verdict is Verdict.AGAINST:
        return question, words, f"no {other} on the shelf suits it"
    best = ranking.rows[0]
    return question, words, f"{best.verdict.word}, for example {best.cloth_record.facts.name}"


def _is_knit(state: State, entry: Entry) -> bool:
    return state.shelf.cloths[state.shelf.place[entry.cloth.id]].structure == "knit"
