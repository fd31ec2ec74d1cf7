"""The pairing pages: a pattern's cloths, a cloth's patterns, and one pairing in full."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from datetime import date
from typing import Any
from urllib.parse import urlencode

import numpy as np
from flask import Blueprint, redirect, render_template, request, session, url_for
from werkzeug.wrappers import Response

from nematex.core.amount.swap import SWAPS, has_lower_half, numbers_like
from nematex.core.cloth.contradictions import unsettled
from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault
from nematex.core.judging.size_advice import is_off_list_knit, knit_in_woven
from nematex.core.pattern.facts import Wish
from nematex.core.pattern.hacks import read_hack, read_hacks
from nematex.core.quantity.arrays import Mask
from nematex.store.records import ClothRecord, PatternRecord
from nematex.tables import colour_words
from nematex.usecases.beneath.cost import OFF, SETTING, garment_cost, keep_notion_prices, read_notion_prices, read_off
from nematex.usecases.beneath.view import beneath
from nematex.usecases.cloth.browse import kept, offered_cloths
from nematex.usecases.cloth.lacks.worth import MEASURE_OF
from nematex.usecases.cloth.shelf_filter import filter_choices, read_filter
from nematex.usecases.judging.amounts import amounts_of
from nematex.usecases.judging.have import MOST_TRIED, is_have, makes, read_have
from nematex.usecases.judging.mixed import mixed, part_names, pieces_apart, read_choices
from nematex.usecases.judging.overrides import latest, of_pairing
from nematex.usecases.judging.ranking import (
    by_colourway,
    each_school,
    fitting_wish,
    one_pairing,
    rank_cloths,
    rank_patterns,
    read_wish,
)
from nematex.usecases.kit.kit import is_kit
from nematex.usecases.programme.proposing.narrowing import Narrowed, cloths_within, narrowed_by, offered, patterns_within
from nematex.web.rooms.common import as_number, filters, find_cloth, find_pattern, now, shop, whole_number

room = Blueprint("pairing", __name__, url_prefix="/pairing")


SHOWN = 12  # of patterns and of cloths, before one asks for more
MOST = 204  # beyond that the lists with filters serve better
NARROWED = ("price_to", "near", "season", "print_kind", "sheer")


@room.get("")
def choose() -> str | Response:
    """The front of the house: both sides with their pictures, and one question for either."""
    state, asked = now(), request.args.get("q", "")[:200]
    if is_kit(asked):
        return redirect(url_for("kit.page", q=asked))
    if is_have(asked):
        return redirect(url_for("pairing.have", q=asked))
    patterns, held, brief = state.drawer.holding(asked), state.shelf.holding(asked), _brief()
    if brief:
        within, allowed = offered(state, brief)
        patterns, held = [record for record in patterns if record.id in within], held & allowed
    places = [int(place) for place in np.flatnonzero(held)]
    most = min(whole_number("most", SHOWN), MOST)
    cloths = [(state.shelf.records[place], state.shelf.cloths[place]) for place in places[:most]]
    return render_template(
        "judging/pairing/choose.html", q=asked, patterns=patterns[:most], pattern_count=len(patterns), cloths=cloths,
        cloth_count=len(places), most=most, limit=MOST, brief=brief
    )  # fmt: skip


@room.get("/have")
def have() -> str:
    """What can be made of a length of some cloth."""
    asked, among = request.args.get("q", "")[:200], request.args.get("among", "")[:100]
    try:
        found = read_have(now(), asked)
    except FieldFault as fault:
        return render_template("judging/pairing/have.html", q=asked, among=among, fault=fault, have=None, rows=[])
    rows, held = makes(shop(), now(), found, among), len(now().drawer.holding(among))
    shown = {"rows": rows, "held": held, "tried": min(held, MOST_TRIED)}
    return render_template("judging/pairing/have.html", q=asked, among=among, fault=None, have=found, **shown)


def _narrowed() -> tuple[Mask | None, list[FieldFault]]:
    """What the shelf's own filters leave of it: price, colour, season, print, see-through; None where none is asked."""
    asked = {name: text for name in NARROWED if (text := request.args.get(name, "").strip())}
    if not asked:
        return None, []
    chosen, faults = read_filter(asked, now().tables)
    return kept(now().shelf, chosen), faults


def _brief() -> Narrowed | None:
    """The brief that narrows this ranking: that of the programme it was opened from."""
    asked = as_number(request.args.get("brief", ""))
    programme = next((one for one in now().programmes if one.id == asked), None)
    return narrowed_by(now(), programme) if programme else None


