"""The log of garments made, the shop's own and viewers'. A verdict in it is one by hand: it stands among *Rules and hands*."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.judging.verdict import Verdict
from nematex.core.paging import Page
from nematex.core.pattern.facts import Wish
from nematex.core.quantity.reader import to_number
from nematex.store.air import makes as store
from nematex.store.air.makes import Make
from nematex.store.judging.overrides import add_override, bin_override
from nematex.store.programme.programmes import announce_change
from nematex.store.records import ClothRecord, Override, PatternRecord
from nematex.usecases.air.named import named
from nematex.usecases.files.photo_file import kept_copy
from nematex.usecases.forms.days import read_day
from nematex.usecases.forms.merging import merged
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.overrides import read_verdict
from nematex.usecases.judging.ranking import fitting_wish, one_pairing
from nematex.usecases.programme.acts import checked_text

FIELDS = {
    "pattern": "pattern",
    "cloth": "cloth",
    "view": "view",
    "size": "size",
    "made_on": "made on",
    "by": "by",
    "viewers": "by a viewer",
    "hours": "hours",
    "changes": "changes",
    "instead": "used instead",
    "verdict": "verdict after making",
    "reason": "why",
    "washed": "verdict after washing",
    "wash_said": "what washing did",
}
TOLD = ("view", "size", "by", "changes", "instead", "reason", "wash_said")
HAND = "hand verdict"  # among what is told: the number of the verdict that stands among rules and hands
PAGE = 30
MOST_HOURS = 2000.0
WORDS = tuple(each.word for each in Verdict if each is not Verdict.UNPROVEN)


@dataclass(frozen=True)
class Made:
    """A garment with its cloth and pattern."""

    make: Make
    cloth: ClothRecord
    pattern: PatternRecord

    @property
    def held_up(self) -> bool | None:
        """Whether it was as good after washing; None where either is not said."""
        if not (self.make.verdict and self.make.washed):
            return None
        return Verdict.from_word(self.make.washed) <= Verdict.from_word(self.make.verdict)


def made(shop: Shop, state: State, page: int = 1, cloth_id: int | None = None, pattern_id: int | None = None) -> Page[Made]:
    """A page of the log, the latest first."""
    with shop.database.work() as work:
        found = store.makes(work, page, PAGE, cloth_id, pattern_id)
    rows = [each for one in found.rows if (each := with_records(state, one))]
    return Page(rows, found.total, found.page, found.pages)


def with_records(state: State, make: Make) -> Made | None:
    cloth, pattern = state.cloth(make.cloth_id), state.pattern(make.pattern_id)
    return Made(make, cloth[0], pattern) if cloth and pattern else None


def find_make(shop: Shop, state: State, make_id: int) -> Made | None:
    with shop.database.work() as work:
        found = store.make(work, make_id)
    return with_records(state, found) if found else None


def is_kept(shop: Shop, make_id: int) -> bool:
    """Whether there is such a garment, be its pattern or cloth in the bin or not."""
    with shop.database.work() as work:
        return store.make(work, make_id) is not None


def typed_of(found: Made) -> dict[str, str]:
    """A garment as its form shows it."""
    make = found.make
    return {
        **dict.fromkeys(FIELDS, ""),
        **{name: text for name, text in make.told.items() if name in FIELDS},
        "pattern": found.pattern.facts.name,
        "cloth": found.cloth.facts.name,
        "made_on": make.made_on.isoformat() if make.made_on else "",
        "viewers": "1" if make.viewers else "",
        "hours": f"{make.hours:g}" if make.hours else "",
        "verdict": make.verdict,
        "washed": make.washed,
    }


def save_make(shop: Shop, state: State, make_id: int | None, given: Mapping[str, str], now: datetime) -> int:
    """Keep a garment and, where its verdict is another, the one by hand in the place of the last; its number.

    Raises FieldFault, Clashing.
    """
    with shop.database.work() as work:
        announce_change(work)
        before = store.make(work, make_id) if make_id is not None else None
        found = with_records(state, before) if before else None
        if make_id is not None and found is None:
            raise FieldFault("garment", str(make_id), "is in the bin: put it back first")
        values = merged(given, typed_of(found), FIELDS, FIELDS.__getitem__) if found else given
        read, pattern, cloth = _read(state, values, now.date())
        hand = before.told.get(HAND, "") if before else ""
        if _effective(read) != (_effective(before) if before else ""):
            if hand:
                bin_override(work, int(hand))  # what was said on the table is not said any more
            hand = str(add_override(work, _by_hand(shop, state, read, pattern, cloth))) if _effective(read) else ""
        told = {**read.told, **({HAND: hand} if hand else {})}
        return store.save_make(work, replace(read, id=make_id or 0, told=told), now)


def _read(state: State, values: Mapping[str, str], today: date) -> tuple[Make, PatternRecord, ClothRecord]:
    pattern = named(values.get("pattern", ""), "pattern", state.drawer.records)
    cloth = named(values.get("cloth", ""), "cloth", state.shelf.records)
    told = {name: checked_text(FIELDS[name], values.get(name, "")) for name in TOLD}
    verdict, washed = (_verdict(FIELDS[name], values.get(name, "")) for name in ("verdict", "washed"))
    if (verdict or washed) and not (told["reason"] or told["wash_said"]):
        raise FieldFault("why", "", "is missing: say what your hands know, so that others can weigh the verdict")
    made_on = read_day(values.get("made_on", ""), FIELDS["made_on"]) or today
    if made_on > today:
        raise FieldFault(FIELDS["made_on"], made_on.isoformat(), "is still to come")
    make = Make(
        0, pattern.id, cloth.id, made_on, bool(values.get("viewers")), verdict, washed, _hours(values.get("hours", "")),
        {name: text for name, text in told.items() if text},
    )  # fmt: skip
    return make, pattern, cloth


def _verdict(label: str, word: str) -> str:
    if word and word not in WORDS:
        raise UnknownChoice(label, word[:40], WORDS, "verdict")
    return word


def _hours(text: str) -> float | None:
    if not text.strip():
        return None
    value = to_number(text.strip(), FIELDS["hours"])
    if not 0 < value <= MOST_HOURS:
        raise FieldFault(FIELDS["hours"], text[:40], f"must be above 0 and up to {MOST_HOURS:.0f}")
    return value


def _effective(make: Make) -> str:
    """What holds of a garment in the end: what is said after washing counts before what was said on the table."""
    return make.washed or make.verdict


def _by_hand(shop: Shop, state: State, make: Make, pattern: PatternRecord, record: ClothRecord) -> Override:
    """The verdict of a garment made, beside what the rules say of its pairing; raises FieldFault."""
    cloth = state.shelf.cloths[state.shelf.place[record.id]]
    wish = fitting_wish(pattern, Wish(view=make.told.get("view"), size=make.told.get("size")))
    said = " ".join(filter(None, (make.told.get("reason"), make.told.get("wash_said") if make.washed else "")))
    by = make.told.get("by", "") or ("viewer" if make.viewers else "")
    given = {"verdict": _effective(make), "reason": said[:600], "by": by[:60], "made": "1"}
    return read_verdict(pattern, record, one_pairing(shop, state, pattern, cloth, wish), given)


def keep_photo(shop: Shop, make_id: int, content: bytes) -> None:
    """Keep a photo of a garment, re-encoded and without metadata; raises FieldFault."""
    copy, _ = kept_copy(content)
    with shop.database.work() as work:
        if store.make(work, make_id):
            store.put_photo(work, make_id, copy)


def photo_of(shop: Shop, make_id: int) -> bytes | None:
    with shop.database.work() as work:
        return store.photo(work, make_id) if store.make(work, make_id) else None


def remove_make(shop: Shop, make_id: int) -> None:
    """Take a garment off the log, into the bin; so goes the verdict by hand that it gave."""
    with shop.database.work() as work:
        kept = store.make(work, make_id)
        store.bin_make(work, make_id)
        if kept and kept.told.get(HAND):
            bin_override(work, int(kept.told[HAND]))
