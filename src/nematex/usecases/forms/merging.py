"""A form knows what it showed, so that saving it never undoes what a colleague saved while it was open."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass

from nematex.core.errors import FieldFault
from nematex.core.sent_json import read_sent
from nematex.core.signs import without_controls

SHOWN = "shown"  # the hidden field that holds what the form showed


def clean(text: str) -> str:
    """A text as it is compared and kept."""
    return without_controls(text).strip()


def as_shown(values: Mapping[str, str]) -> str:
    """What a form shows, for its hidden field."""
    return json.dumps({name: clean(text) for name, text in values.items() if text}, ensure_ascii=False)


def read_shown(text: str) -> dict[str, str]:
    """What a form showed, out of its hidden field."""
    try:
        found = read_sent(text or "{}")
    except (ValueError, RecursionError):
        return {}
    return {name: value for name, value in found.items() if isinstance(value, str)} if isinstance(found, dict) else {}


@dataclass(frozen=True)
class Clash:
    """A field that was changed here and elsewhere: its label, and the three texts."""

    field: str
    label: str
    shown: str
    now: str
    typed: str


class Clashing(FieldFault):
    """Fields were changed here and, meanwhile, by somebody else. `values` are the form's, `now` what is kept."""

    def __init__(self, clashes: list[Clash], values: dict[str, str], now: Mapping[str, str]) -> None:
        first = clashes[0]
        others = f" The same holds for: {', '.join(each.label for each in clashes[1:])}." if len(clashes) > 1 else ""
        super().__init__(
            first.label,
            first.typed or "nothing",
            f"clashes with what somebody else saved while this form was open: it was {_said(first.shown)} and is "
            f"{_said(first.now)} now.{others} Nothing of this form was saved. Save again to keep what stands here, or take "
            "theirs first.",
        )
        self.clashes, self.values, self.now = clashes, values, dict(now)


def _said(text: str) -> str:
    return f"“{text[:60]}{'…' if len(text) > 60 else ''}”" if text else "nothing"


def merged(
    given: Mapping[str, str], now: Mapping[str, str], fields: Iterable[str], label: Callable[[str], str]
) -> dict[str, str]:
    """The texts to save: what was typed where the form's own text was changed, else what is kept now. Raises Clashing."""
    shown = read_shown(given.get(SHOWN, ""))
    values, clashes = {}, []
    for name in fields:
        before, kept = clean(shown.get(name, "")), clean(now.get(name, ""))
        typed = clean(given.get(name, before))
        values[name] = kept if typed == before else typed
        if typed != before and kept not in (before, typed):
            clashes.append(Clash(name, label(name), before, kept, typed))
    if clashes:
        raise Clashing(clashes, values, now)
    return values
