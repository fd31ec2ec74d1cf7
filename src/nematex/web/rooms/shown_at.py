"""The address by which others reach this shop: on the shop's network where it answers there, else where it was asked."""

from __future__ import annotations

from flask import current_app, request


def shown_at(path: str) -> str:
    """A full address of a path of this shop, as a phone or a printed label needs it."""
    return (current_app.config["SHOWN_AT"] or request.host_url).rstrip("/") + path
