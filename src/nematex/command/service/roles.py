"""Which process is which: each of ours carries its role as its name, whoever it was forked from."""

from __future__ import annotations

import os
from pathlib import Path

WATCH, WEB, WORKER = "watch", "web", "worker"
SHOP = "NEMATEX_HOME"


def named(role: str) -> str:
    """The name of a process in this role; the system keeps 15 letters."""
    return f"nematex-{role}"[:15]


def become(role: str) -> None:
    Path("/proc/self/comm").write_text(named(role))


def plays(pid: int | None, role: str, shop: str) -> bool:
    """Whether this process lives, has this role, and works for the shop in this folder."""
    if not pid:
        return False
    try:
        entry = Path(f"/proc/{pid}")
        is_it = (entry / "comm").read_text().rstrip("\n") == named(role)
        lives = (entry / "stat").read_text().rsplit(")", 1)[1].split()[0] != "Z"
        return is_it and lives and works_for(pid, shop)
    except OSError:
        return False


def works_for(pid: int, shop: str) -> bool:
    """Whether a process was started for the shop in this folder; raises OSError where that cannot be read."""
    return f"{SHOP}={shop}".encode() in Path(f"/proc/{pid}/environ").read_bytes().split(b"\0")


def runs(pid: int | None, mark: str) -> bool:
    """Whether this process is alive and is the one we mean, by its command line."""
    if not pid:
        return False
    try:
        state = Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()[0]
    except OSError:
        return False
    return mark in words_of(pid) and state != "Z"


def words_of(pid: int) -> str:
    """A process's command line; "" for one that is gone."""
    try:
        return Path(f"/proc/{pid}/cmdline").read_bytes().replace(b"\0", b" ").decode(errors="replace")
    except OSError:
        return ""


def family(shop: str) -> dict[int, str]:
    """Every process of this shop that has a role: its number and its role."""
    found = {}
    for entry in Path("/proc").iterdir():
        if not entry.name.isdecimal():
            continue
        try:
            name = (entry / "comm").read_text().rstrip("\n")
            if name.startswith("nematex-") and works_for(int(entry.name), shop):
                found[int(entry.name)] = name.removeprefix("nematex-")
        except OSError:
            continue
    return found


def given_to_children(shop: str) -> dict[str, str]:
    """This process's environment with the shop's folder in it, as a whole path, by which the children are known."""
    return {**os.environ, SHOP: shop}
