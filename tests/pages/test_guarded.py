"""What every answer tells the browser, with and without TLS and proxies; what machines watch; errors that have a number."""

from __future__ import annotations

import logging
from pathlib import Path

import pytest
from conftest import tried_app
from sqlalchemy import text

from nematex.command.service.network import network_of
from nematex.command.serving import configure
from nematex.usecases.held.shop import Shop
from nematex.web.app import create_app

TLS = {"base_url": "https://127.0.0.1"}


def test_over_tls_the_cookie_and_the_browser_keep_to_it(demo: Shop) -> None:
    client = tried_app(demo.database).test_client()
    plain, safe = client.get("/people"), client.get("/people", **TLS)  # type: ignore[arg-type]
    assert "Strict-Transport-Security" not in plain.headers
    assert safe.headers["Strict-Transport-Security"] == "max-age=31536000"
    asked = (client.get("/sign-in"), client.get("/set-up", **TLS))  # type: ignore[arg-type]
    cookies = [answer.headers.get("Set-Cookie", "") for answer in asked]
    assert "Secure" not in cookies[0]
    assert "Secure" in cookies[1]
    assert all("HttpOnly" in each and "SameSite=Lax" in each for each in cookies if each)


ADDRESSES = ["/", "/shelf", "/health", "/nowhere", "/static/nematex.css", "/people", "/sign-in", "/along/none"]


@pytest.mark.parametrize("address", ADDRESSES)
def test_every_answer_is_closed_to_frames_strange_scripts_and_guesses(demo: Shop, address: str) -> None:
    with tried_app(demo.database).test_client().get(address) as answer:
        answer.get_data()
    assert "frame-ancestors 'none'" in answer.headers["Content-Security-Policy"]
    assert "unsafe" not in answer.headers["Content-Security-Policy"]
    for name, value in (("X-Content-Type-Options", "nosniff"), ("Cross-Origin-Opener-Policy", "same-origin")):
        assert answer.headers[name] == value
    assert "Server" not in answer.headers
    assert answer.headers["X-Request-Id"]
    cached = answer.headers["Cache-Control"]
    assert cached == ("no-store" if address in ("/people", "/sign-in") else cached)
    assert "public" not in cached or address.startswith("/static")


def test_a_fault_of_the_program_has_a_number_that_stands_in_the_log(demo: Shop, caplog: pytest.LogCaptureFixture) -> None:
    app = tried_app(demo.database)
    app.config["PROPAGATE_EXCEPTIONS"] = False

    def broken(**_given: object) -> str:
        raise ZeroDivisionError("on purpose")

    app.view_functions["shelf.cloths"] = broken
    with caplog.at_level(logging.ERROR):
        answer = app.test_client().get("/shelf?q=a+secret")
    assert answer.status_code == 500
    number = answer.headers["X-Request-Id"]
    assert number in answer.text
    assert "ZeroDivisionError" not in answer.text
    told = [record.getMessage() for record in caplog.records]
    assert any(number in each for each in told)
    assert not any("a secret" in each or "a+secret" in each for each in told)


def test_machines_see_whether_it_lives_and_can_serve_and_what_it_did(demo: Shop) -> None:
    client = tried_app(demo.database).test_client()
    assert [client.get(each).text for each in ("/health", "/health/live", "/health/ready")] == ["well", "live", "ready"]
    client.get("/shelf")
    told = client.get("/metrics").text
    assert 'nematex_requests_total{method="GET",room="shelf",status="200"}' in told
    assert "nematex_request_seconds_bucket" in told
    with demo.database.engine.begin() as connection:
        before = connection.execute(text("select version_num from alembic_version")).scalar()
        connection.execute(text("update alembic_version set version_num = '0019'"))
    try:
        assert client.get("/health/ready").status_code == 503
    finally:
        with demo.database.engine.begin() as connection:
            connection.execute(text("update alembic_version set version_num = :was"), {"was": before})


def test_from_elsewhere_metrics_want_the_token(demo: Shop) -> None:
    app = tried_app(demo.database)
    elsewhere = {"REMOTE_ADDR": "192.168.1.9"}
    client = app.test_client()
    assert client.get("/metrics", environ_base=elsewhere).status_code == 404
    app.config["METRICS_TOKEN"] = "a long word"
    for given, status in (("Bearer a long word", 200), ("Bearer wrong", 404), ("Bearer é", 404), ("", 404)):
        headers = {"Authorization": given.encode("utf-8").decode("latin-1")}
        assert client.get("/metrics", environ_base=elsewhere, headers=headers).status_code == status


def test_a_proxys_word_counts_by_setting_alone(demo: Shop, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    forwarded = {"X-Forwarded-For": "203.0.113.7", "X-Forwarded-Proto": "https", "X-Forwarded-Host": "shop.example"}
    assert "Strict-Transport-Security" not in tried_app(demo.database).test_client().get("/health", headers=forwarded).headers
    monkeypatch.setenv("NEMATEX_PROXIES", "1")
    monkeypatch.setenv("NEMATEX_HOSTS", "shop.example")
    monkeypatch.setenv("NEMATEX_SHOWN_AT", "https://shop.example")
    app = create_app(demo.database, "test")
    configure(app, tmp_path, network_of(""))
    answer = app.test_client().get("/sign-in", headers=forwarded)
    assert answer.status_code == 302
    assert answer.headers["Strict-Transport-Security"]
    assert app.test_client().get("/shelf", headers=forwarded).status_code == 302, "nobody tries the shop through a proxy"
