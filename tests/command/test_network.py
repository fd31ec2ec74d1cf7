"""The shop on its network, seen by a second device: each in a network namespace of its own, joined by a cable.

This machine's own network stays as it is: a browser that another test drives drops what it loads when an address comes or goes.
"""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
import time
from collections.abc import Iterator
from datetime import datetime
from pathlib import Path

import pytest
from cryptography import x509
from test_service import environment, state

from nematex.command.certificate import certificate
from nematex.command.mariadb import LocalMariaDB
from nematex.command.network import read_address
from nematex.store.database import Database
from nematex.usecases.held.shop import Shop
from nematex.usecases.people.set_up import make_owner

SHOP, PHONE = "10.231.77.1", "10.231.77.2"
WORD = "copper lantern orchard 9"
# What the phone does: asks an address with what is known, follows no redirect, and prints what came back.
ASK = """
import http.client, json, ssl, sys
told = json.loads(sys.stdin.read())
made = []
for one in told:
    context = ssl.create_default_context(cafile=one.get("trusts"))
    kind = http.client.HTTPSConnection if one["tls"] else http.client.HTTPConnection
    try:
        line = kind(one["host"], one["port"], timeout=20, **({"context": context} if one["tls"] else {}))
        line.request(one.get("method", "GET"), one["path"], one.get("body"), one.get("headers", {}))
        answer = line.getresponse()
        made.append({"status": answer.status, "headers": answer.getheaders(), "text": answer.read().decode(errors="replace")})
    except OSError as fault:
        made.append({"fault": str(fault)})
print(json.dumps(made))
"""


def ip(*words: str) -> None:
    subprocess.run(["ip", *words], check=True, capture_output=True)


@pytest.fixture
def machines() -> Iterator[tuple[str, str]]:
    """Two namespaces, the shop's and the phone's; skipped where the system makes none."""
    both = shop, phone = f"nematex-shop-{os.getpid()}", f"nematex-phone-{os.getpid()}"
    if os.geteuid() or not shutil.which("ip"):
        pytest.skip("only root may make a network namespace")
    try:
        for name in both:
            if subprocess.run(["ip", "netns", "add", name], check=False, capture_output=True).returncode:
                pytest.skip("this system makes no network namespaces")
            ip("-n", name, "link", "set", "lo", "up")
        ip("-n", shop, "link", "add", "cable", "type", "veth", "peer", "name", "cable", "netns", phone)
        for name, address in zip(both, (SHOP, PHONE), strict=True):
            ip("-n", name, "address", "add", f"{address}/24", "dev", "cable")
            ip("-n", name, "link", "set", "cable", "up")
        yield both
    finally:
        for name in both:
            subprocess.run(["ip", "netns", "del", name], check=False, capture_output=True)


def inside(machine: str, *words: str) -> list[str]:
    return ["ip", "netns", "exec", machine, sys.executable, *words]


def ask(phone: str, *asked: dict[str, object]) -> list[dict[str, object]]:
    done = subprocess.run(
        inside(phone, "-c", ASK),
        input=json.dumps(asked),
        capture_output=True,
        text=True,
        check=True,
    )
    return json.loads(done.stdout)  # type: ignore[no-any-return]


def one(phone: str, port: int, path: str, **more: object) -> dict[str, object]:
    return ask(phone, {"host": SHOP, "port": port, "path": path, "tls": True, **more})[0]


def drawn(phone: str, port: int, path: str, **more: object) -> dict[str, object]:
    """What the worker draws, as the waiting page comes back for it."""
    until = time.monotonic() + 120
    while (found := one(phone, port, path, **more))["status"] == 202 and time.monotonic() < until:
        time.sleep(1)
    return found


def header(answer: dict[str, object], name: str, between: str = "; ") -> str:
    return between.join(value for key, value in answer["headers"] if key.lower() == name)  # type: ignore[attr-defined]


def cookies(answer: dict[str, object]) -> str:
    """Every cookie that came with an answer, as a browser sends them back."""
    return "; ".join(each.split(";")[0] for each in header(answer, "set-cookie", "\n").split("\n"))


def with_owner(home: Path) -> None:
    server = LocalMariaDB(home / ".nematex")
    database = Database(server.url)
    make_owner(Shop(database), "Wren Applegarth", WORD, "", datetime.now())
    database.close()


