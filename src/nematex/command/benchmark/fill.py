"""A made-up shop of real size, for measuring: cloths, patterns and programmes that nobody wrote."""

from __future__ import annotations

from nematex.command.benchmark.matrix import made_up_patterns
from nematex.command.benchmark.run import made_up_cloths
from nematex.store.cloth.cloths import save_cloths
from nematex.store.database import Database
from nematex.store.pattern.patterns import save_patterns
from nematex.store.programme.programmes import add_pick, save_programme
from nematex.store.records import Pick
from nematex.store.settings import DEMO
from nematex.store.trail.who import UNTOLD, acting
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.ahead import judge_ahead

CLOTHS, PATTERNS, PROGRAMMES, PICKS = 10_000, 1_000, 40, 5


def fill(database: Database) -> str:
    """Add them to a made-up shop; says what was added. Raises RuntimeError for a real one."""
    shop, cloths, patterns = Shop(database), made_up_cloths(CLOTHS), made_up_patterns(PATTERNS)
    if DEMO not in shop.now().settings:
        raise RuntimeError("--fill: this is no made-up shop; a shop of your own is not filled with invented cloth")
    judge_ahead(shop, cloths, patterns)  # as whoever puts a long list on the shelf does
    with acting(UNTOLD):
        with database.work() as work:
            save_cloths(work, cloths)
            save_patterns(work, patterns)
        state = shop.now()
        cloth_ids = [record.id for record in state.shelf.records if record.code.startswith("B0")]
        pattern_ids = [record.id for record in state.drawer.records if record.code.startswith("M0")]
        with database.work() as work:
            for number in range(PROGRAMMES):
                made = save_programme(work, f"Bench programme {number}", None, "")
                for at in range(PICKS):
                    add_pick(work, made, Pick(0, cloth_ids[number * 97 + at], pattern_ids[number * 11 + at]))
    return f"{CLOTHS} cloths, {PATTERNS} patterns and {PROGRAMMES} programmes were added"
