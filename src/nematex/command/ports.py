"""Ports of this machine."""

from __future__ import annotations

import socket


def free_port(preferred: int = 0, address: str = "127.0.0.1") -> int:
    """A port that nobody listens on; the preferred one if it is free."""
    for port in (preferred, 0):
        with socket.socket() as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind((address, port))
            except OSError:
                continue
            return int(probe.getsockname()[1])
    raise OSError(f"no free port on {address}")
