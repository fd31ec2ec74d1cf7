"""The stock feed over the real HTTP: believed, reserved, late, down, cut off, lying; nothing is lost and the pages say so."""

from __future__ import annotations

import json
import threading
import time
from collections.abc import Iterator
from contextlib import suppress
from datetime import UTC, datetime, timedelta, timezone
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path

import pytest

from nematex.core.errors import FieldFault
from nematex.devices.simulated_till import MODES, Till, popularity
from nematex.devices.stock_feed import FeedDown, HttpStockFeed, read_answer
from nematex.devices.till_service import till_app
from nematex.store.cloth.reservations import give_back, reservations, reserve
from nematex.usecases.held.shop import Shop
from nematex.usecases.stock.address import choose_feed
from nematex.usecases.stock.polling import poll
from nematex.usecases.stock.selling import feed_said, sellers

NOW = datetime(2026, 11, 26, 12, 0)


class Served:
    """A feed on loopback that sends what it is told to."""

    def __init__(self) -> None:
        self.content, self.status, self.cut, self.after_s = b"", 200, False, 0.0
        outer = self

        class Handler(BaseHTTPRequestHandler):
            def do_GET(self) -> None:
                time.sleep(outer.after_s)
                self.send_response(outer.status)
                self.send_header("Content-Length", str(len(outer.content) + (50 if outer.cut else 0)))
                self.end_headers()
                with suppress(OSError):  # who asked has given up
                    self.wfile.write(outer.content)

            def log_message(self, *args: object) -> None:
                pass

        self.server = ThreadingHTTPServer(("127.0.0.1", 0), Handler)
        threading.Thread(target=self.server.serve_forever, daemon=True).start()

    @property
    def feed(self) -> HttpStockFeed:
        return HttpStockFeed(f"http://127.0.0.1:{self.server.server_port}/stock", 2.0)

    def tell(self, levels: dict[str, object], at: datetime = NOW) -> None:
        rows = [{"code": code, "metres": metres} for code, metres in levels.items()]
        self.content = json.dumps({"at": at.isoformat(), "levels": rows}).encode()


@pytest.fixture
def served() -> Iterator[Served]:
    found = Served()
    yield found
    found.server.shutdown()
    found.server.server_close()


def stock(shop: Shop, code: str) -> float | None:
    return next(record.stock_m for record in shop.now().shelf.records if record.code == code)


def test_levels_come_onto_the_shelf_less_what_is_reserved(demo: Shop, served: Served) -> None:
    cloth = next(record for record in demo.now().shelf.records if record.code == "LF-304")
    with demo.database.work() as work:
        assert reserve(work, cloth.id, 4.0, "kits")
    served.tell({"LF-304": 15.0, "GM-101": 3.2})
    assert poll(demo, served.feed, NOW) == 2
    assert (stock(demo, "LF-304"), stock(demo, "GM-101")) == (11.0, 3.2)
    with demo.database.work() as work:
        give_back(work, reservations(work, cloth.id)[0].id)
    assert stock(demo, "LF-304") == 15.0
    assert poll(demo, served.feed, NOW) == 0  # the till counts the same, and nothing is held any more


def test_a_poll_that_changes_nothing_leaves_the_shelf_alone(demo: Shop, served: Served) -> None:
    served.tell({"LF-304": 15.0})
    poll(demo, served.feed, NOW)
    before = demo.now()
    assert poll(demo, served.feed, NOW + timedelta(minutes=1)) == 0
    assert demo.now().shelf is before.shelf
    served.tell({"LF-304": 12.0})
    poll(demo, served.feed, NOW + timedelta(minutes=2))
    after = demo.now()
    place = after.shelf.place[next(record.id for record in after.shelf.records if record.code == "LF-304")]
    assert after.shelf.records[place].stock_m == 12.0
    assert after.shelf.cloths[place] is before.shelf.cloths[place]  # it is judged as before


@pytest.mark.parametrize(
    ("content", "status", "says"),
    [
        (b"closed", 503, "answered with an error, 503"),
        (b"<html>soon</html>", 200, "no JSON"),
        (b"[1, 2]", 200, "sent no levels"),
        (b'{"levels": "all"}', 200, "sent no levels"),
        (b"[" * 100_000, 200, "no JSON"),
    ],
)
def test_a_feed_that_says_nothing_leaves_every_stock_as_it_was(
    demo: Shop, served: Served, content: bytes, status: int, says: str
) -> None:
    served.tell({"LF-304": 15.0})
    poll(demo, served.feed, NOW)
    choose_feed(demo, served.feed.url)
    served.content, served.status = content, status
    assert poll(demo, served.feed, NOW + timedelta(minutes=5)) == 0
    assert stock(demo, "LF-304") == 15.0
    said = feed_said(demo, demo.now(), NOW + timedelta(minutes=6))
    assert said
    assert says in said.wrong
    assert said.as_of == NOW


def test_a_feed_that_is_slow_is_given_up_and_says_so(served: Served) -> None:
    served.tell({"LF-304": 15.0})
    served.after_s = 1.5
    with pytest.raises(FeedDown, match=r"did not answer within 0\.2 seconds"):
        HttpStockFeed(served.feed.url, 0.2).levels()
    assert served.feed.levels().rows  # with more patience it answers


