"""The input and output of `nematex assess`, as validation models; their JSON Schema is published."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, create_model, field_validator

from nematex.core.cloth.properties import Home, Property
from nematex.core.signs import without_controls
from nematex.tables import properties, readable

Percent = Annotated[float, Field(ge=0, le=400, allow_inf_nan=False)]
Clean = AfterValidator(without_controls)
Text = Annotated[str, Field(max_length=2000), Clean]
ShortText = Annotated[str, Field(max_length=300), Clean]


class Strict(BaseModel):
    """No unknown keys: a misspelt field is a fault, not a silence."""

    model_config = ConfigDict(extra="forbid")


def _annotation(prop: Property) -> Any:
    """The type of a property, with its limits or its choices."""
    if prop.words:
        return Literal[prop.words]
    if prop.kind == "yes":
        return bool
    if prop.reading == "number":
        low = {"gt": 0} if prop.low > 0 else {"ge": prop.low}
        return Annotated[float, Field(**low, le=prop.high, allow_inf_nan=False)]
    return Annotated[str, Field(max_length=prop.longest)]


def _fields(home: Home, *left_out: str) -> dict[str, Any]:
    """The properties of one home as the fields of a model."""
    rows = [prop for prop in properties().values() if prop.home is home and prop.name not in left_out]
    return {prop.name.removeprefix("print_"): (_annotation(prop) | None, None) for prop in rows}


PrintIn: Any = create_model("PrintIn", __base__=Strict, **_fields(Home.PRINT))


class ClothBase(Strict):
    """What every cloth has; the properties of the table join it."""

    name: ShortText | None = None
    cloth: ShortText | None = None
    fibres: ShortText | None = None
    structure: Literal["woven", "knit", "net"] | None = None
    print: PrintIn | None = None
    deadstock: bool = False
    known: dict[str, Literal["measured", "stated", "judged", "typical", "simulated"]] = Field(default_factory=dict)

    @field_validator("known")
    @classmethod
    def _known_fields(cls, value: dict[str, str]) -> dict[str, str]:
        for name in value:
            if name not in readable():
                raise ValueError(f"has no property {name!r}; choose from {', '.join(readable())}")
        return value


if TYPE_CHECKING:
    ClothIn = ClothBase
else:
    ClothIn = create_model(
        "ClothIn",
        __base__=ClothBase,
        __doc__="A cloth: at least a cloth name or a structure.",
        **_fields(Home.FACTS, *ClothBase.model_fields),
    )


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
    use: Literal["main", "lining", "interfacing", "contrast", "underlining", "pocket bag"] = "main"
    reckoned: bool = False

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
    school: Literal["list", "kin", "hand"] = "kin"
    options: list[ShortText] | None = Field(default=None, description="Options made; left out: as the view is drawn.")
    hacks: list[ShortText] = Field(
        default_factory=list, max_length=12, description="Changes to the pattern: tier(around_cm=100,ratio=1.6,depth_cm=30)."
    )
    tell: list[Literal["why", "beneath", "sizes", "clauses"]] = Field(default_factory=list, max_length=10)
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
    school: Literal["list", "kin", "hand"] = "kin"


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
    length_m: float = Field(description="What to buy, washing included where it is advised.")
    cut_m: float = Field(description="What it takes once it is washed.")
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
    faults: list[str] = Field(description="What is wrong with the cloth's own facts, such as fibres that do not make 100 %.")
    more: dict[str, Any] | None = Field(
        default=None, description="why, beneath, hang, sizes, mixed and clauses, each only where it was asked for."
    )
