"""A photograph of flat cloth, read: kind of print, direction, repeats, motif scale, palette, each with a confidence.

The picture's vertical is the cloth's length. "Not sure" is an answer: a length that was not found is None.
"""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
import scipy
from PIL import Image

from nematex.core.colour.difference import Array, oklab_from_linear
from nematex.core.errors import FieldFault
from nematex.core.photo.bands import Bands, bands, noise_variance, turned
from nematex.core.photo.correlate import overlap_ncc
from nematex.core.photo.direction import Direction, direction_of_bands, direction_of_motifs, turned_likeness
from nematex.core.photo.light import evened
from nematex.core.photo.motifs import find_motifs
from nematex.core.photo.palette import Palette, palette
from nematex.core.photo.profile import profile_likeness, profile_ncc
from nematex.core.photo.repeat import NONE_FOUND, Repeat, repeat_of_profile, repeats

WORKED_PX = 660  # longest side of the picture that is analysed
SOLID_BELOW = 0.012  # standard deviation of the smoothed picture in OKLab
BANDED = 0.93
ONE_AXIS = 0.08
BORDER = 0.35
REPORTED = 0.6  # below this nothing is claimed and the presenter is asked
FEW_REPEATS = 2.5  # fewer than this across the bands may be the one edge of a border
LEAST_REST = 0.01  # share of the variance beside the bands that may be a row of motifs
CORRELATED_PX = 340
NOISY = 0.012  # standard deviation of the grain in linear light


@dataclass(frozen=True)
class SwatchReading:
    """What a swatch photo tells; lengths in cm, colours as sRGB 0–255."""

    kind: str
    direction: str
    repeat_length_cm: float | None
    repeat_width_cm: float | None
    scale_cm: float | None
    palette: tuple[tuple[tuple[int, int, int], float], ...]
    ground: int
    confidence: dict[str, float] = field(default_factory=dict)


def reduced(linear: Array, px_per_cm: float, longest: int = WORKED_PX) -> tuple[Array, float]:
    """The picture (h, w, channels) reduced by area mean to at most `longest` px, and its px per cm."""
    share = longest / max(linear.shape[:2])
    if share >= 1:
        return linear, px_per_cm
    height, width = (round(size * share) for size in linear.shape[:2])
    channels = [Image.fromarray(linear[..., each].astype(np.float32)) for each in range(linear.shape[2])]
    small = [np.asarray(each.resize((width, height), Image.Resampling.BOX), dtype=np.float64) for each in channels]
    return np.stack(small, axis=-1), px_per_cm * width / linear.shape[1]


def _smooth(linear: Array) -> Array:
    """Grain calmed: a breath of blur, and before it a median where the picture is noisy."""
    if np.sqrt(noise_variance(linear) / 3) > NOISY:
        linear = np.stack(
            [scipy.ndimage.median_filter(linear[..., each].astype(np.float32), size=3) for each in range(3)], axis=-1
        )
    smooth: Array = scipy.ndimage.gaussian_filter(linear.astype(np.float64), (0.7, 0.7, 0))
    return smooth


def check_swatch(linear: Array, px_per_cm: float) -> None:
    """Raises FieldFault for a picture (h, w, 3) or a scale that nothing can be read by."""
    if not 2 <= px_per_cm <= 2000:
        raise FieldFault("px_per_cm", px_per_cm, "must lie between 2 and 2000 pixels per cm")
    if min(linear.shape[:2]) < 48:
        raise FieldFault("photo", f"{linear.shape[1]} × {linear.shape[0]} px", "is too small; at least 48 px on each side")


def read_swatch(linear: Array, px_per_cm: float) -> SwatchReading:
    """Read a photo given in linear light (h, w, 3) with its scale in px per cm; raises FieldFault."""
    check_swatch(linear, px_per_cm)
    small, scale = reduced(linear, px_per_cm)
    even = evened(small)
    smooth = _smooth(even)
    colours = palette(smooth)
    oklab = oklab_from_linear(smooth)
    spread = float(np.sqrt(oklab.reshape(-1, 3).var(axis=0).sum()))
    if len(colours.shares) == 1 or spread < SOLID_BELOW:
        return _solid(colours, spread)
    striped = bands(smooth, noise_variance(smooth))
    # Each colour as far from the others as the eye sees it, without what is left of light and noise.
    clean = oklab_from_linear(colours.linear)[colours.labels]
    mixed = 0.5 * clean + 0.5 * oklab
    if striped.columns + striped.rows > BANDED or (striped.low_rank > 0.97 and striped.columns + striped.rows > 0.35):
        return _banded(mixed, colours, striped, scale)
    return _motif(mixed, smooth, colours, striped, scale)


def _centred(picture: Array, px_per_cm: float) -> tuple[Array, float]:
    """The picture for correlation: smaller, about its mean, and its px per cm."""
    small, scale = reduced(picture, px_per_cm, CORRELATED_PX)
    return small - small.mean(axis=(0, 1)), scale


def _solid(colours: Palette, spread: float) -> SwatchReading:
    only = int(np.argmax(colours.shares))
    srgb = tuple(int(v) for v in colours.srgb[only])
    sure = float(np.clip(1 - spread / 0.05, 0.5, 0.99))
    return SwatchReading(
        "solid",
        "none",
        None,
        None,
        None,
        (((srgb[0], srgb[1], srgb[2]), 1.0),),
        0,
        {
            "kind": sure,
            "direction": sure,
            "repeat_length_cm": 0.0,
            "repeat_width_cm": 0.0,
            "scale_cm": 0.0,
            "palette": colours.confidence,
        },
    )


