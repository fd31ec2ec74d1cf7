"""What is open while a pasted envelope is read line by line."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from nematex.core.pattern.paste.draft import Draft
from nematex.core.tables import Tables

TEXTS = ("recommended", "avoid", "notions", "details", "licence", "season", "house", "code", "name", "garment", "lining")
USES = ("lining", "interfacing", "contrast", "underlining", "pocket bag")
TABLES = ("requirements", "body", "finished", *USES)
CELLS = re.compile(r"\t|\||\s{2,}")

UNSAID = ""  # the view of a row that says none


@dataclass
class Open:
    """Section, unit, views, use and nap in force; the sizes that columns stand for; the columns of an open table."""

    tables: Tables
    draft: Draft = field(default_factory=Draft)
    section: str = ""
    unit: str = ""
    views: list[str] = field(default_factory=list)
    use: str = "main"
    nap: bool = False
    always_nap: bool = False
    stars: dict[int, bool] = field(default_factory=dict)  # how many stars beside a width → with nap
    band: str = ""
    groups: list[list[str]] = field(default_factory=list)
    widths: list[float] = field(default_factory=list)  # the columns of an open table whose head is widths
    columns: list[tuple[str, float | None]] = field(default_factory=list)
    last_count: int = 0
    width: str = ""  # that a heading says for the rows below it

    def has_view(self, name: str) -> bool:
        """Whether any line speaks of a view of this name."""
        word, others = r"\b(?i:views?|versions?|variations?|modelle?|ansicht|variante)\s+", r"(?:[A-H](?:,|\s|&|and|und)+)*"
        said = re.compile(rf"{word}{others}{name}\b")
        return any(said.search(line.said) for line in self.draft.lines)

    def own_label(self, label: str) -> str:
        """The label as it stands in the band that is open."""
        twin = f"{label} ({self.band})"
        return twin if any(size["label"] == twin for size in self.draft.sizes) else label
