"""What was read from an envelope's words, each piece with the words it came from."""

from __future__ import annotations

from dataclasses import dataclass, field

from nematex.core.pattern.envelope.clause import ASKED, Clause, Condition, Heap
from nematex.core.quantity.estimate import Range
from nematex.core.tables import HandWord

BETWEEN = " / "  # the texts that are read into one interpretation


@dataclass(frozen=True, slots=True)
class NamedCloths:
    """Cloth types that one noun on the envelope stands for, narrowed by the weight bound to it, in the words written."""

    words: str
    types: tuple[str, ...]
    weight: str | None = None
    gsm: Range | None = None
    conditions: tuple[Condition, ...] = ()
    part: str | None = None
    noun: str = ""
    hand: HandWord | None = None
    whole: bool = False  # every cloth of the group is meant, near the rest of the list or not
    standing: str = ASKED

    @property
    def condition(self) -> Condition | None:
        """The first of its conditions."""
        return self.conditions[0] if self.conditions else None


@dataclass
class Interpretation:
    """Everything an envelope text asks for or rules out. Stretch in %, areal mass in g/m²."""

    text: str = ""
    clauses: list[Clause] = field(default_factory=list)
    structures: set[str] = field(default_factory=set)
    also_structures: set[str] = field(default_factory=set)  # can be made in these too: they never set the structure
    cloths: list[NamedCloths] = field(default_factory=list)
    weights: list[str] = field(default_factory=list)
    weight_said: dict[str, str] = field(default_factory=dict)  # weight word → as it is written: 'very light' → 'thin'
    weight_structures: dict[str, str] = field(default_factory=dict)  # 'light wovens' says nothing of knits
    hands: list[tuple[str, HandWord]] = field(default_factory=list)
    lifting: set[str] = field(default_factory=set)  # hand words that speak of all that is asked: 'with a little more body'
    fibres: list[str] = field(default_factory=list)
    gsm: Range | None = None
    gsm_of: dict[str, Range] = field(default_factory=dict)  # a number that speaks of wovens or of knits alone
    natural: bool = False
    recovers: bool = False
    presses: bool = False
    min_cross_pct: float | None = None
    min_length_pct: float | None = None
    max_cross_pct: float | None = None
    most_by_number: bool = False  # a number is kept by whatever is named; a word such as 'stable' is not
    stretchy: bool = False
    min_width_cm: float | None = None
    width_words: str = ""
    gsm_words: str = ""  # the words that the weight number, the least and the most stretch were read from
    stretch_words: str = ""
    most_stretch_words: str = ""
    avoid_structures: set[str] = field(default_factory=set)
    avoid_cloths: list[NamedCloths] = field(default_factory=list)
    avoid_weights: list[str] = field(default_factory=list)
    avoid_weight_structures: dict[str, str] = field(default_factory=dict)  # 'thin knits' says nothing of wovens
    avoid_hands: list[tuple[str, HandWord]] = field(default_factory=list)
    avoid_hands_of: dict[str, list[tuple[str, HandWord]]] = field(default_factory=dict)  # of wovens or of knits alone
    most_cross_of: dict[str, float] = field(default_factory=dict)
    avoid_fibres: list[str] = field(default_factory=list)
    avoid_prints: set[str] = field(default_factory=set)
    avoid_sheer: bool = False
    unread: list[str] = field(default_factory=list)
    heaps: list[Heap] = field(default_factory=list)

    def weights_for(self, kind: str) -> list[str]:
        """The weight words that speak of cloths of this structure."""
        return [word for word in self.weights if self.weight_structures.get(word, kind) == kind]

    def avoid_weights_for(self, kind: str) -> list[str]:
        """The weight words that are ruled out for cloths of this structure."""
        return [word for word in self.avoid_weights if self.avoid_weight_structures.get(word, kind) == kind]
