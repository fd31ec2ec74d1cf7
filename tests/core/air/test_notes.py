"""What goes into notes: Markdown held against a CommonMark reader from outside (markdown-it-py) and an HTML5 parser (html5lib);
claims, sources and changes by hand (rules of labelling from memory, see data/claims.csv)."""

from __future__ import annotations

import html5lib
import pytest
from hypothesis import given
from hypothesis import strategies as st
from markdown_it import MarkdownIt

from nematex.core.air.notes.changes import Change, changes, facts_told
from nematex.core.air.notes.claims import Shown, makers_named, not_whole, other_prices, ungrounded
from nematex.core.air.notes.kinds import fitted
from nematex.core.air.notes.markup import escape_markdown
from nematex.core.cloth.fibres import read_fibres
from nematex.core.errors import FieldFault
from nematex.core.sources import Source, read_sources
from nematex.tables import claims, trade_tables

READER = MarkdownIt("commonmark", {"html": False})
FIBRES = trade_tables().fibres


def text_of(html: str) -> str:
    return "".join(html5lib.parseFragment(html, namespaceHTMLElements=False).itertext())


@given(st.text(max_size=80))
def test_any_text_is_read_back_from_markdown_as_it_was(text: str) -> None:
    line = " ".join(text.replace("\x00", "").split())
    html = READER.render(f"x {escape_markdown(line)}")
    assert text_of(html).split() == ["x", *line.split()]
    assert html.count("<") == 2  # one paragraph and nothing else


@pytest.mark.parametrize("text", ["# loud", "- one", "1. first", "=====", "+ x", "> said", "```", "&copy; <b>", "a & b"])
def test_a_line_begins_nothing(text: str) -> None:
    html = READER.render(escape_markdown(text))
    assert html.startswith("<p>")
    assert text_of(html).strip() == text
    assert "\\" not in escape_markdown("Ousel & Rye")


def shown(label: str, certificate: str = "", secret: str = "") -> Shown:
    return Shown("Bean Row lawn", read_fibres(label, FIBRES), certificate, secret)


@pytest.mark.parametrize(
    ("text", "label", "found"),
    [
        ("It is 100 % linen.", "55% linen, 45% cotton", ["100 % linen"]),
        ("It is 100% linen.", "100% linen", []),
        ("Pure silk, all wool", "100% viscose", ["Pure silk", "all wool"]),
        ("pure rayon", "100% viscose", []),
        ("pure joy", "100% viscose", []),
    ],
)
def test_all_of_one_fibre_is_said_of_all_of_it_alone(text: str, label: str, found: list[str]) -> None:
    assert not_whole(text, [shown(label)], FIBRES) == found


def test_a_claim_wants_a_ground() -> None:
    said = "Organic, sustainable and soft as silk."
    assert [each.word for each in ungrounded(said, [shown("100% cotton")], claims())] == ["organic", "sustainable", "silk"]
    found = ungrounded(said, [shown("50% silk, 50% cotton", "certificate 4711")], claims())
    assert [each.word for each in found] == ["sustainable"]
    assert ungrounded("a silky organ, unsustainable", [shown("100% cotton")], claims()) == []


def test_makers_and_prices_in_own_words() -> None:
    assert makers_named("From Gannet Mill, of course", [shown("100% cotton", secret="Gannet Mill")]) == ["Gannet Mill"]
    assert makers_named("From Gannet Mills", [shown("100% cotton", secret="Gannet Mill")]) == []
    known = ["£15.80/m (£14.45/yd)", "£9/m"]
    assert other_prices("Only £15.80, was £19 once, 9 £ now", known) == ["£19"]


def test_fibres_stand_by_falling_share() -> None:
    assert list(read_fibres("5% elastane, 95% viscose", FIBRES).by_share) == ["viscose", "elastane"]


def test_other_sources() -> None:
    found = read_sources("home: shop.example/a, 2 to 4 days; abroad: https://other.example/a?x=1")
    assert found == (Source("home", "https://shop.example/a", "2 to 4 days"), Source("abroad", "https://other.example/a?x=1"))
    for wrong in ("https://shop.example", "home", "home:", "home: javascript:alert(1)", ";".join(["a: b.example"] * 13)):
        with pytest.raises(FieldFault):
            read_sources(wrong)


def test_what_is_different_since() -> None:
    was = {"A|price": "£9/m", "A|care": "wash at 40 °C", "A|link": "", "B|price": "£4/m"}
    now = {"A|price": "£11/m", "A|link": "https://shop.example"}
    assert changes(was, now) == [
        Change("A", "price", "£9/m", "£11/m"), Change("A", "care", "wash at 40 °C", ""), Change("A", "link", "", "https://shop.example"),
    ]  # fmt: skip
    assert changes(was, now)[0].correction == "A: price is £11/m, not £9/m."
    told = {
        "places": [{"title": "x", "shown": [{"cloth": {"name": "A", "price": "£9/m"}, "pattern": None, "make": {"name": "T"}}]}]
    }
    assert facts_told(told, ("price",)) == {"A|price": "£9/m"}


@given(st.lists(st.integers(0, 60), max_size=12), st.integers(0, 200))
def test_as_many_places_as_fit(lengths: list[int], limit: int) -> None:
    def write(count: int) -> str:
        return "".join("x" * length for length in lengths[:count])

    found = fitted(write, len(lengths), limit)
    if limit and len(write(len(lengths))) > limit:
        assert len(found) <= limit
        assert found == max((write(n) for n in range(len(lengths)) if len(write(n)) <= limit), key=len)
    else:
        assert found == write(len(lengths))
