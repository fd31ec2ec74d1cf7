"""A benchmark times the page that was meant, or ends."""

from __future__ import annotations

import pytest

from nematex.command.benchmark.meant import HTML, PDF, NotThePage, asked, must_be, tried_by_owner
from nematex.store.database import Database
from nematex.usecases.held.shop import Shop
from nematex.usecases.programme.acts import save_programme
from nematex.web.app import create_app

pytestmark = pytest.mark.breaking


def test_the_door_is_not_the_page(database: Database) -> None:
    programme = save_programme(Shop(database), None, {"name": "Bench", "shown_on": "", "intro": ""})
    refused = create_app(database, "bench")
    refused.config["DEMO_ROLE"] = ""
    stranger = refused.test_client()
    client = tried_by_owner(database).test_client()
    for view, words in (("wall", "Bench"), ("together", "Colour and outfits"), ("set", "Who is left out?")):
        assert words.encode() in asked(client, f"/programmes/{programme}/{view}", HTML, words)
        with pytest.raises(NotThePage, match="answered 302"):
            asked(stranger, f"/programmes/{programme}/{view}", HTML, words)
    with pytest.raises(NotThePage, match="answered 404"):
        asked(client, "/programmes/999/wall", HTML)
    with pytest.raises(NotThePage, match="does not say 'another'"):
        asked(client, "/shelf", HTML, "another")
    with pytest.raises(NotThePage, match="not 200 application/pdf"):
        must_be("/book", 202, HTML, b"wait", PDF)
