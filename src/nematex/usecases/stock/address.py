"""Where the shop's stock is counted."""

from __future__ import annotations

from urllib.parse import urlsplit

from nematex.core.errors import FieldFault
from nematex.usecases.forms.stale import must_be_as_shown
from nematex.usecases.held.shop import Shop
from nematex.usecases.stock.polling import SETTING, set_feed

LONGEST = 300


def choose_feed(shop: Shop, text: str, shown: str | None = None) -> None:
    """Ask this address from now on, or nobody where it is empty; raises FieldFault."""
    address = text.strip()
    try:
        found = urlsplit(address)
        fits = not address or (found.scheme in ("http", "https") and bool(found.hostname) and found.port != 0)
    except ValueError:
        fits = False
    if not fits or len(address) > LONGEST or not address.isprintable() or " " in address:
        rule = f"is no address; write it like https://till.example/stock, of at most {LONGEST} letters"
        raise FieldFault("stock feed", address[:60], rule)
    must_be_as_shown("stock feed", shown, shop.now().settings.get(SETTING, ""), address)
    set_feed(shop, address)
