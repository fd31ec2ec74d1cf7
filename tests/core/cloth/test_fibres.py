"""Fibre labels: generic names, sums, faults."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.cloth.fibres import read_fibres
from nematex.tables import trade_tables

NAMES = trade_tables().fibres
# EU Regulation 1007/2011, Annex I, table 2 (edition of 2011; from memory, some of the 48 names).
ANNEX_I = (
    "wool alpaca llama camel cashmere mohair angora vicuna yak guanaco cashgora beaver "
    "otter silk cotton kapok flax jute abaca alfa coir broom ramie sisal "
    "sunn henequen maguey acetate alginate cupro modal protein triacetate viscose acrylic chlorofibre "
    "fluorofibre modacrylic polyamide nylon aramid polyimide lyocell polylactide polyester polyethylene polypropylene "
    "polycarbamide polyurethane vinylal trivinyl elastodiene elastane elastomultiester elastolefin melamine "
).split()
# US 16 CFR 303.7 (from memory): names used only on the other side of the Atlantic.
FTC = ("rayon", "spandex", "nylon", "azlon", "olefin", "rubber", "vinyon", "vinal", "lastol", "elasterell-p")


@pytest.mark.parametrize("name", [*ANNEX_I, *FTC])
def test_every_published_generic_name_is_known(name: str) -> None:
    assert NAMES.find(name) is not None


@pytest.mark.parametrize(
    ("label", "shares"),
    [
        ("95% Viscose, 5% Elastane", {"viscose": 0.95, "elastane": 0.05}),
        ("cotton 55/linen 45", {"cotton": 0.55, "linen": 0.45}),
        ("80 % rayon from bamboo 20% cotton", {"viscose": 0.8, "cotton": 0.2}),
        ("95% rayon 5% spandex", {"viscose": 0.95, "elastane": 0.05}),
        ("100% flax", {"linen": 1.0}),
        ("Cotton 98%, Elastane 2%", {"cotton": 0.98, "elastane": 0.02}),
        ("60% organic cotton 40% recycled polyester", {"cotton": 0.6, "polyester": 0.4}),
        ("cotton", {"cotton": 1.0}),
        ("cotton, 3% elastane", {"cotton": 0.97, "elastane": 0.03}),  # what has no number is the rest
        ("100% wool, woven in the hills", {"wool": 1.0}),
        ("60% cotton, 40% linen, prewashed", {"cotton": 0.6, "linen": 0.4}),
        ("viscose 95, elastane", {"viscose": 0.95, "elastane": 0.05}),
        ("made of 55% linen 45% viscose", {"linen": 0.55, "viscose": 0.45}),
        ("67,5 % wool 32,5 % nylon", {"wool": 0.675, "polyamide": 0.325}),
    ],
)
def test_labels(label: str, shares: dict[str, float]) -> None:
    read = read_fibres(label, NAMES)
    assert read.shares == pytest.approx(shares)
    assert read.faults == ()


@pytest.mark.parametrize(
    ("label", "fault"),
    [
        ("60% cotton 30% linen", "add up to 90"),
        ("100% softcloud", "softcloud"),
        ("softcloud, 3% elastane", "“softcloud” is not a generic"),
        ("cotton, linen, 5% elastane", "add up to 5 %"),
        ("cotton, linen", "no percentages"),
        ("", "empty"),
    ],
)
def test_faults_are_said(label: str, fault: str) -> None:
    assert fault in " ".join(read_fibres(label, NAMES).faults)


def test_bamboo_calls_for_its_caution() -> None:
    assert read_fibres("80 % rayon from bamboo 20% cotton", NAMES).cautions == ("bamboo",)


@given(st.lists(st.integers(1, 60), min_size=2, max_size=4))
def test_a_label_that_does_not_add_up_is_always_caught(parts: list[int]) -> None:
    fibres = ["cotton", "linen", "wool", "silk"]
    label = ", ".join(f"{part}% {name}" for part, name in zip(parts, fibres, strict=False))
    assert bool(read_fibres(label, NAMES).faults) == (sum(parts) != 100)
