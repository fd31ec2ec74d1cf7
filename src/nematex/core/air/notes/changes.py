"""What is different now from what was published, fact by fact."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class Change:
    """A fact of something that was published: what was said then and what is so now ("" where it is not said)."""

    about: str
    fact: str
    was: str
    now: str

    @property
    def correction(self) -> str:
        """What is put beside the published text."""
        if not self.was:
            return f"{self.about}: {self.fact} {self.now}."
        if not self.now:
            return f"{self.about}: {self.fact} “{self.was}” no longer holds."
        return f"{self.about}: {self.fact} is {self.now}, not {self.was}."


def changes(was: Mapping[str, str], now: Mapping[str, str]) -> list[Change]:
    """Facts by 'about|fact', then and now; what is gone as a whole or came new is no correction of what was said."""
    gone = {_about(key) for key in was} - {_about(key) for key in now}
    return [
        Change(about, fact, was[key], now.get(key, ""))
        for key in was
        for about, fact in [(_about(key), key.partition("|")[2])]
        if about not in gone and was[key] != now.get(key, "")
    ]


def _about(key: str) -> str:
    return key.partition("|")[0]


def facts_told(told: Mapping[str, Any], facts: Sequence[str]) -> dict[str, str]:
    """The named facts of the cloths and patterns of notes, by 'about|fact'."""
    found: dict[str, str] = {}
    for place in told.get("places", ()):
        for one in place.get("shown", ()):
            for name in ("cloth", "pattern", "make"):
                record = one.get(name) or {}
                about = str(record.get("name") or place.get("title", ""))
                for fact in facts:
                    if record.get(fact):
                        said = record[fact]
                        found[f"{about}|{fact}"] = "; ".join(said) if isinstance(said, list) else str(said)
    return found
