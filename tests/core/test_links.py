"""Links that a shop keeps: what is a web address, and what is not. By hand, after RFC 3986 (from memory)."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.errors import FieldFault
from nematex.core.links import read_link


@pytest.mark.parametrize(
    ("said", "link"),
    [
        ("", ""),
        (" shop.example/lawn ", "https://shop.example/lawn"),
        ("http://shop.example", "http://shop.example"),
        ("https://shop.example:8080/a?b=c#d", "https://shop.example:8080/a?b=c#d"),
        ("https://tücher.example/stoff", "https://tücher.example/stoff"),
    ],
)
def test_a_link_is_kept_whole(said: str, link: str) -> None:
    assert read_link(said) == link


@pytest.mark.parametrize(
    "said",
    ["javascript:alert(1)", "ftp://shop.example", "shop", "https://", "https://a b.example", "https://user@shop.example",
     "https://shop.example/<script>", "https://shop.example/a)b", "https://shop.example/" + 500 * "a"],
)  # fmt: skip
def test_what_is_no_web_address_is_refused(said: str) -> None:
    with pytest.raises(FieldFault):
        read_link(said, "link")


@given(st.text(max_size=80))
def test_no_text_whatever_is_more_than_refused(said: str) -> None:
    try:
        link = read_link(said)
    except FieldFault:
        return
    assert link == "" or link.casefold().startswith(("http://", "https://"))
    assert not set(link) & set(" \n<>\"'()")