def _programmes() -> dict[str, Any]:
    found = now().programmes
    asked = request.args.get("programme") or request.args.get("brief") or ""
    chosen = as_number(asked) or session.get("programme")
    if chosen:
        session["programme"] = chosen
    coming = [one for one in found if one.shown_on is None or one.shown_on >= date.today()]
    first = next(iter(coming or found), None)
    return {"programmes": found, "current": next((one for one in found if one.id == chosen), first)}


def _options(record: PatternRecord) -> dict[str, list[str]]:
    """What can be chosen for this pattern."""
    rows = record.facts.requirements
    return {
        "views": list(record.facts.views),
        "sizes": list(dict.fromkeys(size for row in rows for size in row.sizes)),
        "parts": [part.name for part in record.facts.parts],
    }


@room.get("/pattern/<int:pattern_id>")
def for_pattern(pattern_id: int) -> str:
    record = find_pattern(pattern_id)
    wish, chosen = fitting_wish(record, read_wish(request.args)), filters()
    among, faults = _narrowed()
    if brief := _brief():
        within = cloths_within(now(), brief, record, wish)
        among = within if among is None else among & within
    ranking = rank_cloths(shop(), now(), record, wish, chosen, among)
    return render_template(
        "judging/pairing/cloths.html", record=record, wish=wish, filters=chosen, ranking=ranking,
        hands=latest(shop(), pattern_id=pattern_id), faults=faults, choices=filter_choices(now().tables),
        colour_words=colour_words().by_word, brief=brief, **_options(record), **_programmes()
    )  # fmt: skip


@room.get("/cloth/<int:cloth_id>")
def for_cloth(cloth_id: int) -> str:
    record, cloth = find_cloth(cloth_id)
    wish, chosen = read_wish(request.args), filters()
    brief = _brief()
    among = patterns_within(now(), brief, record) if brief else None
    ranking = rank_patterns(shop(), now(), record, wish, chosen, among=among)
    return render_template(
        "judging/pairing/patterns.html", record=record, cloth=cloth, wish=wish, filters=chosen, ranking=ranking,
        hands=latest(shop(), cloth_id=cloth_id), brief=brief, **_of_drawer(), **_programmes()
    )  # fmt: skip


def _of_drawer() -> dict[str, list[str]]:
    """What the patterns of the drawer can be narrowed by."""
    records = now().drawer.records
    return {
        "garments": sorted({record.facts.garment for record in records if record.facts.garment}),
        "difficulties": list(dict.fromkeys(record.difficulty for record in records if record.difficulty)),
        "all_sizes": list(dict.fromkeys(size for record in records for row in record.facts.requirements for size in row.sizes)),
    }


def pairing_page(
    pattern_id: int, cloth_id: int, wish: Wish, values: Mapping[str, str] | None = None, fault: FieldFault | None = None
) -> str:
    """One pairing in full; `values` and `fault` where something typed on it was refused."""
    pattern, (record, cloth) = find_pattern(pattern_id), find_cloth(cloth_id)
    try:
        pairing = one_pairing(shop(), now(), pattern, cloth, wish)
    except FieldFault as raised:
        return render_template("error.html", title="Cannot be judged", text=str(raised))
    off_list = is_off_list_knit(cloth, pairing.demand.structure, pairing.checks["stretch"].verdict)
    return render_template(
        "judging/pairing/one.html",
        record=record,
        pattern=pattern,
        changed=replace(pattern, facts=pairing.demand.pattern) if wish.hacks else pattern,
        hacks=[(hack, _without(wish, hack.written())) for hack in read_hacks(wish.hacks, now().tables)],
        hack_kinds=now().tables.hacks,
        swaps={kind: _with_lower_half(kind) for kind in SWAPS},
        body=part_names(pattern.facts, now().tables)[0],
        pairing=pairing,
        unsettled=unsettled(cloth),
        wish=wish,
        colourways=by_colourway(now(), pattern, record, wish),
        schools=each_school(shop(), now(), pattern, cloth, wish),
        measure_of=MEASURE_OF,
        amounts=amounts_of(now(), pattern, record, cloth, wish) if pairing.amount else None,
        off_list=off_list,
        advice=knit_in_woven(cloth, pattern.facts, wish.size, now().tables) if off_list else None,
        hands=of_pairing(shop(), cloth_id, pattern_id),
        made_options=[each.name for each in pattern.facts.usual_options(wish.view)] if wish.options is None else wish.options,
        values=values or {},
        fault=fault,
        **_options(pattern),
        **_programmes(),
    )


def _with_lower_half(kind: str) -> list[PatternRecord]:
    """The patterns whose lower half may be put in; looked up once for each state of the drawer."""
    state = now()

    def work_out() -> list[PatternRecord]:
        return [each for each in state.drawer.records if has_lower_half(kind, each.facts, state.tables)]

    return shop().memory.of(("lower halves", kind), (state.drawer, state.tables), work_out)


