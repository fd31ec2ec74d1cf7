"""A spread of made-up cloths over kinds, directions and colours, for tests and the benchmark."""

from __future__ import annotations

import numpy as np

from nematex.devices.made_swatch import EVEN, POINTED, MadeCloth, bordered, checked, printed, striped

COLOURS = (
    ((245, 238, 220), (170, 60, 50), (40, 70, 90), (90, 120, 60)),
    ((29, 39, 70), (240, 225, 190), (200, 150, 50), (120, 160, 170)),
    ((201, 152, 43), (60, 40, 30), (250, 240, 220), (150, 60, 40)),
    ((180, 205, 190), (90, 60, 110), (240, 240, 235), (60, 90, 70)),
    ((25, 25, 28), (230, 90, 110), (240, 235, 225), (70, 150, 120)),
)


def _one_colourway(colours: tuple[tuple[int, int, int], ...], rng: np.random.Generator) -> list[MadeCloth]:
    two, three = colours[:2], colours[:3]
    width = float(rng.uniform(0.4, 1.4))
    length_cm, width_cm, size_cm = (float(rng.uniform(*span)) for span in ((4, 7), (4, 7), (1.1, 1.9)))
    motifs = tuple(str(each) for each in rng.choice(POINTED, size=2, replace=False))
    lengthwise = bool(rng.integers(2))
    return [
        MadeCloth("solid", "none", colours[:1]),
        striped(two, ((0, width), (1, width))),
        striped(three, ((0, 2 * width), (1, width / 2), (2, width)), lengthwise),
        striped(three, ((0, 2 * width), (1, width / 2), (2, width), (1, width / 2)), lengthwise),
        checked(two, ((0, width), (1, width)), ((0, width), (1, width))),
        checked(three, ((0, 2 * width), (1, width / 2), (2, width)), ((0, 2 * width), (1, width / 2), (2, width))),
        checked(three, ((0, 3 * width), (1, width / 3)), ((0, 3 * width), (2, width / 3))),
        *(
            printed(direction, colours, chosen, length_cm, width_cm, size_cm, int(rng.integers(10**6)))
            for direction in ("one-way", "all-over", "two-way")
            for chosen in (motifs, motifs[:1])
        ),
        printed("two-way", colours, (EVEN[int(rng.integers(len(EVEN)))],), length_cm / 2, width_cm / 2, 1.0),
        bordered(colours, motifs[0], width_cm / 1.5, 2.0, 9.0),
    ]


def made_set(seed: int = 5) -> list[MadeCloth]:
    """Seventy-five cloths: fifteen in each of five colourways."""
    rng = np.random.default_rng(seed)
    return [cloth for colours in COLOURS for cloth in _one_colourway(colours, rng)]
