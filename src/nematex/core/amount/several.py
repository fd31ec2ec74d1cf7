"""A garment in several cloths: which pieces lie on which, and what each cloth has to give.

The table knows the garment as a whole. What is cut from another cloth is taken off by the area of its drafted pieces; that
cloth gives what a contrast row of the table says, else its pieces' area at the share that a lay uses, strips one after another
and never below the longest piece. Common practice, no source; the drafted pieces are an approximation.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from math import inf

from nematex.core.amount.hacked import CHANGES, Change
from nematex.core.amount.lay.draft import drafted
from nematex.core.amount.lay.pieces import Piece, area_cm2
from nematex.core.amount.length import amount, bought, lies_one_way, matched
from nematex.core.amount.receipt import Amount, Receipt
from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.lexicon import key
from nematex.core.pattern.chosen import rows_for
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.pattern.hacks import Hack, read_hacks
from nematex.core.quantity.said import Units
from nematex.core.tables import Tables

APART = ("tier", "railroaded tier", "flounce", "ruffle", "cuff", "belt", "ties", "pocket", "bias strip")


@dataclass(frozen=True)
class OwnCloth:
    """One cloth of the garment: the parts that are cut from it, and how much; None where nothing tells how much."""

    parts: tuple[str, ...]
    cloth: Cloth
    amount: Amount | None


def added_parts(hacks: Iterable[Hack]) -> dict[str, Hack]:
    """The pieces that changes add, by names of their own: 'added tier', 'added tier 2'; each may be of another cloth."""
    found: dict[str, Hack] = {}
    for hack in hacks:
        if hack.kind.name in APART:
            alike = sum(each.kind == hack.kind for each in found.values())
            found[f"added {hack.kind.name}" + (f" {alike + 1}" if alike else "")] = hack
    return found


def tier_names(pattern: Pattern, wish: Wish, tables: Tables) -> list[str]:
    """The tiers of a tiered skirt, which may differ in colour."""
    return [piece.id for piece in drafted(pattern, wish, tables) if piece.id.startswith("tier ")]


def by_part(pieces: Iterable[Piece], parts: Iterable[str], tables: Tables) -> dict[str, list[Piece]]:
    """Part → its pieces: one of its very name, else those that its kind is made of; the rarer kind takes precedence."""
    rows = list(tables.parts.rows)
    kinds = {part: tables.parts.find(part) for part in parts}
    rarest_first = sorted(kinds, key=lambda part: -rows.index(kind) if (kind := kinds[part]) else 1)
    found: dict[str, list[Piece]] = {part: [] for part in parts}
    for piece in pieces:
        owner = piece.id if piece.id in found else None
        for part in rarest_first if owner is None else ():
            kind = kinds[part]
            if kind and piece.id.startswith(kind.pieces or ("\0",)):
                owner = part
                break
        if owner is not None:
            found[owner].append(piece)
    return {part: pieces or _usual(part, tables) for part, pieces in found.items()}


def _usual(part: str, tables: Tables) -> list[Piece]:
    """A part that is not drafted, as a rectangle of its usual size."""
    kind = tables.parts.find(part)
    usual = tables.usual_pieces.get(key(part)) or tables.usual_pieces.get(kind.name if kind else "")
    if usual is None:
        return []
    long, across = usual.along_cm, usual.across_cm
    return [Piece(part, ((0.0, 0.0), (long, 0.0), (long, across), (0.0, across)), usual.count)]


def length_of_pieces_m(pieces: Iterable[Piece], width_cm: float, used: float) -> float:
    """Strips that fill more than half the width lie one after another; the rest by its area; never below the longest.

    Infinite where a piece is wider than the cloth.
    """
    strips = by_area = longest = 0.0
    for piece in pieces:
        low_x, low_y, high_x, high_y = piece.polygon.bounds
        long, across = high_x - low_x, (high_y - low_y) * (2 if piece.kind == "fold" else 1)
        longest = max(longest, long)
        if 2 * across > width_cm:
            strips += piece.copies * long if across <= width_cm else inf  # they keep their grain
        else:
            by_area += area_cm2(piece)
    return max(strips + by_area / (width_cm * used), longest) / 100


def lining_m(pattern: Pattern, wish: Wish, tables: Tables) -> float | None:
    """What a full lining takes in m: the fronts, backs and sleeves without facings, cuffs and collars; None without any."""
    rule = tables.judging.lining
    lined = [piece for piece in drafted(pattern, wish, tables, rule.usual_width_cm) if piece.id.startswith(rule.lined_pieces)]
    found = length_of_pieces_m(lined, rule.usual_width_cm, tables.judging.change.used) if lined else inf
    return found if found < inf else None


def in_several(
    pattern: Pattern, chosen: Mapping[str, Cloth], wish: Wish, tables: Tables, units: Units = Units.METRIC
) -> list[OwnCloth]:
    """What each cloth has to give, the main one first; parts that have none are cut with the main one."""
    whole = replace(wish, part=None)
    main = next((part for part in chosen if _is_body(part, tables)), None)
    together: dict[int, list[str]] = {}
    for part in sorted(chosen, key=lambda part: part != main):
        together.setdefault(id(chosen[part]), []).append(part)
    body = chosen.get(main or "")
    apart = [part for part in chosen if chosen[part] is not body]
    return [
        OwnCloth(tuple(parts), cloth, _of_main(pattern, cloth, apart, whole, tables, units))
        if (cloth := chosen[parts[0]]) is body
        else OwnCloth(tuple(parts), cloth, _of_parts(pattern, cloth, parts, len(together), whole, tables, units))
        for parts in together.values()
    ]


def _is_body(part: str, tables: Tables) -> bool:
    kind = tables.parts.find(part)
    return kind is not None and kind.name == "body"


def _contrast(pattern: Pattern) -> bool:
    return any(row.use == "contrast" for row in pattern.requirements)


def _of_main(pattern: Pattern, cloth: Cloth, apart: list[str], wish: Wish, tables: Tables, units: Units) -> Amount | None:
    """The table's amount without what is cut elsewhere; a table with a contrast row has left that out already."""
    hacks = read_hacks(wish.hacks, tables)
    added = added_parts(hacks)
    elsewhere = {id(added[part]) for part in apart if part in added}
    kept = tuple(hack.written() for hack in hacks if id(hack) not in elsewhere)
    less: dict[str, float] = {}
    if not _contrast(pattern):
        found = by_part(drafted(pattern, wish, tables, cloth.width.best), [part for part in apart if part not in added], tables)
        less = {part: sum(map(area_cm2, pieces)) for part, pieces in found.items() if pieces}
    return amount(cloth, pattern, replace(wish, hacks=kept), tables, units, less_cm2=less)


