"""What is written down of kinds and fibres agrees with what they are judged by. Common practice, no source."""

from nematex.core.cloth.typical import typical_cloths, typical_columns
from nematex.core.judging.demand import demand
from nematex.core.judging.judge import judge
from nematex.core.judging.pairing import pair
from nematex.core.pattern.facts import Pattern, Wish
from nematex.tables import trade_tables

TABLES = trade_tables()


def test_a_kind_is_judged_as_a_cloth_of_which_only_the_name_is_known() -> None:
    asked = demand(Pattern(garment="dress", structure="woven", recommended="viscose challis, crepe"), Wish(), TABLES)
    judged = judge(typical_columns(TABLES), asked, TABLES)
    for at, cloth in enumerate(typical_cloths(TABLES)):
        assert judged.verdict_of(at) == pair(cloth, asked, TABLES).verdict


def test_what_is_written_of_a_fibre_is_of_a_fibre_that_labels_bear() -> None:
    assert set(TABLES.fibre_care) <= set(TABLES.fibres.by_name)
    for each in TABLES.fibre_care.values():
        sentences = (each.behaves, each.washes, each.creases, each.presses, each.wears)
        assert all(text.endswith(".") and text[0].isupper() for text in sentences), each.fibre


def test_every_kind_that_people_wear_has_a_fibre_of_which_something_is_written() -> None:
    bare = [kind.name for kind in TABLES.lexicon.types if not kind.all_fibres & set(TABLES.fibre_care)]
    assert bare == []


def test_wool_is_steamed_and_never_machine_washed_wherever_it_is_said() -> None:
    care = TABLES.fibre_care["wool"].washes
    assert care.startswith("Steam")
    assert "never a machine wash" in care
    wool = pair(typical_cloths(TABLES)[TABLES.lexicon.index["wool coating"]], demand(
        Pattern(garment="coat", structure="woven", recommended="wool coating"), Wish(), TABLES), TABLES)  # fmt: skip
    assert not any("wash" in each.text and "Steam" not in each.text and "steam" not in each.text for each in wool.cautions)
