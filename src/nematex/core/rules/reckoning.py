"""The numbers for what follows a verdict: how much, what to warn of, what ranks first, what goes beneath, which size."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from nematex.core.quantity.estimate import Range


@dataclass(frozen=True, slots=True)
class AmountRules:
    """What the shop cuts, and what a one-way print takes more: (up to this width in cm, share)."""

    cut_step_cm: float
    least_cut_cm: float
    one_way: tuple[tuple[float, ...], ...]
    least_of_wide: float


@dataclass(frozen=True, slots=True)
class KitRules:
    """What goes into a kit beside its cloth; `thread_m` by garment."""

    rib_strip_cm: float
    reel_m: float
    usual_thread_m: float
    thread_m: Mapping[str, float]


@dataclass(frozen=True, slots=True)
class ChangeRules:
    """Proportions of a garment behind changes to its pattern, and how much of the cloth laid pieces use (shares)."""

    used: float
    used_one_way: float
    garment_length_cm: float
    sleeve_width_cm: float
    sleeve_length_cm: float
    sleeve_left_off_cm: float
    cuff_length_cm: float
    leg_length_cm: float
    leg_pieces: float
    leg_above: float
    belt_piece_cm: float
    pocket_cm2: float


@dataclass(frozen=True, slots=True)
class CoverageRules:
    """How many garments of a set should reach each body, and which share of a hole a suggestion has to reach.

    A gap below `shortest_cm` is between two sizes; the dearest garment up to `alike_price` times the cheapest is as dear.
    """

    enough: int
    shortest_cm: float
    closes_from: float
    alike_price: float


@dataclass(frozen=True, slots=True)
class ColourRules:
    """ΔE00 up to which two colours are the same, of one tone, almost the same; and a set all of one tone.

    `name_off`: from where a cloth is not of the colour that its name says.
    """

    hair: float
    tone: float
    near_miss: float
    monotone: float
    monotone_from: int
    name_off: float


@dataclass(frozen=True, slots=True)
class OutfitRules:
    """When pieces of a capsule go together; what is loud begins with prints of this size in cm."""

    shares_within: float
    neutral_chroma: float
    neutral_dark: float
    top_times: float
    over_times: float
    loud_from_cm: float
    loud_contrast: float


@dataclass(frozen=True, slots=True)
class CopyRules:
    """What each difference between a described garment and a pattern counts; one that a change closes counts `closed_share`.

    A length that is off by `length_cm` counts 1. Of the cloths that are near, dear are those from `dear_from` of the way up.
    """

    dear_from: float

    length_cm: float
    most_length_cm: float
    closed_share: float
    sleeve: float
    neck: float
    collar: float
    skirt: float
    leg: float
    waist: float
    closure: float
    flounce: float
    pockets: float
    knot: float
    loose: float


@dataclass(frozen=True, slots=True)
class FeedRules:
    """What is believed of a stock feed, from when its figures are late, and over how long it is reckoned how a cloth sells."""

    most_m: float
    most_more_m: float
    late_min: float
    wait_s: float
    popular_days: int


@dataclass(frozen=True, slots=True)
class RunRules:
    """A speaker's pace, the seconds that showing one cloth takes beside the words, and the least to open and to close.

    `prior`: for how many parts the estimate counts beside a shop's own takes; what is shorter or longer than `least_share` and
    `most_share` of the estimate tells nothing. Two cloths within `alike_share` of each other are said to be as heavy.
    """

    words_per_min: float
    showing_s: float
    opening_s: float
    closing_s: float
    prior: float
    least_share: float
    most_share: float
    alike_share: float


@dataclass(frozen=True, slots=True)
class SewAlongRules:
    """Days to wash and dry, working days to pack, how much is kept over, days between parts, when an event is near, hours of
    work by difficulty."""

    dry_days: int
    packing_days: int
    spare: float
    every_days: int
    before_event_days: int
    short_days: int
    emergency_days: int
    hours: Mapping[str, tuple[float, float]]


@dataclass(frozen=True, slots=True)
class KindRules:
    """What a kind of programme usually asks for: so many places, this share of them new, garments by layer, one loud print."""

    slots: int
    arrivals_share: float
    layers: bool
    one_loud: bool


@dataclass(frozen=True, slots=True)
class ProposalRules:
    """What a proposal weighs, in best pairings: what a tie in colour or a word of the theme adds, what each miss costs.

    `kinds`: what each kind of programme asks for.
    """

    usual_slots: int
    pairings: int
    gap: float
    seconds: float
    harmony: float
    theme: float
    price: float
    must: float
    cover: float
    reach: float
    reach_step_cm: float
    variety: float
    too_alike: float
    garment_share: float
    colour_share: float
    new_days: int
    overstock_m: float
    dark_below: float
    light_above: float
    spare: float
    kinds: Mapping[str, KindRules]


@dataclass(frozen=True, slots=True)
class KindSteps:
    """Between two kinds of cloth, in steps: to be another kind at all, of another family, structure or surface, of a surface
    that stands beside it, made for nothing of the same, of another sort of fibre, of no kind that is known."""

    another: float
    family: float
    structure: float
    surface: float
    surface_beside: float
    use: float
    fibre: float
    unknown: float
    surfaces_beside: tuple[tuple[str, ...], ...]
    fibres_alike: tuple[tuple[str, ...], ...]


@dataclass(frozen=True, slots=True)
class LikenessRules:
    """From where a difference between two cloths is noticed, what each counts, and from where they are not alike."""

    weight_from_gsm: float
    weight_times: float
    bend_cm: float
    stretch_points: float
    sheer_levels: float
    width_cm: float
    colour_off: float
    measured: float
    farthest: float
    counts: Mapping[str, float]
    kinds: KindSteps


@dataclass(frozen=True, slots=True)
class StandInRules:
    """What it counts to suit other patterns and to have no label, and which price is a cheap one."""

    disagreement: float
    unlabelled: float
    cheap_share: float


@dataclass(frozen=True, slots=True)
class CautionRules:
    """From where a caution is said, which cloths shed hair, and how many are said with one pairing."""

    most: int
    creases_from: float
    shrinks_from_pct: float
    frays_from: float
    fluid_below_cm: float
    synthetic_from: float
    itches_from: float
    sheds: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Look:
    """Where in the window a look aims, the bending length it aims at without one, and between what it is itself."""

    share: float
    aim_cm: float
    least_cm: float
    most_cm: float
    stands_cm: float  # so much more than usual a detail may stand off


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
    by_name_alone: float


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
    """What a lining takes and how it must handle; `never` and `drags` are families of cloth."""

    full_share: float
    partial_share: float
    usual_width_cm: float
    lined_pieces: tuple[str, ...]
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
    most_gsm: float
    stiffest_cm: float
    aim_most_gsm: float
    under_sheer_gsm: float
    under_crisp_gsm: float
    crisp_aim_gsm: float
    never: tuple[str, ...]
    drags: tuple[str, ...]
    contrast_from: float
    dearer: float
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
