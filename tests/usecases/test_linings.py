"""Which cloths of the made-up shop are offered as linings. Common practice, no source."""

import pytest

from nematex.usecases.beneath.view import candidate_linings
from nematex.usecases.held.shop import Shop


@pytest.mark.parametrize(
    ("outer", "first"),
    [
        ("OW-413", {"Sloe lining"}),  # a navy coat: the one lining of the shelf, and no printed challis
        ("OW-204", {"Pearl Button cupro"}),  # pale, and a little shows: a dark lining would
    ],
)
def test_what_is_sold_as_lining_is_offered_first_unless_it_shows(demo: Shop, outer: str, first: set[str]) -> None:
    state = demo.now()
    at = next(at for at, record in enumerate(state.shelf.records) if record.code == outer)
    found = candidate_linings(state.shelf, state.drawer, state.shelf.records[at], state.shelf.cloths[at], True)
    assert found[0].record.facts.name in first
