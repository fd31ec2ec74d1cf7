"""`./nematex bench`: speed and size with ten thousand cloths, printed as medians and ratios."""

from __future__ import annotations

import gc
import os
import random
import statistics
import sys
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from decimal import Decimal
from pathlib import Path

from flask.testing import FlaskClient

from nematex.command.benchmark.amounts import time_amounts, time_kits, time_lays
from nematex.command.benchmark.matrix import made_up_patterns, time_grid, time_matrix, time_one_cloth
from nematex.command.benchmark.meant import HTML, asked
from nematex.command.benchmark.photos import confusion, large_upload
from nematex.command.benchmark.sets import time_sets
from nematex.command.mariadb import LocalMariaDB
from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.judging.demand import demand
from nematex.core.judging.judge import judge
from nematex.core.judging.pairing import pair
from nematex.core.pattern.facts import Pattern, Wish
from nematex.demo.load import load_demo
from nematex.store.cloth.cloths import change_cloth, save_cloths
from nematex.store.database import Database
from nematex.store.pattern.patterns import save_patterns
from nematex.store.records import ClothRecord
from nematex.tables import trade_tables
from nematex.usecases.cloth.exchange import cloths_xlsx
from nematex.usecases.cloth.lists.importing import apply, preview, send
from nematex.usecases.cloth.lists.undo import undo
from nematex.usecases.held.shop import Shop
from nematex.web.app import create_app

REQUESTS = 200
FILTERS = (
    "near=rust", "near=%2324404a&sort=nearest+colour", "fibre=cotton", "season=summer", "weight_from=100&weight_to=200",
    "hand=crisp", "print_kind=check", "needs=1", "price_to=12&sort=cheapest", "stock_from=10&sort=most+in+stock",
    "structure=knit&stretch_from=30", "q=lawn+voile", "sheer=semi-sheer", "width_from=145", "new_since=2026-01-01",
    "near=navy&structure=woven&price_to=20&stock_from=5&weight_to=250&season=winter",
)  # fmt: skip
SINGLE_SAMPLE, CHANGES = 300, 40


def made_up_cloths(count: int, seed: int = 7) -> list[ClothRecord]:
    """Cloths over the whole lexicon, measured, stated, judged or only named; invented, for measuring alone."""
    rng = random.Random(seed)
    kinds = trade_tables().lexicon.types
    found = []
    for number in range(count):
        kind = kinds[number % len(kinds)]
        colours = tuple(f"#{rng.randrange(256**3):06x}" for _ in range(1 + number % 3))
        printed = ("solid", "stripe", "check", "motif")[number % 4]
        facts = ClothFacts(
            name=f"Bench {number} {kind.name}",
            cloth=kind.name,
            weight_gsm=round(rng.uniform(kind.weight_gsm.low, kind.weight_gsm.high), 1) if number % 3 else None,
            width_cm=rng.choice([112.0, 137.0, 140.0, 145.0, 150.0, 280.0]),
            bending_length_cm=round(rng.uniform(kind.bend_cm.low, kind.bend_cm.high), 2) if number % 4 == 0 else None,
            hand=rng.choice(["fluid", "soft", "moderate", "crisp"]) if number % 4 == 1 else None,
        )
        price, stock = Decimal(rng.randrange(400, 4000)) / 100, round(rng.uniform(0, 40), 1)
        found.append(ClothRecord(f"B{number:06}", facts, price, "GBP", stock, colours=colours, print_kind=printed))
    return found


def _median_ms(act: Callable[[], object], times: int) -> float:
    spent = []
    for _ in range(times):
        start = time.perf_counter()
        act()
        spent.append((time.perf_counter() - start) * 1000)
    return statistics.median(spent)


