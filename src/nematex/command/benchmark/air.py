"""On air, timed: the next place after a key, notes of 13 places, leaflet, and thirty phones on one public sew-along."""

from __future__ import annotations

import multiprocessing
import statistics
import threading
import time
import urllib.request
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from datetime import date, timedelta

import waitress.server
from flask import Flask

from nematex.command.benchmark.meant import HTML, PDF, asked, must_be
from nematex.command.browser import chromium
from nematex.store.records import Pick
from nematex.usecases.air.notes.texts import texts_of
from nematex.usecases.air.notes.told import told_of
from nematex.usecases.air.sew_along import acts as along
from nematex.usecases.held.shop import Shop
from nematex.usecases.programme import acts

PHONES, READS, PLACES, KEYS = 30, 8, 13, 60
# From the key to the frame after it: what the eye sees.
NEXT = """async () => {
  const spent = [];
  for (let n = 0; n < KEYS; n += 1) {
    const start = performance.now();
    window.dispatchEvent(new KeyboardEvent("keydown", { key: n % 12 < 6 ? "ArrowRight" : "ArrowLeft", bubbles: true }));
    await new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
    spent.push(performance.now() - start);
  }
  return spent;
}"""


def _p95(spent: Sequence[float]) -> float:
    return sorted(spent)[int(0.95 * len(spent)) - 1]


@contextmanager
def _served(app: Flask) -> Iterator[str]:
    server = waitress.server.create_server(app, host="127.0.0.1", port=0, threads=8)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{server.effective_port}"
    server.close()


def time_air(app: Flask, shop: Shop) -> None:
    """All of it on a shop that has patterns and cloths."""
    made = acts.save_programme(shop, None, {"name": "On air", "shown_on": "2027-05-10", "intro": ""})
    state = shop.now()
    picks = [Pick(0, state.shelf.records[7 * at].id, state.drawer.records[at].id) for at in range(PLACES)]
    acts.add_picks_apart(shop, made, picks)
    state = shop.now()
    programme = next(one for one in state.programmes if one.id == made)
    client = app.test_client()
    asked(client, f"/programmes/{made}", HTML, "On air")  # nobody writes notes of picks that were never looked at
    start = time.perf_counter()
    texts_of(shop, made, told_of(shop, state, programme, date(2027, 5, 1)))
    print(f"air: all notes of {PLACES} places in {time.perf_counter() - start:.2f} s (wanted under 1)")
    start = time.perf_counter()
    asked(client, f"/programmes/{made}/air/", HTML, "On air")
    print(f"air: the camera view of {PLACES} places opens in {time.perf_counter() - start:.2f} s, answers included")
    start = time.perf_counter()
    asked(client, f"/programmes/{made}/leaflet", PDF)
    print(f"air: leaflet in {time.perf_counter() - start:.1f} s (wanted under 5, in the background)")
    with _served(app) as base:
        _keys(f"{base}/programmes/{made}/air/")
        _phones(shop, base)


def _keys(address: str) -> None:
    with chromium() as browser:
        page = browser.new_page(viewport={"width": 1920, "height": 1080})
        page.goto(address)
        must_be(address, 200 if page.url == address else 302, HTML, page.title().encode(), HTML, "On air")
        page.keyboard.press("ArrowRight")
        spent: list[float] = page.evaluate(NEXT.replace("KEYS", str(KEYS)))
    said = f"median {statistics.median(spent):.0f} ms, p95 {_p95(spent):.0f} ms of {KEYS}"
    print(f"air: next place after a key, drawn: {said} (wanted under 50)")


def _phones(shop: Shop, base: str) -> None:
    state = shop.now()
    start = (date.today() + timedelta(days=30)).isoformat()
    typed = {
        "name": "All along",
        "pattern": state.drawer.records[0].code,
        "cloths": state.shelf.records[0].code,
        "start": start,
    }
    number = along.save(shop, state, None, {**typed, "makers": "20"})
    along.open_to_all(shop, number, True)
    kept = along.found(shop, number)
    heard: multiprocessing.Queue[list[float]] = multiprocessing.Queue()
    urllib.request.urlopen(f"{base}/along/{kept.public_key if kept else ''}", timeout=60).close()
    reading = multiprocessing.Process(target=_read, args=(f"{base}/along/{kept.public_key if kept else ''}", heard))
    reading.start()
    spent = heard.get(timeout=300)
    reading.join()
    said = f"median {statistics.median(spent):.0f} ms, p95 {_p95(spent):.0f} ms of {len(spent)}"
    print(f"air: {PHONES} phones read one public sew-along at once: {said} (wanted under 200), one web process")


def _read(address: str, heard: multiprocessing.Queue[list[float]]) -> None:
    """Thirty readers in a process of their own, each with a moment to read."""
    spent: list[float] = []

    def phone(at: int) -> None:
        time.sleep(at / PHONES)
        for _ in range(READS):
            start = time.perf_counter()
            with urllib.request.urlopen(address, timeout=60) as reply:
                must_be(address, reply.status, reply.headers["Content-Type"], reply.read(), HTML, "All along")
            spent.append(1000 * (time.perf_counter() - start))
            time.sleep(1.0)

    phones = [threading.Thread(target=phone, args=(at,)) for at in range(PHONES)]
    for each in phones:
        each.start()
    for each in phones:
        each.join()
    heard.put(spent)
