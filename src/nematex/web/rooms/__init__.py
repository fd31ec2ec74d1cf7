"""One blueprint per room of the shop, by subject."""

from nematex.web.rooms import bin, home, made, parts, wellness
from nematex.web.rooms.air import camera, kits, log, notes, practice, public, remote, run, sew_alongs, takes
from nematex.web.rooms.cloth import aids, bench, chosen, imports, quality, shelf
from nematex.web.rooms.hang import hang
from nematex.web.rooms.judging import kinds, matrix, overrides, pairing, two, why
from nematex.web.rooms.kit import kit
from nematex.web.rooms.lay import lay
from nematex.web.rooms.pattern import patterns
from nematex.web.rooms.people import account, door, passkeys, people, trail
from nematex.web.rooms.photo import photo
from nematex.web.rooms.programme import copying, drawn, history, look, planning, programmes, together, wall
from nematex.web.rooms.stock import stock

MODULES = (
    home, shelf, chosen, bench, photo, aids, quality, patterns, why, pairing, kinds, hang, matrix, overrides, programmes,
    imports, parts, bin, lay, kit, planning, wall, drawn, made, stock, together, history, copying, two, run,
    look, wellness, door, account, passkeys, people, trail,
    camera, remote, takes, notes, sew_alongs, public, log, practice, kits,
)  # fmt: skip
ROOMS = tuple(module.room for module in MODULES)
