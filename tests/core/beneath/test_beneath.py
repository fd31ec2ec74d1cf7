"""Lining, interfacing, thread, notions, mixed cloths and the table of cautions. Common practice, no source."""

from __future__ import annotations

import numpy as np
import pytest

from nematex.core.beneath.interfacing import interfacing
from nematex.core.beneath.lining import colour_word, layered_bend_cm, linings, ways
from nematex.core.beneath.notions import of_view, read_notions
from nematex.core.beneath.thread import thread
from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts, Print
from nematex.core.judging.cautions import cautions
from nematex.core.judging.combination import Joint, PartCloth, joints
from nematex.core.judging.demand import Demand, demand
from nematex.core.judging.saying.joint import say_joint
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Option, Part, Pattern, Requirement, Wish
from nematex.core.quantity.said import Units
from nematex.tables import colour_names, trade_tables

TABLES = trade_tables()


def cloth(**facts: object) -> Cloth:
    return known_cloth(ClothFacts(**facts), TABLES)  # type: ignore[arg-type]


def asked(**pattern: object) -> Demand:
    return demand(Pattern(structure="woven", **pattern), Wish(), TABLES)  # type: ignore[arg-type]


VOILE = cloth(cloth="cotton voile", weight_gsm=70, bending_length_cm=1.7, sheer="semi-sheer")


@pytest.mark.parametrize(
    ("sheer", "garment", "advised", "leave"),
    [
        ("opaque", "dress", set(), "fine"),
        ("opaque", "coat", {"full lining"}, "fine"),
        ("slightly sheer", "top", {"slip or vest"}, "fine"),
        ("slightly sheer", "trousers", {"partial lining", "slip or vest"}, "no"),
        ("semi-sheer", "dress", {"full lining", "underlining", "slip or vest"}, "no"),
        ("semi-sheer", "trousers", {"full lining", "underlining"}, "no"),
        ("sheer", "dress", {"full lining", "underlining", "slip or vest"}, "sleeves only"),
    ],
)
def test_the_ways_to_cover(sheer: str, garment: str, advised: set[str], leave: str) -> None:
    found = ways(cloth(cloth="cotton voile", sheer=sheer), asked(garment=garment), 2.0, None, TABLES)
    assert {way.name for way in found if way.stand == "advised"} == advised
    assert next(way.stand for way in found if way.name == "leave it") == leave


def test_each_way_says_what_it_takes_and_changes() -> None:
    found = {way.name: way for way in ways(VOILE, asked(garment="dress"), 2.15, None, TABLES)}
    assert found["full lining"].amount_m == 2.0  # 90 % of 2.15 is 1.935, up to the next 10 cm
    assert found["partial lining"].amount_m == 0.8  # 35 %: 0.7525
    assert found["underlining"].amount_m == 2.15
    assert found["slip or vest"].amount_m is None
    table = {way.name: way for way in ways(VOILE, asked(garment="dress"), 2.15, 1.7, TABLES)}
    assert (table["full lining"].amount_m, table["full lining"].receipt) == (1.7, "the pattern's own lining table")
    assert "70 g/m² becomes about 145" in found["underlining"].changes


def test_two_layers_bend_by_their_rigidities_and_weights() -> None:
    # By hand: (70·1.7³ + 75·1.5³) / 145 = (343.91 + 253.13) / 145 = 4.1175; its cube root is 1.603.
    assert layered_bend_cm(VOILE, 75, 1.5) == pytest.approx(1.603, abs=0.001)
    assert layered_bend_cm(VOILE, 70, 1.7) == pytest.approx(1.7)


def test_linings_are_light_soft_opaque_and_near_in_colour() -> None:
    outer = cloth(cloth="viscose crepe", weight_gsm=140, bending_length_cm=1.4, fibres="100 % viscose")
    shelf = [
        cloth(cloth="viscose lining", weight_gsm=75, bending_length_cm=1.3, sheer="slightly sheer"),
        cloth(cloth="viscose lining", weight_gsm=75, bending_length_cm=1.3, sheer="slightly sheer"),
        cloth(cloth="cotton poplin", weight_gsm=120),  # fights a drapey cloth
        cloth(cloth="denim", weight_gsm=340),
        cloth(cloth="knit lining", weight_gsm=90),
    ]
    found = linings(outer, columns(shelf, TABLES), np.array([1.0, 30.0, 1.0, 1.0, 1.0]), False, TABLES)
    assert found.verdict.tolist() == [Verdict.SUITS, Verdict.WITH_CARE, Verdict.AGAINST, Verdict.AGAINST, Verdict.AGAINST]
    assert found.order()[0] == 0
    assert found.checks["drape"][2] == Verdict.AGAINST
    assert found.checks["structure"][4] == Verdict.AGAINST
    assert [colour_word(off) for off in (1.0, 6.0, 30.0)] == [
        "within a hair",
        "tone in tone",
        "a contrast, on purpose only",
    ]


