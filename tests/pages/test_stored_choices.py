"""What was valid when it was stored, and is not any more, locks no page: it falls back and says so.

Every view, size, part and option of every pattern is taken away under what was chosen, then cloths and patterns that stand
in programmes, kits and sew-alongs; each time every page and file of the shop is opened, the public ones too.
"""

from __future__ import annotations

import re
from collections import deque
from collections.abc import Callable, Iterable
from dataclasses import replace
from datetime import datetime

import pytest
from attack.pages import read_page
from conftest import tried_app
from flask.testing import FlaskClient

from nematex.store.cloth.cloths import bin_cloths
from nematex.store.database import Work
from nematex.store.models import PickRow
from nematex.store.pattern.patterns import announce_change as announce
from nematex.store.pattern.patterns import bin_pattern, save_patterns
from nematex.store.programme.programmes import announce_change
from nematex.store.records import PatternRecord
from nematex.usecases.air.remote import new_remote
from nematex.usecases.air.sew_along import acts as along
from nematex.usecases.held.shop import Shop
from nematex.usecases.programme.acts import open_to_all

pytestmark = pytest.mark.breaking

OF_A_KIND = 3  # addresses that differ by their numbers alone: in the long run so many of them are opened, else one
SKIPPED = re.compile(r"^/(static|made|sign-out|practice|metrics|health)|/(export|take)\b|[?&](page|columns|sort|q)=")
# What rests on nothing that was chosen before: opened in the long run alone.
CHOSEN_NOW = re.compile(r"^/(shelf|bench|print|matrix|pairing/cloth|photo|import|hang|words|quality)|\?.*&")


def kind_of(link: str) -> str:
    path, _, query = link.partition("?")
    names = sorted(each.partition("=")[0] for each in query.split("&") if each)
    return re.sub(r"\d+", "0", path) + "?" + "&".join(names)


def links_of(client: FlaskClient, first: list[str], long: bool) -> dict[str, int]:
    """Every page and file that can be reached by links, and how it is answered."""
    found: dict[str, int] = {}
    waiting, kinds = deque(first), dict[str, int]()
    while waiting:
        link = waiting.popleft().partition("#")[0]
        kind = kind_of(link)
        most = 1 if "?" in link or not long else OF_A_KIND
        if link in found or (not long and CHOSEN_NOW.search(link)) or SKIPPED.search(link) or kinds.get(kind, 0) >= most:
            continue
        kinds[kind] = kinds.get(kind, 0) + 1
        reply = client.get(link)
        found[link] = reply.status_code
        if reply.status_code == 200 and reply.mimetype == "text/html":
            waiting.extend(read_page(link, reply.text).links)
    return found


def in_use(shop: Shop) -> list[str]:
    """The made-up shop with a view, a size, a second size and a part chosen for every pick that can have them; its public
    addresses."""
    state = shop.now()
    with shop.database.work() as work:
        announce_change(work)
        for programme in state.programmes:
            for pick in programme.picks:
                facts = state.drawer.by_id[pick.pattern_id].facts
                sizes = [size for row in facts.requirements for size in row.sizes]
                row = work.get_one(PickRow, pick.id)
                row.view = facts.views[-1] if facts.views else None
                row.size, row.other_size = (sizes[0], sizes[-1]) if sizes else (None, None)
                row.options = [each.name for each in facts.options[:1]] if facts.options else None
                if facts.parts and pick.id % 3 == 0 and not row.part:
                    row.part = facts.parts[0].name
    addresses = [f"/remote/{new_remote(shop, state.programmes[0].id, datetime.now())}"]
    for programme in state.programmes:
        open_to_all(shop, programme.id, True)
    for one in along.all_of(shop):
        along.open_to_all(shop, one.id, True)
    addresses += [f"/look/{one.public_key}" for one in shop.now().programmes]
    for one in along.all_of(shop):
        addresses += [f"/along/{one.public_key}{more}" for more in ("", "/calendar.ics", "/checklist.pdf", "/worksheet.pdf")]
    return addresses


Change = Callable[[PatternRecord], PatternRecord]


def other_views(record: PatternRecord) -> PatternRecord:
    rows = tuple(replace(row, view=f"other {row.view}") if row.view else row for row in record.facts.requirements)
    return replace(record, facts=replace(record.facts, requirements=rows))


def other_sizes(record: PatternRecord) -> PatternRecord:
    rows = tuple(replace(row, sizes=tuple(f"0{size}" for size in row.sizes)) for row in record.facts.requirements)
    return replace(record, facts=replace(record.facts, requirements=rows))


def no_tables(record: PatternRecord) -> PatternRecord:
    return replace(record, facts=replace(record.facts, requirements=(), sizes=()))


def no_parts(record: PatternRecord) -> PatternRecord:
    return replace(record, facts=replace(record.facts, parts=(), options=()))


