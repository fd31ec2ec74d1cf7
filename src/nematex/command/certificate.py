"""A certificate of the shop's own making: an authority that phones are told to trust once, and a year's certificate by it.

Both are below the shop's private folder; the authority's key never leaves it. RFC 5280; browsers take a server's
certificate for 397 days at most (from memory).
"""

from __future__ import annotations

import ipaddress
from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

AUTHORITY_DAYS, SERVER_DAYS, RENEW_DAYS = 3650, 390, 30
Key = ec.EllipticCurvePrivateKey


def _private(path: Path, content: bytes) -> None:
    path.touch(mode=0o600)
    path.chmod(0o600)
    path.write_bytes(content)


def _kept_key(path: Path) -> Key:
    if path.exists():
        found = serialization.load_pem_private_key(path.read_bytes(), None)
        if isinstance(found, Key):
            return found
    key = ec.generate_private_key(ec.SECP256R1())
    form = (serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption())
    _private(path, key.private_bytes(*form))
    return key


def _name(text: str) -> x509.Name:
    return x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, text[:60])])


def _start(subject: x509.Name, issuer: x509.Name, key: Key, days: int) -> x509.CertificateBuilder:
    now = datetime.now(UTC)
    made = x509.CertificateBuilder().subject_name(subject).issuer_name(issuer).public_key(key.public_key())
    made = made.serial_number(x509.random_serial_number()).not_valid_before(now - timedelta(days=1))
    return made.not_valid_after(now + timedelta(days=days))


def _usage(signs_others: bool) -> x509.KeyUsage:
    return x509.KeyUsage(not signs_others, False, False, False, False, signs_others, signs_others, False, False)


def _authority(folder: Path, key: Key) -> x509.Certificate:
    path = folder / "authority.crt"
    if path.exists():
        return x509.load_pem_x509_certificate(path.read_bytes())
    name = _name("Nematex, this shop's own")
    made = _start(name, name, key, AUTHORITY_DAYS).add_extension(x509.BasicConstraints(True, 0), critical=True)
    made = made.add_extension(_usage(signs_others=True), critical=True)
    made = made.add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
    found = made.sign(key, hashes.SHA256())
    _private(path, found.public_bytes(serialization.Encoding.PEM))
    return found


def _names(hosts: Sequence[str]) -> list[x509.GeneralName]:
    found: list[x509.GeneralName] = []
    for host in hosts:
        try:
            found.append(x509.IPAddress(ipaddress.ip_address(host)))
        except ValueError:
            found.append(x509.DNSName(host))
    return found


def _still_good(path: Path, hosts: Sequence[str]) -> bool:
    if not path.exists():
        return False
    found = x509.load_pem_x509_certificate(path.read_bytes())
    named = found.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    return set(named) == set(_names(hosts)) and found.not_valid_after_utc > datetime.now(UTC) + timedelta(days=RENEW_DAYS)


def certificate(folder: Path, hosts: Sequence[str]) -> tuple[Path, Path, Path]:
    """The files of the server's certificate, its key and the authority's certificate, made or renewed where it is time."""
    folder.mkdir(parents=True, exist_ok=True)
    folder.chmod(0o700)
    key, authority_key = _kept_key(folder / "server.key"), _kept_key(folder / "authority.key")
    authority = _authority(folder, authority_key)
    path = folder / "server.crt"
    if not _still_good(path, hosts):
        made = _start(_name(hosts[0]), authority.subject, key, SERVER_DAYS)
        made = made.add_extension(x509.SubjectAlternativeName(_names(hosts)), critical=False)
        made = made.add_extension(x509.BasicConstraints(False, None), critical=True)
        made = made.add_extension(_usage(signs_others=False), critical=True)
        made = made.add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        known = x509.AuthorityKeyIdentifier.from_issuer_public_key(authority_key.public_key())
        made = made.add_extension(known, critical=False)
        _private(path, made.sign(authority_key, hashes.SHA256()).public_bytes(serialization.Encoding.PEM))
    return path, folder / "server.key", folder / "authority.crt"
