"""The simulated till told what to do: only in the made-up shop, and only the till that ships."""

from __future__ import annotations

import json
import urllib.error
import urllib.request
from collections.abc import Mapping

from nematex.core.errors import FieldFault
from nematex.usecases.held.state import State
from nematex.usecases.stock.polling import SETTING

WAIT_S = 5.0
ACTS = ("mode", "sell", "metres", "days")


def has_till(state: State) -> bool:
    """Whether the shop is the made-up one and asks the till that ships with it."""
    return state.is_made_up and state.settings.get(SETTING, "").startswith("http://127.0.0.1:")


def tell_till(state: State, acts: Mapping[str, object]) -> None:
    """Let it sell, let days pass, or misbehave; raises FieldFault."""
    address = state.settings[SETTING].removesuffix("/stock") + "/act"
    asked = urllib.request.Request(
        address, json.dumps({name: acts[name] for name in ACTS if name in acts}).encode(), {"Content-Type": "application/json"}
    )
    try:
        with urllib.request.urlopen(asked, timeout=WAIT_S):
            return
    except urllib.error.HTTPError as fault:
        raise FieldFault("till", str(acts)[:60], f"was refused: {fault.read(200).decode(errors='replace')}") from None
    except (urllib.error.URLError, OSError):
        raise FieldFault("till", address, "cannot be reached: the simulated till does not run") from None