def _core(count: int) -> None:
    tables = trade_tables()
    records = made_up_cloths(count)
    start = time.perf_counter()
    cloths = [known_cloth(record.facts, tables) for record in records]
    shelf = columns(cloths, tables)
    print(f"core: {count} cloths put into columns in {(time.perf_counter() - start) * 1000:.0f} ms")
    pattern = _demo_patterns()[0]
    asked = demand(pattern, Wish(), tables)

    def rank() -> object:
        return judge(shelf, asked, tables).order()

    column_ms = _median_ms(rank, 21)
    step = max(1, count // SINGLE_SAMPLE)
    sample = cloths[::step]
    start = time.perf_counter()
    for cloth in sample:
        pair(cloth, asked, tables)
    single_ms = (time.perf_counter() - start) * 1000 / len(sample) * count
    print(f"core: ranking {count} cloths by columns, median {column_ms:.1f} ms (wanted under 50)")
    time_amounts(pattern, cloths)
    time_lays(pattern, cloths[0])
    time_kits()
    print(f"core: the same one by one {single_ms:.0f} ms (from {len(sample)}); ratio {single_ms / column_ms:.0f} (wanted 100)")


def _demo_patterns() -> list[Pattern]:
    import json
    from importlib.resources import files

    from nematex.usecases.pattern.exchange import pattern_record

    rows = json.loads(files("nematex.demo").joinpath("patterns.json").read_text(encoding="utf-8"))
    return [pattern_record(row, trade_tables()).facts for row in rows if row["code"] == "OR-11"]


def _memory_mb() -> float:
    for line in Path("/proc/self/status").read_text().splitlines():
        if line.startswith("VmRSS"):
            return int(line.split()[1]) / 1024
    return 0.0


def _pages(count: int) -> None:
    with tempfile.TemporaryDirectory(prefix="nematex-bench-") as folder:
        server = LocalMariaDB(Path(folder))
        server.start()
        try:
            database = Database(server.url)
            database.migrate()
            load_demo(database)
            with database.work() as work:
                save_cloths(work, made_up_cloths(count))
                save_patterns(work, made_up_patterns(40))
            _time_pages(database)
            _query_plans(database)
            _import_xlsx(database, count)
            database.close()
        finally:
            server.stop()


def _time_pages(database: Database) -> None:
    app = create_app(database, "bench")
    shop = Shop(database)
    patterns = shop.now().drawer.records
    start = time.perf_counter()
    client = app.test_client()
    asked(client, "/shelf", HTML, "cloths")
    print(f"pages: first page of a shelf that was never read {(time.perf_counter() - start) * 1000:.0f} ms")
    _time_changes(database, shop, client)
    gc.collect()
    addresses: tuple[tuple[str, str, Callable[[int], str]], ...] = (
        ("pairing, pattern to cloths", "data-row", lambda n: f"/pairing/pattern/{patterns[n % len(patterns)].id}"),
        ("pairing, filtered", "lawn", lambda n: f"/pairing/pattern/{patterns[n % len(patterns)].id}?q=lawn&in_stock=1"),
        ("shelf", "data-row", lambda n: f"/shelf?page={1 + n % 100}"),
        ("shelf, every filter in turn", "cloths", lambda n: f"/shelf?{FILTERS[n % len(FILTERS)]}"),
    )
    for name, words, address in addresses:
        spent = []
        for number in range(REQUESTS):
            start = time.perf_counter()
            asked(client, address(number), HTML, words)
            spent.append((time.perf_counter() - start) * 1000)
        spent.sort()
        p95 = spent[int(0.95 * len(spent)) - 1]
        print(f"pages: {name}: median {statistics.median(spent):.0f} ms, p95 {p95:.0f} ms of {REQUESTS} (wanted under 150)")
    shelf, drawer = shop.now().shelf, shop.now().drawer
    time_grid(client, [each.id for each in shelf.records], [each.id for each in drawer.records])
    print(f"memory: this process, server and client in one, {_memory_mb():.0f} MB (wanted under 300)")


def _time_changes(database: Database, shop: Shop, client: FlaskClient) -> None:
    """What a change of one cloth costs the page after it."""
    chosen = [record.id for record in shop.now().shelf.records[:CHANGES]]
    asked(client, "/shelf?q=lawn&needs=1", HTML, "lawn")
    spent = []
    for number, cloth_id in enumerate(chosen):
        with database.work() as work:
            change_cloth(work, cloth_id, {"weight_gsm": 100.0 + number})
        start = time.perf_counter()
        asked(client, "/shelf?q=lawn&needs=1", HTML, "lawn")
        spent.append((time.perf_counter() - start) * 1000)
    spent.sort()
    middle, late = spent[len(spent) // 2], spent[int(len(spent) * 0.95)]
    print(f"pages: first page after a change of one cloth: median {middle:.0f} ms, p95 {late:.0f} ms (wanted under 300)")


def _query_plans(database: Database) -> None:
    """How the server finds what pages ask it for; the filters themselves work on arrays kept in memory."""
    asked = (
        ("is the shelf as remembered", "select value from setting where name = 'shelf version'"),
        ("readings of one cloth", "select * from reading where cloth_id = 5 order by taken_at desc, id desc"),
        ("photos of one cloth", "select id, px_per_cm from photo where cloth_id = 5 and kind = 'swatch' order by id desc"),
        ("steps of one import", "select * from import_step where upload_id = 1"),
        ("one cloth by its code", "select id from cloth where code = 'B000005'"),
        ("what changed on the shelf", "select * from cloth where version > 1000000"),
    )
    for name, query in asked:
        row = database.plan(query)
        print(f"plan: {name}: {row['type']}, key {row['key']}, about {row['rows']} rows, {row['Extra'] or 'nothing extra'}")


def _import_xlsx(database: Database, count: int) -> None:
    """A spreadsheet of new cloths, read, compared and put on the shelf, and taken back."""
    shop = Shop(database)
    records = [replace(record, code=f"X{record.code}") for record in made_up_cloths(count, seed=11)]
    content = cloths_xlsx(records)
    start = time.perf_counter()
    upload = send(shop, "bench.xlsx", content)
    found = preview(shop, upload)
    looked = time.perf_counter()
    apply(shop, upload)
    done = time.perf_counter()
    rows = len(found.rows) if found else 0
    print(f"import: XLSX of {rows} rows, {len(content) / 2**20:.1f} MB: looked at in {looked - start:.1f} s, ", end="")
    print(f"on the shelf {done - looked:.1f} s later, {done - start:.1f} s in all (wanted under 30)")
    undo(shop, upload)
    print(f"import: taken back in {time.perf_counter() - done:.1f} s")


def run_load(people: int, minutes: float, think_s: float, slow: int) -> int:
    """A mixed load on the shop that `start` started."""
    from nematex.command.benchmark.load import Load, print_seen, run

    found = _running()
    if found is None:
        return 1
    load = Load(people, minutes * 60, think_s, slow)
    print_seen(load, run(found[0], load, found[1]))
    return 0


def _running() -> tuple[str, list[int]] | None:
    """The address of the shop that `start` started, and its web processes; None where it does not run, and says so."""
    from nematex.command.service.state import running_address, web_pids

    if address := running_address():
        return address, web_pids()
    print("nematex: the shop does not run; run ./nematex start first.", file=sys.stderr)
    return None


def run_changes(count: int) -> int:
    """So many changes of cloths in the shop that `start` started, and what becomes of memory."""
    from nematex.command.benchmark.load import print_changes

    found = _running()
    if found is None:
        return 1
    print_changes(found[0], count, found[1])
    return 0


def run_fill() -> int:
    """A made-up shop of real size."""
    from nematex.command.benchmark.fill import fill
    from nematex.command.service.database import database_url

    print(fill(Database(database_url())))
    return 0


def run_benchmark(count: int) -> int:
    """Print every figure; nothing is asserted."""
    print(f"{os.cpu_count()} cores; {len(trade_tables().lexicon.types)} cloth names")
    _core(count)
    time_matrix(made_up_cloths(count))
    time_one_cloth(made_up_cloths(1))
    large_upload()
    confusion()
    _pages(count)
    time_sets(made_up_cloths(count))
    return 0