def test_a_knit_is_lined_with_a_knit_that_gives() -> None:
    outer = cloth(cloth="viscose jersey", weight_gsm=200, stretch_cross_pct=40)
    shelf = columns([cloth(cloth="viscose lining"), cloth(cloth="knit lining", weight_gsm=100, stretch_cross_pct=45),
                     cloth(cloth="knit lining", weight_gsm=100, stretch_cross_pct=10)], TABLES)  # fmt: skip
    found = linings(outer, shelf, np.array([np.nan] * 3), False, TABLES)
    assert found.checks["structure"].tolist() == [Verdict.AGAINST, Verdict.SUITS, Verdict.SUITS]
    assert found.checks["stretch"].tolist()[1:] == [Verdict.SUITS, Verdict.AGAINST]


@pytest.mark.parametrize(
    ("facts", "kind"),
    [
        ({"cloth": "cotton lawn", "weight_gsm": 80}, "light fusible woven"),
        ({"cloth": "denim", "weight_gsm": 340}, "firm fusible woven"),
        ({"cloth": "ponte", "weight_gsm": 300}, "medium fusible knit"),
        ({"cloth": "cotton velvet", "weight_gsm": 280}, "cotton batiste sewn in"),
        ({"cloth": "heavy flannel", "weight_gsm": 236}, "firm fusible woven"),
        ({"cloth": "chiffon", "weight_gsm": 35}, "silk organza"),
        ({"cloth": "acetate lining", "fibres": "100 % acetate", "weight_gsm": 70}, "silk organza"),
    ],
)
def test_interfacing_is_never_heavier_than_the_cloth(facts: dict[str, object], kind: str) -> None:
    found = interfacing(cloth(**facts), asked(details=("shirt collar",)), TABLES)
    assert found is not None
    assert found.kind == kind, found
    assert found.gsm[1] <= float(str(facts["weight_gsm"]))
    assert found.places == ("shirt collar",)


def test_nothing_is_interfaced_where_nothing_asks_it() -> None:
    assert interfacing(VOILE, asked(details=("gathers",)), TABLES) is None


def test_thread_matches_the_ground_and_of_two_takes_the_darker() -> None:
    shades = [each for each in colour_names() if each.name in ("white", "ivory", "navy", "black")]
    assert thread(VOILE, "#fafaf7", shades).shade == "white"
    assert thread(VOILE, "#1d2547", shades).shade == "navy"
    twins = [shades[0].__class__("pale", "grey", (118, 118, 118)), shades[0].__class__("deep", "grey", (114, 114, 114))]
    found = thread(VOILE, "#757575", twins)  # between the two, a hair nearer to the paler one
    assert found.shade == "deep"
    assert "darker" in found.reason
    assert "stretch stitch" in thread(cloth(cloth="ponte"), "#000000", shades).kind


@pytest.mark.parametrize(
    ("text", "kind", "count", "length_cm", "size_cm"),
    [
        ("10 buttons 15 mm", "button", 10, None, 1.5),
        ("10 buttons, 15 mm", "button", 10, None, 1.5),
        ("1 invisible zip 40 cm (16 in)", "zip", 1, 40, None),
        ("1.5 m elastic 2 cm wide", "elastic", None, 150, 2),
        ('1½ yd of 3/8" wide elastic', "elastic", None, 137.2, 0.95),
        ("0.5 m light fusible interfacing", "interfacing", None, 50, None),
        ("thread", "thread", None, None, None),
        ("2 press studs", "snap", 2, None, None),
        ("something pretty", "", None, None, None),
    ],
)
def test_notions_are_read_with_their_sizes(
    text: str, kind: str, count: int | None, length_cm: float | None, size_cm: float | None
) -> None:
    (found,) = read_notions(text)
    assert (found.kind, found.count) == (kind, count)
    assert found.length_cm == pytest.approx(length_cm, abs=0.05)
    assert found.size_cm == pytest.approx(size_cm, abs=0.01)


