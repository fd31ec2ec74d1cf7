"""Many cloths as parallel arrays, so that one pattern is held against a whole shelf at once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, fields
from typing import Any

import numpy as np
import numpy.typing as npt

from nematex.core.cloth.contradictions import unsettled
from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import DIRECTIONS, STRUCTURES
from nematex.core.quantity.arrays import Codes, Column, Floats, Mask
from nematex.core.quantity.elementwise import one_of
from nematex.core.quantity.estimate import Estimate, Known
from nematex.core.quantity.kinds import Quantity
from nematex.core.tables import Tables

KNIT = STRUCTURES.index("knit")
USES = ("garment", "occasion", "lining", "furnishing", "trim", "household")
SET_ASIDE = USES[2:]  # sold for something else than garments: offered only where asked for
ONE_WAY = DIRECTIONS.index("one-way")
PLAIN = DIRECTIONS.index("none")
BREATHING = ("natural", "regenerated")


@dataclass(frozen=True)
class ClothColumns:
    """n cloths: estimates as Columns, everything else as arrays of length n.

    `type` and `main_fibre` are places in the lexicon and among the fibres; −1 where no type is known, no label read.
    """

    type: npt.NDArray[np.int32]
    structure: Codes
    weight: Column
    bending_length: Column
    stretch_cross: Column
    stretch_length: Column
    recovery: Column
    thickness: Column
    width: Column
    sheer: Column
    shrink: Column
    press: Column
    natural: Column
    breathing: Column
    elastane: Column
    main_fibre: npt.NDArray[np.int16]
    direction: Codes
    print_scale_cm: Floats
    nap: Mask
    use: Codes
    double_knit: Mask
    guessed: Mask
    unsettled: Mask
    wool: Mask
    print_not_followed: Mask
    repeat_length_cm: Floats
    cut_step_cm: Floats
    least_cut_cm: Floats

    def __len__(self) -> int:
        return len(self.structure)

    def take(self, index: npt.NDArray[np.intp]) -> ClothColumns:
        """Some of the cloths, in this order."""
        parts: dict[str, Any] = {each.name: getattr(self, each.name) for each in fields(self)}
        taken: dict[str, Any] = {
            name: part.take(index) if isinstance(part, Column) else part[index] for name, part in parts.items()
        }
        return ClothColumns(**taken)

    def joined(self, other: ClothColumns, index: npt.NDArray[np.intp]) -> ClothColumns:
        """Of both, one after the other, the cloths of this index."""
        parts: dict[str, Any] = {}
        for each in fields(self):
            mine, its = getattr(self, each.name), getattr(other, each.name)
            parts[each.name] = mine.joined(its, index) if isinstance(mine, Column) else np.concatenate((mine, its))[index]
        return ClothColumns(**parts)

    def single(self, place: int) -> ClothColumns:
        """One of the cloths, as plain numbers in the place of arrays: the rules are quick on it (see `elementwise`)."""
        parts: dict[str, Any] = {each.name: getattr(self, each.name) for each in fields(self)}
        plain: dict[str, Any] = {
            name: part.single(place) if isinstance(part, Column) else part[place].item() for name, part in parts.items()
        }
        return ClothColumns(**plain)

    def each(self, value: Any) -> Any:
        """The same value for every cloth, or what is an array of them already."""
        lone = not isinstance(self.structure, np.ndarray)
        return value if lone or isinstance(value, np.ndarray) else np.full(len(self), value)

    def of(self, quantity: Quantity) -> Column:
        """The estimates of one quantity."""
        column: Column = getattr(self, quantity.attribute)
        return column

    def used_for(self, *uses: str) -> Mask:
        """Which cloths are sold for one of these uses."""
        sold: Mask = one_of(self.use, [USES.index(use) for use in uses])
        return sold

    @property
    def knit(self) -> Mask:
        knit: Mask = self.structure == KNIT
        return knit


def of_use(cloths: ClothColumns, end_use: str, tables: Tables) -> Mask:
    """Which cloths are of a kind that is made for this among other things."""
    made = np.array([end_use in kind.end_uses for kind in tables.lexicon.types] + [False])
    found: Mask = made[cloths.type]
    return found


def _column(estimates: Sequence[Estimate | None]) -> Column:
    """Estimates as a Column; NaN where there is none."""
    nan = float("nan")
    rows = [(item.low, item.high, item.best, item.known) if item else (nan, nan, nan, 0) for item in estimates]
    table = np.array(rows, dtype=np.float64).reshape(-1, 4)
    return Column(table[:, 0].copy(), table[:, 1].copy(), table[:, 2].copy(), table[:, 3].astype(np.int8))


def _fibre_share(cloth: Cloth, kinds: tuple[str, ...], tables: Tables) -> Estimate:
    """Share of fibres of these kinds: from the label, or the span over what the cloth's name usually holds."""
    by_name = tables.fibres.by_name
    if cloth.fibres and cloth.fibres.shares:
        share = sum(part for name, part in cloth.fibres.shares.items() if by_name[name].kind in kinds)
        return Estimate.around(share, Known.STATED, 0)
    if cloth.type is None:
        return Estimate.typical(0.0, 1.0)
    spans = []
    for blend in cloth.type.fibres:
        body = [name for name in blend if name in by_name and by_name[name].kind != "elastic"] or list(blend)
        hits = [name in by_name and by_name[name].kind in kinds for name in body]
        spans.append(0.95 if all(hits) else 0.0 if not any(hits) else 0.5)
    return Estimate.typical(min(spans), max(spans))


