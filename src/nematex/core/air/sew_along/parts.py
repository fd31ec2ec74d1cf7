"""The parts of a sew-along and their days: from a start on, or back from an event (common practice, no source)."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta


@dataclass(frozen=True)
class PartOf:
    """A part: its title, what is done in it, and whether cloth must be there, washed and dry."""

    title: str
    tasks: tuple[str, ...]
    cuts: bool = False


@dataclass(frozen=True)
class Dated:
    """A part on its day."""

    part: PartOf
    day: date


SEWING = (
    ("Sew: seams and darts", ("stay-stitch", "darts and tucks", "shoulder and side seams")),
    ("Sew: neck, front and pockets", ("interfacing", "collar or neckline", "front and pockets")),
    ("Sew: sleeves and waist", ("sleeves and cuffs", "waist, elastic or zip")),
    ("Sew: lining", ("lining", "facings")),
)


def usual_parts(sewing: int) -> tuple[PartOf, ...]:
    """The usual parts with so many of sewing, 1 to 4."""
    parts = [
        PartOf(
            "Choose cloth and supplies", ("choose cloth", "choose your size for the amount", "order cloth, thread and notions")
        ),
        PartOf("Size and changes", ("measure yourself", "choose a size", "trace the pattern", "change it, sew a trial")),
        PartOf("Wash and cut", ("cloth washed, dried and pressed", "lay the pieces", "cut and mark"), cuts=True),
        *(PartOf(title, tasks) for title, tasks in SEWING[:sewing]),
        PartOf("Finish", ("hem", "buttons and buttonholes", "press", "show it")),
    ]
    return tuple(parts)


def from_start(parts: Sequence[PartOf], start: date, every: int) -> list[Dated]:
    """The parts from a start on, one every so many days."""
    return [Dated(part, start + timedelta(days=every * at)) for at, part in enumerate(parts)]


def back_from(parts: Sequence[PartOf], event: date, every: int, spare_days: int) -> list[Dated]:
    """The parts so that the last is over so many days before an event."""
    last = event - timedelta(days=spare_days)
    return [Dated(part, last - timedelta(days=every * (len(parts) - 1 - at))) for at, part in enumerate(parts)]
