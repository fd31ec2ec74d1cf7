"""What a viewer is told of a pattern after its name."""

from __future__ import annotations

from nematex.core.pattern.sizing import covers
from nematex.store.records import PatternRecord
from nematex.usecases.programme.notes import Entry


def of_pattern(entry: Entry) -> str:
    """', Orrel Patterns, easy, view B, bust 84 to 137 cm (33 to 54 in)'."""
    record, pick = entry.pattern, entry.pick
    sizes = [size for size in (pick.size, pick.other_size) if size]
    said = [
        record.house,
        record.difficulty,
        f"view {pick.view}" if pick.view else "",
        f"made {entry.made_with}" if entry.made_with else "",
        f"shown in size{'s' if len(sizes) > 1 else ''} {' and '.join(sizes)}" if sizes else "",
    ]
    return "".join(
        [*(f", {each}" for each in said if each), reach(record), ", to download only" if is_download(record) else ""]
    )


def is_download(record: PatternRecord) -> bool:
    """Whether a pattern is not sold on paper."""
    words = record.sold_as.casefold()
    return "pdf" in words and "paper" not in words


def reach(record: PatternRecord) -> str:
    """The body range of a pattern in both units: ', bust 84 to 137 cm (33 to 54 in)'."""
    said = []
    for place in ("bust", "hip"):
        if found := covers(record.facts, place):
            low, high = found
            said.append(f", {place} {low:.0f} to {high:.0f} cm ({low / 2.54:.0f} to {high / 2.54:.0f} in)")
    return "".join(said)
