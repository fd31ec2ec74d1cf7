"""Shops that start at the same moment on one machine, as twenty do when it comes up, each have a port of their own."""

from __future__ import annotations

import socket
from contextlib import ExitStack

from nematex.command.ports import claimed_port, free_port


def test_a_port_that_another_shop_is_about_to_listen_on_is_not_given_out() -> None:
    wanted = free_port()
    with ExitStack() as started:
        ports = [started.enter_context(claimed_port(wanted)) for _ in range(20)]
        assert ports[0] == wanted
        assert len(set(ports)) == len(ports)
    with claimed_port(wanted) as again:
        assert again == wanted, "what one has given up is free for the next"


def test_a_port_that_somebody_listens_on_is_not_given_out() -> None:
    with socket.socket() as other:
        other.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEPORT, 1)
        other.bind(("127.0.0.1", 0))
        other.listen()
        with claimed_port(other.getsockname()[1]) as port:
            assert port != other.getsockname()[1]
