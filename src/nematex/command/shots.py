"""`./nematex shots`: one picture per main view, from the running demo shop, for docs/screenshots."""

from __future__ import annotations

import os
from pathlib import Path

from nematex.command.browser import chromium
from nematex.command.service import database_url, start
from nematex.store.database import Database
from nematex.usecases.shelf import Shop

SIZE = {"width": 1280, "height": 800}
PHONE = {"width": 390, "height": 844}


def _views(shop: Shop) -> dict[str, tuple[str, dict[str, int]]]:
    """Name → address and window size; looked up by name, since ids differ between shops."""
    cloths = {record.code: record.id for record in shop.shelf().records}
    patterns = {record.code: record.id for record in shop.drawer().records}
    skirt, challis, slub = patterns["TP-21"], cloths["LF-301"], cloths["OW-204"]
    return {
        "home": ("/", SIZE),
        "shelf": ("/shelf", SIZE),
        "cloth": (f"/shelf/{challis}", SIZE),
        "patterns": ("/patterns", SIZE),
        "pattern": (f"/patterns/{skirt}", SIZE),
        "pairing-pattern": (f"/pairing/pattern/{skirt}?look=flowing&view=B+midi%2C+3+tiers&size=16", SIZE),
        "pairing-cloth": (f"/pairing/cloth/{challis}", SIZE),
        "pairing-one": (f"/pairing/one/{patterns['OR-14']}/{slub}", SIZE),
        "pairing-phone": (f"/pairing/one/{skirt}/{challis}", PHONE),
        "programme": ("/programmes/1", SIZE),
        "notes": ("/programmes/1/notes", SIZE),
        "import": ("/import", SIZE),
    }


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
            page = browser.new_page(viewport=size)  # type: ignore[arg-type]
            page.goto(base + address)
            page.evaluate("document.fonts.ready")
            file = folder / f"{name.strip('/').replace('/', '-').split('?')[0] or 'front'}.png"
            page.screenshot(path=file)
            print(file)
            page.close()
    return 0


def _port() -> int:
    from nematex.command.service import _state

    return int(_state()["web_port"])
