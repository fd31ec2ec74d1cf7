"""`./nematex shots`: one picture per main view, from the running demo shop, for docs/screenshots."""

from __future__ import annotations

import os
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from nematex.command.browser import chromium
from nematex.command.service.database import database_url
from nematex.command.service.starting import start
from nematex.store.database import Database
from nematex.usecases.cloth.lists.importing import send
from nematex.usecases.held.shop import Shop

if TYPE_CHECKING:
    from playwright.sync_api import Page

SIZE = {"width": 1280, "height": 800}
HUNG = ("LF-301", "GM-106")
ENVELOPE = """TP-30 Dotterel smock by Tallowby Pattern Works
View A: knee length with gathers and long sleeves
View B: midi, shirt collar, elastic cuffs
Suggested fabrics: light to medium weight wovens such as lawn, challis, double gauze or light linen.
Not suitable for stiff fabrics.
Sizes 8 10 12 14 16
Bust 84 88 92 97 102 cm
Hip 90 94 98 103 108
Finished bust 100 104 108 113 118
Fabric required
View A
115 cm  2.6 2.6 2.7 2.8 2.8 m
150 cm  1.9 1.9 2.0 2.1 2.1
View B
45"  3 1/8 3 1/8 3¼ 3⅜ 3⅜ yd
Notions: 5 buttons 12 mm; 1 m elastic 6 mm
Level: confident beginner
We hope you like it!"""
PHONE = {"width": 390, "height": 844}


def _views(shop: Shop) -> dict[str, tuple[str, dict[str, int]]]:
    """Name → address and window size; looked up by name, since ids differ between shops."""
    cloths = {record.code: record.id for record in shop.now().shelf.records}
    patterns = {record.code: record.id for record in shop.now().drawer.records}
    skirt, challis, slub = patterns["TP-21"], cloths["LF-301"], cloths["OW-204"]
    return {
        "home": ("/", SIZE),
        "shelf": ("/shelf", SIZE),
        "cloth": (f"/shelf/{challis}", SIZE),
        "bench": (f"/bench/{cloths['LF-302']}/ramp", SIZE),
        "paste": ("/patterns/new", SIZE),
        "why": (f"/patterns/{skirt}/why", SIZE),
        "pairing-pattern": (f"/pairing/pattern/{skirt}?look=flowing&view=B+midi%2C+3+tiers&size=16", SIZE),
        "pairing-one": (f"/pairing/one/{patterns['OR-14']}/{slub}", SIZE),
        "wall": ("/programmes/1/wall", SIZE),
        "lay": (f"/lay/{patterns['OR-11']}/{cloths['LF-301']}", SIZE),
        "together": ("/programmes/2/together", SIZE),
        "hang": (f"/hang?pattern={skirt}&look=20&{'&'.join(f'cloth={cloths[code]}' for code in HUNG)}", SIZE),
        "matrix": ("/matrix", SIZE),
        "pairing-phone": (f"/pairing/pattern/{skirt}?look=flowing", PHONE),
        "programme": ("/programmes/1", SIZE),
        "camera": ("/programmes/1/air/", SIZE),
        "along": ("/sew-alongs/1", SIZE),
        "notes": ("/programmes/1/notes", SIZE),
        "import-preview": ("", SIZE),  # sent when its picture is wanted
    }


def _measure(page: Page) -> None:
    """A measurement typed and looked at, for the picture of the bench."""
    for label, value in (("along, face up", "2.6"), ("across, face up", "2.4")):
        page.get_by_label(f"Strip cut {label}, 1 in cm").fill(value)
    page.get_by_role("button", name="What does it come to?").click()


def _paste(page: Page) -> None:
    """An envelope pasted and read, for the picture of the form."""
    page.get_by_label("The envelope, pasted").fill(ENVELOPE)
    page.get_by_role("button", name="Read it into the form").click()


def _lay(page: Page) -> None:
    """A pairing laid out, for the picture of the lay."""
    page.get_by_label("Take").select_option("15")
    page.get_by_role("button", name="Lay it out").click()
    page.locator(".by-hand").wait_for(timeout=90_000)


def _film(page: Page) -> None:
    """The third place of a take, for the picture of the camera view."""
    for _ in range(4):
        page.keyboard.press("ArrowRight")
    page.keyboard.press("Space")


ACTS: dict[str, Callable[[Page], None]] = {"bench": _measure, "paste": _paste, "lay": _lay, "camera": _film}


def _messy_upload(shop: Shop) -> int:
    """A kept, not applied, list with faults and changes, for the picture of the preview."""
    rows = (
        "Art. No;Fabric;Composition;Width;Weight;Price;In stock",
        'WB-01;Gorse path linen cotton;55% linen 45% cotton;150cm/59";220 g/m2;£12.50/m;23,5 m',
        "GM-106;Slate Roof poplin;100% cotton;142;118 gsm;£9.90/m;41 m",
        "WB-02;Puddle light denim;100% cotton;58 in;6.5 oz;14.45 per quarter yard;12 yds",
        "WB-04;Widow's lawn;100% cotton;150cm/45\";80;£9/m;4",
        "WB-08;The nameless one;;140;80;=1+1;4",
    )
    return send(shop, "weaverbird-autumn.csv", "\n".join(rows).encode("cp1252"), "Low Ferry Textiles")


def run_shots(names: list[str]) -> int:
    """Take the named pictures, or all of them; a name with a slash is an address, for a quick look."""
    start(None, True)
    shop = Shop(Database(database_url()))
    base = f"http://127.0.0.1:{_port()}"
    folder = Path(os.environ.get("NEMATEX_SHOTS", Path(os.environ["NEMATEX_HOME"]) / "docs/screenshots"))
    folder.mkdir(parents=True, exist_ok=True)
    views = _views(shop)
    wanted = {name: views.get(name, (name, SIZE)) for name in names} if names else views
    with chromium() as browser:
        for name, (address, size) in wanted.items():
            page = browser.new_page(viewport=size, reduced_motion="reduce")  # type: ignore[arg-type]
            if not address:
                page.goto(base)
                page.get_by_role("button", name="buyer").click()  # whose work price lists are
            page.goto(base + (address or f"/import/{_messy_upload(shop)}"))
            if name in ACTS:
                ACTS[name](page)
            page.wait_for_load_state("networkidle")
            page.evaluate("document.fonts.ready")
            page.evaluate("scrollTo({top: 0, behavior: 'instant'})")
            file = folder / f"{name.strip('/').replace('/', '-').split('?')[0] or 'front'}.png"
            page.screenshot(path=file)
            print(file)
            page.close()
    return 0


def _port() -> int:
    from nematex.command.service.state import read_state

    return int(read_state()["web_port"])