@pytest.mark.long
def test_a_phone_on_the_shops_network(tmp_path: Path, machines: tuple[str, str]) -> None:
    shop, phone = machines

    def nematex(home: Path, *words: str) -> subprocess.CompletedProcess[str]:
        line = inside(shop, "-m", "nematex.command", *words)
        return subprocess.run(line, env=environment(home), capture_output=True, text=True, check=False)

    try:
        assert nematex(tmp_path, "start").returncode == 0
        refused = nematex(tmp_path, "start", "--lan", SHOP)
        assert refused.returncode == 1
        assert "no owner yet" in refused.stderr
        assert "/set-up?code=" in refused.stderr
        with_owner(tmp_path)
        started = nematex(tmp_path, "start", "--lan", SHOP)
        assert started.returncode == 0, started.stderr
        assert f"https://{SHOP}:" in started.stdout
        assert "▀" in started.stdout or "█" in started.stdout, "a code to be read by the phone"
        web_port, port = state(tmp_path)["web_port"], int(str(state(tmp_path)["lan"]).rpartition(":")[2])  # type: ignore[misc]
        trusts = str(tmp_path / ".nematex/tls/authority.crt")

        plain, strange = ask(
            phone,
            {"host": SHOP, "port": web_port, "path": "/", "tls": False},
            {"host": SHOP, "port": port, "path": "/", "tls": True},
        )
        assert "refused" in str(plain["fault"]), "without TLS the shop answers on its own machine alone"
        assert "CERTIFICATE_VERIFY_FAILED" in str(strange["fault"])

        shown = one(phone, port, "/shelf", trusts=trusts)
        assert shown["status"] == 302
        assert header(shown, "location") == "/sign-in?back=/shelf"
        assert header(shown, "strict-transport-security") == "max-age=31536000"
        assert one(phone, port, "/metrics", trusts=trusts)["status"] == 404
        assert one(phone, port, "/shelf", trusts=trusts, headers={"Host": "elsewhere.test"})["status"] == 400
        assert one(phone, port, "/shelf", trusts=trusts, headers={"X-Forwarded-For": "127.0.0.1"})["status"] == 302
        own = str(one(phone, port, "/certificate.crt", trusts=trusts)["text"])
        assert own == Path(trusts).read_text()

        form = one(phone, port, "/sign-in", trusts=trusts)
        cookie = header(form, "set-cookie")
        assert all(word in cookie for word in ("Secure", "HttpOnly", "SameSite=Lax"))
        token = str(form["text"]).split('name="csrf_token" value="')[1].split('"')[0]
        sent = {"Cookie": cookies(form), "Content-Type": "application/x-www-form-urlencoded"}
        sent["Referer"] = f"https://{SHOP}:{port}/sign-in"
        body = f"csrf_token={token}&name=Wren+Applegarth&password={WORD.replace(' ', '+')}&back=/shelf"
        entered = one(phone, port, "/sign-in", trusts=trusts, method="POST", body=body, headers=sent)
        assert (entered["status"], header(entered, "location")) == (302, "/shelf")
        for kept in header(entered, "set-cookie", "\n").split("\n"):
            assert all(word in kept for word in ("Secure", "HttpOnly", "SameSite=Lax")), kept
        known = {"Cookie": cookies(entered)}
        shelf = one(phone, port, "/shelf?q=kelp", trusts=trusts, headers=known)
        assert "Kelp Ladder challis" in str(shelf["text"])
        labels = drawn(phone, port, "/print/labels.pdf?cloth=1", trusts=trusts, headers=known)
        assert header(labels, "content-type") == "application/pdf"
        assert nematex(tmp_path, "start").returncode == 0, "what was on the network stays there"
        assert one(phone, port, "/health", trusts=trusts)["text"] == "well"
    finally:
        nematex(tmp_path, "stop")


def test_the_certificate_is_what_browsers_take_and_is_made_once(tmp_path: Path) -> None:
    """RFC 5280 and the browsers' own rules (from memory): names in the extension, a year at most, not a signer itself."""
    path, key, authority = certificate(tmp_path / "tls", ["192.168.1.20", "shop.local"])
    for each in (path, key, authority, tmp_path / "tls/authority.key"):
        assert each.stat().st_mode & 0o077 == 0
    found = x509.load_pem_x509_certificate(path.read_bytes())
    names = found.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    assert [str(each) for each in names.get_values_for_type(x509.IPAddress)] == ["192.168.1.20"]
    assert names.get_values_for_type(x509.DNSName) == ["shop.local"]
    assert (found.not_valid_after_utc - found.not_valid_before_utc).days <= 397
    assert not found.extensions.get_extension_for_class(x509.BasicConstraints).value.ca
    found.verify_directly_issued_by(x509.load_pem_x509_certificate(authority.read_bytes()))
    before = (path.read_bytes(), authority.read_bytes())
    certificate(tmp_path / "tls", ["192.168.1.20", "shop.local"])
    assert (path.read_bytes(), authority.read_bytes()) == before
    certificate(tmp_path / "tls", ["192.168.1.21", "shop.local"])
    assert path.read_bytes() != before[0]
    assert authority.read_bytes() == before[1], "phones that trust it need not be told again"
    said = subprocess.run(["openssl", "verify", "-CAfile", authority, path], capture_output=True, text=True, check=False)
    assert said.stdout.strip().endswith("OK"), said.stderr


@pytest.mark.parametrize("text", ["300.1.1.1", "shop", "1.2.3", "::1", "-1", "8.8.8.8", "٣.1.1.1", "x" * 300])
def test_an_address_that_is_not_this_machines_is_named(text: str) -> None:
    with pytest.raises(RuntimeError, match="--lan"):
        read_address(text)
