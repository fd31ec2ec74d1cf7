"""Single values and lists that a page showed: whether they are still so when it is sent."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable

from nematex.usecases.forms.merging import Clash, Clashing

SIGN_LETTERS = 16


def must_be_as_shown(label: str, shown: str | None, now: str, typed: str) -> None:
    """Raise Clashing where the value is another than the page showed, unless it is what was typed; None: nothing was shown."""
    if shown is not None and now not in (shown, typed):
        raise Clashing([Clash(label, label, shown, now, typed)], {label: typed}, {label: now})


def sign_of(values: Iterable[object]) -> str:
    """A short sign of what a page showed, where that is too long to send along."""
    return hashlib.sha256(repr(list(values)).encode()).hexdigest()[:SIGN_LETTERS]
