"""The shop as it is at one moment: every page and command takes it once and works on it alone."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from propcache.api import cached_property

from nematex.core.cloth.estimates import Cloth
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord, PatternRecord, Programme
from nematex.store.settings import DEMO
from nematex.store.versions import RULES
from nematex.usecases.held.drawer import Drawer
from nematex.usecases.held.shelf import Shelf
from nematex.usecases.quantity.saying import Voice


@dataclass(frozen=True)
class State:
    """Shelf, drawer and programmes with the tables and settings in force, as one transaction saw them.

    `programmes` are by date, each with its picks.
    """

    settings: Mapping[str, str]
    tables: Tables
    shelf: Shelf
    drawer: Drawer
    programmes: tuple[Programme, ...] = ()
    programmes_version: int = 0
    worked_out: dict[object, Any] = field(default_factory=dict, compare=False)  # what rests on this very state alone

    @property
    def version(self) -> tuple[int, int, int]:
        """What judging rests on: shelf, drawer, and which tables."""
        return self.shelf.version, self.drawer.version, id(self.tables)

    @property
    def shared_version(self) -> str:
        """The same for every process: what judging rests on, by numbers that the database gives."""
        return f"{self.shelf.version} {self.drawer.version} {self.settings.get(RULES, 0)} {self.settings.get('cut', '')}"

    @cached_property
    def voice(self) -> Voice:
        return Voice.of(self.settings, self.tables)

    @cached_property
    def times_picked(self) -> Counter[int]:
        """Cloth id → in how many picks it stands."""
        return Counter(pick.cloth_id for programme in self.programmes for pick in programme.picks)

    @property
    def shop_name(self) -> str:
        return self.settings.get("shop", "Your shop")

    @property
    def is_made_up(self) -> bool:
        """Whether this is the demo: only there do readings of simulated instruments count."""
        return DEMO in self.settings

    def cloth(self, cloth_id: int) -> tuple[ClothRecord, Cloth] | None:
        """A cloth of the shelf, as kept and as known."""
        place = self.shelf.place.get(cloth_id)
        return None if place is None else (self.shelf.records[place], self.shelf.cloths[place])

    def pattern(self, pattern_id: int) -> PatternRecord | None:
        return self.drawer.by_id.get(pattern_id)
