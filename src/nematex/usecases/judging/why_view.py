"""Why these windows, and correcting them: an edge for one pattern, a number for every pattern, words for what they mean."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.judging.corrected import Correction, corrected, shipped
from nematex.core.judging.matrix import matrix
from nematex.core.judging.why import Edge, why
from nematex.core.pattern.facts import EdgeFix, ReadingFix, Wish
from nematex.core.pattern.interpretation_fixes import waits
from nematex.core.tables import Tables
from nematex.store.judging.rule_fixes import announce_rules, rule_fixes, set_rule, unset_rule
from nematex.store.records import PatternRecord, RuleFix
from nematex.usecases.forms.merging import SHOWN, read_shown
from nematex.usecases.forms.stale import must_be_as_shown
from nematex.usecases.held.drawer import Drawer
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.pattern.acts import change_pattern

NOTHING = "nothing at all"  # what words mean that mean no cloth
SCOPES = ("pattern", "rule")
LETTERS = 600
MOST_PAIRINGS = 400_000  # up to so many pairings it is said at once what a changed rule moves


@dataclass(frozen=True, slots=True)
class EdgeRow:
    """One edge, and the table's number it was read from, with what it shipped as."""

    edge: Edge
    rule: float | None
    shipped: float | None


@dataclass(frozen=True, slots=True)
class WaitingFix:
    """A reading that was corrected, and whether its words have gone from the envelope."""

    fix: ReadingFix
    waits: bool


def edges_of(drawer: Drawer, record: PatternRecord, wish: Wish, as_shipped: Tables) -> dict[str, list[EdgeRow]]:
    """Check → its edges, each with the number behind it."""
    rows: dict[str, list[EdgeRow]] = {}
    for edge in why(drawer.demand(record, wish), drawer.tables):
        at = edge.origin.table, edge.origin.row, edge.origin.field
        rule = shipped(drawer.tables, *at) if at[0] else None
        rows.setdefault(edge.check, []).append(EdgeRow(edge, rule, shipped(as_shipped, *at) if at[0] else None))
    return rows


def reading_fixes_of(record: PatternRecord) -> list[WaitingFix]:
    text = f"{record.facts.recommended} {record.facts.avoid}"
    return [WaitingFix(fix, waits(fix, text)) for fix in record.facts.reading_fixes]


def _number(given: Mapping[str, str], name: str) -> float:
    text = given.get(name, "").strip().replace(",", ".")
    try:
        value = float(text)
    except ValueError:
        raise FieldFault(name, text, "is not a number") from None
    if not 0 <= value <= 5000:
        raise FieldFault(name, text, "must lie between 0 and 5000")
    return value


def _reason(given: Mapping[str, str]) -> str:
    text = " ".join(given.get("reason", "").split())
    if not text:
        raise FieldFault("reason", "", "is missing: say what you saw, so that others can weigh it")
    if len(text) > LETTERS:
        raise FieldFault("reason", f"{text[:40]}…", f"is {len(text)} letters long; at most {LETTERS} are kept")
    return text


def set_edge(shop: Shop, state: State, record: PatternRecord, wish: Wish, given: Mapping[str, str]) -> int | None:
    """Set an edge for this pattern, or the number behind it for all; says how many pairings a rule's number moves."""
    scope = given.get("scope", "pattern")
    if scope not in SCOPES:
        raise UnknownChoice("scope", scope, SCOPES, "scope")
    name, side = given.get("window", ""), given.get("side", "")
    rows = [row for found in edges_of(state.drawer, record, wish, shop.as_shipped).values() for row in found]
    row = next((each for each in rows if (each.edge.window, each.edge.side) == (name, side)), None)
    if row is None:
        raise FieldFault("window", name, "is no edge of this pattern any more; look at the page again")
    value, reason, by = _number(given, "value"), _reason(given), given.get("by", "").strip()[:60]
    must_be_as_shown(f"{name}, {side}", given.get("shown"), as_edge(row), f"{value:.6g}")
    if scope == "rule":
        return _set_rule(shop, state, row, value, reason, by)
    _check_order(rows, row, value)
    fix = EdgeFix(name, side, value, reason, by, date.today().isoformat())
    known = _fixed(record, name, side)

    def change(now: PatternRecord) -> PatternRecord:
        must_be_as_shown(f"{name}, {side}", known, _fixed(now, name, side), f"{value:.6g}")
        return _with_edges(now, name, side, fix)

    change_pattern(shop, record.id, change)
    return None


def as_edge(row: EdgeRow) -> str:
    """An edge as a form shows it: its number, and its rule's where it has one."""
    return f"{row.edge.value:.6g} {'' if row.rule is None else f'{row.rule:.6g}'}".strip()


def _fixed(record: PatternRecord, window: str, side: str) -> str:
    """What this edge is set to, "" where it is as it was read."""
    found = (each for each in record.facts.edge_fixes if (each.window, each.side) == (window, side))
    return next((f"{each.value:.6g}" for each in found), "")


