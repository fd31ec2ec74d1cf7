"""Photos read: swatches and draped discs with known truth, see-through cards, and files that are no photo."""

from __future__ import annotations

import io
import json
import math
import os
import subprocess
import sys
from collections import Counter
from pathlib import Path

import numpy as np
import pytest
from conftest import ROOT
from PIL import Image
from wrong_pictures import WRONG, jpeg

from nematex.core.colour.difference import Array
from nematex.core.errors import FieldFault
from nematex.core.photo import palette
from nematex.core.photo.see_through import contrast_ratio, over_ground, see_through
from nematex.devices.camera import CLEAN, POOR, USUAL, Conditions, photograph, photograph_disc
from nematex.devices.made_set import made_set
from nematex.usecases.files.photo_file import kept_copy, open_photo, taken
from nematex.usecases.photo.interpretation import disc_json, swatch_json

LEVELS = {"clean": CLEAN, "usual": USUAL, "poor": POOR}
PX = 26.0


@pytest.fixture
def every(request: pytest.FixtureRequest) -> int:
    """Of how many made-up cloths one is looked at: a photo takes a second and more, so by default of few."""
    return 9 if request.config.getoption("--long") else 25


def _tally(how: Conditions, first: int, every: int) -> Counter[str]:
    """What was right over some made-up cloths from the first on, and how many there were."""
    tally: Counter[str] = Counter()
    for number, cloth in enumerate(made_set()[first::every]):
        photo = photograph(cloth, 15, 16, PX, how, np.random.default_rng(number))
        found = swatch_json(open_photo(photo.content), PX)
        tally["all"] += 1
        tally["kind"] += found["kind"] == cloth.kind
        tally["direction"] += found["direction"] == cloth.direction
        for name in ("repeat_length_cm", "repeat_width_cm"):
            true, said = getattr(cloth, name), found[name]
            tally["repeats"] += said is None if true is None else said is not None and abs(said / true - 1) < 0.03
        tally["surely wrong"] += (
            found["direction"] not in (cloth.direction, "unsure") and found["confidence"]["direction"] > 0.8
        )
    return tally


@pytest.mark.parametrize(("first", "level"), list(enumerate(LEVELS)))
def test_made_up_swatches_are_read(first: int, level: str, every: int) -> None:
    # The truth is what the generator drew; the benchmark reads all 75 cloths at each level.
    found = _tally(LEVELS[level], 2 * first, every)
    assert found["all"] == len(made_set()[2 * first :: every]) >= 3
    assert found["all"] - found["kind"] <= found["all"] // 8
    assert found["all"] - found["direction"] <= found["all"] // 4
    assert 2 * found["all"] - found["repeats"] <= found["all"] // 4
    assert found["surely wrong"] <= found["all"] // 8


@pytest.mark.long
def test_the_kept_copy_reads_as_the_photo_does(every: int) -> None:
    """It is what the worker reads: smaller than a photo of nine million pixels, and written anew as JPEG."""
    for number, cloth in enumerate(made_set()[4 :: 2 * every]):
        photo = photograph(cloth, 15, 16, PX, USUAL, np.random.default_rng(number))
        large = io.BytesIO()
        Image.open(io.BytesIO(photo.content)).resize((2925, 3120), Image.Resampling.BICUBIC).save(large, "PNG")
        sent, scale = large.getvalue(), PX * 2925 / Image.open(io.BytesIO(photo.content)).width
        kept, whole = taken(sent), swatch_json(open_photo(sent), scale)
        assert kept.opened.width_px == pytest.approx(2925, rel=0.001)
        found = swatch_json(open_photo(kept.copy), scale * kept.reduced)
        assert (found["kind"], len(found["palette"])) == (whole["kind"], len(whole["palette"])), cloth
        for name in ("repeat_length_cm", "repeat_width_cm"):
            assert (found[name] is None) == (whole[name] is None), cloth
            assert found[name] is None or found[name] == pytest.approx(whole[name], rel=0.02)


