"""A photo's reading as plain values: what the command line prints and what the swatch page shows."""

from __future__ import annotations

from typing import Any

from nematex.core.colour.difference import nearest_name
from nematex.core.photo.disc import DiscReading, read_disc
from nematex.core.photo.swatch import SwatchReading, read_swatch
from nematex.tables import colour_names
from nematex.usecases.files.photo_file import Opened


def read_swatch_photo(photo: Opened, px_per_cm: float) -> SwatchReading:
    """The swatch; px_per_cm is that of the photo as sent."""
    return read_swatch(photo.linear, px_per_cm * photo.reduced)


def read_disc_photo(photo: Opened, px_per_cm: float) -> DiscReading:
    """The disc; px_per_cm is that of the photo as sent."""
    return read_disc(photo.linear, px_per_cm * photo.reduced)


def swatch_json(photo: Opened, px_per_cm: float) -> dict[str, Any]:
    """Kind, direction, repeats, scale, palette with names, ground, confidence."""
    found = read_swatch_photo(photo, px_per_cm)
    return {
        "kind": found.kind,
        "direction": found.direction,
        "repeat_length_cm": found.repeat_length_cm,
        "repeat_width_cm": found.repeat_width_cm,
        "scale_cm": found.scale_cm,
        "palette": [
            {"srgb": list(srgb), "name": nearest_name(srgb, colour_names()).name, "share": share}
            for srgb, share in found.palette
        ],
        "ground": found.ground,
        "confidence": found.confidence,
    }


def disc_json(photo: Opened, px_per_cm: float) -> dict[str, Any]:
    """Drape coefficient, folds, confidence."""
    found = read_disc_photo(photo, px_per_cm)
    return {
        "drape_coefficient_pct": found.drape_coefficient_pct,
        "folds": found.folds,
        "confidence": found.confidence,
    }
