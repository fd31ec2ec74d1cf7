"""How fast amounts, lays and kits are reckoned, and how near a short lay comes to a long one."""

from __future__ import annotations

import time
from collections.abc import Sequence
from dataclasses import replace

from nematex.core.amount.kits import SizeOfKit, Stretch, kits
from nematex.core.amount.lay.draft import drafted
from nematex.core.amount.lay.placed import Lay
from nematex.core.amount.length import amount
from nematex.core.amount.many import lengths_m
from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import Cloth
from nematex.core.pattern.facts import Pattern, Wish
from nematex.tables import trade_tables
from nematex.usecases.lay.laid import lay_out
from nematex.usecases.lay.of_pairing import asked_lay

BOLTS_M = (40, 35, 33, 30, 28, 27, 25, 24, 22, 18, 13, 12)
SIZES = (("A", 1.3, 30), ("B", 1.4, 50), ("C", 1.5, 60), ("D", 1.7, 40), ("E", 1.9, 20))


def time_amounts(pattern: Pattern, cloths: Sequence[Cloth]) -> None:
    """One amount with its receipt, and a whole shelf's by columns."""
    tables, shelf = trade_tables(), columns(cloths, trade_tables())
    start = time.perf_counter()
    for cloth in cloths[:500]:
        amount(cloth, pattern, Wish(), tables)
    one_ms = (time.perf_counter() - start) * 1000 / min(500, len(cloths))
    lengths_m(shelf, pattern, Wish(), tables)
    start = time.perf_counter()
    lengths_m(shelf, pattern, Wish(), tables)
    all_ms = (time.perf_counter() - start) * 1000
    print(f"amount: one with its receipt {one_ms:.2f} ms (wanted under 5)")
    print(f"amount: {len(cloths)} by columns {all_ms:.0f} ms (wanted under 50)")


def time_lays(pattern: Pattern, cloth: Cloth) -> None:
    """The first lay of a shirt, and one of 15 seconds beside one of 60."""
    tables = trade_tables()
    pieces = drafted(pattern, Wish(), tables, cloth.width.best)
    more = [replace(piece, id=f"{piece.id} again") for piece in pieces]  # a shirt and the next one: about 25 pieces
    asked = asked_lay([*pieces, *more], cloth, {}, tables)
    heard: list[float] = []
    start = time.perf_counter()

    def first(_lay: Lay) -> None:
        heard.append(time.perf_counter() - start)

    lengths = {}
    for seconds in (15, 60):
        lengths[seconds] = lay_out(asked.model_copy(update={"seconds": float(seconds)}), first).length_cm
    copies = sum(piece.copies for piece in [*pieces, *more])
    print(f"lay: first answer for {copies} pieces after {heard[0]:.1f} s (wanted under 3)")
    print(f"lay: 15 s / 60 s: {lengths[15] / lengths[60]:.3f} (wanted at most 1.03)")


def time_kits() -> None:
    """Two hundred kits in five sizes on twelve bolts."""
    start = time.perf_counter()
    bolts = [Stretch(str(at), 0.0, float(length)) for at, length in enumerate(BOLTS_M)]
    found = kits(bolts, [SizeOfKit(size, (length,), count) for size, length, count in SIZES])
    spent = time.perf_counter() - start
    print(f"kits: {found.total} of 200 on 12 bolts, proved within {100 * found.gap:.2f} % in {spent:.2f} s (wanted 1 % in 5 s)")