def test_a_picture_of_very_many_colours_is_looked_at_more_coarsely_and_an_ordinary_one_is_not(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    held: list[int] = []
    sound = palette._off_blends

    def counting(linear: Array, colours: Array, enough: float = 0.0) -> Array:
        held.append(len(linear) * len(colours) * (len(colours) + 1) // 2)
        return sound(linear, colours, enough)

    monkeypatch.setattr(palette, "_off_blends", counting)
    motley = np.kron(np.random.default_rng(3).random((40, 60, 3)), np.ones((11, 11, 1)))
    palette.palette(motley)
    assert palette.MOST_MIXTURES / 4 < max(held) <= palette.MOST_MIXTURES
    held.clear()
    ordinary = np.kron(np.random.default_rng(3).random((40, 60, 1)) > 0.5, np.full((11, 11, 3), (0.2, 0.5, 0.1)))
    palette.palette(ordinary + 0.02)
    assert max(held, default=0) < palette.MOST_MIXTURES / 4


def test_colours_and_ground_are_found() -> None:
    cloth = next(each for each in made_set() if each.kind == "stripe" and len(each.colours) == 3)
    found = swatch_json(open_photo(photograph(cloth, 15, 16, PX, USUAL, np.random.default_rng(1)).content), PX)
    assert len(found["palette"]) == 3
    for colour in cloth.colours:
        assert min(math.dist(colour, each["srgb"]) for each in found["palette"]) < 12
    assert sum(each["share"] for each in found["palette"]) == pytest.approx(1, abs=0.01)
    assert math.dist(found["palette"][found["ground"]]["srgb"], cloth.colours[0]) < 12


@pytest.mark.parametrize("folds", [0, 4, 6, 9])
@pytest.mark.parametrize("cloth_tone", [0.08, 0.6])
def test_a_draped_disc_is_measured(folds: int, cloth_tone: float) -> None:
    drape = 97.0 if not folds else 85.0 - 6 * folds
    photo = photograph_disc(
        drape, folds, 18, USUAL, np.random.default_rng(folds), cloth_tone, 0.85 if cloth_tone < 0.3 else 0.05
    )
    found = disc_json(open_photo(photo.content), 18)
    assert found["drape_coefficient_pct"] == pytest.approx(drape, abs=1.5)
    assert found["folds"] == folds


def test_a_disc_that_is_cut_off_is_said() -> None:
    photo = photograph_disc(60, 5, 18, CLEAN, np.random.default_rng(0))
    whole = Image.open(io.BytesIO(photo.content))
    out = io.BytesIO()
    whole.crop((whole.width // 3, 0, whole.width, whole.height)).save(out, "JPEG")
    with pytest.raises(FieldFault, match="cuts the disc off"):
        disc_json(open_photo(out.getvalue()), 18)


def test_see_through_solves_the_layer_formula_back() -> None:
    # Kubelka's layer over a ground, from memory: R_g = R₀ + T²·g/(1 − R₀·g); cards of 0.04 and 0.88.
    for own, through, word in (
        (0.7, 0.05, "opaque"),
        (0.55, 0.2, "slightly sheer"),
        (0.4, 0.5, "sheer"),
        (0.05, 0.2, "slightly sheer"),
    ):
        black, white = over_ground(own, through, 0.04), over_ground(own, through, 0.88)
        found = see_through(black, white, 0.04, 0.88)
        assert found.reflectance == pytest.approx(own, abs=1e-3)
        assert found.transmittance == pytest.approx(through, abs=1e-2)
        assert found.word == word
    # The contrast ratio is the quotient of the two (as ISO 2814 and 6504-3 reckon opacity, from memory).
    assert contrast_ratio(0.45, 0.5) == pytest.approx(0.9)
    with pytest.raises(FieldFault, match="swapped"):
        see_through(0.5, 0.2, 0.04, 0.88)


@pytest.mark.parametrize("message", WRONG)
def test_what_is_no_photo_is_refused(message: str) -> None:
    with pytest.raises(FieldFault, match=message):
        open_photo(WRONG[message])


def test_a_kept_photo_holds_no_metadata_and_stands_upright() -> None:
    exif = Image.Exif()
    exif[0x0112] = 6  # taken with the camera on its side
    exif[0x010F] = "Made-up camera"
    kept = Image.open(io.BytesIO(kept_copy(jpeg(exif=exif.tobytes()))[0]))
    assert kept.size == (300, 400)
    assert not kept.getexif()
    assert b"Made-up" not in kept_copy(jpeg(exif=exif.tobytes()))[0]


def test_the_command_line_prints_json_and_names_faults(tmp_path: Path) -> None:
    cloth = made_set()[1]
    photo = tmp_path / "photo.jpg"
    photo.write_bytes(photograph(cloth, 15, 16, PX, CLEAN, np.random.default_rng(1)).content)

    def run(*words: str) -> subprocess.CompletedProcess[str]:
        environment = {**os.environ, "PYTHONPATH": str(ROOT / "src")}
        line = [sys.executable, "-m", "nematex.command", *words]
        return subprocess.run(line, env=environment, check=False, capture_output=True, text=True)

    done = run("swatch", str(photo), "--px-per-cm", str(PX))
    found = json.loads(done.stdout)
    assert list(found) == [
        "kind", "direction", "repeat_length_cm", "repeat_width_cm", "scale_cm", "palette", "ground", "confidence",
    ]  # fmt: skip
    assert (found["kind"], found["repeat_length_cm"]) == ("stripe", None)
    refused = run("disc", __file__, "--px-per-cm", "20")
    assert (refused.returncode, refused.stdout) == (2, "")
    assert "no picture that is known here" in refused.stderr
    assert run("swatch", str(photo), "--px-per-cm", "0").returncode == 2
