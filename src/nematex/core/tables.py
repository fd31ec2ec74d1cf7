"""All tables of the trade in one value, read once and passed to the rules."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import Enum
from typing import Generic, TypeVar

import numpy as np
import numpy.typing as npt
from propcache.api import cached_property

from nematex.core.cloth.fibres import FibreNames
from nematex.core.cloth.kinds_apart import kinds_apart
from nematex.core.cloth.kinship import kin_of_kinds
from nematex.core.cloth.lexicon import Lexicon, key
from nematex.core.cloth.properties import Property
from nematex.core.quantity.arrays import Floats
from nematex.core.quantity.estimate import Range
from nematex.core.rules import Rules
from nematex.core.sayings import Sayings

T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class WeightWord:
    """A weight word: its range as a word for a cloth and, wider, as a word on a pattern (g/m²)."""

    word: str
    structure: str
    cloth_gsm: Range
    pattern_gsm: Range


@dataclass(frozen=True, slots=True)
class HandWord:
    """A word for handle and drape as a range of bending length (cm)."""

    word: str
    bend_cm: Range
    needs_body: bool


@dataclass(frozen=True, slots=True)
class Describing:
    """A property of a cloth, what is said of it, and the phrases that say so."""

    property: str
    value: str
    phrases: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class EnvelopePhrases:
    """Phrases of one kind on envelopes, with the value they stand for."""

    kind: str
    value: str
    phrases: tuple[str, ...]


class Role(Enum):
    """What a detail is to the rules beside its numbers; the column `roles` of details.csv."""

    FREES = "frees"  # the part stands free of the body, and billows or stands in any drape
    LEGS = "legs"  # it goes round each leg
    BIAS = "bias"  # cut across the grain, where a large one-way print lies crooked
    BAND = "band"  # cut short and stretched on: what every band asks
    SLEPT_IN = "slept in"
    NIGHTWEAR = "nightwear"  # what the rules for nightwear are about
    INTERFACED = "interfaced"
    TAILORED = "tailored"  # padded and shaped, as lapels are
    FACED = "faced"  # an edge that is turned in with a facing
    SHAPED = "shaped"  # a facing cut to a curve or a point
    FULL = "full"  # so much cloth that little shows through it
    LOOSE = "loose"  # the garment's body is loose: its bands need not cling


@dataclass(frozen=True, slots=True)
class Detail:
    """What one design detail asks of the cloth; None where it asks nothing. `structure` says whom it concerns."""

    name: str
    structure: str
    weight_lo_gsm: float | None
    weight_hi_gsm: float | None
    knit_weight_hi_gsm: float | None
    thick_hi_mm: float | None
    bend_lo_cm: float | None
    bend_lo_tolerance_cm: float | None
    flowing_bend_lo_cm: float | None
    bend_hi_cm: float | None
    stretch_lo_pct: float | None
    recovers: bool
    press_min: int | None
    press_worst: str
    needs_body: bool
    breathes: bool
    width_lo_cm: float | None
    welcomes: tuple[str, ...]
    light_sheers: bool
    refuses: tuple[str, ...]
    unless: str
    why: str
    remedy: str
    aloud: str = ""  # what a presenter says where the cloth suits it
    roles: frozenset[Role] = frozenset()

    @property
    def asks_nothing(self) -> bool:
        """Whether the row only knows the words: nothing is asked of the cloth."""
        numbers = (
            self.weight_lo_gsm,
            self.weight_hi_gsm,
            self.thick_hi_mm,
            self.bend_lo_cm,
            self.bend_hi_cm,
            self.stretch_lo_pct,
        )
        return not any(each is not None for each in numbers) and not (
            self.needs_body or self.refuses or self.roles or self.press_min
        )

    @property
    def frees_the_drape(self) -> bool:
        return Role.FREES in self.roles


@dataclass(frozen=True, slots=True)
class Garment:
    """A kind of garment: whether it has legs, hangs from the waist, goes over other clothes; which details it implies.

    `layer` of an outfit; `drawn`: the kind of drawing and draft; `look`: traits of it that go without saying.
    """

    name: str
    bifurcated: bool
    below_waist: bool
    slides: bool
    details: tuple[str, ...]
    over: bool = False  # worn over other clothes, so that a sheer one may stay sheer
    instead: Mapping[str, str] = field(default_factory=dict)  # a detail's word that means another one here
    layer: str = "top"
    drawn: str = "tee"
    look: Mapping[str, str] = field(default_factory=dict)
    end_uses: frozenset[str] = frozenset()  # cloth made for which it takes; any where none is said

    @property
    def general(self) -> bool:
        """Whether its name leaves the shape open, as 'dress' does."""
        return not self.look and not self.details


@dataclass(frozen=True, slots=True)
class FibreCare:
    """How cloth of a fibre behaves, washes, creases and presses, and for whom it is; in sentences."""

    fibre: str
    behaves: str
    washes: str
    creases: str
    presses: str
    wears: str


@dataclass(frozen=True, slots=True)
class Shape:
    """What a word in a garment's name says of how it hangs."""

    word: str
    hung: str


@dataclass(frozen=True, slots=True)
class Trait:
    """What words in a pattern say of how it is drawn: one trait's value, and its length in cm where it has one."""

    value: str
    cm: float
    words: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class HackNumber:
    """One number of a change: its name with the unit, what is usual, and its limits."""

    name: str
    usual: float
    low: float
    high: float

    @property
    def label(self) -> str:
        return self.name.replace("_cm", " in cm").replace("_pct", " in %").replace("_", " ")


