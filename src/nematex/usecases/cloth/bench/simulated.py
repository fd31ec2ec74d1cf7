"""The simulated instruments, set up over a cloth of the shelf: its hidden true values are drawn once from its code."""

from __future__ import annotations

import zlib

import numpy as np

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.measuring.square_and_wash import disc_area_cm2
from nematex.core.colour.difference import LUMINANCE, linear_from_srgb, read_hex
from nematex.core.errors import UnknownChoice
from nematex.core.quantity.estimate import Estimate
from nematex.core.quantity.reader import to_number
from nematex.devices.bench import FAULTS, SimulatedBench, Truth
from nematex.store.records import ClothRecord
from nematex.usecases.cloth.bench.measures import Measure, Method

TRANSMITTANCE = ((0.02, 0.1), (0.17, 0.28), (0.32, 0.45), (0.55, 0.75))  # by level of see-through


def truth_of(record: ClothRecord, cloth: Cloth) -> Truth:
    """What is true of this cloth, always the same for the same article code."""
    rng = np.random.default_rng(zlib.crc32(record.code.encode()))

    def drawn(estimate: Estimate) -> float:
        return float(rng.uniform(estimate.low, estimate.high))

    bend = drawn(cloth.bending_length)
    ground = linear_from_srgb(np.array(read_hex(record.colours[0]) if record.colours else (200, 195, 185)) / 255) @ LUMINANCE
    level = round(cloth.sheer.best)
    return Truth(
        weight_gsm=drawn(cloth.weight),
        bend_along_cm=bend * 1.08,
        bend_across_cm=bend * 0.92,
        stretch_cross_pct=drawn(cloth.stretch_cross),
        stretch_length_pct=drawn(cloth.stretch_length),
        recovery_pct=drawn(cloth.recovery) if cloth.recovery else float(rng.uniform(75, 97)),
        width_cm=cloth.width.best - float(rng.uniform(0, 2)),
        selvedge_cm=float(rng.uniform(1.5, 4)),
        shrink_length_pct=float(rng.uniform(0.2, 1)) * cloth.shrink.high,
        shrink_width_pct=float(rng.uniform(0, 0.4)) * cloth.shrink.high,
        reflectance=float(np.clip(ground * (0.95, 0.8, 0.55, 0.3)[level], 0.02, 0.85)),
        transmittance=float(rng.uniform(*TRANSMITTANCE[level])),
    )


def simulated_bench(record: ClothRecord, cloth: Cloth, fault: str, seed: int) -> SimulatedBench:
    """The instruments over this cloth; raises UnknownChoice."""
    if fault not in FAULTS:
        raise UnknownChoice("fault", fault, FAULTS, "fault")
    return SimulatedBench(truth_of(record, cloth), np.random.default_rng(seed), fault)


def taken(bench: SimulatedBench, measure: Measure, method: Method, values: dict[str, str]) -> dict[str, str]:
    """The boxes of a method as the simulated instruments fill them; empty where there is none. Raises FieldFault."""

    def default(name: str) -> float:
        box = next(each for each in method.fields if each.name == name)
        return to_number(values.get(f"{name}-0") or box.default, box.label)

    series: dict[str, list[float]] = {}
    match measure.name, method.name:
        case "weight", "square":
            series["grams"] = bench.grams(default("side") ** 2, 3)
        case "weight", "disc":
            series["grams"] = bench.grams(disc_area_cm2(default("diameter")), 3)
        case "ramp", _:
            for name in ("along_up", "along_down", "across_up", "across_down"):
                series[name] = bench.overhang_cm(name.startswith("along"), name.endswith("up"), 2)
        case "stretch", _:
            relaxed = default("relaxed")
            series["across"], series["along"] = (bench.stretched_cm(relaxed, across, 3) for across in (True, False))
            series["after"] = [bench.after_cm(relaxed, sum(series["across"]) / 3)]
        case "sheer", "tones":
            names = ("on_black", "on_white", "bare_black", "bare_white")
            series = {name: [tone] for name, tone in zip(names, bench.tones(), strict=True)}
        case "width", _:
            series["full"], series["usable"] = bench.width_cm(False, 3), bench.width_cm(True, 3)
        case "shrink", _:
            before = default("before")
            series["along_after"], series["across_after"] = ([bench.after_wash_cm(before, along)] for along in (True, False))
    return {f"{name}-{at}": f"{value:g}" for name, numbers in series.items() for at, value in enumerate(numbers)}


def photographed(bench: SimulatedBench, measure: Measure, method: Method) -> tuple[dict[str, bytes], dict[str, str]]:
    """The photos of a method from the simulated camera rig, by box, and the boxes that go with them."""
    match measure.name, method.name:
        case "disc", "photo":
            photo = bench.disc()
            return {"photo": photo.content}, {"px_per_cm-0": f"{photo.px_per_cm:g}", "wide-0": ""}
        case "sheer", "photos":
            black, white = bench.over_cards()
            return {"black": black.content, "white": white.content}, {}
    return {}, {}
