"""One state of the shelf, and the next one made from it: what did not change is taken over."""

from __future__ import annotations

from bisect import insort
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt
from propcache.api import cached_property

from nematex.core.cloth.columns import ClothColumns, columns
from nematex.core.cloth.estimates import Cloth, placed_cloth
from nematex.core.cloth.lexicon import key
from nematex.core.quantity.arrays import Floats
from nematex.core.quantity.estimate import Known
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord
from nematex.usecases.held.shelf_columns import ShelfColumns, shelf_columns

FEW = 200  # cloths that are put into their places one by one
Spans = Mapping[str, tuple[float, float]]  # property → least and greatest of its readings


def _order(record: ClothRecord) -> tuple[str, int]:
    """By name, as a reader looks for it."""
    return record.facts.name.casefold(), record.id


def known(record: ClothRecord, tables: Tables) -> Cloth:
    """A cloth as the rules see it, with what the shop itself has said of how it is cut."""
    return replace(
        placed_cloth(record.facts, tables),
        follow_print=record.follow_print,
        cut_step_cm=record.cut_step_cm,
        least_cut_cm=record.least_cut_cm,
    )


def judged_by(record: ClothRecord) -> tuple[object, ...]:
    """All of a record that the rules see: what it is called by the shop, costs and has in stock is none of it."""
    return record.facts, record.follow_print, record.cut_step_cm, record.least_cut_cm


def _is_half_known(record: ClothRecord, cloth: Cloth) -> bool:
    return cloth.weight.known < Known.STATED or cloth.type is None or record.facts.width_cm is None


def _search_key(record: ClothRecord, cloth: Cloth) -> str:
    """What a search looks through, in one folded line."""
    kind = cloth.type.name if cloth.type else ""
    facts = record.facts
    return key(f"{record.code} {cloth.name} {facts.cloth or ''} {facts.fibres or ''} {record.supplier} {kind}")


@dataclass(frozen=True)
class Shelf:
    """Position n is the same cloth in records, cloths and columns. `version` is the last change that is in it."""

    version: int
    records: list[ClothRecord]
    cloths: list[Cloth]
    tables: Tables
    spans: Mapping[int, Spans]

    @classmethod
    def of(cls, version: int, records: Sequence[ClothRecord], tables: Tables, spans: Mapping[int, Spans]) -> Shelf:
        """A shelf read from nothing."""
        ordered = sorted(records, key=_order)
        return cls(version, ordered, [known(record, tables) for record in ordered], tables, spans)

    def renewed(self, version: int, changed: Sequence[ClothRecord], gone: set[int], spans: Mapping[int, Spans]) -> Shelf:
        """The next state: cloths that are others to the rules are known anew, the rest is taken over, arrays and all."""
        others = Shelf.of(version, [record for record in changed if not self._judges_alike(record)], self.tables, {})
        moved = Shelf(version, list(changed), [self._or_known_in(others, record.id) for record in changed], self.tables, {})
        away = gone | set(moved.place)
        records = [record for record in self.records if record.id not in away]
        if len(moved.records) <= FEW:
            for record in moved.records:
                insort(records, record, key=_order)
        else:
            records = sorted(records + moved.records, key=_order)
        origin = self._origin(records, moved)
        both = self.cloths + moved.cloths
        spans = {**{cloth_id: span for cloth_id, span in self.spans.items() if cloth_id not in away}, **spans}
        made = Shelf(version, records, [both[place] for place in origin], self.tables, spans)
        worked_out = vars(made)
        if "columns" in vars(self):
            worked_out["columns"] = self.columns.joined(others.columns, self._origin(records, others))
        if "filed" in vars(self):
            worked_out["filed"] = self.filed.joined(moved.filed, origin)
        if "search_keys" in vars(self):
            keys = self.search_keys + moved.search_keys
            worked_out["search_keys"] = [keys[place] for place in origin]
        return made

    def by_other_tables(self, tables: Tables) -> Shelf:
        """The same cloths, known by the rules as they are now."""
        return Shelf.of(self.version, self.records, tables, self.spans)

    def _judges_alike(self, record: ClothRecord) -> bool:
        """Whether a cloth of this shelf is still the same to the rules: its stock or its price alone is another."""
        place = self.place.get(record.id)
        return place is not None and judged_by(self.records[place]) == judged_by(record)

    def _or_known_in(self, others: Shelf, cloth_id: int) -> Cloth:
        place = others.place.get(cloth_id)
        return self.cloths[self.place[cloth_id]] if place is None else others.cloths[place]

    def _origin(self, records: Sequence[ClothRecord], other: Shelf) -> npt.NDArray[np.intp]:
        """Where each of these stands in this shelf and the other, one after the other; the other comes before this."""
        size, mine, its = len(self.records), self.place, other.place
        return np.array([size + its[each.id] if each.id in its else mine[each.id] for each in records], dtype=np.intp)

    @cached_property
    def columns(self) -> ClothColumns:
        return columns(self.cloths, self.tables)

    @cached_property
    def filed(self) -> ShelfColumns:
        """What the filters look at."""
        return shelf_columns(self.records, self.cloths, self.tables)

    @cached_property
    def stock_m(self) -> Floats:
        """Metres in stock, 0 where not known."""
        return np.array([record.stock_m or 0.0 for record in self.records], dtype=np.float64)

    @cached_property
    def may_have_m(self) -> Floats:
        """Metres in stock, without end where nobody counts them."""
        return np.array([np.inf if record.stock_m is None else record.stock_m for record in self.records], dtype=np.float64)

    @cached_property
    def settled(self) -> npt.NDArray[np.bool_]:
        """Which cloths are what they are said to be: of the others nothing is proposed."""
        return ~self.columns.unsettled

    @cached_property
    def half_known(self) -> list[int]:
        """Places of the cloths without a stated weight, a width, or a name of the trade."""
        both = zip(self.records, self.cloths, strict=True)
        return [at for at, (record, cloth) in enumerate(both) if _is_half_known(record, cloth)]

    @cached_property
    def place(self) -> dict[int, int]:
        """Cloth id → position."""
        return {record.id: place for place, record in enumerate(self.records)}

    @cached_property
    def _place_by_cloth(self) -> dict[int, int]:
        return {id(cloth): place for place, cloth in enumerate(self.cloths)}

    def place_of(self, cloth: Cloth) -> int | None:
        """Where this very cloth stands; None where it is another, such as one with a value tried out."""
        return self._place_by_cloth.get(id(cloth))

    @cached_property
    def search_keys(self) -> list[str]:
        """What a search looks through, one line per cloth."""
        return [_search_key(record, cloth) for record, cloth in zip(self.records, self.cloths, strict=True)]

    def holding(self, words: str) -> npt.NDArray[np.bool_]:
        """Which cloths hold all of these words: the one search of the shelf."""
        asked = key(words).split()
        return np.array([all(word in text for word in asked) for text in self.search_keys], dtype=np.bool_)
