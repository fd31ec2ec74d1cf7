"""How well and how fast photos are read: the confusion matrix over made-up cloths, and the time for a large upload."""

from __future__ import annotations

import io
import time
from collections import Counter

import numpy as np
from PIL import Image

from nematex.devices.camera import CLEAN, POOR, USUAL, Conditions, photograph
from nematex.devices.made_set import made_set
from nematex.usecases.files.photo_file import open_photo
from nematex.usecases.photo.interpretation import swatch_json

LEVELS: dict[str, Conditions] = {"clean": CLEAN, "usual": USUAL, "poor": POOR}
PX_PER_CM = 26.0
WITHIN = 0.03  # of a repeat
LARGE = (4000, 3000)


def _print_matrix(title: str, pairs: Counter[tuple[str, str]]) -> None:
    """Rows are what was drawn, columns what was read."""
    words = sorted({word for pair in pairs for word in pair})
    print(f"photos: {title}: drawn down the side, read across")
    print(" " * 12 + "".join(f"{word:>10}" for word in words))
    for true in words:
        if any(pairs[true, said] for said in words):
            print(f"  {true:<10}" + "".join(f"{pairs[true, said] or '.':>10}" for said in words))


def _repeat_right(true: float | None, said: float | None) -> bool:
    return said is None if true is None else said is not None and abs(said / true - 1) < WITHIN


def confusion() -> None:
    """Every made-up cloth at every noise level, read."""
    kinds, directions = Counter[tuple[str, str]](), Counter[tuple[str, str]]()
    repeats, count = 0, 0
    for how in LEVELS.values():
        for at, cloth in enumerate(made_set()):
            photo = photograph(cloth, 15, 16, PX_PER_CM, how, np.random.default_rng(at))
            found = swatch_json(open_photo(photo.content), PX_PER_CM)
            kinds[cloth.kind, found["kind"]] += 1
            directions[cloth.direction, found["direction"]] += 1
            count += 1
            for name in ("repeat_length_cm", "repeat_width_cm"):
                repeats += _repeat_right(getattr(cloth, name), found[name])
    _print_matrix(f"kind of print, {count} pictures, {', '.join(LEVELS)}", kinds)
    _print_matrix("direction", directions)
    print(f"photos: repeats right within {WITHIN:.0%}, or rightly not found: {repeats} of {2 * count}")


def large_upload() -> None:
    """Opening and reading a photo of twelve million pixels."""
    cloth = made_set()[7]
    small = photograph(cloth, 20, 15, 40, USUAL, np.random.default_rng(1))
    out = io.BytesIO()
    Image.open(io.BytesIO(small.content)).resize(LARGE, Image.Resampling.BICUBIC).save(out, "JPEG", quality=90)
    spent = []
    for _ in range(3):
        start = time.perf_counter()
        swatch_json(open_photo(out.getvalue()), LARGE[0] / 20)
        spent.append(time.perf_counter() - start)
    print(
        f"photos: {LARGE[0] * LARGE[1] / 1e6:.0f} million pixels opened and read in {sorted(spent)[1]:.2f} s (wanted under 2)"
    )
