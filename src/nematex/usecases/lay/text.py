"""A lay as text: the task that `./nematex lay` reads and the answer that it prints, as models with a JSON Schema."""

from __future__ import annotations

import math
import re
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError, field_validator

from nematex.core.amount.lay.pieces import LONGEST_CM, LONGEST_ID, MOST_COPIES, MOST_CORNERS, Piece, PrintRepeat, Strip
from nematex.core.amount.lay.placed import Lay
from nematex.core.errors import FieldFault
from nematex.core.sent_json import read_sent

Number = Annotated[float, Field(allow_inf_nan=False, ge=-LONGEST_CM, le=LONGEST_CM)]
Repeat = Annotated[float, Field(allow_inf_nan=False, gt=0, le=200)]
LONGEST_TEXT = 4_000_000
USUAL_SECONDS = 5.0
FOLD_EDGE = re.compile(r"\s*y\s*=\s*(-?\d+(?:\.\d+)?)\s*$")


class Strict(BaseModel):
    """No unknown keys: a misspelt field is a fault, not a silence."""

    model_config = ConfigDict(extra="forbid")


class PieceIn(Strict):
    """One pattern piece, with a grain line along the first coordinate."""

    id: Annotated[str, Field(min_length=1, max_length=LONGEST_ID)]
    outline_cm: Annotated[list[tuple[Number, Number]], Field(min_length=3, max_length=MOST_CORNERS)] = Field(
        description="Corners in order: [along the grain, across]. The last one joins the first."
    )
    count: Annotated[int, Field(ge=1, le=MOST_COPIES)] = Field(
        default=1, description="How many are cut; of a pair an even number, 1 meaning one pair."
    )
    kind: Literal["pair", "single", "fold"] = "single"
    fold_edge: str | None = Field(default=None, description='The edge on the fold, such as "y=0"; for kind fold.')
    free: bool = Field(default=False, description="May be turned at will.")

    @field_validator("fold_edge")
    @classmethod
    def _edge(cls, value: str | None) -> str | None:
        if value is not None and not FOLD_EDGE.match(value):
            raise ValueError("must name a line along the grain, such as y=0")
        return value

    def piece(self) -> Piece:
        corners = [*self.outline_cm]
        if len(corners) > 3 and corners[0] == corners[-1]:
            corners.pop()
        edge = FOLD_EDGE.match(self.fold_edge) if self.fold_edge else None
        fold = float(edge[1]) if edge else 0.0 if self.kind == "fold" else None
        return Piece(self.id, tuple(corners), self.count, self.kind, fold, self.free)


class PrintIn(Strict):
    """The repeat that the pieces must match, in cm."""

    repeat_length_cm: Repeat | None = None
    repeat_width_cm: Repeat | None = None


class LayIn(Strict):
    """What `./nematex lay` reads."""

    width_cm: Annotated[float, Field(allow_inf_nan=False, ge=1, le=1000)] = Field(description="Usable width.")
    folded: bool = False
    with_nap: bool = Field(default=False, description="Every piece lies the same way up.")
    seconds: Annotated[float, Field(ge=0, le=600)] = USUAL_SECONDS
    seed: Annotated[int, Field(ge=0, lt=2**32)] = 0
    print: PrintIn | None = None
    pieces: Annotated[list[PieceIn], Field(min_length=1, max_length=MOST_COPIES)]

    def strip(self) -> Strip:
        repeat = PrintRepeat(self.print.repeat_length_cm, self.print.repeat_width_cm) if self.print else PrintRepeat()
        return Strip(self.width_cm, self.folded, self.with_nap, repeat)


class PlacementOut(Strict):
    """One copy where it lies: mirrored in y, then turned about the origin, then shifted. x runs along the cloth."""

    id: str
    copy_number: int = Field(serialization_alias="copy", validation_alias="copy")
    x_cm: float
    y_cm: float
    turn_deg: float
    mirrored: bool


class LayOut(Strict):
    """What `./nematex lay` prints. On folded cloth a pair stands once: its other hand is cut from the layer beneath."""

    length_cm: float
    utilisation_pct: float
    lower_bound_cm: float
    solver: str
    placements: list[PlacementOut]


def read_task(text: str) -> LayIn:
    """The task; raises FieldFault that names the place, the value and the rule."""
    if len(text) > LONGEST_TEXT:
        raise FieldFault("input", f"{len(text)} letters", f"is too long; at most {LONGEST_TEXT}")
    try:
        return LayIn.model_validate(read_sent(text))
    except ValidationError as fault:
        raise _as_field_fault(fault) from None
    except ValueError as fault:
        raise FieldFault("input", text[:40], f"is no JSON that can be used: {fault}") from None


def _as_field_fault(fault: ValidationError) -> FieldFault:
    first = fault.errors(include_url=False)[0]
    place = ".".join(str(part) for part in first["loc"]) or "input"
    given: Any = first.get("input")
    shown = given if isinstance(given, (str, int, float, bool, type(None))) else type(given).__name__
    return FieldFault(place, shown if len(str(shown)) < 80 else f"{str(shown)[:80]}…", first["msg"].lower())


def written(lay: Lay) -> LayOut:
    """A lay in the words of the answer; the length is never rounded down."""
    return LayOut(
        length_cm=math.ceil(lay.length_cm * 1e4 - 1e-3) / 1e4,
        utilisation_pct=round(lay.utilisation_pct, 2),
        lower_bound_cm=math.floor(lay.lower_bound_cm * 1e4) / 1e4,
        solver=lay.solver,
        placements=[
            PlacementOut.model_validate(
                {
                    "id": placed.item.id,
                    "copy": placed.item.copy_of(placed.pose),
                    "x_cm": round(placed.x_cm, 6) + 0.0,
                    "y_cm": round(placed.y_cm, 6) + 0.0,
                    "turn_deg": round(placed.pose.turn_deg, 6),
                    "mirrored": placed.pose.mirrored,
                }
            )
            for placed in lay.placements
        ],
    )


def as_json(found: LayOut) -> str:
    """The answer as it is printed."""
    return found.model_dump_json(by_alias=True, indent=2)
