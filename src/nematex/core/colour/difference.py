"""Colours: sRGB, linear light, OKLab and CIEDE2000, and a colour as a word a presenter can say.

sRGB by IEC 61966-2-1; OKLab by its published matrices (from memory); CIEDE2000 (ISO/CIE 11664-6) is scikit-image's,
held against the published pairs in the tests.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt
from skimage.color import deltaE_ciede2000, rgb2lab

from nematex.core.colour.names import ColourName
from nematex.core.errors import FieldFault

Array = npt.NDArray[np.float64]
# Judged at a glance: below the first "within a hair", below the second "tone in tone".
WITHIN_A_HAIR = 2.0
TONE_IN_TONE = 10.0

_TO_LMS = np.array(
    [
        [0.4122214708, 0.5363325363, 0.0514459929],
        [0.2119034982, 0.6806995451, 0.1073969566],
        [0.0883024619, 0.2817188376, 0.6299787005],
    ]
)
_TO_OKLAB = np.array(
    [
        [0.2104542553, 0.7936177850, -0.0040720468],
        [1.9779984951, -2.4285922050, 0.4505937099],
        [0.0259040371, 0.7827717662, -0.8086757660],
    ]
)
LUMINANCE = np.array([0.2126, 0.7152, 0.0722])


def linear_from_srgb(srgb: npt.ArrayLike) -> Array:
    """Linear light 0–1 from sRGB 0–1."""
    value = np.asarray(srgb, dtype=np.float64)
    linear: Array = np.where(value <= 0.04045, value / 12.92, ((value + 0.055) / 1.055) ** 2.4)
    return linear


def srgb_from_linear(linear: npt.ArrayLike) -> Array:
    """sRGB 0–1 from linear light 0–1; values outside are cut."""
    value = np.clip(np.asarray(linear, dtype=np.float64), 0, 1)
    srgb: Array = np.where(value <= 0.0031308, value * 12.92, 1.055 * value ** (1 / 2.4) - 0.055)
    return srgb


def oklab_from_linear(linear: npt.ArrayLike) -> Array:
    """OKLab (…, 3) from linear sRGB (…, 3)."""
    lms = np.cbrt(np.clip(np.asarray(linear, dtype=np.float64), 0, None) @ _TO_LMS.T)
    oklab: Array = lms @ _TO_OKLAB.T
    return oklab


def lab_from_srgb(srgb: npt.ArrayLike) -> Array:
    """CIELAB (…, 3), D65, from sRGB 0–255 (…, 3)."""
    lab: Array = rgb2lab(np.asarray(srgb, dtype=np.float64) / 255)
    return lab


def delta_e(lab: npt.ArrayLike, other: npt.ArrayLike) -> Array:
    """CIEDE2000 between CIELAB colours; the arrays broadcast."""
    first, second = np.broadcast_arrays(np.asarray(lab, dtype=np.float64), np.asarray(other, dtype=np.float64))
    difference: Array = deltaE_ciede2000(first, second)
    return difference


def read_hex(text: str, field: str = "colour") -> tuple[int, int, int]:
    """An sRGB triple from '#24404a'; raises FieldFault."""
    digits = text.strip().removeprefix("#")
    if len(digits) != 6 or any(digit not in "0123456789abcdefABCDEF" for digit in digits):
        raise FieldFault(field, text, "is not a colour; write it like #24404a")
    return int(digits[:2], 16), int(digits[2:4], 16), int(digits[4:], 16)


def to_hex(srgb: Sequence[int]) -> str:
    return "#{:02x}{:02x}{:02x}".format(*srgb)


def nearest_name(srgb: Sequence[int], names: Sequence[ColourName]) -> ColourName:
    """The colour word that lies nearest by CIEDE2000."""
    distances = delta_e(lab_from_srgb(srgb), lab_from_srgb([each.srgb for each in names]))
    return names[int(np.argmin(distances))]