def test_notions_belong_to_their_views() -> None:
    found = read_notions("View A: 10 buttons 15 mm; thread\nView B, C: zip 20 cm\n1 m ribbon and thread")
    assert [each.kind for each in of_view(found, "B midi")] == ["zip", "ribbon", "thread"]
    assert len(of_view(found, None)) == len(found) == 5


def test_mixed_cloths_are_held_together() -> None:
    body = PartCloth("body", "close", cloth(cloth="cotton jersey", weight_gsm=190, stretch_cross_pct=35, shrink_length_pct=5))
    tulle = cloth(cloth="tulle", weight_gsm=40, stretch_cross_pct=5, shrink_length_pct=0)
    twin = cloth(cloth="cotton jersey", weight_gsm=200, stretch_cross_pct=30, shrink_length_pct=4)
    free = {each.respect: each for each in joints([body, PartCloth("sleeve", "free", tulle)], TABLES)}
    assert free["weight"].verdict is Verdict.WITH_CARE  # 4.8 times as heavy, on a free part
    assert free["shrinkage"].verdict is Verdict.AGAINST  # 5 against 0 %
    assert free["stretch at the seam"].verdict is Verdict.WITH_CARE
    close = {each.respect: each for each in joints([body, PartCloth("yoke", "close", tulle)], TABLES)}
    assert close["weight"].verdict is Verdict.AGAINST
    assert close["stretch at the seam"].verdict is Verdict.WITH_CARE  # 30 points: just within
    alike = joints([body, PartCloth("band", "close", twin)], TABLES)
    assert {each.verdict for each in alike} == {Verdict.SUITS}
    assert [say_joint(each, TABLES).reason for each in alike] == [
        "Close in weight: 200 g/m² on the band and 190 on the body.",
        "Shrink alike: body 5 %, band 4 %.",
        "Wash alike.",
        "Stretch alike where they are joined (body: 35 %; band: 30 %).",
    ]
    assert joints([body, PartCloth("sleeve", "close", body.cloth)], TABLES) == []


def test_what_a_way_changes_is_said_in_the_shop_s_units() -> None:
    jersey = cloth(cloth="cotton jersey", weight_gsm=190, bending_length_cm=1.6)
    said = {way.name: way for way in ways(jersey, asked(), 2.04, None, TABLES, Units.IMPERIAL)}
    assert said["full lining"].changes.endswith("hangs by itself. Line a knit with a knit.")
    # 190 and 265 g/m² are 5.6 and 7.8 oz/yd²; two layers bend as the cube root of their rigidity over their weight.
    rigid = (190 * 1.6**3 + 75 * 1.5**3) / 265
    assert (
        f"5.6 oz/yd² becomes about 7.8. Over a light, soft lining it bends at {rigid ** (1 / 3) / 2.54:.2f} instead of 0.63 in"
        in said["underlining"].changes
    )
    assert (said["full lining"].amount_m, said["full lining"].receipt) == (
        pytest.approx(2.0, abs=0.11),
        "90 % of the main cloth",
    )
    assert (said["underlining"].amount_m, said["underlining"].receipt) == (2.04, "the same pieces as the main cloth")
    assert said["slip or vest"].amount_m is None
    table = ways(jersey, asked(), 2.0, 1.7, TABLES)[0]
    assert (table.amount_m, table.receipt) == (1.7, "the pattern's own lining table")


def test_wool_beside_cotton_wants_the_gentler_wash() -> None:
    body = PartCloth("body", "close", cloth(cloth="cotton poplin"))
    wool = PartCloth("collar", "free", cloth(cloth="wool suiting", fibres="100 % wool"))
    care = next(each for each in joints([body, wool], TABLES) if each.respect == "care")
    assert care.verdict is Verdict.WITH_CARE
    assert say_joint(care, TABLES).reason == "The collar is wool or silk and wants a gentler wash than the rest."