def _of_parts(
    pattern: Pattern, cloth: Cloth, parts: list[str], cloths: int, wish: Wish, tables: Tables, units: Units
) -> Amount | None:
    """Another cloth: the contrast row where it is the only other one, else its pieces and what changes add."""
    added = added_parts(read_hacks(wish.hacks, tables))
    rule, width, one_way = tables.judging.change, cloth.width.best, lies_one_way(cloth)
    of_pattern = [part for part in parts if part not in added]
    receipt = Receipt(tables.sayings, units)
    length = 0.0
    if of_pattern and cloths == 2 and _contrast(pattern) and len(of_pattern) == len(parts):
        return amount(cloth, pattern, wish, tables, units, use="contrast")
    found = by_part(drafted(pattern, wish, tables, width), of_pattern, tables)
    for part, pieces in found.items():
        own_m = length_of_pieces_m(pieces, width, rule.used_one_way if one_way else rule.used) if pieces else inf
        if own_m == inf:
            return None
        length += own_m
        count = sum(piece.copies for piece in pieces)
        receipt.write("of_pieces", "draft", length, part=part, count=count, pieces="piece" if count == 1 else "pieces")
    for part in parts:
        if part in added:
            hack = added[part]
            by_m = CHANGES[hack.kind.name](Change(hack.numbers, width, one_way, length, rule)) / 100
            if by_m == float("inf"):
                return None
            length += by_m
            receipt.write("hack_more", "geometry", length, said=hack.said, by=receipt.length(by_m))
    if of_pattern:
        matched(cloth, tables, receipt)
    return bought(receipt.length_m or length, cloth, tables, receipt, washed=True)


def lining_table(pattern: Pattern, wish: Wish) -> float | None:
    """What the pattern's own lining table says for the view and size; the largest size if none is named."""
    return max((row.length_m for row in rows_for(pattern, "lining", wish)), default=None)
