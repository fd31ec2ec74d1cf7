"""Who asks: the person of the sign-in that the browser holds, or, in a made-up shop on its own machine, its presenter."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from flask import current_app, g, request, session
from flask_login import LoginManager, UserMixin, current_user

from nematex.core.people.rights import ROLES, may
from nematex.store.people.persons import Person
from nematex.store.people.sign_ins import SignIn
from nematex.tables import rights
from nematex.usecases.held.shop import Shop
from nematex.usecases.people.set_up import is_anybodys
from nematex.usecases.people.signing_in import PROOF_GOOD, who_is

TRIES = "tries"  # in the session: the role that a made-up shop is tried as
HERE = ("127.0.0.1", "::1")
FORWARDED = ("X-Forwarded-For", "X-Forwarded-Host", "Forwarded", "X-Real-Ip")  # somebody comes through a proxy
login = LoginManager()


@dataclass(eq=False)
class Here(UserMixin):  # type: ignore[misc]
    """Somebody who is signed in; without a token, the presenter of the made-up shop."""

    person: Person
    token: str = ""
    signed: SignIn | None = None

    def get_id(self) -> str:
        return self.token

    @property
    def tries(self) -> bool:
        """Whether this is nobody, trying the made-up shop."""
        return not self.token

    def may(self, right: str) -> bool:
        return may(self.person.role, right, rights())

    def proved_lately(self) -> bool:
        return self.tries or (self.signed is not None and datetime.now() - self.signed.proved_at < PROOF_GOOD)


@login.user_loader  # type: ignore[untyped-decorator]
def _of_token(token: str) -> Here | None:
    found = who_is(_shop(), token, datetime.now()) if token else None
    return Here(found[1], token, found[0]) if found else None


@login.request_loader  # type: ignore[untyped-decorator]
def _of_nobody(_request: object) -> Here | None:
    """Without a sign-in: the made-up shop lets its own machine try it, until it has an owner."""
    if not current_app.config["DEMO_ROLE"] or not from_here():
        return None
    if not is_anybodys(_shop()):
        return None
    role = session.get(TRIES, current_app.config["DEMO_ROLE"])
    role = role if role in ROLES else "presenter"
    return Here(Person(None, f"demo {role}", role))


def from_here() -> bool:
    """Whether the request comes from this machine itself, through no proxy."""
    return request.remote_addr in HERE and not any(name in request.headers for name in FORWARDED)


def _shop() -> Shop:
    found: Shop = current_app.extensions["shop"]
    return found


def here() -> Here | None:
    """Who asks this request; None for somebody who is not signed in."""
    if "here" not in g:
        g.here = current_user._get_current_object() if current_user.is_authenticated else None
    found: Here | None = g.here
    return found


def their_name(typed: str = "") -> str:
    """The name that goes beside what they do: their own where they are signed in, else what was typed."""
    found = here()
    return found.person.name if found and not found.tries else typed.strip()[:60]


def their_form() -> dict[str, str]:
    """The form that was sent, `by` being their own name where they are signed in."""
    given = dict(request.form.items())
    return given | {"by": their_name(given.get("by", ""))}


def who_asked() -> int | None:
    """The number of who asked this request, where that was found out; the database is not asked for it."""
    found: Here | None = g.get("here")
    return found.person.id if found else None
