"""The numbers by which the rules compare, typed: data/judging.toml as frozen records, checked once when it is read.

Units stand in the names; a share is 0 to 1. What each number is for stands beside it in the file. Common practice, no
source, unless the file names one.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields, is_dataclass
from typing import TypeVar, get_args, get_origin, get_type_hints

from nematex.core.errors import TableFault
from nematex.core.quantity.estimate import Range

T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class Shares:
    """Which share of a typical or judged range, inside the window, earns which verdict."""

    suits: float
    care: float
    against: float


@dataclass(frozen=True, slots=True)
class Tolerance:
    """What may be missed: shares of the edge, or cm and %."""

    weight: float
    drape_cm: float
    softer_cm: float
    thickness: float
    number: float
    most_stretch_pct: float
    stretch: float
    width_cm: float


@dataclass(frozen=True, slots=True)
class ListRules:
    """How a list of cloths is read as a sample."""

    pad_weight: float
    pad_drape_cm: float
    group_weight_log: float
    group_drape_cm: float
    kin_steps: float


@dataclass(frozen=True, slots=True)
class KnitInWoven:
    """Up to where a knit works in a pattern for wovens."""

    stable_stretch_pct: float
    measured_slack_pct: float


@dataclass(frozen=True, slots=True)
class Ease:
    """Stretch and fit of knits."""

    movement_pct: float
    usable_share: float
    least_ease_cm: float
    most_sizes_down: int


@dataclass(frozen=True, slots=True)
class Fibre:
    """Shares from which a fibre decides."""

    mostly: float
    natural_suits: float
    elastane_in_woven: float
    comfort_stretch_pct: Range


@dataclass(frozen=True, slots=True)
class Width:
    """Widths, all in cm."""

    usual_cm: float
    selvedge_loss_cm: float
    nominal_slack_cm: float
    class_slack_cm: float
    extra_wide_cm: float


@dataclass(frozen=True, slots=True)
class Cover:
    """Levels of sheerness, 0 opaque to 3 sheer."""

    caution_from: float
    nothing_beneath_from: float


@dataclass(frozen=True, slots=True)
class Spread:
    """Half-width of a single value, by how it is known."""

    judged_weight: float
    typical_weight: float
    judged_drape_cm: float
    typical_drape_cm: float
    judged_stretch: float
    typical_stretch: float
    judged_thickness: float
    typical_thickness: float
    judged_width_cm: float
    typical_width_cm: float
    judged_recovery_pct: float
    typical_recovery_pct: float


@dataclass(frozen=True, slots=True)
class Recovery:
    """How much of a stretch should go back, and the elastane that does it."""

    good_pct: float
    least_pct: float
    elastane_pct: Range


@dataclass(frozen=True, slots=True)
class StretchWords:
    """What words on an envelope stand for."""

    stable_most_pct: float
    rigid_most_pct: float
    stretchy_least_pct: float
    four_way_least_pct: float
    stretch_woven_least_pct: float
    about: float
    group_fits: float
    implied_tolerance: float
    band_tolerance: float


@dataclass(frozen=True, slots=True)
class Sheers:
    """When a sheer may be as light as it likes."""

    crisp_cm: float
    from_level: float


@dataclass(frozen=True, slots=True)
class PrintRules:
    """From where a motif is large and a repeat is matched."""

    large_cm: float
    match_from_cm: float


@dataclass(frozen=True, slots=True)
class AmountRules:
    """What the shop cuts, and what a one-way print takes more: (up to this width in cm, share)."""

    cut_step_cm: float
    least_cut_cm: float
    one_way: tuple[tuple[float, ...], ...]


@dataclass(frozen=True, slots=True)
class CautionRules:
    """From where a caution is said, and which cloths shed sequins or hair."""

    shrinks_from_pct: float
    frays_from: float
    fluid_below_cm: float
    synthetic_from: float
    itches_from: float
    sheds: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Look:
    """Where in the window a look aims, and the bending length it aims at without one."""

    share: float
    aim_cm: float


@dataclass(frozen=True, slots=True)
class HandlesLike:
    """One step in each of these counts alike."""

    weight_log: float
    drape_cm: float
    stretch_log: float
    other_structure: float


@dataclass(frozen=True, slots=True)
class Score:
    """What ranks first within a verdict: shares that sum to 1."""

    look: float
    weight: float
    known: float
    clean: float
    named: float
    halfway_cm: float
    occasion: float


@dataclass(frozen=True, slots=True)
class Unknown:
    """What a structure allows where not even the cloth's name is known."""

    weight_gsm: Range
    bend_cm: Range
    stretch_cross_pct: Range
    stretch_length_pct: Range
    thickness_mm: Range


