"""How long a name waits after wrong passwords: short for a slip, long for a machine that tries.

OWASP ASVS 4.0, 2.2.1 (from memory): no more than 100 failed tries an hour for one account.
"""

from __future__ import annotations

FREE_TRIES = 3  # a slip or two costs nothing
LONGEST_WAIT_S = 900


def wait_s(failures: int) -> int:
    """Seconds until the next try after so many failures in a row: none for the first, then doubling up to a quarter hour."""
    return 0 if failures < FREE_TRIES else min(2 ** min(failures - FREE_TRIES + 1, 20), LONGEST_WAIT_S)
