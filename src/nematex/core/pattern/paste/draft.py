"""What a pasted envelope was read as: the pattern's fields, and for each line where it went."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any


@dataclass(slots=True)
class Line:
    """One line as it was pasted, the field it was read into ("" where nothing was taken), and a fault if there is one.

    `row`: what of it is read, where that is not all: one garment's share.
    """

    number: int
    text: str
    field: str = ""
    fault: str = ""
    row: str | None = None

    @property
    def said(self) -> str:
        return self.text if self.row is None else self.row


@dataclass
class Draft:
    """Fields under the names of the pattern exchange; measurements in cm, amounts in m."""

    lines: list[Line] = field(default_factory=list)
    texts: dict[str, str] = field(default_factory=dict)
    sizes: list[dict[str, Any]] = field(default_factory=list)
    requirements: list[dict[str, Any]] = field(default_factory=list)
    options: list[dict[str, Any]] = field(default_factory=list)
    parts: list[dict[str, Any]] = field(default_factory=list)
    details: list[str] = field(default_factory=list)
    numbers: dict[str, float] = field(default_factory=dict)
    flags: dict[str, bool] = field(default_factory=dict)
    garments: list[Draft] = field(default_factory=list)  # of an envelope of several, each garment's own; first is this one

    @property
    def unread(self) -> list[Line]:
        return [line for line in self.lines if line.text.strip() and not line.field]

    @property
    def faults(self) -> list[Line]:
        return [line for line in self.lines if line.fault]

    def add_text(self, name: str, text: str) -> None:
        """Append to a text field, as a new line."""
        text = text.strip()
        if text:
            self.texts[name] = f"{self.texts[name]}\n{text}" if self.texts.get(name) else text

    def as_row(self) -> dict[str, Any]:
        """The fields as the exchange knows them."""
        row: dict[str, Any] = {**self.texts, **self.numbers, **self.flags}
        for name in ("sizes", "requirements", "options", "parts", "details"):
            if getattr(self, name):
                row[name] = getattr(self, name)
        if self.garments:
            row["garments"] = [each.as_row() for each in self.garments]
        return row
