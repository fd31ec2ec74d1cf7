"""Where this machine is on the shop's network, and how the shop's address there is shown."""

from __future__ import annotations

import io
import ipaddress
import socket

import segno

LAN_PORT = 8443
NOWHERE = ("192.0.2.1", 9)  # an address kept for documents (RFC 5737): asked for the way to it, nothing is sent


def own_address() -> str:
    """This machine's address on its network; raises RuntimeError where it has none."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(NOWHERE)
            found = str(probe.getsockname()[0])
        except OSError as fault:
            raise RuntimeError("this machine is on no network; name its address: ./nematex start --lan ADDRESS") from fault
    return found


def read_address(text: str) -> str:
    """An address of this machine as it was typed; empty: it is found. Raises RuntimeError."""
    if not text:
        return own_address()
    try:
        address = ipaddress.IPv4Address(text)
        with socket.socket() as probe:
            probe.bind((str(address), 0))
    except ValueError as fault:
        raise RuntimeError(f"--lan: {text[:60]!r} is no address such as 192.168.1.20; leave it out to have it found") from fault
    except OSError as fault:
        raise RuntimeError(f"--lan: {address} is no address of this machine; `ip -4 addr` lists those that are") from fault
    return str(address)


def names_here(address: str) -> list[str]:
    """What this machine can be called on its network: the address first, and its names."""
    name = socket.gethostname().split(".")[0].lower()
    fits = name.replace("-", "").isalnum() and name.isascii() and not name.isdecimal()
    return [address, *([name, f"{name}.local"] if fits and name != "localhost" else [])]


def picture(address: str) -> str:
    """The address as a code of letters, for a terminal."""
    out = io.StringIO()
    segno.make(address, error="m").terminal(out, compact=True)
    return out.getvalue()
