"""What lets somebody in without being asked who they are: sign-ins, links, remotes. All of it can be ended at once."""

from __future__ import annotations

import secrets

from sqlalchemy import delete, update

from nematex.store.database import Work
from nematex.store.models import InvitationRow, ProgrammeRow, RemoteRow, SewAlongRow, SignInRow
from nematex.store.settings import put
from nematex.store.versions import PROGRAMMES, next_version

FILES_SINCE = "files since"  # a setting: addresses of made files that were signed under another value open nothing


def end_all(work: Work) -> None:
    """Nothing that was given out before opens anything."""
    for table in (SignInRow, InvitationRow, RemoteRow):
        work.execute(delete(table))
    for row in (ProgrammeRow, SewAlongRow):
        work.execute(update(row).values(public_key=None))
    put(work, FILES_SINCE, secrets.token_hex(8))
    next_version(work, PROGRAMMES)