@dataclass(frozen=True, slots=True)
class HackKind:
    """A kind of change to a pattern: its numbers, how it is said, the details that it adds and takes away.

    `garments`: what the garment becomes, where it becomes another one.
    """

    name: str
    label: str
    says: str
    fields: tuple[HackNumber, ...]
    adds: tuple[str, ...]
    removes: tuple[str, ...]
    garments: Mapping[str, str]


@dataclass(frozen=True, slots=True)
class PartKind:
    """A part of a garment as commonly cut: close to or free of the body, and whether it is a band or the garment's body.

    `listed`: the list of cloths on the envelope speaks of it; `around`: it goes round the body, so it has to give there;
    `pieces`: how the names of its drafted pieces begin.
    """

    name: str
    fit: str
    band: bool
    main: bool
    listed: bool
    around: bool
    pieces: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class UsualPiece:
    """A part that no draft has, as rectangles of the usual size: how many, in cm along the grain and across."""

    count: int
    along_cm: float
    across_cm: float


@dataclass(frozen=True, slots=True)
class Caution:
    """A caution: what must hold of garment, wearer, cloth, detail and notion; what to say, and why.

    `grave`: 3 where somebody may be hurt, 2 where the garment is spoilt, 1 for what is worth saying. `text` speaks to the
    presenter, `viewer` to the viewer: "" where it is none of theirs.
    """

    code: str
    grave: int
    garment: str
    wearer: str
    cloth: str
    detail: str
    notion: str
    text: str
    viewer: str
    why: str


@dataclass(frozen=True, slots=True)
class Interfacing:
    """One kind of interfacing: for knits or not, fused or sewn in, its weight in g/m²."""

    name: str
    knit: bool
    fused: bool
    gsm: Range
    tailored: bool  # for lapels and the collars of coats alone
    good_for: str


@dataclass(frozen=True)
class Named(Generic[T]):
    """Rows found by any of their names, compared without case, hyphens and plurals."""

    rows: tuple[T, ...]
    by_key: Mapping[str, T]

    def find(self, words: str) -> T | None:
        """The row of exactly this name."""
        return self.by_key.get(key(words))

    def find_within(self, words: str) -> T | None:
        """The row of this name, or of the longest name that stands in the words: 'gathered waist seam' → gathers."""
        asked = key(words).split()
        for size in range(len(asked), 0, -1):
            for start in range(len(asked) - size + 1):
                found = self.by_key.get(" ".join(asked[start : start + size]))
                if found is not None:
                    return found
        return None


@dataclass(frozen=True, eq=False)
class Tables:
    """Everything the rules read."""

    fibres: FibreNames
    lexicon: Lexicon
    weight_words: tuple[WeightWord, ...]
    weight_keys: Mapping[str, str]
    cloth_hands: Mapping[str, HandWord]
    pattern_hands: Mapping[str, HandWord]
    avoid_hands: Mapping[str, HandWord]
    envelope_phrases: tuple[EnvelopePhrases, ...]
    paste_words: Mapping[str, Mapping[str, str]]  # kind → phrase key → value
    details: Named[Detail]
    garments: Named[Garment]
    shapes: tuple[Shape, ...]
    traits: Mapping[str, tuple[Trait, ...]]
    hacks: Mapping[str, HackKind]
    usual_pieces: Mapping[str, UsualPiece]
    parts: Named[PartKind]
    interfacings: tuple[Interfacing, ...]
    width_chart: Mapping[float, tuple[float, ...]]
    cautions: Mapping[str, Caution]
    properties: Mapping[str, Property]
    judging: Rules
    sayings: Sayings
    fibre_care: Mapping[str, FibreCare]
    spoils: frozenset[tuple[str, str]]  # what a cloth is made for, and the garment's use that it spoils

    @cached_property
    def usual_fibres(self) -> npt.NDArray[np.bool_]:
        """Cloth types × fibres: of which a cloth of that name is usually made. The last row is of no type."""
        place = self.fibres.place
        found = np.zeros((len(self.lexicon.types) + 1, len(place)), dtype=np.bool_)
        for row, kind in enumerate(self.lexicon.types):
            found[row, [place[name] for name in kind.all_fibres if name in place]] = True
        return found

    @cached_property
    def usual_bends(self) -> tuple[Floats, Floats]:
        """Each kind's usual range of bending length, cm. The last row is of no type: nothing lies in it."""
        rows = [kind.bend_cm for kind in self.lexicon.types]
        return np.array([*(row.low for row in rows), np.inf]), np.array([*(row.high for row in rows), -np.inf])

    @cached_property
    def kin(self) -> npt.NDArray[np.bool_]:
        """Cloth types × cloth types: which are kin."""
        return kin_of_kinds(self.lexicon.types, self.apart[:-1, :-1], self.judging.kinship)

    @cached_property
    def apart(self) -> Floats:
        """Cloth types × cloth types, in steps: how far apart they are by what they are. The last row and column is no type."""
        return kinds_apart(self.lexicon.types, self.judging.likeness.kinds)

    def with_role(self, role: Role) -> tuple[Detail, ...]:
        """The details that play this role."""
        return tuple(detail for detail in self.details.rows if role in detail.roles)

    def hung(self, words: str) -> str:
        """The silhouette of the first word of the table that stands in these; "" where none does."""
        return next((row.hung for row in self.shapes if row.word in words.casefold()), "")

    def weight_word(self, word: str, structure: str) -> WeightWord:
        """The row of a weight word; nets and lace use the woven row."""
        kind = "knit" if structure == "knit" else "woven"
        return next(row for row in self.weight_words if row.word == word and row.structure == kind)
