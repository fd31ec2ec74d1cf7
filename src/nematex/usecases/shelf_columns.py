"""What the shelf's filters and sorts look at, as arrays in the order of the shelf."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np
import numpy.typing as npt

from nematex.core.cloth import DIRECTIONS, Cloth
from nematex.core.colour import delta_e, lab_from_srgb, read_hex
from nematex.core.estimate import Known
from nematex.core.print_scale import scale_word, scale_words
from nematex.core.verdict import Codes, Floats, Mask
from nematex.store.records import ClothRecord
from nematex.tables import trade_tables
from nematex.usecases.list_columns import HANDS, PRINT_KINDS
from nematex.usecases.saying import hand_word

NEAR = 12.0  # CIEDE2000 up to which a colour is of one family with another (common practice, no source)
UNKNOWN = -1


def _codes(values: Sequence[str | None], choices: Sequence[str]) -> Codes:
    place = {each: at for at, each in enumerate(choices)}
    return np.array([place.get(each or "", UNKNOWN) for each in values], dtype=np.int8)


def _numbers(values: Sequence[float | None]) -> Floats:
    return np.array([np.nan if each is None else each for each in values], dtype=np.float64)


@dataclass(frozen=True)
class ShelfColumns:
    """n cloths as the filters see them; NaN and -1 where not known."""

    words: dict[str, Codes]
    price: Floats
    arrived: npt.NDArray[np.int32]
    seasons: list[frozenset[str]]
    needs: Mask
    lab: Floats
    owner: npt.NDArray[np.int32]

    def distance(self, srgb: tuple[int, int, int]) -> Floats:
        """CIEDE2000 from each cloth's nearest colour; infinite where no colour is known."""
        found: Floats = np.full(len(self.price), np.inf)
        if len(self.owner):
            np.minimum.at(found, self.owner, delta_e(self.lab, lab_from_srgb(srgb)))
        return found


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
    deciding = [cloth.weight, cloth.bend, *([cloth.stretch_cross] if cloth.structure == "knit" else [])]
    return any(each.known is Known.TYPICAL for each in deciding)


def _scale(record: ClothRecord) -> str | None:
    printed = record.facts.print
    size = printed.scale_cm or printed.repeat_length_cm or printed.repeat_width_cm
    return scale_word(size, trade_tables()) if size else None


def shelf_columns(records: list[ClothRecord], cloths: list[Cloth]) -> ShelfColumns:
    colours = [(at, read_hex(colour)) for at, record in enumerate(records) for colour in sorted(colours_of(record))]
    return ShelfColumns(
        words={
            "hand": _codes([hand_word(cloth.bend.best) for cloth in cloths], HANDS),
            "sheer": np.array([round(cloth.sheer.best) for cloth in cloths], dtype=np.int8),
            "print_kind": _codes([record.print_kind for record in records], PRINT_KINDS),
            "direction": _codes([record.facts.print.direction for record in records], DIRECTIONS),
            "scale": _codes([_scale(record) for record in records], scale_words(trade_tables())),
        },
        price=_numbers(
            [float(p) if (p := record.sale_price_per_m or record.price_per_m) is not None else None for record in records]
        ),
        arrived=np.array([(record.arrived or date.min).toordinal() for record in records], dtype=np.int32),
        seasons=[_seasons(record, cloth) for record, cloth in zip(records, cloths, strict=True)],
        needs=np.array([_needs_measuring(cloth) for cloth in cloths], dtype=np.bool_),
        lab=lab_from_srgb([srgb for _, srgb in colours]).reshape(-1, 3) if colours else np.zeros((0, 3)),
        owner=np.array([at for at, _ in colours], dtype=np.int32),
    )