def _with_edges(record: PatternRecord, window: str, side: str, *fixes: EdgeFix) -> PatternRecord:
    """The pattern with this edge set by these fixes, or by none."""
    others = (each for each in record.facts.edge_fixes if (each.window, each.side) != (window, side))
    return replace(record, facts=replace(record.facts, edge_fixes=(*others, *fixes)))


def _with_readings(record: PatternRecord, words: str, *fixes: ReadingFix) -> PatternRecord:
    """The pattern with these words read by these fixes, or by none."""
    others = (each for each in record.facts.reading_fixes if each.words.casefold() != words.casefold())
    return replace(record, facts=replace(record.facts, reading_fixes=(*others, *fixes)))


def _check_order(rows: list[EdgeRow], row: EdgeRow, value: float) -> None:
    """A window must not end before it begins."""
    other = next((each.edge for each in rows if each.edge.window == row.edge.window and each.edge.side != row.edge.side), None)
    if other and ((other.side == "high" and value >= other.value) or (other.side == "low" and value <= other.value)):
        raise FieldFault("value", value, f"would end the window before it begins: its {other.side} edge is {other.value:g}")


def _set_rule(shop: Shop, state: State, row: EdgeRow, value: float, reason: str, by: str) -> int | None:
    origin = row.edge.origin
    was = shipped(shop.as_shipped, origin.table, origin.row, origin.field)
    if was is None:
        raise FieldFault("scope", "rule", "cannot be used here: the number is the envelope's own, not a rule's")
    with shop.database.work() as work:
        known = [Correction(each.place, each.row, each.field, each.value) for each in rule_fixes(work)]
    new = Correction(origin.table, origin.row, origin.field, value)
    tables = corrected(shop.as_shipped, [*known, new])  # raises where it would turn a range about
    moved = _moved(state, tables)
    with shop.database.work() as work:
        announce_rules(work)
        now = [Correction(each.place, each.row, each.field, each.value) for each in rule_fixes(work)]
        must_be_as_shown("rule", str(known), str(now), "")
        set_rule(work, RuleFix(origin.table, origin.row, origin.field, value, was, reason, by))
    return moved


def _moved(state: State, tables: Tables) -> int | None:
    """How many pairings of the shop change their verdict with other tables; None where there are too many to count."""
    shelf, drawer = state.shelf, state.drawer
    if not shelf.records or len(shelf.records) * len(drawer.records) > MOST_PAIRINGS:
        return None
    after = Drawer.of(drawer.version, drawer.records, tables)
    verdicts = [matrix(shelf.columns, one.demands(Wish()), one.tables).verdict for one in (drawer, after)]
    return int((verdicts[0] != verdicts[1]).sum())


def drop_edge(shop: Shop, record: PatternRecord, window: str, side: str) -> None:
    """Back to what was read."""
    change_pattern(shop, record.id, lambda now: _with_edges(now, window, side))


def set_reading(shop: Shop, state: State, record: PatternRecord, given: Mapping[str, str]) -> None:
    """Say what words of the envelope mean; no cloth means nothing at all."""
    words = " ".join(given.get("words", "").split())
    if not words:
        raise FieldFault("words", "", "are missing; choose the words of the envelope that were read wrong")
    lexicon = state.tables.lexicon
    cloths = [name.strip() for name in given.get("cloths", "").split(",") if name.strip()]
    for name in cloths:
        if name not in lexicon.index:
            raise UnknownChoice("cloths", name, lexicon.index, "cloth name")
    fix = ReadingFix(words, tuple(cloths), _reason(given), given.get("by", "").strip()[:60], date.today().isoformat())

    def change(now: PatternRecord) -> PatternRecord:
        shown = read_shown(given.get(SHOWN, "")).get(words.casefold(), "") if SHOWN in given else None
        must_be_as_shown(words, shown, readings_shown(now).get(words.casefold(), ""), ", ".join(cloths) or NOTHING)
        return _with_readings(now, words, fix)

    change_pattern(shop, record.id, change)


def readings_shown(record: PatternRecord) -> dict[str, str]:
    """Words → what they were said to mean, as a form shows them."""
    return {each.words.casefold(): ", ".join(each.cloths) or NOTHING for each in record.facts.reading_fixes}


def drop_reading(shop: Shop, record: PatternRecord, words: str) -> None:
    change_pattern(shop, record.id, lambda now: _with_readings(now, words))


def rules_set(shop: Shop) -> list[RuleFix]:
    with shop.database.work() as work:
        return rule_fixes(work)


def drop_rule(shop: Shop, fix_id: int) -> None:
    """Back to the number that ships; raises FieldFault where another number set here would then turn a range about."""
    left = [Correction(each.place, each.row, each.field, each.value) for each in rules_set(shop) if each.id != fix_id]
    corrected(shop.as_shipped, left)
    with shop.database.work() as work:
        unset_rule(work, fix_id)
