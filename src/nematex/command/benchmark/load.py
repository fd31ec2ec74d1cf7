"""A mixed load on a running shop, from this machine to itself: people who look, judge, pick and correct at once.

Each client is a process of its own and asks the next page when it has the last; so what is printed is how many requests
the shop can answer, not how many people it feels like. It ends by itself.
"""

from __future__ import annotations

import random
import re
import statistics
import time
from concurrent.futures import ProcessPoolExecutor
from html.parser import HTMLParser
from http.client import HTTPConnection
from urllib.parse import urlencode, urlsplit

CLIENTS, SECONDS = 8, 12.0
FORM = {"Content-Type": "application/x-www-form-urlencoded"}
# What is done, and how often of a hundred times.
MIX = (
    ("shelf", 16), ("cloth", 18), ("pattern", 14), ("for a pattern", 12), ("for a cloth", 12), ("one pairing", 8),
    ("programme", 8), ("home", 4), ("pick", 4), ("correct a cloth", 4),
)  # fmt: skip


class _Form(HTMLParser):
    """The fields of the form that saves, as a browser would send them."""

    def __init__(self) -> None:
        super().__init__()
        self.fields: dict[str, str] = {}
        self._open = ""

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        given = dict(attrs)
        name = given.get("name") or ""
        if tag == "input" and given.get("type") not in ("submit", "checkbox", "file"):
            self.fields[name] = given.get("value") or ""
        elif tag in ("textarea", "select"):
            self._open = name
            self.fields.setdefault(name, "")
        elif tag == "option" and "selected" in given and self._open:
            self.fields[self._open] = given.get("value") or ""

    def handle_data(self, data: str) -> None:
        if self._open and self.get_starttag_text() and self.get_starttag_text().startswith("<textarea"):  # type: ignore[union-attr]
            self.fields[self._open] += data

    def handle_endtag(self, tag: str) -> None:
        if tag in ("textarea", "select"):
            self._open = ""


class _Client:
    """One person: a connection, its cookies, and what is known of the shop's numbers."""

    def __init__(self, port: int, seed: int, cloths: list[int], patterns: list[int]) -> None:
        self.connection = HTTPConnection("127.0.0.1", port, timeout=120)
        self.random = random.Random(seed)
        self.cloths, self.patterns = cloths, patterns
        self.cookie = ""
        self.token = ""

    def ask(self, method: str, path: str, fields: dict[str, str] | None = None) -> tuple[int, str]:
        headers = {"Cookie": self.cookie} if self.cookie else {}
        body = urlencode(fields) if fields is not None else None
        self.connection.request(method, path, body, headers | (FORM if body else {}))
        reply = self.connection.getresponse()
        text = reply.read().decode(errors="replace")
        if sent := reply.getheader("Set-Cookie"):
            self.cookie = sent.split(";")[0]
        if found := re.search(r'name="csrf_token" value="([^"]+)"', text):
            self.token = found[1]
        return reply.status, text

    def act(self, what: str) -> int:
        cloth, pattern = self.random.choice(self.cloths), self.random.choice(self.patterns)
        pages = {
            "shelf": f"/shelf?q={self.random.choice(('', 'lawn', 'jersey', 'linen'))}&page={self.random.randint(1, 3)}",
            "cloth": f"/shelf/{cloth}",
            "pattern": f"/patterns/{pattern}",
            "for a pattern": f"/pairing/pattern/{pattern}",
            "for a cloth": f"/pairing/cloth/{cloth}",
            "one pairing": f"/pairing/one/{pattern}/{cloth}",
            "programme": f"/programmes/{self.random.randint(1, 5)}",
            "home": "/",
        }
        if what in pages:
            return self.ask("GET", pages[what])[0]
        if what == "pick":
            given = {"csrf_token": self.token, "programme": "1", "cloth": str(cloth), "pattern": str(pattern)}
            return self.ask("POST", "/programmes/picks", given)[0]
        _, page = self.ask("GET", f"/shelf/{cloth}/edit")
        form = _Form()
        form.feed(page)
        fields = {**form.fields, "csrf_token": self.token, "notes": f"seen {self.random.randint(0, 10**6)}"}
        return self.ask("POST", f"/shelf/{cloth}/edit", fields)[0]


def _run(port: int, seed: int, seconds: float, cloths: list[int], patterns: list[int]) -> list[tuple[str, int, float]]:
    """One client's acts: what, status, seconds."""
    client = _Client(port, seed, cloths, patterns)
    client.ask("GET", "/shelf/new")
    done, until = [], time.monotonic() + seconds
    names, weights = zip(*MIX, strict=True)
    while time.monotonic() < until:
        (what,) = client.random.choices(names, weights)
        begun = time.monotonic()
        status = client.act(what)
        done.append((what, status, time.monotonic() - begun))
    return done


def load(address: str, clients: int = CLIENTS, seconds: float = SECONDS) -> None:
    """Put a mixed load on the shop at this address on 127.0.0.1, and print what it answered."""
    port = urlsplit(address).port or 0
    first = _Client(port, 0, [1], [1])
    patterns = sorted({int(n) for n in re.findall(r"/patterns/(\d+)", first.ask("GET", "/patterns")[1])})
    pages = [first.ask("GET", f"/shelf?page={page}")[1] for page in range(1, 9)]
    cloths = sorted({int(number) for page in pages for number in re.findall(r"/shelf/(\d+)", page)})
    with ProcessPoolExecutor(clients) as pool:
        runs = [pool.submit(_run, port, seed, seconds, cloths, patterns) for seed in range(1, clients + 1)]
        done = [act for run in runs for act in run.result()]
    times = sorted(act[2] * 1000 for act in done)
    failed = sum(act[1] >= 500 for act in done)
    quantile = statistics.quantiles(times, n=100) if len(times) > 1 else [0.0] * 99
    print(
        f"load: {clients} clients at once for {seconds:.0f} s: {len(done) / seconds:.1f} acts a second, "
        f"p50 {quantile[49]:.0f} ms, p95 {quantile[94]:.0f} ms; {failed} failed"
    )
