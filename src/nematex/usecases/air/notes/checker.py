"""What is missing or wrong in notes before they go out."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import date, datetime
from typing import Any

from nematex.core.air.notes.claims import Shown, makers_named, not_whole, other_prices, ungrounded
from nematex.core.quantity.estimate import Estimate, Known
from nematex.store.records import ClothRecord, Programme
from nematex.tables import claims
from nematex.usecases.air.notes.texts import NoteText
from nematex.usecases.air.run_sheet import FIELDS
from nematex.usecases.air.takes import chosen_take
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.programme.stocked.before_air import Finding, looked_over

OWN = ("opening", "closing")  # of the run sheet's fields: what is said in the shop's own words
LEAST_KNOWN = {"weight": "weight", "bending_length": "drape", "width": "width"}


def checked(
    shop: Shop, state: State, programme: Programme, told: Mapping[str, Any], texts: Mapping[str, NoteText], now: datetime
) -> list[Finding]:
    """What was found, what must not go out like this first."""
    found = list(looked_over(shop, state, programme, now))
    found += _claims(state, programme, told, texts)
    found += _facts(state, programme)
    found += _sales(state, programme, now.date())
    found += _whole(shop, programme, told, texts)
    return sorted(found, key=lambda each: not each.wrong)


def _records(state: State, programme: Programme) -> list[ClothRecord]:
    chosen = (state.cloth(pick.cloth_id) for pick in programme.picks)
    return list({each[0].id: each[0] for each in chosen if each}.values())


def _shown(state: State, records: Iterable[ClothRecord]) -> list[Shown]:
    return [
        Shown(
            each.facts.name,
            state.shelf.cloths[state.shelf.place[each.id]].fibres,
            str(each.more.get("certificate") or ""),
            each.supplier if each.maker_secret else "",
        )
        for each in records
    ]


def own_words(programme: Programme, texts: Mapping[str, NoteText]) -> dict[str, tuple[str, int]]:
    """What the shop typed itself: where it stands → the text and the pick it is of (0: of the whole)."""
    found = {"what it is about": (programme.intro, 0), **{FIELDS[name]: (programme.brief.get(name, ""), 0) for name in OWN}}
    found |= {f"the line of pick {at}": (pick.line, pick.id) for at, pick in enumerate(programme.picks, 1)}
    for text in texts.values():
        if text.by_hand:
            known = set(text.written.splitlines())
            found[f"your {text.kind.title.lower()}"] = (
                "\n".join(each for each in text.body.splitlines() if each not in known),
                0,
            )
    return {where: said for where, said in found.items() if said[0].strip()}


def _claims(state: State, programme: Programme, told: Mapping[str, Any], texts: Mapping[str, NoteText]) -> list[Finding]:
    every = _records(state, programme)
    of_pick = {pick.id: [record for record in every if record.id == pick.cloth_id] for pick in programme.picks}
    prices = [one["cloth"]["price"] for place in told["places"] for one in place["shown"]]
    prices += [kit["price"] for kit in told["kits"]]
    found: list[Finding] = []
    for where, (text, pick_id) in own_words(programme, texts).items():
        shown = _shown(state, of_pick.get(pick_id) or every)
        whole, named = not_whole(text, shown, state.tables.fibres), makers_named(text, _shown(state, every))
        found += [Finding(True, f"{where} says “{words}”: no cloth shown there is all of that.", pick_id) for words in whole]
        found += [
            Finding(False, f"{where} says “{claim.word}”. {claim.why} Check the rules where you live.", pick_id)
            for claim in ungrounded(text, shown, claims())
        ]
        found += [Finding(True, f"{where} names {maker}, who asked not to be named.", pick_id) for maker in named]
        found += [
            Finding(False, f"{where} says {price}: nothing shown costs that now.", pick_id)
            for price in other_prices(text, prices)
        ]
    return found


def _facts(state: State, programme: Programme) -> list[Finding]:
    """Facts that nobody measured or stated, and those that only a simulated instrument gave."""
    found = []
    for record in _records(state, programme):
        cloth = state.shelf.cloths[state.shelf.place[record.id]]
        values: dict[str, Estimate] = {label: getattr(cloth, name) for name, label in LEAST_KNOWN.items()}
        typical = [label for label, value in values.items() if value.known is Known.TYPICAL]
        made_up = sorted({name for name, how in record.facts.known.items() if how == Known.SIMULATED.word})
        if typical:
            said = (
                f"{record.facts.name}: its {' and '.join(typical)} {'is' if len(typical) == 1 else 'are'} only typical for its"
            )
            found.append(Finding(False, f"{said} name; nobody measured or stated it."))
        if made_up:
            words = ", ".join(name.replace("_", " ") for name in made_up)
            found.append(Finding(False, f"{record.facts.name}: {words} only by a simulated instrument."))
        if cloth.fibres is None or cloth.fibres.faults or not cloth.fibres.shares:
            found.append(Finding(True, f"{record.facts.name}: its fibres are not stated in full, as labelling law wants."))
    return found


def _sales(state: State, programme: Programme, today: date) -> list[Finding]:
    found = []
    for record in _records(state, programme):
        end = record.sale_until
        if record.sale_price_per_m is not None and end and not record.on_sale(today):
            text = f"{record.facts.name}: its sale ended on {state.voice.day(end)}; the usual price is told."
            found.append(Finding(False, text))
    return found


def _whole(shop: Shop, programme: Programme, told: Mapping[str, Any], texts: Mapping[str, NoteText]) -> list[Finding]:
    found = []
    if not programme.brief.get("disclosure", "").strip():
        text = "Was anything here a gift, paid for, or linked for a commission? Say so on the run sheet, or “none”."
        found.append(Finding(False, text))
    shown = [(place["number"], one["pattern"]) for place in told["places"] for one in place["shown"] if one["pattern"]]
    found += [
        Finding(False, f"{number}. {pattern['name']}: the pattern has no link.")
        for number, pattern in shown
        if not pattern["link"]
    ]
    take = chosen_take(shop, programme.id)
    if take is None:
        found.append(Finding(False, "Nothing was filmed yet: the notes have no chapters."))
    elif any(each.kind == "slip" and not each.text and not each.replaced for each in take.slips):
        found.append(Finding(False, f"Take {take.number}: a slip does not say what should have been said."))
    return found + [each for note in texts.values() for each in _of_text(note)]


def _of_text(note: NoteText) -> list[Finding]:
    found = []
    if note.fault:
        found.append(Finding(True, f"{note.kind.title}: your template {note.fault}"))
    if note.too_long:
        found.append(Finding(True, f"{note.kind.title}: {len(note.body)} letters, at most {note.kind.limit} are taken."))
    if note.moved:
        found.append(Finding(False, f"{note.kind.title}: facts have moved since you wrote it."))
    return found
