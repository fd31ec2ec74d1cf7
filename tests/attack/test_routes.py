"""A clumsy or hostile visitor: thousands of requests with odd values; none may be answered by an error of the program.

The walk starts at the front page, follows links and sends forms as a browser would, each with some values spoilt; beside
it every route is asked with odd numbers in its address. Longer by `./nematex test tests/attack --requests 20000`.
"""

from __future__ import annotations

import io
import json
import re
import time
from collections import Counter, deque
from random import Random
from urllib.parse import parse_qsl, urlsplit

import pytest
from conftest import tried_app
from flask.testing import FlaskClient
from memory import Watched
from odd import damaged, odd_text
from pages import Form, read_page
from werkzeug.routing import Rule
from wrong_pictures import WRONG

from nematex.usecases.cloth.exchange import cloths_csv, cloths_json, cloths_xlsx
from nematex.usecases.held.shop import Shop

pytestmark = pytest.mark.breaking

SLOW_S = 3.0
KEPT_LINKS, KEPT_FORMS = 400, 300
Sent = tuple[str, str, list[tuple[str, str]], dict[str, tuple[bytes, str]]]  # method, address, fields, files


class Visitor:
    """Sends requests to the application, and remembers the links and forms it has seen."""

    def __init__(self, shop: Shop, seed: int) -> None:
        self.random = Random(seed)
        app = tried_app(shop.database)
        app.config["WTF_CSRF_ENABLED"] = False
        app.config["PROPAGATE_EXCEPTIONS"] = False
        self.rules = [rule for rule in app.url_map.iter_rules() if rule.endpoint != "static"]
        self.client: FlaskClient = app.test_client()
        self.links: deque[str] = deque(["/"], KEPT_LINKS)
        self.forms: deque[Form] = deque(maxlen=KEPT_FORMS)
        records = shop.now().shelf.records[:12]
        self.lists = (cloths_csv(records).encode(), cloths_json(records).encode(), cloths_xlsx(records))
        self.codes: Counter[int] = Counter()
        self.failed: list[str] = []
        self.slow: list[str] = []

    def request(self) -> Sent:
        chosen = self.random.random()
        if chosen < 0.2 or not self.forms:
            return self._route(self.random.choice(self.rules))
        if chosen < 0.45:
            return self._link(self.random.choice(self.links))
        return self._form(self.random.choice(self.forms))

    def _value(self, value: str) -> str:
        chosen = self.random.random()
        return value if chosen < 0.6 else damaged(value, self.random) if chosen < 0.75 else odd_text(self.random)

    def _route(self, rule: Rule) -> Sent:
        def value(found: re.Match[str]) -> str:
            named = re.fullmatch(r"any\((.*)\)", found[1] or "")
            known = [each.strip() for each in named[1].split(",")] if named else ["1", "2", "7", "999999999", "9" * 30]
            return self.random.choice([*known, "x"])

        address = re.sub(r"<(?:(any\([^)]*\)|\w+):)?\w+>", value, rule.rule)
        fields = [
            (name, odd_text(self.random))
            for name in ("q", "page", "cloth", "part", "size", "act")
            if self.random.random() < 0.3
        ]
        method = self.random.choice(sorted((rule.methods or {"GET"}) & {"GET", "POST"}))
        return method, address, fields, {}

    def _link(self, link: str) -> Sent:
        split = urlsplit(link)
        pairs = [(name, self._value(value)) for name, value in parse_qsl(split.query, keep_blank_values=True)]
        return "GET", split.path, pairs, {}

    def _form(self, form: Form) -> Sent:
        fields = [(name, self._value(value)) for name, value in form.fields if self.random.random() < 0.95]
        files = {name: (self._file(), self.random.choice(("a.csv", "b.xlsx", "c.json", "d.png", "e"))) for name in form.files}
        split = urlsplit(form.action)
        more = parse_qsl(split.query, keep_blank_values=True)
        return form.method.upper(), split.path, fields + (more if form.method == "get" else []), files

    def _file(self) -> bytes:
        content = bytearray(self.random.choice((*self.lists, *WRONG.values(), b"", b"code,name\nA,blue lawn\n")))
        if content and self.random.random() < 0.5:
            for _ in range(self.random.randrange(1, 8)):
                content[self.random.randrange(len(content))] = self.random.randrange(256)
        return bytes(content)

    def send(self, sent: Sent) -> None:
        method, address, fields, files = sent
        begun = time.perf_counter()
        pairs = [(name, value.encode("utf-8", "surrogatepass").decode("utf-8", "replace")) for name, value in fields]
        if method == "GET":
            reply = self.client.get(address, query_string=pairs)
        else:
            data: dict[str, object] = {}
            for name, value in pairs:
                data.setdefault(name, []).append(value)  # type: ignore[attr-defined]
            data |= {name: (io.BytesIO(content), filename) for name, (content, filename) in files.items()}
            reply = self.client.post(address, data=data)
        self.codes[reply.status_code] += 1
        shortened = [(name, value if len(value) < 90 else f"{value[:40]}…{len(value)}") for name, value in pairs]
        said = f"{reply.status_code} {method} {address} {shortened} {list(files)}"
        if reply.status_code >= 500:
            self.failed.append(said)
        if time.perf_counter() - begun > SLOW_S:
            self.slow.append(f"{time.perf_counter() - begun:.1f} s {said}")
        if reply.status_code == 200 and reply.mimetype == "text/html":
            found = read_page(address, reply.text)
            self.links.extend(self.random.sample(found.links, min(6, len(found.links))))
            self.forms.extend(self.random.sample(found.forms, min(4, len(found.forms))))