def _without(wish: Wish, written: str) -> str | None:
    """The changes left when one is taken back, as they stand in an address."""
    left = [each for each in wish.hacks if each != written]
    return "|".join(left) or None


@room.get("/one/<int:pattern_id>/<int:cloth_id>/change")
def change(pattern_id: int, cloth_id: int) -> Response | tuple[str, int]:
    """Add a change with its numbers, and look at the pairing with it."""
    wish = fitting_wish(find_pattern(pattern_id), read_wish(request.args))
    name = request.args.get("kind", "")
    kind = now().tables.hacks.get(name)
    numbers = {each.name: request.args.get(f"{name}.{each.name}", "")[:20] for each in kind.fields} if kind else {}
    other = now().pattern(as_number(request.args.get(f"{name}.like", "")) or 0)
    try:
        if kind and other and name in SWAPS:
            numbers = {field: f"{value:g}" for field, value in numbers_like(kind, other.facts, now().tables).items()}
        inside = ",".join(f"{field}={value}" for field, value in numbers.items() if value)
        hack = read_hack(f"{name}({inside})" if inside else name, now().tables)
        changed = replace(wish, hacks=tuple(dict.fromkeys((*wish.hacks, hack.written()))))
        read_hacks(changed.hacks, now().tables)
    except FieldFault as fault:
        return pairing_page(pattern_id, cloth_id, wish, fault=fault), 400
    kept = {key: value for key, value in request.args.items() if key in ("view", "size", "look", "school", "options", "part")}
    query = urlencode({**kept, "hacks": "|".join(changed.hacks)})
    return redirect(f"{url_for('pairing.one', pattern_id=pattern_id, cloth_id=cloth_id)}?{query}#changes")


@room.get("/one/<int:pattern_id>/<int:cloth_id>")
def one(pattern_id: int, cloth_id: int) -> str:
    return pairing_page(pattern_id, cloth_id, fitting_wish(find_pattern(pattern_id), read_wish(request.args)))


@room.get("/one/<int:pattern_id>/<int:cloth_id>/beneath")
def under(pattern_id: int, cloth_id: int) -> str:
    """Lining, interfacing, thread and notions of a pairing."""
    pattern, (record, cloth) = find_pattern(pattern_id), find_cloth(cloth_id)
    wish = fitting_wish(pattern, read_wish(request.args))
    return _under(pattern, record, cloth, wish)


def _under(pattern: PatternRecord, record: ClothRecord, cloth: Cloth, wish: Wish, fault: FieldFault | None = None) -> str:
    found, typed = beneath(now(), pattern, record, cloth, wish), now().settings.get(SETTING, "")
    cost, why = None, ""
    try:
        off = read_off(request.args)
        cost = garment_cost(record, found, read_notion_prices(typed), off)
    except FieldFault as raised:
        why = str(raised)
    return render_template(
        "beneath/beneath.html", record=record, pattern=pattern, cloth=cloth, found=found, wish=wish, cost=cost, no_cost=why,
        notion_prices=request.form.get("prices", typed), fault=fault, off_labels=OFF
    )  # fmt: skip


@room.post("/one/<int:pattern_id>/<int:cloth_id>/beneath")
def price_notions(pattern_id: int, cloth_id: int) -> Response | tuple[str, int]:
    """Keep what the shop asks for notions."""
    pattern, (record, cloth) = find_pattern(pattern_id), find_cloth(cloth_id)
    wish = fitting_wish(pattern, read_wish(request.args))
    try:
        keep_notion_prices(shop(), request.form.get("prices", ""), request.form.get("shown"))
    except FieldFault as fault:
        return _under(pattern, record, cloth, wish, fault), 400
    chosen = {name: request.args[name] for name in ("view", "size", "options") if name in request.args}
    return redirect(f"{url_for('pairing.under', pattern_id=pattern_id, cloth_id=cloth_id)}?{urlencode(chosen)}")


@room.get("/mixed/<int:pattern_id>")
def several(pattern_id: int) -> str:
    """A garment made of several cloths."""
    pattern = find_pattern(pattern_id)
    wish = fitting_wish(pattern, read_wish(request.args))
    chosen = read_choices(
        request.args, [*part_names(pattern.facts, now().tables), *pieces_apart(pattern.facts, wish, now().tables)]
    )
    found = mixed(shop(), now(), pattern, chosen, wish)
    offered = offered_cloths(now().shelf, request.args.get("find", "")[:200], chosen.values())
    return render_template(
        "judging/pairing/mixed.html", pattern=pattern, found=found, chosen=chosen, wish=wish, offered=offered, **_programmes()
    )
