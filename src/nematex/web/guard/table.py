"""Which right each address asks for. A room has one for looking and one for acting; what differs stands below, by name.

A new room without a row here does not start; `tests/pages/test_access.py` asks every address as every role.
"""

from __future__ import annotations

from werkzeug.routing import Rule

OPEN = ""  # for everybody, signed in or not

# Room → what looking asks for, what acting asks for.
ROOMS: dict[str, tuple[str, str]] = {
    "home": ("read", "settings"),
    "shelf": ("read", "measure"),
    "chosen": ("read", "buy"),
    "bench": ("read", "measure"),
    "photo": ("read", "measure"),
    "aids": ("read", "read"),
    "quality": ("read", "measure"),
    "patterns": ("read", "measure"),
    "why": ("read", "judge"),
    "pairing": ("read", "present"),
    "kinds": ("read", "read"),
    "hang": ("read", "read"),
    "matrix": ("read", "compute"),
    "hands": ("read", "judge"),
    "programmes": ("read", "present"),
    "imports": ("buy", "buy"),
    "parts": ("read", "read"),
    "bin": ("bin", "bin"),
    "lay": ("read", "compute"),
    "kit": ("read", "hold"),
    "planning": ("read", "present"),
    "wall": ("read", "present"),
    "drawn": ("read", "compute"),
    "made": (OPEN, "compute"),
    "stock": ("read", "buy"),
    "together": ("read", "present"),
    "history": ("read", "read"),
    "copying": ("read", "read"),
    "two": ("read", "read"),
    "run": ("read", "present"),
    "camera": ("read", "present"),
    "remote": (OPEN, OPEN),
    "takes": ("read", "present"),
    "notes": ("read", "present"),
    "along": ("read", "present"),
    "public": (OPEN, OPEN),
    "look": (OPEN, OPEN),
    "log": ("read", "present"),
    "practice": ("practise", "practise"),
    "kits": ("read", "present"),
    "door": (OPEN, OPEN),
    "wellness": (OPEN, OPEN),
    "account": ("own", "own"),
    "passkeys": ("own", "own"),
    "people": ("people", "people"),
    "trail": ("trail", "trail"),
}
# Single addresses that ask for something else, looking and acting alike.
SINGLE: dict[str, str] = {
    "static": OPEN,
    "passkeys.options_in": OPEN,
    "passkeys.come_in": OPEN,
    "shelf.edit": "measure",
    "shelf.new": "measure",
    "shelf.remove": "bin",
    "patterns.edit": "measure",
    "patterns.new": "measure",
    "patterns.remove": "bin",
    "bin.go": "let go",
    "chosen.together": "buy",
    "chosen.at_work": "buy",
    "chosen.how_far": "buy",
    "stock.choose": "feed",
    "shelf.keep_filter": "read",
    "shelf.drop_filter": "settings",
    "lay.keep_moves": "present",
    "pairing.price_notions": "settings",
    "planning.propose": "present",
    "along.reserve": "hold",
    "stock.ask": "hold",
    "notes.save_template": "settings",
    "notes.template": "settings",
    "log.photo": "read",
}


def right_of(endpoint: str, method: str) -> str:
    """The right that an address asks for; raises KeyError for a room that has no row."""
    if endpoint in SINGLE:
        return SINGLE[endpoint]
    looking, acting = ROOMS[endpoint.split(".", maxsplit=1)[0]]
    return looking if method in ("GET", "HEAD", "OPTIONS") else acting


def all_rights(rules: list[Rule]) -> dict[tuple[str, str], str]:
    """(endpoint, method) → right, for every address of the program."""
    return {
        (rule.endpoint, method): right_of(rule.endpoint, method)
        for rule in rules
        for method in sorted((rule.methods or set()) - {"HEAD", "OPTIONS"})
    }
