"""A cloth's record from what was read of it, in a list or in the form."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import replace
from typing import Any

from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.cloth.properties import Home, Property
from nematex.core.colour.words import Palette
from nematex.core.quantity.estimate import Known
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord
from nematex.tables import properties
from nematex.usecases.assess.pairing import cloth_facts
from nematex.usecases.assess.schema import ClothIn
from nematex.usecases.cloth.lists.cells import WEIGHT_WORD

Place = Callable[[ClothFacts, Tables], Cloth]


def make_record(values: dict[str, Any], tables: Tables, supplier: str = "", place: Place = known_cloth) -> ClothRecord:
    """A cloth record from read values; raises FieldFault or pydantic's ValidationError.

    `place` knows the cloth: a form refuses one that nothing places, a list of thousands takes it and asks.
    """
    values = dict(values)
    weight_word = values.pop(WEIGHT_WORD, "")
    palette: Palette = values.pop("colours", None) or Palette(())
    of = {home: {name: value for name, value in values.items() if properties()[name].home is home} for home in Home}
    facts, printed = of[Home.FACTS], {name.removeprefix("print_"): value for name, value in of[Home.PRINT].items()}
    if isinstance(facts.get("known"), str):
        facts["known"] = json.loads(facts["known"] or "{}")
    if palette.by_word:
        facts["known"] = {"colours": Known.TYPICAL.word, **(facts.get("known") or {})}
    checked = cloth_facts(ClothIn.model_validate({**facts, "print": printed or None}))
    cloth = place(checked, tables)
    if weight_word:
        checked = _weighed_by_word(checked, weight_word, "woven" if cloth.structure == "woven" else "knit", tables)
    shop = {name: value for name, value in of[Home.SHOP].items() if value is not None}
    for name, prop in properties().items():
        if name in shop and prop.reading == "number":
            prop.checked(shop[name])
    price, currency = shop.pop("price_per_m", None) or (None, "")
    sale, sale_currency = shop.pop("sale_price_per_m", None) or (None, "")
    shop |= {"price_per_m": price, "sale_price_per_m": sale, "supplier": values.get("supplier") or supplier}
    shop |= {"currency": (values.get("currency") or currency or sale_currency).upper()}
    shop |= {"colours": palette.colours}
    more = {name: _checked(properties()[name], value) for name, value in of[Home.MORE].items() if value is not None}
    return counted(ClothRecord(facts=checked, more=more, **shop))


def _weighed_by_word(facts: ClothFacts, word: str, structure: str, tables: Tables) -> ClothFacts:
    """The facts with the middle of what a weight word means for such a cloth, as judged."""
    meant = next(each.cloth_gsm for each in tables.weight_words if (each.word, each.structure) == (word, structure))
    return replace(facts, weight_gsm=round(meant.middle, 1), known={**facts.known, "weight_gsm": Known.JUDGED.word})


def _checked(prop: Property, value: Any) -> Any:
    return prop.checked(value) if prop.reading == "number" else value


def counted(record: ClothRecord) -> ClothRecord:
    """The stock as the sum of the bolts, or else of the colourways, where each says its own."""
    if record.bolts:
        return replace(record, stock_m=round(sum(each.length_m for each in record.bolts), 3))
    lengths = [each.stock_m for each in record.colourways if each.stock_m is not None]
    return replace(record, stock_m=round(sum(lengths), 3)) if lengths else record
