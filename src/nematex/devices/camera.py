"""The camera above the table: a protocol, and a simulated one with uneven light, blur, grain and compression."""

from __future__ import annotations

import io
from dataclasses import dataclass, replace
from typing import Protocol

import numpy as np
import scipy
from PIL import Image

from nematex.core.colour.difference import srgb_from_linear
from nematex.devices.made_disc import disc_picture
from nematex.devices.made_swatch import MadeCloth, Picture, flat_picture


@dataclass(frozen=True, slots=True)
class Photo:
    """An encoded picture and its scale in px per cm."""

    content: bytes
    px_per_cm: float


class Camera(Protocol):
    """Takes a picture of the cloth on the table."""

    def swatch(self) -> Photo: ...


@dataclass(frozen=True, slots=True)
class Conditions:
    """How badly a photo is taken: grain and weave as shares of the signal, light falling off across the picture."""

    grain: float = 0.01
    weave: float = 0.02
    falloff: float = 0.1
    blur_px: float = 0.5
    skew_deg: float = 0.0
    quality: int = 92


CLEAN = Conditions(0.002, 0.0, 0.0, 0.3, 0.0, 97)
USUAL = Conditions()
POOR = Conditions(0.035, 0.05, 0.35, 1.0, 2.0, 75)


def _lit(picture: Picture, how: Conditions, rng: np.random.Generator) -> Picture:
    """The light falls off in a direction of its own, and grain and weave come on top."""
    height, width = picture.shape[:2]
    y, x = np.meshgrid(np.linspace(-1, 1, height), np.linspace(-1, 1, width), indexing="ij")
    angle = rng.uniform(0, 2 * np.pi)
    fall = np.cos(angle) * x + np.sin(angle) * y
    light = np.exp(how.falloff * (0.8 * fall - 0.4 * (x * x + y * y)))
    threads = scipy.ndimage.gaussian_filter(rng.normal(size=(height, width)), (0.4, 1.2))
    threads += scipy.ndimage.gaussian_filter(rng.normal(size=(height, width)), (1.2, 0.4))
    return picture * light[..., None] * (1 + how.weave * threads / threads.std())[..., None]


def _taken(picture: Picture, px_per_cm: float, how: Conditions, rng: np.random.Generator) -> Photo:
    picture = scipy.ndimage.gaussian_filter(_lit(picture, how, rng), (how.blur_px, how.blur_px, 0))
    srgb = srgb_from_linear(picture) + rng.normal(scale=how.grain, size=picture.shape)
    out = io.BytesIO()
    Image.fromarray((srgb.clip(0, 1) * 255).round().astype(np.uint8)).save(out, "JPEG", quality=how.quality)
    return Photo(out.getvalue(), px_per_cm)


def photograph(
    cloth: MadeCloth, width_cm: float, height_cm: float, px_per_cm: float, how: Conditions, rng: np.random.Generator
) -> Photo:
    """A JPEG of the made-up cloth laid flat."""
    return _taken(flat_picture(cloth, width_cm, height_cm, px_per_cm, how.skew_deg), px_per_cm, how, rng)


def photograph_disc(
    drape_pct: float,
    folds: int,
    px_per_cm: float,
    how: Conditions,
    rng: np.random.Generator,
    cloth: float = 0.1,
    table: float = 0.85,
) -> Photo:
    """A JPEG of a made-up draped disc; the tones of cloth and table are reflectances 0–1."""
    return _taken(disc_picture(drape_pct, folds, px_per_cm, rng, cloth, table), px_per_cm, how, rng)


def photograph_tones(tones: tuple[float, float], px_per_cm: float, how: Conditions, rng: np.random.Generator) -> Photo:
    """A JPEG of two grey fields side by side, 20 × 12 cm, of these linear tones 0–1, in even light."""
    height, width = round(12 * px_per_cm), round(20 * px_per_cm)
    picture = np.full((height, width, 3), tones[1])
    picture[:, : width // 2] = tones[0]
    return _taken(picture, px_per_cm, replace(how, falloff=0.0), rng)
