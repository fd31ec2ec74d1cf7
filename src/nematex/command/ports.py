"""Ports of this machine."""

from __future__ import annotations

import socket
from collections.abc import Iterator
from contextlib import contextmanager


def _is_free(port: int, address: str) -> int:
    """The port, or any for 0, if nobody listens on it; else 0."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((address, port))
        except OSError:
            return 0
        return int(probe.getsockname()[1])


def free_port(preferred: int = 0, address: str = "127.0.0.1") -> int:
    """A port that nobody listens on; the preferred one if it is free."""
    for port in (preferred, 0):
        if found := _is_free(port, address):
            return found
    raise OSError(f"no free port on {address}")


@contextmanager
def claimed_port(preferred: int) -> Iterator[int]:
    """A port of 127.0.0.1 that nobody listens on, nor is about to: of shops that start at once, each has one of its own.

    Web processes share their port, so the system would let the web processes of two shops share it too. The claim is a name
    of this machine that falls free with its holder; it is held until the shop listens.
    """
    for wanted in (preferred, *[0] * 20):
        port = _is_free(wanted, "127.0.0.1")
        with socket.socket(socket.AF_UNIX) as claim:
            try:
                claim.bind(f"\0nematex starts on port {port}")
            except OSError:
                continue
            if port and _is_free(port, "127.0.0.1"):  # and nobody came to listen there before it was claimed
                yield port
                return
    raise OSError("no free port on 127.0.0.1")
