"""Every list that grows with the shop comes a page at a time, and nothing falls between two pages."""

from __future__ import annotations

import re
from datetime import date, datetime
from typing import Any

import pytest
from sqlalchemy import insert, select
from test_access import WORD, client_of

from nematex.core.paging import PAGE, page_of, turned_to
from nematex.store.models import Base, MakeRow, PatternRow, PersonRow, ProgrammeRow, SewAlongRow
from nematex.store.versions import DRAWER, PROGRAMMES, next_version
from nematex.usecases.held.shop import Shop
from nematex.usecases.people.set_up import make_owner

NUMBER = 2 * PAGE + 3


def _copies(shop: Shop, model: Any, **differ: Any) -> None:
    """So many rows like the first of a table; what differs is made of each one's number."""
    table = Base.metadata.tables[model.__tablename__]
    with shop.database.work() as work:
        first = dict(work.execute(select(table).limit(1)).mappings().first() or {})
        first.pop("id", None)
        rows = [{**first, **{name: made(at) for name, made in differ.items()}} for at in range(NUMBER)]
        if model is PatternRow:
            version = next_version(work, DRAWER)
            rows = [{**row, "version": version} for row in rows]
        next_version(work, PROGRAMMES)
        work.execute(insert(table), rows)


def _named(at: int) -> str:
    return f"Paged {at:03}"


def _programmes(shop: Shop, **more: Any) -> None:
    _copies(shop, ProgrammeRow, name=_named, public_key=lambda _: None, **more)


def _patterns(shop: Shop) -> None:
    _copies(shop, PatternRow, name=_named, code=_named, code_key=lambda at: f"paged {at:03}")


def _people(shop: Shop) -> None:
    _copies(shop, PersonRow, name=_named, name_key=_named, role=lambda _: "viewer")


def _sew_alongs(shop: Shop) -> None:
    pattern = shop.now().drawer.records[0].id
    _copies(
        shop, SewAlongRow, name=_named, pattern_id=lambda _: pattern, cloth_ids=lambda _: [], public_key=lambda _: None,
        typed=lambda _: {"pattern": "One"}, changes=lambda _: 0,
    )  # fmt: skip


def _made(shop: Shop) -> None:
    state = shop.now()
    cloth, pattern = state.shelf.records[0].id, state.drawer.records[0].id
    _copies(
        shop, MakeRow, pattern_id=lambda _: pattern, cloth_id=lambda _: cloth, made_on=lambda _: date(2026, 1, 2),
        told=lambda at: {"by": _named(at)}, photo=lambda _: None, kept_at=lambda _: datetime(2026, 1, 2),
    )  # fmt: skip


LISTS = {
    "/programmes": _programmes,
    "/bin": lambda shop: _programmes(shop, binned_at=lambda at: datetime(2026, 1, 1, 0, 0, at % 60)),
    "/patterns": _patterns,
    "/sew-alongs": _sew_alongs,
    "/log": _made,
    "/people": _people,
}


@pytest.mark.parametrize("address", LISTS)
def test_a_long_list_is_turned_like_pages_and_each_thing_is_on_one(demo: Shop, address: str) -> None:
    client = client_of(demo, "owner")
    if address == "/people":  # with people in it the shop is not tried any more
        make_owner(demo, "Wren", WORD, "", datetime.now())
        assert client.post("/sign-in", data={"name": "Wren", "password": WORD}).status_code == 302
    LISTS[address](demo)
    found: list[str] = []
    path, turned = address, 0
    while path:
        text = client.get(path).text
        names = re.findall(r"Paged \d{3}", re.sub(r"<(script|form|datalist|select|button).*?</\1>", "", text, flags=re.DOTALL))
        names = list(dict.fromkeys(names))
        assert len(names) <= PAGE
        found += names
        turned += 1
        onward = re.search(r'href="([^"]+)" rel="next"', text)
        path = onward[1].replace("&amp;", "&") if onward else ""
    assert turned >= NUMBER // PAGE + 1
    assert sorted(found) == [_named(at) for at in range(NUMBER)]
    assert client.get(f"{address}?page=999").status_code == 200


def test_a_page_that_is_not_there_is_the_nearest_that_is() -> None:
    assert [turned_to(81, asked, 40) for asked in (-3, 0, 1, 3, 4, 10**9)] == [(1, 3), (1, 3), (1, 3), (3, 3), (3, 3), (3, 3)]
    assert turned_to(0, 7) == (1, 1)
    assert page_of(list(range(81)), 3).rows == [80]