def no_details(record: PatternRecord) -> PatternRecord:
    return replace(record, facts=replace(record.facts, details=(), garment="garment unheard of"))


CHANGES: dict[str, Change] = {
    "views": other_views,
    "sizes": other_sizes,
    "tables": no_tables,
    "parts and options": no_parts,
    "details and garment": no_details,
}


SHARED_BY = 3  # changes, among which the addresses are shared where it is not the long run


def locked(
    client: FlaskClient, before: dict[str, int], gone: tuple[str, ...] = (), of: int = 0, long: bool = True
) -> list[str]:
    """The addresses that were answered and are not any more, but for those of what is gone itself.

    In the long run all of them are looked at after each change; else those whose turn it is at change number `of`.
    """
    said = []
    for at, (link, status) in enumerate(before.items()):
        if not long and at % SHARED_BY != of % SHARED_BY:
            continue
        if status in (200, 202) and not any(re.match(each, link) for each in gone):
            reply = client.get(link)
            if reply.status_code not in (200, 202, 302):
                said.append(f"{reply.status_code} {link}: {' '.join(re.sub('<[^>]*>', ' ', reply.text).split())[:200]}")
    return said


def put_back(shop: Shop, records: list[PatternRecord]) -> None:
    with shop.database.work() as work:
        announce(work)
        save_patterns(work, records)


def test_what_was_chosen_and_is_gone_locks_no_page(demo: Shop, pytestconfig: pytest.Config) -> None:
    public, long = in_use(demo), pytestconfig.getoption("--long")
    client = tried_app(demo.database).test_client()
    before = links_of(client, ["/", "/stock", *public], long)
    print(len(before), "addresses")
    assert len(before) > 75
    assert set(before.values()) <= {200, 202, 302, 404}, [one for one in before.items() if one[1] >= 400]
    records = demo.now().drawer.records
    said = []
    for at, (what, change) in enumerate(CHANGES.items()):
        put_back(demo, [change(record) for record in records])
        said += [f"{what}: {each}" for each in locked(client, before, of=at, long=long)]
        put_back(demo, records)
    assert not said, "\n".join(said)
    page = gone_said(demo, client)
    assert "Keep it as it is shown" not in page, "nothing is lost where everything is back"


def bin_all(work: Work, numbers: Iterable[int]) -> None:
    for number in numbers:
        bin_pattern(work, number)


def gone_said(shop: Shop, client: FlaskClient) -> str:
    return client.get(f"/programmes/{shop.now().programmes[0].id}").text


def test_what_is_gone_is_said_at_its_pick_and_mended_there(demo: Shop) -> None:
    in_use(demo)
    app = tried_app(demo.database)
    app.config["WTF_CSRF_ENABLED"] = False
    client = app.test_client()
    programme = demo.now().programmes[0]
    pick = next(each for each in programme.picks if each.size)
    put_back(demo, [other_sizes(record) for record in demo.now().drawer.records])
    assert f"Size {pick.size} is not in this pattern any more; the largest is reckoned" in gone_said(demo, client)
    assert client.post(f"/programmes/{programme.id}/picks", data={"act": f"settle {pick.id}"}).status_code == 302
    kept = next(each for each in demo.now().programmes[0].picks if each.id == pick.id)
    assert (kept.size, kept.other_size, pick.id in demo.now().programmes[0].lost) == (None, None, False)
    for size in ("\ufeff", "12"):
        answer = client.post(f"/programmes/{programme.id}/picks", data={f"size-{pick.id}": size, f"shown-size-{pick.id}": ""})
        assert (answer.status_code, "is not a known size of this pattern" in answer.text) == (400, True)


def test_cloths_and_patterns_that_are_put_away_lock_nothing_else(demo: Shop, pytestconfig: pytest.Config) -> None:
    """Each that stands in a programme, a kit, a sew-along or the log: put away one after the other, until all are."""
    public, long = in_use(demo), pytestconfig.getoption("--long")
    client = tried_app(demo.database).test_client()
    before = links_of(client, ["/", "/stock", *public], long)
    state = demo.now()
    cloths = {pick.cloth_id for programme in state.programmes for pick in programme.picks}
    patterns = {pick.pattern_id for programme in state.programmes for pick in programme.picks}
    own = (r"/(pairing|shelf|patterns|hang|lay|why|print|bench|photo|trail|history)\b",)
    said = []
    away: list[tuple[set[int], Callable[[Work, list[int]], object]]] = [(cloths, bin_cloths), (patterns, bin_all)]
    steps = [(put_away, sorted(numbers)[first::2]) for numbers, put_away in away for first in (0, 1)]
    for at, (put_away, numbers) in enumerate(steps):
        with demo.database.work() as work:
            put_away(work, numbers)
        said += locked(client, before, own, at, long)
    assert not [each for each in said if not each.startswith("410 /along/")], "\n".join(said)
