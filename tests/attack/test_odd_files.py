"""Odd files, sent by every form that takes one: each is read, or refused in words. `--files 2000` sends as many."""

from __future__ import annotations

import io
import json
import re
import zipfile
from random import Random

import pytest
from conftest import tried_app
from memory import Watched
from odd import odd_text
from pages import Form, read_page
from wrong_pictures import WRONG, jpeg

from nematex.usecases.cloth.exchange import cloths_csv, cloths_json, cloths_xlsx
from nematex.usecases.held.shop import Shop
from nematex.usecases.lay.pieces_file import pieces_dxf, pieces_svg
from nematex.usecases.lay.text import read_task
from nematex.usecases.pattern.exchange import patterns_csv, patterns_json, patterns_xlsx
from nematex.usecases.tasks.runners import at_once

# A library warns of damaged pictures; only here is a warning a fault.
pytestmark = [pytest.mark.breaking, pytest.mark.filterwarnings("ignore::UserWarning")]

# Pages from which every form that takes a file is one or two steps away.
FROM = ("/", "/import", "/patterns", "/lay", "/shelf", "/programmes", "/log", "/bench")
LOOKED_AT, OF_A_KIND = 250, 3
ENDINGS = (".csv", ".json", ".xlsx", ".ods", ".svg", ".dxf", ".png", ".jpg", ".webp", "", ".exe", ".tar.gz")
SKIRT = {"id": "skirt front", "outline_cm": [[0, 0], [60, 0], [60, 30], [0, 22]], "count": 2, "kind": "single"}
UNFORESEEN = "Something unforeseen stopped it"


def spreadsheet(rows: str) -> bytes:
    """An OpenDocument spreadsheet with this inside."""
    named = " ".join(f'xmlns:{each}="urn:oasis:names:tc:opendocument:xmlns:{each}:1.0"' for each in ("office", "table", "text"))
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        archive.writestr("mimetype", "application/vnd.oasis.opendocument.spreadsheet")
        body = f"<office:body><office:spreadsheet>{rows}</office:spreadsheet></office:body>"
        archive.writestr("content.xml", f"<office:document-content {named}>{body}</office:document-content>")
    return out.getvalue()


def sound_files(shop: Shop) -> list[bytes]:
    """One of each kind that the shop reads, and some that it does not."""
    state = shop.now()
    cloths, patterns = state.shelf.records[:9], state.drawer.records[:6]
    pieces = [each.piece() for each in read_task(json.dumps({"width_cm": 140, "pieces": [SKIRT]})).pieces]
    cell = '<table:table-cell table:number-columns-repeated="3"><text:p>lawn</text:p></table:table-cell>'
    return [
        cloths_csv(cloths).encode(),
        cloths_csv(cloths).encode("utf-16"),
        cloths_json(cloths).encode(),
        cloths_xlsx(cloths),
        patterns_csv(patterns).encode(),
        patterns_json(patterns).encode(),
        patterns_xlsx(patterns),
        spreadsheet(f'<table:table table:name="a"><table:table-row>{cell}</table:table-row></table:table>'),
        pieces_svg(pieces).encode(),
        pieces_dxf(pieces).encode(),
        jpeg(),
        jpeg(quality=20, exif=b"Exif\0\0MM\0*\0\0\0\x08\0\x01"),
        *WRONG.values(),
    ]


def bent(content: bytes, random: Random) -> bytes:
    """A file with letters turned, a piece cut, doubled or replaced by something odd; now and then as it was."""
    told = bytearray(content)
    for _ in range(random.randrange(5)):
        at = random.randrange(len(told) + 1)
        end = min(len(told), at + random.choice((1, 4, 40, 4000)))
        way = random.randrange(5)
        if way == 0 and told:
            told[min(at, len(told) - 1)] = random.randrange(256)
        elif way == 1:
            del told[at:end]
        elif way == 2:
            told[at:at] = told[at:end] * random.choice((1, 3, 50))
        elif way == 3:
            told[at:end] = odd_text(random).encode("utf-8", "replace")[:9000]
        else:
            told = told[:end]
    return bytes(told)


class Sender:
    """Somebody who sends files by every form of the shop that takes one."""

    def __init__(self, shop: Shop, seed: int) -> None:
        self.random = Random(seed)
        app = tried_app(shop.database)
        app.config["WTF_CSRF_ENABLED"] = app.config["PROPAGATE_EXCEPTIONS"] = False
        self.client = app.test_client()
        self.sound = sound_files(shop)
        self.forms = self._forms()
        own: Shop = app.extensions["shop"]
        own.enqueue = at_once(own)  # what the worker would read is read at once

    def _forms(self) -> list[Form]:
        found: dict[str, list[Form]] = {}
        waiting, seen = list(FROM), set[str]()
        while waiting and len(seen) < LOOKED_AT:
            link = waiting.pop(0).partition("#")[0]
            if link in seen:
                continue
            seen.add(link)
            reply = self.client.get(link)
            if reply.status_code == 200 and reply.mimetype == "text/html":
                page = read_page(link, reply.text)
                waiting.extend(self.random.sample(page.links, min(12, len(page.links))))
                for form in page.forms:
                    if form.files:
                        found.setdefault(re.sub(r"\d+", "N", form.action), []).append(form)
        assert len(found) >= 5, sorted(found)
        return [form for forms in found.values() for form in forms[:OF_A_KIND]]

    def send(self, form: Form) -> str:
        """Send one, and go where the answer leads; what went wrong, or ""."""
        content = bent(self.random.choice(self.sound), self.random)
        odd = odd_text(self.random)[:80].encode("utf-8", "replace").decode()  # half a sign cannot be sent
        named = self.random.choice(("a", "прайс", odd)) + self.random.choice(ENDINGS)
        data: dict[str, object] = dict(form.fields)
        data |= {name: (io.BytesIO(content), named) for name in form.files}
        reply = self.client.post(form.action, data=data)
        if reply.status_code in (302, 303) and reply.location:
            reply = self.client.get(reply.location)
        well = reply.status_code < 500 and UNFORESEEN not in reply.text
        return "" if well else f"{reply.status_code} {form.action} {named[:40]!r} {len(content)} bytes {content[:60]!r}"


def test_no_file_is_answered_by_an_error_of_the_program(
    demo: Shop, request: pytest.FixtureRequest, caplog: pytest.LogCaptureFixture
) -> None:
    files, seed = (int(request.config.getoption(name)) for name in ("--files", "--seed"))
    sender, watched = Sender(demo, seed), Watched(files)
    failed = []
    for number in range(files):
        failed.append(sender.send(sender.forms[number % len(sender.forms)]))
        watched.one_more()
    assert not [each for each in failed if each], "\n".join(filter(None, failed))
    assert not [each for each in caplog.records if each.exc_info], caplog.text[-3000:]
    assert not watched.grown(), watched.grown()
