"""Everything that notes tell of a programme, as plain values: what templates are given, what is published, and the JSON."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from typing import Any

from nematex.core.air.chapter_text import chapter_lines
from nematex.core.air.take import SLIP
from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault
from nematex.core.sources import read_sources
from nematex.store.records import ClothRecord, Programme
from nematex.usecases.air.kits import all_kits, offered, said_of
from nematex.usecases.air.notes.tutorials import tutorials_for, tutorials_text
from nematex.usecases.air.run_sheet import disclosure_of
from nematex.usecases.air.takes import Logged, chosen_take
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.programme.notes import Entry, entries, price_said, viewers_cautions
from nematex.usecases.programme.pattern_said import of_pattern
from nematex.usecases.programme.stocked.short import offers
from nematex.usecases.quantity.saying import Voice


def told_of(shop: Shop, state: State, programme: Programme, today: date) -> dict[str, Any]:
    """What is told of a programme as it stands: texts, lists and mappings alone."""
    found, voice, take = entries(shop, state, programme, for_notes=True), state.voice, chosen_take(shop, programme.id)
    instead = offers(shop, state, programme)
    times = _times(take)
    places: list[dict[str, Any]] = []
    for entry in found:
        shown = _shown(state, entry, [_linked(one.record) for one in instead.get(entry.pick.id, ())], today)
        if entry.leads or not places:
            title = f"{entry.cloth.facts.name} for {entry.pattern.facts.name}"
            places.append({"number": entry.number, "title": title, "time": times.get(entry.pick.id, ""), "shown": []})
        places[-1]["shown"].append(shown)
    several = len(found) > 1
    return {
        "shop": state.shop_name,
        "programme": programme.name,
        "date": programme.shown_on.isoformat() if programme.shown_on else "",
        "day": voice.day(programme.shown_on) if programme.shown_on else "",
        "intro": programme.intro,
        "occasion": programme.brief.get("occasion", ""),
        "disclosure": disclosure_of(programme),
        "sale": sale_said([entry.cloth for entry in found], voice, today),
        "as_of": voice.day(today),
        "priced": any(one["cloth"]["price"] for place in places for one in place["shown"]),
        "chapters": _chapters(take),
        "places": places,
        "more": 0,
        "kits": _kits(shop, state, programme),
        "cautions": [
            {"text": each.text, "numbers": ", ".join(map(str, each.numbers)) if several else ""}
            for each in viewers_cautions(found)
        ],
        "corrections": _corrections(take),
        "tutorials": tutorials_for(tutorials_text(shop), [entry.pattern for entry in found if not entry.companion]),
    }


def _kits(shop: Shop, state: State, programme: Programme) -> list[dict[str, Any]]:
    """The kits of a programme: what is in them, what of it is optional, what they cost, how many are left."""
    found = [each for kit in all_kits(shop, programme.id) if (each := offered(shop, state, kit))]
    empty = {"in_it": "", "optional": "", "price": "", "left": ""}
    return [
        {**empty, "name": each.kit.name, **{name.replace(" ", "_"): text for name, text in said_of(each, state.voice)}}
        for each in found[::-1]
    ]


def _told_inside(notion: str, told: set[str]) -> bool:
    """Whether a notion of the envelope is said already with what goes inside."""
    words = notion.casefold()
    return ("interfacing" in told and "interfacing" in words) or (
        "thread" in told and words.strip() in ("thread", "matching thread")
    )


def _linked(record: ClothRecord) -> dict[str, str]:
    return {"name": record.facts.name, "link": str(record.more.get("link") or "")}


def _shown(state: State, entry: Entry, stand_ins: list[dict[str, str]], today: date) -> dict[str, Any]:
    cloth = state.shelf.cloths[state.shelf.place[entry.cloth.id]]
    told_inside = {each.partition(":")[0].casefold() for each in entry.inside}  # with weight, length and kind
    return {
        "leads": entry.leads,
        "part": entry.pick.part or "",
        "line": entry.pick.line,
        "said": entry.said if entry.pairing or entry.companion else "",
        "problem": entry.problem,
        "instead_of": entry.instead_of,
        "stand_ins": stand_ins,
        "cautions": [each.viewer for each in (entry.pairing.cautions if entry.pairing else ()) if each.viewer],
        "cloth": _cloth(state, entry, cloth, today),
        "pattern": None if entry.companion else _pattern(entry),
        "make": {
            "name": entry.pattern.facts.name,
            "amount": entry.amount,
            "inside": list(entry.inside),
            "notions": [each for each in entry.notions if not _told_inside(each, told_inside)],
        },
    }


def _cloth(state: State, entry: Entry, cloth: Cloth, today: date) -> dict[str, Any]:
    record, voice = entry.cloth, state.voice
    price = price_said(record, voice, today)
    try:
        sources = read_sources(str(record.more.get("sources") or ""))
    except FieldFault:  # kept under other rules
        sources = ()
    return {
        "name": record.facts.name,
        "code": record.code,
        "link": _linked(record)["link"],
        "told": ", ".join(entry.told),
        "kind": cloth.type.name if cloth.type else "",
        "fibres": {name: round(share, 4) for name, share in cloth.fibres.by_share.items()} if cloth.fibres else {},
        "weight": voice.weight(cloth.weight.best),
        "width": voice.width(cloth.width.best),
        "price": price,
        "lead_price": voice.lead(price),
        "care": record.care,
        "deadstock": record.facts.deadstock,
        "maker": "" if record.maker_secret else record.supplier,
        "certificate": str(record.more.get("certificate") or ""),
        "sources": [{"region": each.region, "link": each.link, "delivery": each.delivery} for each in sources],
    }


def _pattern(entry: Entry) -> dict[str, str]:
    record = entry.pattern
    return {"name": record.facts.name, "house": record.house, "link": record.link, "told": of_pattern(entry)}


def sale_said(records: list[ClothRecord], voice: Voice, today: date) -> str:
    """What is on sale and until when, as far as an end is known: 'On sale until 24 December 2026: Bean Row lawn.'"""
    by_end: dict[date | None, list[str]] = {}
    for record in {each.id: each for each in records if each.on_sale(today)}.values():
        by_end.setdefault(record.sale_until, []).append(record.facts.name)
    return " ".join(
        f"On sale {f'until {voice.day(end)}' if end else 'while it lasts'}: {', '.join(dict.fromkeys(names))}."
        for end, names in by_end.items()
    )


def _chapters(take: Logged | None) -> list[dict[str, str]]:
    if take is None or not take.is_long:
        return []
    lines = [line.partition(" ") for line in chapter_lines(take.chapters)]
    return [{"time": time, "title": title} for time, _, title in lines]


def _times(take: Logged | None) -> dict[int, str]:
    """Pick → the time of the chapter it is shown in."""
    if take is None or not take.is_long:
        return {}
    return {pick: chapter_lines([(start, "")])[0].strip() for pick, start in take.starts.items()}


def _corrections(take: Logged | None) -> list[Mapping[str, str]]:
    """Slips of the chosen take that the film still shows, with what should have been said."""
    if take is None:
        return []
    slips = [each for each in take.slips if each.kind == SLIP and each.text and not each.replaced]
    times = [line.split(" ")[0] for line in chapter_lines([(each.at_s, "") for each in slips])]
    return [{"time": time, "title": each.title, "text": each.text} for time, each in zip(times, slips, strict=True)]
