"""How large a print is, in a word; limits in data/judging.toml."""

from __future__ import annotations

from nematex.core.tables import Tables


def scale_words(tables: Tables) -> list[str]:
    """The words, the smallest first."""
    return list(tables.judging.print_scale)


def scale_word(size_cm: float, tables: Tables) -> str:
    """The word for a motif or repeat of this size in cm."""
    return next(word for word, up_to_cm in tables.judging.print_scale.items() if size_cm <= up_to_cm)