def test_a_feed_that_is_killed_cut_off_or_too_late_is_said(demo: Shop, served: Served) -> None:
    served.tell({"LF-304": 15.0})
    served.cut = True
    with pytest.raises(FeedDown):
        served.feed.levels()
    served.server.shutdown()
    served.server.server_close()
    with pytest.raises(FeedDown, match="cannot be reached"):
        served.feed.levels()
    choose_feed(demo, served.feed.url)
    poll(demo, served.feed, NOW)
    late = feed_said(demo, demo.now(), NOW + timedelta(minutes=20))
    assert late
    assert "the worker does not run" in late.wrong


def test_lies_are_refused_line_by_line_and_old_figures_are_said(demo: Shop, served: Served) -> None:
    choose_feed(demo, served.feed.url)
    before = stock(demo, "GM-101")
    served.tell({"GM-101": -3, "LF-304": 7.0, "NOPE": 2.0})
    poll(demo, served.feed, NOW)
    assert (stock(demo, "GM-101"), stock(demo, "LF-304")) == (before, 7.0)
    said = feed_said(demo, demo.now(), NOW)
    assert said
    assert said.wrong.startswith("2 lines of the stock feed are no stock")
    served.tell({"LF-304": 6.0}, at=NOW - timedelta(hours=5))
    poll(demo, served.feed, NOW)
    said = feed_said(demo, demo.now(), NOW)
    assert said
    assert "late" in said.wrong
    assert said.as_of == NOW - timedelta(hours=5)


def test_what_sells_is_said_with_how_long_it_lasts(demo: Shop, served: Served) -> None:
    for hours, metres in ((0, 20.0), (24, 16.0), (48, 14.0)):
        served.tell({"LF-304": metres})
        poll(demo, served.feed, NOW + timedelta(hours=hours))
    (found,) = sellers(demo, demo.now(), NOW + timedelta(hours=48))
    assert found.record.code == "LF-304"
    assert found.sells.sold_m == 6.0
    assert found.sells.cover_days == pytest.approx(14 / 3)  # 6 m in two days, 14 m left


@pytest.mark.parametrize("address", ["till", "ftp://till/stock", "http://", "http://a b/", "http://till:99999999/", "x" * 400])
def test_an_address_that_is_none_is_refused(demo: Shop, address: str) -> None:
    with pytest.raises(FieldFault, match="is no address"):
        choose_feed(demo, address)


def test_the_simulated_till_sells_the_popular_first_and_restocks_late(tmp_path: Path) -> None:
    codes = {f"C-{number}": (40.0, number % 2 == 0) for number in range(60)}
    till = Till(tmp_path / "till.json", lambda: codes)
    till.pass_days(10)
    sold = {code: 40.0 - each.metres for code, each in till.cloths.items()}
    liked = sorted(codes, key=popularity)
    assert sum(sold[code] for code in liked[40:]) > 2 * sum(sold[code] for code in liked[:20])
    for _ in range(30):
        till.pass_days(10)
    again = Till(tmp_path / "till.json", lambda: codes)  # it goes on where it was
    assert {code: each.metres for code, each in again.cloths.items()} == {
        code: each.metres for code, each in till.cloths.items()
    }
    gone = [code for code in liked[40:] if not codes[code][1]]
    assert all(till.cloths[code].metres == 0 for code in gone)  # deadstock is never restocked
    assert any(till.cloths[code].metres > 40 or till.cloths[code].due for code in liked[40:] if codes[code][1])


def test_the_till_behaves_as_it_is_told(tmp_path: Path) -> None:
    till = Till(tmp_path / "till.json", lambda: {"A": (5.0, True), "B": (6.0, True)})
    client = till_app(till).test_client()
    assert read_answer(client.get("/stock").data).rows == [{"code": "A", "metres": 5.0}, {"code": "B", "metres": 6.0}]
    assert client.post("/act", json={"sell": "A"}).status_code == 200
    assert client.post("/act", json={"sell": "C"}).status_code == 400
    assert client.post("/act", json={"mode": "asleep"}).status_code == 400
    for mode in MODES:
        if mode != "slow":
            assert client.post("/act", json={"mode": mode}).status_code == 200
            assert client.get("/stock").status_code == (503 if mode == "down" else 200)
    (tmp_path / "till.json").write_text("{damaged")
    assert Till(tmp_path / "till.json", lambda: {"A": (5.0, True)}).answer()["levels"] == [{"code": "A", "metres": 5.0}]


def test_a_time_with_a_zone_is_the_same_moment_here() -> None:
    here = datetime(2026, 11, 26, 12, 0).astimezone()
    for zone in (UTC, timezone(timedelta(hours=9))):
        told = json.dumps({"at": here.astimezone(zone).isoformat(), "levels": []}).encode()
        assert read_answer(told).at == NOW
    for odd in ("soon", 5, "0001-01-01T00:00:00+14:00", None):
        assert read_answer(json.dumps({"at": odd, "levels": []}).encode()).at is None


def test_rows_as_deep_as_json_goes_are_refused_in_few_letters(demo: Shop, served: Served) -> None:
    served.content = b'{"levels": [' + b"[" * 900 + b"]" * 900 + b', {"code": "LF-304", "metres": ' + b"9" * 400 + b"}]}"
    assert poll(demo, served.feed, NOW) == 0
    choose_feed(demo, served.feed.url)
    said = feed_said(demo, demo.now(), NOW)
    assert said
    assert said.wrong.startswith("2 lines")
