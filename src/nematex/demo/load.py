"""Loads Marrowstone Cloth Room into an empty database."""

from __future__ import annotations

import json
from datetime import date, datetime
from importlib.resources import files

from nematex.core.pattern.facts import Wish
from nematex.store.cloth.cloths import change_cloth
from nematex.store.cloth.readings import add_photo
from nematex.store.database import Database
from nematex.store.programme.programmes import add_pick, save_programme
from nematex.store.records import Photo, Pick
from nematex.store.settings import DEMO, put
from nematex.store.untouched import is_untouched
from nematex.usecases.air.made.log import save_make
from nematex.usecases.air.sew_along.acts import save as save_sew_along
from nematex.usecases.cloth.lists.importing import apply, send
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.overrides import decide
from nematex.usecases.judging.ranking import one_pairing
from nematex.usecases.pattern.importing import import_patterns
from nematex.usecases.photo.made_up import made_up_photo
from nematex.usecases.photo.swatch import SIMULATED

SHOP_NAME = "Marrowstone Cloth Room"
PHOTOGRAPHED = ("GM-101", "GM-108", "LF-308")


def _read(name: str) -> bytes:
    return files("nematex.demo").joinpath(name).read_bytes()


def load_demo(database: Database) -> bool:
    """Load the demo if the shop has neither cloth nor pattern; returns whether it did."""
    with database.work() as work:
        if not is_untouched(work):
            return False
    shop = Shop(database)
    found = apply(shop, send(shop, "cloths.csv", _read("cloths.csv")))
    saved, faults = import_patterns(shop, "patterns.json", _read("patterns.json"))
    if found is None or found.faults or faults or not saved:
        raise RuntimeError(f"the demo files have faults: {found.faults if found else ''} {faults}")
    _load_programmes(shop)
    _load_sew_alongs(shop)
    _load_hands(shop)
    _load_makes(shop)
    _photograph(shop)
    with database.work() as work:
        put(work, "shop", SHOP_NAME)
        put(work, DEMO, "1")
    return True


def _photograph(shop: Shop) -> None:
    """Made-up swatches of a few cloths; they are read when somebody looks at them."""
    shelf = shop.now().shelf
    with shop.database.work() as work:
        for record in shelf.records:
            if record.code in PHOTOGRAPHED:
                taken = made_up_photo(record, 1)
                found = {SIMULATED: True}
                number = add_photo(work, Photo(0, record.id, "swatch", taken.content, taken.px_per_cm, found))
                change_cloth(work, record.id, {"photo_id": number})


def _load_hands(shop: Shop) -> None:
    """What the made-up presenter found when she made things up."""
    state = shop.now()
    shelf, drawer = state.shelf, state.drawer
    cloths = {record.code: at for at, record in enumerate(shelf.records)}
    patterns = {record.code: record for record in drawer.records}
    for said in json.loads(_read("hands.json")):
        pattern, at = patterns[said["pattern"]], cloths[said["cloth"]]
        pairing = one_pairing(shop, state, pattern, shelf.cloths[at], Wish())
        given = {**said, "made": "1" if said["made"] else ""}
        decide(shop, pattern, shelf.records[at], pairing, given)


def _load_sew_alongs(shop: Shop) -> None:
    for typed in json.loads(_read("sew_alongs.json")):
        save_sew_along(shop, shop.now(), None, typed)


def _load_makes(shop: Shop) -> None:
    for given in json.loads(_read("makes.json")):
        save_make(shop, shop.now(), None, given, datetime.fromisoformat(f"{given['made_on']}T18:00"))


def _load_programmes(shop: Shop) -> None:
    cloths = {record.code: record.id for record in shop.now().shelf.records}
    patterns = {record.code: record.id for record in shop.now().drawer.records}
    with shop.database.work() as work:
        for programme in json.loads(_read("programmes.json")):
            shown_on = date.fromisoformat(programme["shown_on"])
            programme_id = save_programme(work, programme["name"], shown_on, programme["intro"])
            for pick in programme["picks"]:
                chosen = {name: pick[name] for name in ("line", "view", "size", "look", "school") if name in pick}
                add_pick(work, programme_id, Pick(0, cloths[pick["cloth"]], patterns[pick["pattern"]], **chosen))
                work.flush()
