"""`./nematex invite`: a link for somebody new, or for an owner who forgot the password; whoever runs this owns the machine."""

from __future__ import annotations

import sys
from datetime import datetime

from nematex.command.service.database import database_url
from nematex.command.service.state import running_address
from nematex.store.database import Database
from nematex.store.people.persons import find_by_name
from nematex.store.trail.who import acting
from nematex.usecases.held.shop import Shop
from nematex.usecases.people.inviting import invite, renew_password
from nematex.usecases.people.set_up import has_people

BY = "this machine's owner"


def run_invite(role: str, name: str) -> int:
    """Print the link; exit 1 where the shop has no owner yet."""
    shop = Shop(Database(database_url()))
    if not has_people(shop):
        print("nematex: the shop has no owner yet; ./nematex start prints the address that makes one.", file=sys.stderr)
        return 1
    with acting(BY):
        with shop.database.work() as work:
            found = find_by_name(work, name) if name else None
        if name and (found is None or found[0].id is None):
            print(f"nematex: --name: {name[:60]!r} is nobody who may sign in; leave it out for somebody new.", file=sys.stderr)
            return 2
        known = found[0].id if found else None
        token = invite(shop, "", role, BY, datetime.now()) if known is None else renew_password(shop, known, BY, datetime.now())
    address = running_address() or "http://127.0.0.1:8765/"
    print(f"{address}invitation/{token}")
    shop.database.close()
    return 0
