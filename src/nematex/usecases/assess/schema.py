"""The input and output of `nematex assess`, as validation models; their JSON Schema is published."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, field_validator

from nematex.core.cloth.facts import HOW_KNOWN

Positive = Annotated[float, Field(gt=0, allow_inf_nan=False)]
Percent = Annotated[float, Field(ge=0, le=400, allow_inf_nan=False)]
Text = Annotated[str, Field(max_length=2000)]
ShortText = Annotated[str, Field(max_length=300)]


class Strict(BaseModel):
    """No unknown keys: a misspelt field is a fault, not a silence."""

    model_config = ConfigDict(extra="forbid")


class PrintIn(Strict):
    direction: Literal["none", "all-over", "two-way", "one-way"] | None = None
    scale_cm: Annotated[float, Field(ge=0, le=300)] | None = None
    repeat_length_cm: Annotated[float, Field(ge=0, le=300)] | None = None
    repeat_width_cm: Annotated[float, Field(ge=0, le=300)] | None = None


class ClothIn(Strict):
    """A cloth: at least a cloth name or a structure."""

    name: ShortText | None = None
    cloth: ShortText | None = None
    fibres: ShortText | None = None
    structure: Literal["woven", "knit", "net"] | None = None
    weight_gsm: Annotated[float, Field(gt=0, le=2000)] | None = None
    width_cm: Annotated[float, Field(gt=0, le=500)] | None = None
    bending_length_cm: Annotated[float, Field(gt=0, le=15)] | None = None
    drape_coefficient_pct: Annotated[float, Field(ge=0, le=100)] | None = None
    hand: Literal["fluid", "soft", "moderate", "crisp", "stiff"] | None = None
    stretch_cross_pct: Percent | None = None
    stretch_length_pct: Percent | None = None
    recovery_pct: Annotated[float, Field(ge=0, le=100)] | None = None
    thickness_mm: Annotated[float, Field(gt=0, le=50)] | None = None
    sheer: Literal["opaque", "slightly sheer", "semi-sheer", "sheer"] | None = None
    nap: bool | None = None
    shrink_length_pct: Annotated[float, Field(ge=0, le=50)] | None = None
    print: PrintIn | None = None
    deadstock: bool = False
    known: dict[str, Literal["measured", "stated", "judged", "typical"]] = Field(default_factory=dict)

    @field_validator("known")
    @classmethod
    def _known_fields(cls, value: dict[str, str]) -> dict[str, str]:
        for name in value:
            if name not in HOW_KNOWN:
                raise ValueError(f"has no property {name!r}; choose from {', '.join(HOW_KNOWN)}")
        return value


class PartIn(Strict):
    name: ShortText
    fit: Literal["close", "semi", "loose", "free"] | None = Field(
        default=None, description="Left out: as such a part commonly sits."
    )
    details: list[ShortText] = Field(default_factory=list, max_length=60)


class RequirementIn(Strict):
    view: ShortText = "A"
    sizes: list[ShortText] = Field(default_factory=list, max_length=60)
    width_cm: Annotated[float, Field(gt=0, le=500)]
    length_m: Annotated[float, Field(gt=0, le=50)]
    with_nap: bool = False
    use: Literal["main", "lining", "interfacing", "contrast"] = "main"

    @field_validator("view", mode="before")
    @classmethod
    def _view_text(cls, value: Any) -> Any:
        return str(value) if isinstance(value, int) else value

    @field_validator("sizes", mode="before")
    @classmethod
    def _sizes_text(cls, value: Any) -> Any:
        return [str(item) if isinstance(item, int) else item for item in value] if isinstance(value, list) else value


class OptionIn(Strict):
    """A collar, a sleeve, ties: what views differ in and what can be mixed. No views: every view has it."""

    name: ShortText
    part: ShortText = ""
    views: list[ShortText] = Field(default_factory=list, max_length=40)
    details: list[ShortText] = Field(default_factory=list, max_length=40)


Body = Annotated[float, Field(gt=0, le=300, allow_inf_nan=False)]


class SizeIn(Strict):
    """One size: body and finished measurements; `band` is the envelope it is sold in."""

    label: ShortText
    bust_cm: Body | None = None
    waist_cm: Body | None = None
    hip_cm: Body | None = None
    band: ShortText = ""
    cup: ShortText = ""
    high_bust_cm: Body | None = None
    finished_bust_cm: Body | None = None
    finished_waist_cm: Body | None = None
    finished_hip_cm: Body | None = None

    @field_validator("label", mode="before")
    @classmethod
    def _label_text(cls, value: Any) -> Any:
        return str(value) if isinstance(value, int) and not isinstance(value, bool) else value


class EdgeFixIn(Strict):
    """An edge of a window as the shop set it for this pattern; `window` is named as in "why"."""

    window: ShortText
    side: Literal["low", "high"]
    value: Annotated[float, Field(ge=0, le=5000, allow_inf_nan=False)]
    reason: ShortText
    by: ShortText = ""
    on: ShortText = ""


class ReadingFixIn(Strict):
    """What words of the envelope mean; no cloths: nothing."""

    words: ShortText
    cloths: list[ShortText] = Field(default_factory=list, max_length=60)
    reason: ShortText
    by: ShortText = ""
    on: ShortText = ""


class PatternIn(Strict):
    """A pattern: at least a structure or a recommendation."""

    name: ShortText | None = None
    garment: ShortText | None = None
    structure: Literal["woven", "knit", "either"] | None = None
    recommended: Text | None = None
    avoid: Text | None = None
    min_stretch_cross_pct: Percent | None = None
    min_stretch_length_pct: Percent | None = None
    details: list[ShortText] = Field(default_factory=list, max_length=60)
    parts: list[PartIn] = Field(default_factory=list, max_length=40)
    lined: bool = False
    nightwear: bool = False
    wearer: Literal["adult", "child"] = Field(default="adult", alias="for")
    widest_piece_cm: Annotated[float, Field(gt=0, le=500)] | None = None
    requirements: list[RequirementIn] = Field(default_factory=list, max_length=500)
    options: list[OptionIn] = Field(default_factory=list, max_length=60)
    sizes: list[SizeIn] = Field(default_factory=list, max_length=80)
    notions: Text | None = None
    edge_fixes: list[EdgeFixIn] = Field(default_factory=list, max_length=60)
    reading_fixes: list[ReadingFixIn] = Field(default_factory=list, max_length=60)


class BodyIn(Strict):
    """Whose size: body measurements, the ease wanted, and whether it is worn over other clothes."""

    bust_cm: Body | None = None
    waist_cm: Body | None = None
    hip_cm: Body | None = None
    high_bust_cm: Body | None = None
    ease_cm: Annotated[float, Field(ge=-50, le=100, allow_inf_nan=False)] | None = None
    over: bool = False


class HangIn(Strict):
    """As what it is hung: a silhouette with its length and gather ratio, else the usual ones."""

    garment: ShortText = "A-line skirt"
    length_cm: Annotated[float, Field(gt=0, le=200)] | None = None
    gather: Annotated[float, Field(ge=1, le=5)] | None = None


class PairingIn(Strict):
    """One pairing to be judged; `tell`, `hang`, `body` and `mixed` ask for more than the verdict."""

    cloth: ClothIn
    pattern: PatternIn
    view: ShortText | None = None
    size: ShortText | None = None
    part: ShortText | None = None
    look: Literal["structured", "balanced", "flowing"] = "balanced"
    school: Literal["list", "hand"] = "hand"
    options: list[ShortText] | None = Field(default=None, description="Options made; left out: as the view is drawn.")
    tell: list[Literal["why", "beneath", "sizes"]] = Field(default_factory=list, max_length=10)
    hang: HangIn | None = None
    body: BodyIn | None = None
    mixed: dict[str, ClothIn] = Field(default_factory=dict, description="Part of the garment → its own cloth.", max_length=20)

    @field_validator("view", "size", mode="before")
    @classmethod
    def _as_text(cls, value: Any) -> Any:
        return str(value) if isinstance(value, int) and not isinstance(value, bool) else value


class MatrixIn(Strict):
    """Every pattern against every cloth."""

    cloths: list[ClothIn] = Field(min_length=1, max_length=20000)
    patterns: list[PatternIn] = Field(min_length=1, max_length=2000)
    stock_m: list[Annotated[float, Field(ge=0)] | None] = Field(
        default_factory=list, max_length=20000, description="Metres of each cloth, in their order; left out: not asked."
    )
    look: Literal["structured", "balanced", "flowing"] = "balanced"
    school: Literal["list", "hand"] = "hand"


class EnvelopeIn(Strict):
    """A pasted envelope to be read into the fields of a pattern."""

    envelope: Annotated[str, Field(max_length=20000)]


VerdictWord = Literal["suits", "with care", "unproven", "against"]


class CheckOut(Strict):
    verdict: VerdictWord
    margin: float | None = Field(description="Room to the nearest edge in the unit of the check; negative outside.")
    reason: str
    remedy: str | None


class ChecksOut(Strict):
    fibre: CheckOut
    weight: CheckOut
    drape: CheckOut
    stretch: CheckOut
    width: CheckOut


class AmountOut(Strict):
    length_m: float
    receipt: list[str]


class PairingOut(Strict):
    """The answer to one pairing."""

    verdict: VerdictWord
    score: Annotated[float, Field(ge=0, le=100)]
    checks: ChecksOut
    handles_like: list[str]
    measure_next: str | None
    cautions: list[str]
    amount: AmountOut | None
    unread: list[str]
    more: dict[str, Any] | None = Field(
        default=None, description="why, beneath, hang, sizes and mixed, each only where it was asked for."
    )
