"""Settings that all machines of one shop must have alike: each start compares its own with those of the start before it."""

from __future__ import annotations

import hashlib
import os

from nematex.command.service.keys import session_key
from nematex.store.database import Database
from nematex.store.settings import put, settings

KEPT_AS = "agreed "


def _ours() -> dict[str, tuple[str, str]]:
    """Name of a setting → what it is here, and what is said where it was another."""
    files = os.environ.get("NEMATEX_FILES", "")
    return {
        "session key": (
            session_key(),
            "another session key: who signed in there is asked again here. If both serve this shop, copy .nematex/session-key",
        ),
        "files": (files, "another NEMATEX_FILES: photos kept there are not found here. Say the same on both"),
    }


def differing(database: Database) -> list[str]:
    """What the machine that started last had otherwise, a sentence each; what this one has is noted in its place."""
    said = []
    with database.work() as work:
        found = settings(work)
        for name, (here, what) in _ours().items():
            mark = hashlib.sha256(here.encode()).hexdigest()[:16]  # the key itself stays in its file
            before = found.get(KEPT_AS + name, mark)
            if before != mark:
                said.append(f"The machine that started this shop last had {what}.")
            if found.get(KEPT_AS + name) != mark:
                put(work, KEPT_AS + name, mark)
    return said
