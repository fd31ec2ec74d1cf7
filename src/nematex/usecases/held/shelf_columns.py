"""What the shelf's filters and sorts look at, as arrays in the order of the shelf."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Any

import numpy as np
import numpy.typing as npt

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import DIRECTIONS
from nematex.core.cloth.print_scale import scale_word, scale_words
from nematex.core.colour.difference import delta_e, lab_from_srgb, read_hex
from nematex.core.quantity.arrays import Codes, Floats, Mask
from nematex.core.quantity.estimate import Known
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord
from nematex.usecases.quantity.saying import hand_word

NEAR = 12.0  # CIEDE2000 up to which a colour is of one family with another (common practice, no source)
UNKNOWN = -1


def _codes(values: Sequence[str | None], choices: Sequence[str]) -> Codes:
    place = {each: at for at, each in enumerate(choices)}
    return np.array([place.get(each or "", UNKNOWN) for each in values], dtype=np.int8)


def _numbers(values: Sequence[float | Decimal | None]) -> Floats:
    return np.array([np.nan if each is None else float(each) for each in values], dtype=np.float64)


@dataclass(frozen=True)
class ShelfColumns:
    """n cloths as the filters see them; NaN and -1 where not known."""

    words: dict[str, Codes]
    regular: Floats  # prices
    sale: Floats
    sale_until: npt.NDArray[np.int32]  # days
    arrived: npt.NDArray[np.int32]
    seasons: list[frozenset[str]]
    needs: Mask
    lab: Floats
    owner: npt.NDArray[np.int32]

    def price_on(self, day: date) -> Floats:
        """What a metre of each costs on a day."""
        held: Floats = np.where(~np.isnan(self.sale) & (day.toordinal() <= self.sale_until), self.sale, self.regular)
        return held

    def distance(self, srgb: tuple[int, int, int]) -> Floats:
        """CIEDE2000 from each cloth's nearest colour; infinite where no colour is known."""
        found: Floats = np.full(len(self.regular), np.inf)
        if len(self.owner):
            np.minimum.at(found, self.owner, delta_e(self.lab, lab_from_srgb(srgb)))
        return found

    def joined(self, other: ShelfColumns, index: npt.NDArray[np.intp]) -> ShelfColumns:
        """Of both, one after the other, the cloths of this index."""
        size = len(self.regular) + len(other.regular)
        place = np.full(size, -1, dtype=np.int32)
        place[index] = np.arange(len(index), dtype=np.int32)
        owner = place[np.concatenate((self.owner, other.owner + len(self.regular)))]
        order = np.argsort(owner, kind="stable")[np.count_nonzero(owner < 0) :]  # -1 is of a cloth that is gone
        seasons = self.seasons + other.seasons

        def both(mine: npt.NDArray[Any], its: npt.NDArray[Any]) -> npt.NDArray[Any]:
            return np.concatenate((mine, its))[index]

        return ShelfColumns(
            words={name: both(codes, other.words[name]) for name, codes in self.words.items()},
            regular=both(self.regular, other.regular),
            sale=both(self.sale, other.sale),
            sale_until=both(self.sale_until, other.sale_until),
            arrived=both(self.arrived, other.arrived),
            seasons=[seasons[at] for at in index],
            needs=both(self.needs, other.needs),
            lab=np.concatenate((self.lab, other.lab))[order],
            owner=owner[order],
        )


def colours_of(record: ClothRecord) -> set[str]:
    """All colours of a cloth and of its colourways."""
    return {*record.colours, *(colour for each in record.colourways for colour in each.colours)}


def _seasons(record: ClothRecord, cloth: Cloth) -> frozenset[str]:
    """What the shop says, else what the kind of cloth is usual for."""
    text = (record.season or (cloth.type.season if cloth.type else "")).casefold()
    if "all year" in text:
        return frozenset(("spring", "summer", "autumn", "winter"))
    return frozenset(text.replace(",", " ").split())


def _needs_measuring(cloth: Cloth) -> bool:
    deciding = [cloth.weight, cloth.bending_length, *([cloth.stretch_cross] if cloth.structure == "knit" else [])]
    return any(each.known is Known.TYPICAL for each in deciding)


def _scale(record: ClothRecord, tables: Tables) -> str | None:
    printed = record.facts.print
    size = printed.scale_cm or printed.repeat_length_cm or printed.repeat_width_cm
    return scale_word(size, tables) if size else None


def shelf_columns(records: list[ClothRecord], cloths: list[Cloth], tables: Tables) -> ShelfColumns:
    """n cloths as the filters see them."""
    colours = [(at, read_hex(colour)) for at, record in enumerate(records) for colour in sorted(colours_of(record))]
    return ShelfColumns(
        words={
            "hand": _codes([hand_word(cloth.bending_length.best, tables) for cloth in cloths], tables.properties["hand"].words),
            "sheer": np.array([round(cloth.sheer.best) for cloth in cloths], dtype=np.int8),
            "print_kind": _codes([record.print_kind for record in records], tables.properties["print_kind"].words),
            "direction": _codes([record.facts.print.direction for record in records], DIRECTIONS),
            "scale": _codes([_scale(record, tables) for record in records], scale_words(tables)),
        },
        regular=_numbers([record.price_per_m for record in records]),
        sale=_numbers([record.sale_price_per_m for record in records]),
        sale_until=np.array([(record.sale_until or date.max).toordinal() for record in records], dtype=np.int32),
        arrived=np.array([(record.arrived or date.min).toordinal() for record in records], dtype=np.int32),
        seasons=[_seasons(record, cloth) for record, cloth in zip(records, cloths, strict=True)],
        needs=np.array([_needs_measuring(cloth) for cloth in cloths], dtype=np.bool_),
        lab=lab_from_srgb([srgb for _, srgb in colours]).reshape(-1, 3) if colours else np.zeros((0, 3)),
        owner=np.array([at for at, _ in colours], dtype=np.int32),
    )
