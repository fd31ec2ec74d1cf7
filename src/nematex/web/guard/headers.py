"""What every answer tells the browser: where content may come from, what may be kept, that TLS stays once it was used."""

from __future__ import annotations

from flask import Flask, Response, request
from flask.sessions import SecureCookieSessionInterface

POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; "
    "connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'; worker-src 'self'; object-src 'none'"
)
HEADERS = {
    "Content-Security-Policy": POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Permissions-Policy": "camera=(), microphone=(), geolocation=(), payment=(), usb=()",
}
HSTS = "max-age=31536000"
PRIVATE = ("door", "account", "people", "trail", "passkeys")  # rooms of which the browser keeps nothing


class OwnCookie(SecureCookieSessionInterface):
    """The session's cookie, for TLS alone where the page came by TLS: one process answers on loopback and on the network."""

    def get_cookie_secure(self, app: Flask) -> bool:  # noqa: ARG002
        return request.is_secure


def set_headers(response: Response) -> Response:
    for name, value in HEADERS.items():
        response.headers.setdefault(name, value)
    if request.is_secure:
        response.headers["Strict-Transport-Security"] = HSTS
    if request.blueprint in PRIVATE:
        response.headers["Cache-Control"] = "no-store"
    elif "Cache-Control" not in response.headers:
        response.headers["Cache-Control"] = "private, no-cache"
    return response
