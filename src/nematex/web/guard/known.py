"""Browsers in which somebody was let in before: there a stranger's wrong tries, which make a name wait, hold nobody up.

Tries from such a browser are still limited by its address (`limits`), as everybody's are.
"""

from __future__ import annotations

import hashlib
from datetime import timedelta

from flask import Response, after_this_request, current_app, request
from itsdangerous import BadSignature, URLSafeTimedSerializer

from nematex.core.people.name import name_key

COOKIE = "nematex-known"
GOOD_FOR = timedelta(days=180)
MOST = 8  # people of one browser
LONGEST = 2000  # letters


def _seal() -> URLSafeTimedSerializer:
    return URLSafeTimedSerializer(str(current_app.secret_key), salt="known browser")


def _mark(name: str) -> str:
    """A name that a reader of the cookie does not read."""
    return hashlib.sha256(name_key(" ".join(name.split())).encode(errors="replace")).hexdigest()[:24]


def _marks() -> list[str]:
    try:
        return list(_seal().loads(request.cookies.get(COOKIE, "")[:LONGEST], max_age=int(GOOD_FOR.total_seconds())))
    except BadSignature:
        return []


def is_known(name: str) -> bool:
    """Whether this person was let in from this browser before."""
    return _mark(name) in _marks()


def remember(name: str) -> None:
    """From here on this browser is known for this person."""
    marks = list(dict.fromkeys([_mark(name), *_marks()]))[:MOST]
    sealed = _seal().dumps(marks)

    @after_this_request
    def keep(answer: Response) -> Response:
        answer.set_cookie(COOKIE, sealed, max_age=GOOD_FOR, secure=request.is_secure, httponly=True, samesite="Lax")
        return answer