@dataclass(frozen=True, slots=True)
class Combination:
    """Two cloths in one garment: how far apart they may be."""

    weight_suits: float
    weight_care: float
    shrink_suits_pct: float
    shrink_care_pct: float
    stretch_suits_pct: float
    stretch_care_pct: float


@dataclass(frozen=True, slots=True)
class Stands:
    """How each way of lining stands, for tops and for bottoms: full, partial, underlining, slip, left as it is."""

    top: tuple[str, ...]
    bottom: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class LiningRules:
    """What a lining takes and how it must handle."""

    full_share: float
    partial_share: float
    usual_gsm: float
    usual_bend_cm: float
    slides_below_cm: float
    sheer_most: float
    stretch_from_pct: float
    stretch_share: float
    stretch_tolerance: float
    stiffer_cm: float
    shrink_more_pct: float
    aim_share: float
    lined: tuple[str, ...]
    stands: Mapping[str, Stands]


@dataclass(frozen=True, slots=True)
class InterfacingRules:
    """Which interfacing."""

    from_share: float


@dataclass(frozen=True, slots=True)
class SizingRules:
    """How sizes are picked."""

    between_cm: float
    cup_step_cm: float
    drafted_cup: int


@dataclass(frozen=True, slots=True)
class Rules:
    """All of judging.toml, a record for each of its sections."""

    shares: Shares
    tolerance: Tolerance
    list: ListRules
    knit_in_woven: KnitInWoven
    ease: Ease
    fibre: Fibre
    width: Width
    cover: Cover
    spread: Spread
    recovery: Recovery
    words: StretchWords
    sheers: Sheers
    print: PrintRules
    print_scale: Mapping[str, float]
    amount: AmountRules
    cautions: CautionRules
    look: Mapping[str, Look]
    handles_like: HandlesLike
    score: Score
    any: Mapping[str, Unknown]
    combination: Combination
    lining: LiningRules
    interfacing: InterfacingRules
    sizing: SizingRules


def read_rules(raw: object, table: str = "judging.toml") -> Rules:
    """The file's values as records; raises TableFault naming the section, the key and what was expected."""
    return _read(Rules, raw, table)


def _read(kind: type[T], raw: object, place: str) -> T:
    """A record of this kind from a mapping with exactly its fields."""
    if not isinstance(raw, Mapping):
        raise TableFault(place, raw, "must be a section")
    wanted = {field.name: hint for field in fields(kind) for hint in (get_type_hints(kind)[field.name],)}  # type: ignore[arg-type]
    for name in raw:
        if name not in wanted:
            raise TableFault(f"{place}: {name}", raw[name], f"is not known here; the keys are {', '.join(wanted)}")
    for name in wanted:
        if name not in raw:
            raise TableFault(f"{place}: {name}", "", "is missing")
    return kind(**{name: _value(hint, raw[name], f"{place}: {name}") for name, hint in wanted.items()})


def _value(hint: object, raw: object, place: str) -> object:
    """One value of the file, as its field wants it."""
    if is_dataclass(hint) and isinstance(hint, type) and hint is not Range:
        return _read(hint, raw, place)
    if get_origin(hint) is tuple and isinstance(raw, list):
        return tuple(_value(get_args(hint)[0], item, place) for item in raw)
    if get_origin(hint) is not None and isinstance(raw, Mapping):
        return {name: _value(get_args(hint)[1], item, f"{place}: {name}") for name, item in raw.items()}
    if hint is Range and isinstance(raw, list) and len(raw) == 2:
        low, high = (float(end) for end in raw)
        if low <= high:
            return Range(low, high)
    if hint is float and isinstance(raw, int | float) and not isinstance(raw, bool):
        return float(raw)
    if hint in (int, str) and type(raw) is hint:
        return raw
    raise TableFault(place, raw, f"must be {_said(hint)}")


def _said(hint: object) -> str:
    words = {float: "a number", int: "a whole number", str: "a text", Range: "two numbers, the lower first"}
    return next((word for kind, word in words.items() if hint is kind), "a list" if get_origin(hint) is tuple else "a section")
