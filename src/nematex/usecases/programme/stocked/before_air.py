"""A programme looked over once more before it is filmed, shown or published: what is wrong, and what wants a thought."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from nematex.core.errors import FieldFault
from nematex.core.judging.verdict import Verdict
from nematex.store.records import Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.programme.absent import absent
from nematex.usecases.programme.history import again
from nematex.usecases.programme.notes import Entry, entries
from nematex.usecases.programme.proposing.propose import brief_of
from nematex.usecases.programme.stocked.needs import needs
from nematex.usecases.programme.stocked.short import need_said
from nematex.usecases.programme.whole.season import season_said
from nematex.usecases.stock.polling import feed_of, poll
from nematex.usecases.stock.selling import feed_said


@dataclass(frozen=True)
class Finding:
    """Something found; `wrong`: it must not go out like this. `pick_id` 0: of the whole programme."""

    wrong: bool
    text: str
    pick_id: int = 0


def ask_again(shop: Shop, state: State, now: datetime) -> None:
    """Ask the stock feed, where there is one, before anything is said of stock."""
    feed = feed_of(state)
    if feed:
        poll(shop, feed, now)


def looked_over(shop: Shop, state: State, programme: Programme, now: datetime) -> list[Finding]:
    """What is wrong with a programme as it stands, the worst first."""
    found = _of_whole(shop, state, programme, now)
    months = not_again_months(state, programme)
    short = needs(state, programme)
    for entry in entries(shop, state, programme):
        name = f"{entry.number}. {entry.cloth.facts.name} for {entry.pattern.facts.name}"
        need = short.get(entry.pick.id)
        if need and need.is_scarce:
            found.append(Finding(need.is_short, f"{name}: {need_said(need, state.voice)}.", entry.pick.id))
        before = again(state, programme, entry.pick, months, now.date())
        if before and before.shown_on:
            text = f"was shown on {state.voice.day(before.shown_on)} in {before.name}, within {months} months."
            found.append(Finding(False, f"{name}: {text}", entry.pick.id))
        found += [Finding(wrong, f"{name}: {text}", entry.pick.id) for wrong, text in _of_entry(state, programme, entry)]
    return sorted(found, key=lambda each: not each.wrong)


def not_again_months(state: State, programme: Programme) -> int:
    """Within how many months no pairing is to be shown twice; 0 where the brief does not say."""
    try:
        return brief_of(state, programme).not_again_months
    except FieldFault:  # kept under other rules
        return 0


def _of_whole(shop: Shop, state: State, programme: Programme, now: datetime) -> list[Finding]:
    waits = "A pick waits for something that is in the bin."
    found = [Finding(True, waits, one.pick.id) for one in absent(shop, state, programme)]
    feed = feed_said(shop, state, now)
    if feed and feed.wrong:
        found.append(Finding(False, f"{feed.wrong} The stock may be another by now."))
    if not programme.picks:
        found.append(Finding(True, "Nothing is picked."))
    return found


def _of_entry(state: State, programme: Programme, entry: Entry) -> list[tuple[bool, str]]:
    """What is wrong with one pick, its stock aside."""
    found: list[tuple[bool, str]] = []
    if entry.companion:
        if entry.companion.verdict >= Verdict.UNPROVEN:
            found.append((False, f"as the {entry.companion.role}: {entry.companion.said}"))
    elif entry.pairing is None:
        found.append((True, entry.problem))
    elif entry.pairing.verdict >= Verdict.UNPROVEN:
        found.append((entry.pairing.verdict is Verdict.AGAINST, f"the rules say {entry.pairing.verdict.word}."))
    if entry.pick.proposed:
        found.append((False, "was proposed and nobody has kept it."))
    if entry.pick.question:
        found.append((False, f"still open: {entry.pick.question}"))
    if entry.cloth.price_per_m is None:
        found.append((False, "has no price."))
    if not entry.cloth_link:
        found.append((False, "the cloth has no link."))
    season = season_said(state, programme, entry.cloth)
    if season:
        found.append((False, season))
    return found
