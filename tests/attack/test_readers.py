"""Every reader of text and of files, with whatever may come: it answers, or names the field and the rule."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from random import Random

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from odd import odd_text

from nematex.core.beneath.notions import read_notions
from nematex.core.cloth.fibres import read_fibres
from nematex.core.cloth.measuring.typed import read_bending_length_cm, read_stretches_pct
from nematex.core.colour.words import read_colours
from nematex.core.errors import FieldFault
from nematex.core.pattern.envelope import read_envelope
from nematex.core.pattern.paste import read_paste
from nematex.core.pattern.paste.sizes import overlapping, read_sizes
from nematex.core.people.name import name_key, read_name
from nematex.core.people.password import read_password
from nematex.core.quantity.money import per_cm_in, read_price
from nematex.core.quantity.reader import read_length_cm, read_percent, read_weight_gsm, read_width_cm
from nematex.tables import colour_words, properties, trade_tables
from nematex.usecases.air.speaking import read_words
from nematex.usecases.air.takes import read_shift, read_take
from nematex.usecases.cloth.lists.cells import READERS, read_values
from nematex.usecases.cloth.lists.guessing import guess_columns, with_heading
from nematex.usecases.cloth.lists.price_list import Reading, read_rows
from nematex.usecases.files.formats import sheet_from_file
from nematex.usecases.forms.merging import merged
from nematex.usecases.people.codes import _step_of
from nematex.usecases.people.inviting import read_role

pytestmark = pytest.mark.breaking

TABLES = trade_tables()
# Words that the readers know, so that chance meets their rules and not only their refusals.
WORDS = (
    "10 oz", "220 g/m2", "150cm/59\"", "£12.50/m", "per quarter yard", "4 way", "60% across", "95% viscose", "5% EA", "sage",
    "#24404a", "not suitable for", "knits", "(no lighter than", "view A", "Dress B", "*** with nap", "sizes 8-16", "EU 34",
    "3 months", "interfacing", "45\" 2 1/2 yds", "must stretch to", "lined", "denim", "if", "or", "and", ";", "\n", "|", "½",
)  # fmt: skip
TEXTS = st.one_of(
    st.text(max_size=200),
    st.lists(st.sampled_from(WORDS), max_size=12).map(" ".join),
    st.lists(st.one_of(st.sampled_from(WORDS), st.text(max_size=6)), max_size=12).map("".join),
    st.integers(0, 10**6).map(lambda seed: odd_text(Random(seed))[:3000]),
)
Read = Callable[[str], object]
OF_TEXT: dict[str, Read] = {
    "weight": lambda text: read_weight_gsm(text, "f"),
    "width": lambda text: read_width_cm(text, "f"),
    "length": lambda text: read_length_cm(text, "f"),
    "percent": lambda text: read_percent(text, "f"),
    "price": lambda text: read_price(text, "f"),
    "price unit": per_cm_in,
    "stretch": lambda text: read_stretches_pct(text, "f"),
    "bend": lambda text: read_bending_length_cm(text, "f"),
    "colours": lambda text: read_colours(text, "f", colour_words()),
    "fibres": lambda text: read_fibres(text, TABLES.fibres),
    "notions": read_notions,
    "words said": read_words,
    "shift": read_shift,
    "take": lambda text: read_take(text.encode(errors="replace")),
    "sizes": read_sizes,
    "bands": overlapping,
    "name": lambda text: name_key(read_name(text)),
    "password": lambda text: read_password(text, (text[:9], "")),
    "role": read_role,
    "code": lambda text: _step_of("JBSWY3DPEHPK3PXPJBSWY3DPEHPK3PXP", text, datetime(2026, 1, 1)) if text.isascii() else None,
    "envelope": lambda text: read_envelope(text[:2000], TABLES),
    "paste": lambda text: read_paste(text, TABLES),
    "form": lambda text: merged({"shown": text, "a": text}, {"a": ""}, ("a",), str),
}
QUICK = settings(max_examples=60, deadline=None, suppress_health_check=list(HealthCheck))


@pytest.mark.parametrize("name", OF_TEXT)
@QUICK
@given(text=TEXTS)
def test_a_reader_answers_or_names_the_rule(name: str, text: str) -> None:
    try:
        OF_TEXT[name](text)
    except FieldFault as fault:
        assert fault.rule  # noqa: PT017 - either way is right


@pytest.mark.parametrize("name", [name for name, prop in properties().items() if prop.kind in READERS])
@QUICK
@given(text=TEXTS)
def test_a_cell_of_every_property_is_read_or_refused(name: str, text: str) -> None:
    try:
        read_values(text, name, properties()[name], TABLES)
    except FieldFault as fault:
        assert fault.rule  # noqa: PT017 - either way is right


@QUICK
@given(rows=st.lists(st.lists(TEXTS.map(lambda text: text[:60]), min_size=2, max_size=6), min_size=2, max_size=8))
def test_a_list_of_anything_is_read_row_by_row(rows: list[list[str]]) -> None:
    text = "\n".join(";".join(cell.replace(";", ",").replace("\n", " ") for cell in row) for row in rows)
    try:
        sheet = with_heading(sheet_from_file(text.encode("utf-8", "replace"), "a.csv"), TABLES)
    except FieldFault:
        return
    read = read_rows(Reading(sheet, guess_columns(sheet, TABLES), TABLES))
    assert all(row.record is not None or row.is_bad for row in read)
