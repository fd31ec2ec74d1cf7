"""What reaches far asks for the password again, where that was more than a few minutes ago: a tablet may lie about."""

from __future__ import annotations

from flask import jsonify, redirect, request, url_for
from flask.typing import ResponseReturnValue

from nematex.web.guard.check import wants_data
from nematex.web.guard.who import here


def prove_first(page: str) -> ResponseReturnValue | None:
    """Nothing where it was proved lately; else the way to prove it, and from there to what was asked for, or to this page."""
    found = here()
    if found is None or found.proved_lately():
        return None
    there = url_for("account.proving", back=request.full_path.rstrip("?") if request.method == "GET" else url_for(page))
    if wants_data():
        return jsonify(fault="password: is wanted once more, for you signed in a while ago", to=there), 403
    return redirect(there)
