"""A set proposed from many pairings, its wall, colour, coverage and book, timed; printed by `./nematex bench`."""

from __future__ import annotations

import statistics
import tempfile
import time
from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import date
from pathlib import Path

from flask.testing import FlaskClient

from nematex.command.benchmark.air import time_air
from nematex.command.benchmark.matrix import made_up_patterns
from nematex.command.benchmark.meant import HTML, PDF, asked, tried_by_owner
from nematex.command.mariadb import LocalMariaDB
from nematex.core.pattern.facts import Requirement, Size
from nematex.store.cloth.cloths import save_cloths
from nematex.store.database import Database
from nematex.store.pattern.patterns import save_patterns
from nematex.store.records import ClothRecord, PatternRecord, Pick
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.whole_matrix import whole
from nematex.usecases.programme import acts
from nematex.usecases.programme.proposing import planning
from nematex.usecases.programme.proposing.propose import propose

GARMENTS = ("dress", "skirt", "tee", "wide trousers", "shirt", "coat", "jumpsuit", "shorts", "hoodie", "slip dress")
TIMES = 40


def set_patterns(count: int) -> list[PatternRecord]:
    """Patterns with a garment, a cloth table and sizes; invented, for measuring alone."""
    found = []
    for number, record in enumerate(made_up_patterns(count)):
        low = 78 + number % 5 * 6
        sizes = tuple(Size(str(8 + 2 * at), low + 5.0 * at, low + 5.0 * at - 18, low + 5.0 * at + 6) for at in range(8))
        rows = tuple(
            Requirement("", tuple(size.label for size in sizes), width, 1.2 + number % 9 * 0.3) for width in (115.0, 150.0)
        )
        facts = replace(record.facts, garment=GARMENTS[number % len(GARMENTS)], sizes=sizes, requirements=rows)
        difficulty = ("easy", "improver", "intermediate", "advanced")[number % 4]
        found.append(replace(record, facts=facts, difficulty=difficulty))
    return found


def time_sets(cloths: Sequence[ClothRecord], count: int = 1000) -> None:
    """All of it on a shop of these cloths and so many patterns."""
    with tempfile.TemporaryDirectory(prefix="nematex-sets-") as folder:
        server = LocalMariaDB(Path(folder))
        server.start()
        database = Database(server.url)
        try:
            database.migrate()
            with database.work() as work:
                save_cloths(work, cloths)
                save_patterns(work, set_patterns(count))
            _time(database)
        finally:
            database.close()
            server.stop()


def _time(database: Database) -> None:
    app = tried_by_owner(database)
    shop: Shop = app.extensions["shop"]
    state = shop.now()
    whole(shop, state)
    made = acts.save_programme(shop, None, {"name": "Bench", "shown_on": "2027-04-10", "intro": ""})
    brief = {"slots": "12", "budget": "80", "season": "spring", "easy": "3", "hip": "90 to 130 cm", "overstock": "2"}
    planning.save_brief(shop, shop.now(), made, brief)
    state = shop.now()
    programme = next(one for one in state.programmes if one.id == made)
    start = time.perf_counter()
    found = propose(shop, state, programme, date(2027, 1, 5))
    spent = time.perf_counter() - start
    size = f"{len(state.shelf.records)} cloths by {len(state.drawer.records)} patterns"
    print(f"sets: 12 places from {size}, {found.weighed} pairings weighed, in {spent:.1f} s (wanted under 5), ", end="")
    print(f"at most {found.gap_pct:.2f} % below the best (wanted under 2)")
    acts.add_picks_apart(shop, made, [Pick(0, one.cloth_id, one.pattern_id) for one in found.picks])
    _pages(app.test_client(), shop, made)
    time_air(app, shop)


def _pages(client: FlaskClient, shop: Shop, made: int) -> None:
    def fill(count: int) -> None:
        programme = next(one for one in shop.now().programmes if one.id == made)
        taken, state = {pick.cloth_id for pick in programme.picks}, shop.now()
        more = [record for record in state.shelf.records if record.id not in taken][: count - len(programme.picks)]
        picks = [Pick(0, record.id, state.drawer.records[at].id) for at, record in enumerate(more)]
        acts.add_picks_apart(shop, made, picks)

    def move() -> None:
        picks = next(one for one in shop.now().programmes if one.id == made).picks
        acts.change_picks(shop, made, {}, "down", picks[0].id)

    def get(view: str, *words: str) -> Callable[[], object]:
        return lambda: asked(client, f"/programmes/{made}/{view}", HTML, *words)

    _print("wall of 12", 200, move, get("wall", "Bench", "<svg"))
    _print("colour and outfits after a move", 100, move, get("together", "Colour and outfits", "Bench"))
    _print("who is left out after a move", 100, move, get("set", "Who is left out?", "Bench"))
    start = time.perf_counter()
    asked(client, f"/programmes/{made}/book", PDF)
    print(f"sets: look-book of 12 in {time.perf_counter() - start:.1f} s (wanted under 5, in the background)")
    fill(40)
    _print("wall of 40", 500, move, get("wall", "Bench", "<svg"))


def _print(name: str, wanted_ms: int, before: Callable[[], None], act: Callable[[], object]) -> None:
    act()
    spent = []
    for _ in range(TIMES):
        before()
        start = time.perf_counter()
        act()
        spent.append((time.perf_counter() - start) * 1000)
    spent.sort()
    p95 = spent[int(0.95 * len(spent)) - 1]
    print(f"sets: {name}: median {statistics.median(spent):.0f} ms, p95 {p95:.0f} ms of {TIMES} (wanted under {wanted_ms})")