def _finished(
    kind: str,
    sure: float,
    direction: Direction,
    along: Repeat,
    across: Repeat,
    size: tuple[float | None, float],
    colours: Palette,
    scale: float,
) -> SwatchReading:
    def cm(repeat: Repeat) -> float | None:
        return round(repeat.length_px / scale, 2) if repeat.length_px and repeat.confidence >= REPORTED else None

    return SwatchReading(
        kind=kind,
        direction=direction.word,
        repeat_length_cm=cm(along),
        repeat_width_cm=cm(across),
        scale_cm=round(size[0], 2) if size[0] else None,
        palette=tuple(
            ((int(r), int(g), int(b)), round(float(share), 4))
            for (r, g, b), share in zip(colours.srgb, colours.shares, strict=True)
        ),
        ground=colours.ground,
        confidence={
            "kind": round(sure, 2),
            "direction": round(direction.confidence, 2),
            "repeat_length_cm": round(along.confidence, 2),
            "repeat_width_cm": round(across.confidence, 2),
            "scale_cm": round(size[1] if size[0] else 0.0, 2),
            "palette": round(colours.confidence, 2),
        },
    )


def _banded(mixed: Array, colours: Palette, striped: Bands, scale: float) -> SwatchReading:
    """A stripe, a check or a border: repeats from the straightened picture's profiles."""
    straight = turned(mixed, striped.turn_deg)
    profiles = straight.mean(axis=1), straight.mean(axis=0)  # down the picture, across it
    smaller, larger = sorted((striped.columns, striped.rows))
    check = smaller / max(larger, 1e-9) >= ONE_AXIS
    sure = float(np.clip((striped.columns + striped.rows - 0.8) / 0.18, 0.55, 0.99))
    lengthwise = striped.columns > striped.rows
    along, across = (repeat_of_profile(profile_ncc(each, each)) for each in profiles)
    if not check:
        one = across if lengthwise else along
        seen = len(straight) if not lengthwise else straight.shape[1]
        if seen < FEW_REPEATS * (one.length_px or seen) and (edge := _row_of_motifs(straight, lengthwise)):
            repeats_of = (edge, NONE_FOUND) if lengthwise else (NONE_FOUND, edge)
            return _finished("border", 0.8, Direction("one-way", 0.8), *repeats_of, (None, 0.0), colours, scale)
        along, across = (NONE_FOUND, across) if lengthwise else (along, NONE_FOUND)
    shown = [profile for profile, on in zip(profiles, (check or not lengthwise, check or lengthwise), strict=True) if on]
    likeness = min(profile_likeness(each) for each in shown)
    lengths = [each.length_px for each in (along, across) if each.length_px]
    size = (max(lengths) / scale if lengths else None, 0.7)
    return _finished("check" if check else "stripe", sure, direction_of_bands(likeness), along, across, size, colours, scale)


def _row_of_motifs(straight: Array, lengthwise: bool) -> Repeat | None:
    """The repeat along the bands of what the bands leave over, if that is more than grain: then it is a border."""
    rest = straight - straight.mean(axis=0 if lengthwise else 1, keepdims=True)
    if (rest**2).sum() < LEAST_REST * ((straight - straight.mean(axis=(0, 1))) ** 2).sum():
        return None
    centred, scale = _centred(rest, 1.0)
    along, across = repeats(overlap_ncc(centred, centred))
    found = along if lengthwise else across
    if not found.length_px or found.confidence < REPORTED:
        return None
    return Repeat(found.length_px / scale, found.peak, found.confidence)


def _motif(mixed: Array, smooth: Array, colours: Palette, striped: Bands, scale: float) -> SwatchReading:
    """Motifs, or a border: one axis repeats, the other does not and holds much of the variance."""
    found = find_motifs(colours.labels, colours.ground, smooth, max(1, round(0.06 * scale)))
    size_px = found.size_px()
    size_cm = size_px / scale if size_px else None
    full_scale = scale
    centred, scale = _centred(mixed, scale)
    ncc = overlap_ncc(centred, centred)
    along, across = repeats(ncc)
    lengthwise = striped.columns > striped.rows
    held = max(striped.columns, striped.rows)
    if held > BORDER and not (across if lengthwise else along).length_px and (edge := _row_of_motifs(mixed, lengthwise)):
        sure = float(np.clip(0.5 + held - BORDER, 0.5, 0.95))
        repeats_of = (edge, NONE_FOUND) if lengthwise else (NONE_FOUND, edge)
        return _finished("border", sure, Direction("one-way", sure), *repeats_of, (size_cm, 0.6), colours, full_scale)
    peak = max(along.peak, across.peak)
    likeness = turned_likeness(centred, peak if peak >= REPORTED else 1.0)
    direction = direction_of_motifs(likeness, found, peak >= REPORTED)
    sure = float(np.clip(1.0 - (striped.columns + striped.rows - 0.5) / 0.5, 0.5, 0.95))
    return _finished("motif", sure, direction, along, across, (size_cm, 0.6 if len(found) >= 3 else 0.4), colours, scale)
