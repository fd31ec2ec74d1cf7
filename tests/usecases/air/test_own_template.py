"""A shop's own templates: what they may say, and what they may not do."""

from __future__ import annotations

import html5lib
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.errors import FieldFault
from nematex.tables import note_kinds
from nematex.usecases.air.notes.forms import as_html, as_text
from nematex.usecases.air.notes.own_template import OwnTemplate, check_template

TOLD = {
    "shop": "Marrowstone",
    "programme": "Lantern *Walk*",
    "places": [{"number": n, "shown": [{"said": "x" * 300, "link": "https://shop.example/a_b"}] * 3} for n in range(60)],
}


def test_what_ships_is_allowed_and_not_what_reaches_further() -> None:
    kinds = note_kinds()
    assert kinds
    for kind in kinds.values():
        check_template(kind.template)
        with pytest.raises(FieldFault):
            check_template(kind.template + "{{ shop.format('x') }}")


def test_values_are_escaped_in_markdown_and_addresses_are_not() -> None:
    text = "# {{ programme }}\n\n[a]({{ places[0].shown[0].link }})"
    assert render_own(text, TOLD, True) == "# Lantern \\*Walk\\*\n\n[a](https://shop.example/a_b)\n"
    assert render_own("{{ programme }}", TOLD, False) == "Lantern *Walk*\n"


@pytest.mark.parametrize(
    ("text", "rule"),
    [
        ("{{ ''.__class__ }}", "cannot be used|not told"),
        ("{{ shop.__class__.__mro__ }}", "cannot be used|not told"),
        ("{{ programme.format('x') }}", "uses “call”"),
        ("{% set x = 'a' %}", "uses “assign”"),
        ("{% macro x() %}{% endmacro %}", "uses “macro”"),
        ("{% include '/etc/passwd' %}", "uses “include”"),
        ("{% import 'os' as o %}", "uses “import”"),
        ("{{ 'a' * 1000000000 }}", "uses “mul”"),
        ("{{ 10 ** 100000 }}", "uses “pow”"),
        ("{{ shop[0:3] }}", "uses “slice”"),
        ("{{ shop | center(100000000) }}", "is no filter here"),
        ("{% for x in places %}{% for y in places %}{{ x.number }}{% endfor %}{% endfor %}" * 2, "more than 5000 turns"),
        ("{% for c in shop %}{{ c }}{% endfor %}", "cannot be looped over"),
        ("{% for c in 'abc' %}{{ c }}{% endfor %}", "something other than what is told"),
        ("{% for a in places %}" * 4 + "{% endfor %}" * 4, "deep"),
        ("{% for a in places recursive %}{% endfor %}", "deep"),
        ("{{ nobody }}", "is not told here; there are: places, programme, shop"),
        ("{% if %}", "cannot be read"),
        ("{% if 1 is divisibleby(0) %}x{% endif %}", "zerodivisionerror.*cannot be used"),
        ("{{ " + "shop and " * 1500 + "shop }}", "nested too deep|says too much|cannot be read"),
        ("{{ " + "not " * 600 + "shop }}", "nested too deep"),
        ("{{ shop" + ".a" * 2000 + " }}", "nested too deep"),
        ("{{ shop" + "|upper" * 1100 + " }}", "nested too deep"),
        ("{{ " + "(" * 5000, "nested too deep|cannot be read"),
        ("{{ 1" + "0" * 10_000 + " }}", "nested too deep|cannot be"),
        ("x" * 20_001, "letters long"),
        ("{{ shop }}" * 1300, "says too much"),
    ],
)  # fmt: skip
def test_what_a_template_may_not(text: str, rule: str) -> None:
    with pytest.raises(FieldFault, match=rule):
        render_own(text, TOLD, False)


def test_a_template_cannot_grow_without_end() -> None:
    long = "{% for p in places %}" + "y" * 19_900 + "{% endfor %}"
    with pytest.raises(FieldFault, match="writes more than 300000 letters"):
        render_own(long, TOLD, False)


def render_own(text: str, told: dict[str, object], markdown: bool) -> str:
    return OwnTemplate(text, markdown).render(told)


PIECES = st.sampled_from(
    (
        "{{ shop }}", "{% for p in places %}", "{% endfor %}", "{% if p %}", "{% endif %}", "{{ p.number }}", "{{", "}}",
        "{%", "%}", "{{ p.shown | join }}", "{{ p['shown'][0].said | length }}", "{# a", "#}", "upper",
        "loop.index", "places", "|", "~", "\n", "# ", "- ", "`",
    )
)  # fmt: skip


@given(
    st.lists(st.one_of(PIECES, st.text(st.characters(exclude_categories=("Cc", "Cs", "Cn")), max_size=5)), max_size=14).map(
        "".join
    ),
    st.booleans(),
)
def test_any_template_answers_or_is_refused(text: str, markdown: bool) -> None:
    try:
        found = render_own(text, TOLD, markdown)
    except FieldFault:
        return
    assert "<script" not in as_html(found)
    assert as_text(found) == as_text(found).rstrip() + ("\n" if as_text(found) else "")
    html5lib.HTMLParser(strict=True).parseFragment(as_html(found))


def test_html_is_safe_and_text_is_plain() -> None:
    html = as_html("# A\n\n<script>x</script> [b](javascript:alert(1)) [c](https://shop.example)\n\n- d\n  - e\n\n> f")
    assert "<script" not in html
    assert "javascript" not in html.replace("[b](javascript:alert(1))", "")
    assert 'href="https://shop.example"' in html
    assert as_text("# A\n\nsaid *so*\n\n- [c](https://shop.example)\n- d\n  - e\n\n> f\\*") == (
        "A\n\nsaid so\n\n- c: https://shop.example\n- d\n  - e\n\n“f*”\n"
    )
