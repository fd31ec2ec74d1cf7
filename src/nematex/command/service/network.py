"""What web processes are told of the shop's network."""

from __future__ import annotations

import os
from dataclasses import dataclass

from nematex.command.network import names_here
from nematex.command.service.state import home


@dataclass(frozen=True)
class Network:
    """Where the shop answers by HTTPS ("address:port", "" for nowhere), the names it may be asked by, and what labels show."""

    lan: str = ""
    hosts: tuple[str, ...] = ()
    shown_at: str = ""


def network_of(lan: str) -> Network:
    """As the settings say, with this machine's own names where the shop answers on its network."""
    given = os.environ.get
    hosts = tuple(host for host in given("NEMATEX_HOSTS", "").split(",") if host)
    shown_at = given("NEMATEX_SHOWN_AT", "")
    if not lan:
        return Network("", hosts, shown_at)
    from nematex.command.certificate import certificate

    names = names_here(lan.rpartition(":")[0])
    certificate(home() / "tls", names)
    return Network(lan, (*names, *hosts), shown_at or f"https://{lan}")
