"""The numbers by which the rules compare, typed: data/judging.toml as frozen records, checked once when it is read.

Units stand in the names; a share is 0 to 1. What each number is for stands beside it in the file. Common practice, no
source, unless the file names one.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from nematex.core.rules.comparing import (
    Cover,
    Ease,
    Facing,
    Fibre,
    Hand,
    Kinship,
    KnitInWoven,
    ListRules,
    PrintRules,
    Recovery,
    Shares,
    Sheers,
    Spread,
    StretchWords,
    Tolerance,
    Width,
)
from nematex.core.rules.reading import read_record
from nematex.core.rules.reckoning import (
    AmountRules,
    CautionRules,
    ChangeRules,
    ColourRules,
    Combination,
    CopyRules,
    CoverageRules,
    FeedRules,
    HandlesLike,
    InterfacingRules,
    KitRules,
    LikenessRules,
    LiningRules,
    Look,
    OutfitRules,
    ProposalRules,
    RunRules,
    Score,
    SewAlongRules,
    SizingRules,
    StandInRules,
    Unknown,
)


@dataclass(frozen=True, slots=True)
class Rules:
    """All of judging.toml, a record for each of its sections."""

    shares: Shares
    tolerance: Tolerance
    list: ListRules
    hand: Hand
    kinship: Kinship
    knit_in_woven: KnitInWoven
    ease: Ease
    fibre: Fibre
    width: Width
    cover: Cover
    facing: Facing
    spread: Spread
    recovery: Recovery
    words: StretchWords
    sheers: Sheers
    print: PrintRules
    print_scale: Mapping[str, float]
    amount: AmountRules
    kit: KitRules
    change: ChangeRules
    cautions: CautionRules
    look: Mapping[str, Look]
    handles_like: HandlesLike
    score: Score
    any: Mapping[str, Unknown]
    combination: Combination
    lining: LiningRules
    likeness: LikenessRules
    stand_in: StandInRules
    coverage: CoverageRules
    proposal: ProposalRules
    feed: FeedRules
    colour: ColourRules
    outfit: OutfitRules
    copy_look: CopyRules
    run: RunRules
    sew_along: SewAlongRules
    season_shown: Mapping[str, tuple[int, ...]]
    interfacing: InterfacingRules
    sizing: SizingRules


def read_rules(raw: object, table: str = "judging.toml") -> Rules:
    """The file's values as records; raises TableFault naming the section, the key and what was expected."""
    return read_record(Rules, raw, table)