@pytest.mark.parametrize("half", [0, 1])
def test_no_request_is_answered_by_an_error_of_the_program(demo: Shop, request: pytest.FixtureRequest, half: int) -> None:
    requests, seed = (int(request.config.getoption(name)) for name in ("--requests", "--seed"))
    visitor, watched = Visitor(demo, 2 * seed + half), Watched(requests // 2)
    for _ in range(requests // 2):
        visitor.send(visitor.request())
        watched.one_more()
    print(dict(sorted(visitor.codes.items())), "slow:", *visitor.slow, sep="\n")
    assert visitor.codes[200] > requests // 10
    assert not visitor.failed, "\n".join(visitor.failed)
    assert not watched.grown(), watched.grown()


ODD_JSON = (
    None,
    [],
    {},
    "x",
    1e308,
    -1,
    True,
    "9" * 5000,
    {"a": {"a": {"a": []}}},
    ["x"] * 3000,
    {"key": 7, "kind": [], "age": "soon"},
)


@pytest.mark.parametrize(
    "address", ["/programmes/1/air/takes", "/programmes/1/air/remote/{code}?after=9e9", "/remote/{code}/press"]
)
def test_what_is_sent_as_json_is_answered(demo: Shop, address: str) -> None:
    """Whole bodies, and fields of a right one spoilt one by one: kept, or refused in words."""
    visitor = Visitor(demo, 3)
    code = visitor.client.post("/programmes/1/air/remote").get_json()["code"]
    right = {
        "key": "take-000001", "started": 1_795_000_000_000, "plan": [{"title": "Opening", "kind": "opening", "seconds": 30.0}],
        "events": [{"key": "event-00001", "kind": "open", "at": 0.0, "part": 0}], "kind": "slip", "text": "", "age": 0.5,
        "part": 1, "title": "Opening", "clock": "0:01",
    }  # fmt: skip
    bodies = [json.dumps(each) for each in ODD_JSON] + ["{", "[" * 100_000, "", "\x00", '{"key": NaN}']
    bodies += [json.dumps({**right, name: odd}) for name in right for odd in (*ODD_JSON, odd_text(visitor.random))]
    for body in bodies:
        reply = visitor.client.post(address.format(code=code), data=body, content_type="application/json")
        assert reply.status_code < 500, body[:200]