def _elastane(cloth: Cloth) -> Estimate:
    if cloth.fibres and cloth.fibres.shares:
        share = cloth.fibres.share("elastane", "elastodiene", "elastomultiester", "elastolefin")
        return Estimate.around(share, Known.STATED, 0)
    if cloth.type is None:
        return Estimate.typical(0.0, 0.08)
    has = ["elastane" in blend for blend in cloth.type.fibres]
    return Estimate.typical(0.05 if all(has) else 0.0, 0.05 if any(has) else 0.0)


def columns(cloths: Sequence[Cloth], tables: Tables) -> ClothColumns:
    """Put n cloths into parallel arrays."""
    index, fibres, nan = tables.lexicon.index, tables.fibres.place, float("nan")
    return ClothColumns(
        type=np.array([index[item.type.name] if item.type else -1 for item in cloths], dtype=np.int32),
        structure=np.array([STRUCTURES.index(item.structure) for item in cloths], dtype=np.int8),
        weight=_column([item.weight for item in cloths]),
        bending_length=_column([item.bending_length for item in cloths]),
        stretch_cross=_column([item.stretch_cross for item in cloths]),
        stretch_length=_column([item.stretch_length for item in cloths]),
        recovery=_column([item.recovery for item in cloths]),
        thickness=_column([item.thickness for item in cloths]),
        width=_column([item.width for item in cloths]),
        sheer=_column([item.sheer for item in cloths]),
        shrink=_column([item.shrink for item in cloths]),
        press=_column([Estimate.typical(item.press.low, item.press.high) for item in cloths]),
        natural=_column([_fibre_share(item, ("natural",), tables) for item in cloths]),
        breathing=_column([_fibre_share(item, BREATHING, tables) for item in cloths]),
        elastane=_column([_elastane(item) for item in cloths]),
        main_fibre=np.array([fibres.get(item.fibres.main or "", -1) if item.fibres else -1 for item in cloths], dtype=np.int16),
        direction=np.array([DIRECTIONS.index(item.print.direction or "none") for item in cloths], dtype=np.int8),
        print_scale_cm=np.array([item.print.scale_cm or 0.0 for item in cloths], dtype=np.float64),
        nap=np.array([item.nap for item in cloths], dtype=np.bool_),
        use=np.array([USES.index(item.type.use) if item.type else 0 for item in cloths], dtype=np.int8),
        double_knit=np.array([bool(item.type and item.type.family == "double knit") for item in cloths], dtype=np.bool_),
        guessed=np.array([item.guessed for item in cloths], dtype=np.bool_),
        unsettled=np.array([bool(unsettled(item)) for item in cloths], dtype=np.bool_),
        wool=np.array([item.is_wool for item in cloths], dtype=np.bool_),
        print_not_followed=np.array([item.follow_print is False for item in cloths], dtype=np.bool_),
        repeat_length_cm=np.array([item.print.repeat_length_cm or 0.0 for item in cloths], dtype=np.float64),
        cut_step_cm=np.array([item.cut_step_cm or nan for item in cloths], dtype=np.float64),
        least_cut_cm=np.array([item.least_cut_cm or nan for item in cloths], dtype=np.float64),
    )