def test_what_is_found_between_two_cloths_is_said_in_the_shop_s_units() -> None:
    body = PartCloth("body", "close", cloth(cloth="cotton jersey", weight_gsm=190, stretch_cross_pct=35, shrink_length_pct=5))
    yoke = PartCloth("yoke", "close", cloth(cloth="tulle", weight_gsm=40, stretch_cross_pct=4, shrink_length_pct=0))
    found = {each.respect: each for each in joints([body, yoke], TABLES)}
    assert {name: say_joint(joint, TABLES).reason for name, joint in found.items()} == {
        "weight": "Apart in weight: 190 g/m² on the body and 40 on the yoke, 4.8 times as heavy.",
        "shrinkage": "Shrink differently: body 5 %, yoke 0 %.",
        "care": "Wash alike.",
        "stretch at the seam": "The seam gives only as much as the firmer side: body 35 %, yoke 4 %.",
    }
    assert say_joint(found["stretch at the seam"], TABLES).remedy.endswith("a stretchier cloth for the yoke.")
    # 190 and 40 g/m² are 5.6 and 1.2 oz/yd² (33.906 g/m² each).
    inches = say_joint(found["weight"], TABLES, Units.IMPERIAL).reason
    assert inches == "Apart in weight: 5.6 oz/yd² on the body and 1.2 on the yoke, 4.8 times as heavy."


def test_every_case_between_two_cloths_has_words() -> None:
    plain, wool = cloth(cloth="cotton poplin"), cloth(cloth="wool suiting")
    pairs = (
        (plain, wool),
        (plain, cloth(cloth="cotton lawn")),
        (cloth(cloth="polyester poplin"), cloth(cloth="polyester satin")),
    )
    for one, other in pairs:
        for joint in joints([PartCloth("body", "close", one), PartCloth("sleeve", "free", other)], TABLES):
            assert say_joint(joint, TABLES).reason.endswith(".")


@pytest.mark.parametrize(
    ("pattern", "facts", "code", "there"),
    [
        ({"nightwear": True, "wearer": "child"}, {}, "child nightwear", True),
        ({"nightwear": True}, {}, "child nightwear", False),
        ({"wearer": "child", "details": ("drawstring hood",)}, {}, "child cords", True),
        ({"wearer": "child", "notions": "1 m cord"}, {}, "child cords", True),
        ({"notions": "1 m cord"}, {}, "child cords", False),
        ({"wearer": "child", "notions": "5 buttons 12 mm"}, {}, "child small parts", True),
        ({"wearer": "child", "options": (Option("button placket", details=("button band",)),)}, {}, "child small parts", True),
        ({"notions": "4 snaps"}, {}, "nickel", True),
        ({"notions": "2 m elastic"}, {}, "latex", True),
        ({"garment": "trousers"}, {"sheer": "semi-sheer"}, "sheer bottom", True),
        ({"garment": "trousers", "lined": True}, {"sheer": "semi-sheer"}, "sheer bottom", False),
        ({"garment": "dress"}, {"sheer": "semi-sheer"}, "sheer", True),
        ({}, {"cloth": "ponte"}, "knit in woven", True),
        ({}, {"cloth": "teddy fleece"}, "dust", True),
        ({}, {"cloth": "sequin knit"}, "sequins", True),
        ({}, {"deadstock": True}, "deadstock", True),
        ({"parts": (Part("neck", "close", ("ties",)),), "wearer": "child"}, {}, "child cords", True),
    ],
)
def test_cautions_arise_from_their_table(pattern: dict[str, object], facts: dict[str, object], code: str, there: bool) -> None:
    found = cautions(cloth(**{"cloth": "cotton voile", "sheer": "opaque", **facts}), asked(**pattern), TABLES)
    assert (code in {row.code for row in found}) is there
    for row in found:
        assert row.why
        if "local law" in row.code or row.code.startswith(("child", "nightwear", "nickel", "bamboo")):
            assert "where you live" in row.text


def _linings_of(outer: Cloth, *shelf: Cloth) -> list[tuple[str, Verdict]]:
    found = linings(outer, columns(shelf, TABLES), np.full(len(shelf), np.nan), False, TABLES)
    return [(shelf[at].name, Verdict(int(found.verdict[at]))) for at in found.order()]


def test_a_lining_is_smooth_so_a_gauze_is_none() -> None:
    # A viscose lining under burnout velvet comes first, cotton gauze does not: common practice, no source.
    velvet = cloth(cloth="burnout velvet")
    found = _linings_of(velvet, cloth(cloth="cotton gauze"), cloth(cloth="cotton velvet"), cloth(cloth="viscose lining"))
    assert found[0][0] == "viscose lining"
    assert dict(found)["cotton gauze"] == dict(found)["cotton velvet"] == Verdict.AGAINST


