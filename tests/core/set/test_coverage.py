"""Who a set leaves out: worked by hand on made-up size tables. Two garments for every body: common practice, no source."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.pattern.facts import Pattern, Size
from nematex.core.set.coverage import (
    Garment,
    closes,
    gaps,
    garment_of,
    of_one_kind,
    places_of,
    reach_of,
    stretches,
    wanted_range,
)
from nematex.tables import trade_tables

TABLES = trade_tables()
RULE = TABLES.judging.coverage


def sizes(place: str, *values: float, band: str = "", cup: str = "") -> tuple[Size, ...]:
    return tuple(Size(str(value), band=band, cup=cup, **{f"{place}_cm": value}) for value in values)  # type: ignore[arg-type]


def top(name: str, low: float, high: float, kind: str = "top") -> Garment:
    return Garment(name, kind, {"bust": ((low, high),)})


def test_bands_that_overlap_or_meet_are_one_and_a_hole_between_them_is_kept() -> None:
    overlapping = sizes("bust", 84, 88, 92, 100, band="8-14") + sizes("bust", 97, 103, 110, band="14-20")
    assert reach_of(Pattern(sizes=overlapping), "bust") == ((84, 110),)
    meeting = sizes("bust", 84, 88, 92, band="8-12") + sizes("bust", 96, 100, band="14-16")  # 4 apart, as sizes are
    assert reach_of(Pattern(sizes=meeting), "bust") == ((84, 100),)
    apart = sizes("bust", 84, 88, 92, band="8-12") + sizes("bust", 110, 116, 122, band="20-24")
    assert reach_of(Pattern(sizes=apart), "bust") == ((84, 92), (110, 122))
    assert reach_of(Pattern(sizes=apart), "hip") == ()


def test_a_skirt_is_for_the_hip_a_top_for_the_bust_and_a_dress_for_both() -> None:
    assert places_of("skirt") == ("waist", "hip")
    assert places_of("top") == ("bust",)
    assert places_of("dress") == ("bust", "hip")
    body = (Size("10", 88, 70, 96), Size("12", 92, 74, 100))
    made = garment_of("Wren skirt", Pattern(garment="skirt", sizes=body), TABLES)
    assert made.reach == {"waist": ((70, 74),), "hip": ((96, 100),)}


def test_stretches_and_gaps_by_hand() -> None:
    """A reaches 80 to 110, B 90 to 100, C 105 to 130; wanted is 76 to 140.

    76–80 nobody, 80–90 A, 90–100 A and B, 100–105 A, 105–110 A and C, 110–130 C, 130–140 nobody.
    """
    a, b, c = top("A", 80, 110), top("B", 90, 100), top("C", 105, 130)
    found = stretches([a, b, c], "bust", (76, 140))
    assert [(each.low, each.high, "".join(g.name for g in each.garments)) for each in found] == [
        (76, 80, ""), (80, 90, "A"), (90, 100, "AB"), (100, 105, "A"), (105, 110, "AC"), (110, 130, "C"), (130, 140, ""),
    ]  # fmt: skip
    holes = [(gap.low, gap.high, "".join(g.name for g in gap.only)) for gap in gaps([a, b, c], "bust", (76, 140), RULE)]
    assert holes == [(130, 140, ""), (76, 80, ""), (110, 130, "C"), (80, 90, "A"), (100, 105, "A")]
    first = gaps([a, b, c], "bust", (76, 140), RULE)[0]
    assert (first.above, first.below) == (True, False)
    assert closes(top("D", 120, 135), first) == pytest.approx(0.5)
    assert closes(top("E", 60, 120), first) == 0
    assert closes(c, gaps([a, b, c], "bust", (76, 140), RULE)[2]) == 0  # it is the one that is there already
    assert wanted_range([a, b, c], "bust") == (80, 130)
    assert wanted_range([a], "hip") is None


def test_two_garments_leave_nobody_out() -> None:
    assert gaps([top("A", 80, 120), top("B", 80, 120)], "bust", (80, 120), RULE) == []
    assert [gap.low for gap in gaps([top("A", 80, 120), top("B", 80, 119)], "bust", (80, 120), RULE)] == []  # between two sizes


def test_where_everything_is_a_skirt_it_is_said() -> None:
    def hips(name: str, kind: str, high: float) -> Garment:
        return Garment(name, kind, {"hip": ((90.0, high),)})

    skirts, trousers = [hips("A", "skirt", 140), hips("B", "skirt", 140)], [hips("C", "trousers", 120)]
    (found,) = of_one_kind([*skirts, *trousers], "hip", (90, 140), RULE)
    assert (found.low, found.high, found.above, {each.kind for each in found.only}) == (120, 140, True, {"skirt"})
    assert of_one_kind(skirts, "hip", (90, 140), RULE) == []  # a set of skirts alone is meant so


RANGES = st.tuples(st.integers(60, 150), st.integers(1, 60)).map(lambda each: (float(each[0]), float(each[0] + each[1])))


@given(st.lists(RANGES, max_size=6), RANGES)
def test_every_body_is_counted_as_one_by_one(ranges: list[tuple[float, float]], wanted: tuple[float, float]) -> None:
    garments = [top(str(at), *each) for at, each in enumerate(ranges)]
    found = stretches(garments, "bust", wanted)
    assert (found[0].low, found[-1].high) == wanted
    for each in found:
        middle = (each.low + each.high) / 2
        assert len(each.garments) == sum(low <= middle <= high for low, high in ranges)
    thin = sum(each.high - each.low for each in found if len(each.garments) < 2)
    assert sum(gap.high - gap.low for gap in gaps(garments, "bust", wanted, RULE)) <= thin + 1e-9
