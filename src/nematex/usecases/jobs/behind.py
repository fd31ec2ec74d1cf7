"""Whether the work in the background is behind: somebody waits for a page, or a list, that nobody gets to."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from nematex.store import jobs
from nematex.store.database import Database
from nematex.usecases.jobs.lanes import LANES, lane_of

# After so long the oldest job of a lane should be done. Our own measure: a page is made in seconds, the longest list in a
# minute or two, a lay has some minutes and others before it.
BEHIND_AFTER_S = {"sets": 120, "lists": 600, "lays": 1800}


@dataclass(frozen=True)
class Lane:
    """How many jobs of a lane are not done, and how long ago the oldest was asked, in s."""

    name: str
    open: int
    oldest_s: int

    @property
    def is_behind(self) -> bool:
        return self.oldest_s > BEHIND_AFTER_S[self.name]


def lanes_now(database: Database, now: datetime) -> list[Lane]:
    """Every lane as it stands. A clock that is behind the database's makes no job young: it is asked now then."""
    with database.work() as work:
        found = jobs.open_since(work)
    made = []
    for name in LANES:
        since = [at for kind, at in found if lane_of(kind) == name]
        made.append(Lane(name, len(since), max(0, round((now - min(since)).total_seconds())) if since else 0))
    return made


def said_of(lanes: list[Lane]) -> str:
    """One sentence on what is behind; "" where nothing is."""
    late = [each for each in lanes if each.is_behind]
    if not late:
        return ""
    count, minutes = sum(each.open for each in late), max(each.oldest_s for each in late) // 60
    waits = "1 job is not done" if count == 1 else f"{count} jobs are not done"
    since = f"the first was asked {minutes} minutes ago"
    return f"The work in the background is behind: {waits}, {since}. The machine may be busy with something else."