def test_a_sheer_is_never_lined_with_a_sheer_and_may_be_lined_heavier_than_itself() -> None:
    found = dict(
        _linings_of(cloth(cloth="chiffon"), cloth(cloth="chiffon"), cloth(cloth="soft tulle"), cloth(cloth="viscose lining"))
    )
    assert found["chiffon"] == found["soft tulle"] == Verdict.AGAINST
    assert found["viscose lining"] <= Verdict.WITH_CARE


def test_a_crisp_sheer_wants_a_support_heavier_than_itself() -> None:
    organza = cloth(cloth="organza")
    found = dict(_linings_of(organza, cloth(cloth="cotton poplin"), cloth(cloth="denim"), cloth(cloth="cotton voile")))
    assert found["cotton poplin"] <= Verdict.WITH_CARE
    assert found["denim"] == found["cotton voile"] == Verdict.AGAINST


def test_interfacing_follows_the_table_and_what_is_made() -> None:
    rows = (Requirement("A", (), 90, 0.4, use="interfacing"), Requirement("B", (), 90, 0.9, use="interfacing"))
    poplin = cloth(cloth="cotton poplin", weight_gsm=120)
    made = interfacing(poplin, asked(details=("waistband", "button band", "armhole facings")), TABLES)
    assert made is not None
    assert made.places == ("waistband", "shirt band", "shaped facing")
    by_table = interfacing(poplin, demand(Pattern(structure="woven", requirements=rows), Wish(view="A"), TABLES), TABLES)
    assert by_table is not None
    assert (by_table.length_m, by_table.width_cm, by_table.places) == (0.4, 90, ())
    assert interfacing(poplin, asked(details=("patch pockets",)), TABLES) is None


def test_a_rib_band_gives_more_than_the_tee_it_holds() -> None:
    # A neckband of 90 % on a jersey of 45 % is how a tee is made. Common practice, no source.
    jersey = cloth(cloth="cotton jersey", stretch_cross_pct=45.0)
    rib, firm = cloth(cloth="rib knit", stretch_cross_pct=90.0), cloth(cloth="ponte", stretch_cross_pct=12.0)

    def seam(part: str, other: Cloth) -> Joint:
        found = joints([PartCloth("body", "close", jersey), PartCloth(part, "close", other)], TABLES)
        return next(joint for joint in found if joint.respect == "stretch at the seam")

    assert (seam("neckband", rib).verdict, seam("neckband", rib).case) == (Verdict.SUITS, "band")
    assert "as a band should" in say_joint(seam("neckband", rib), TABLES, Units.METRIC).reason
    assert seam("yoke", rib).verdict == Verdict.AGAINST  # a yoke is no band
    assert seam("neckband", firm).verdict == Verdict.AGAINST  # and a band that gives less holds nothing


def test_a_print_beneath_a_sheer_shows_through() -> None:
    printed, plain = cloth(cloth="cotton lawn", print=Print("all-over", 2.0)), cloth(cloth="batiste")
    assert dict(_linings_of(VOILE, printed, plain))["cotton lawn"] == Verdict.AGAINST
    opaque = cloth(cloth="wool suiting", weight_gsm=240)
    assert dict(_linings_of(opaque, printed))["cotton lawn"] < Verdict.AGAINST


def test_the_envelopes_own_weight_of_interfacing_comes_first() -> None:
    """'1 m light interfacing' on a medium cloth; on a cloth that does not carry the weight asked, what it carries."""
    drill, lawn = cloth(cloth="cotton drill", weight_gsm=220), cloth(cloth="cotton lawn", weight_gsm=70)

    def kind(fabric: Cloth, notions: str) -> str:
        found = interfacing(fabric, asked(garment="shirt", details=("collar",), notions=notions), TABLES)
        return found.kind if found else ""

    assert kind(drill, "10 buttons 15 mm, 1 m light interfacing") == "light fusible woven"
    assert kind(drill, "1 m lightweight fusible interfacing") == "light fusible woven"
    assert kind(drill, "0.5 m heavyweight interfacing") == "firm fusible woven"
    assert kind(drill, "1 m interfacing") == "firm fusible woven"
    assert kind(lawn, "0.5 m firm interfacing") == "light fusible woven"
