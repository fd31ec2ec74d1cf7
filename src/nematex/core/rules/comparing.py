"""The numbers by which a cloth is held against a pattern."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.quantity.estimate import Range


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
class Near:
    """How far apart two kinds may be in the logarithms of weight and thickness, and in cm of bending length."""

    weight_log: float
    bend_cm: float
    thick_log: float


@dataclass(frozen=True, slots=True)
class Kinship:
    """How near two kinds must be to be kin: of one family, of one surface, or of surfaces that stand beside each other."""

    apart: float
    family: Near
    surface: Near
    neighbour: Near
    surfaces_beside: tuple[tuple[str, ...], ...]
    of_one_family: tuple[tuple[str, ...], ...]  # surfaces that kinds of one family may differ in


@dataclass(frozen=True, slots=True)
class Hand:
    """How a hand word narrows the range that a cloth's name has: shares of that range, and cm beyond its end."""

    least_share: float
    end_share: float
    beyond_cm: float


@dataclass(frozen=True, slots=True)
class KnitInWoven:
    """Up to where a knit works in a pattern for wovens."""

    stable_stretch_pct: float
    measured_slack_pct: float
    stand_in: tuple[str, ...]


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
class Facing:
    """From where a shaped facing grows before it is stitched, cm of bending length."""

    grows_below_cm: float
    loose: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Cover:
    """Levels of sheerness, 0 opaque to 3 sheer."""

    caution_from: float
    nothing_beneath_from: float
    see_through: float


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
    bags: tuple[str, ...]


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
    loose_band_least_pct: float
    very_stretchy_from_pct: float


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
