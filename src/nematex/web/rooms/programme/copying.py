"""Copy a look: describe a garment from a shop, see how to make it."""

from __future__ import annotations

from flask import Blueprint, render_template, request

from nematex.core.cloth.facts import SHEERNESS, STRUCTURES
from nematex.core.errors import FieldFault
from nematex.usecases.programme.copying import FIELDS, copies, read_described
from nematex.web.rooms.common import now, shop

room = Blueprint("copying", __name__, url_prefix="/copy")


@room.get("")
def page() -> str | tuple[str, int]:
    given = {name: request.args.get(name, "")[:400] for name in FIELDS}
    described, found, fault = None, [], None
    try:
        if given["shape"]:
            described = read_described(now(), given)
            found = copies(shop(), now(), described)
    except FieldFault as raised:
        fault = raised
    page = render_template(
        "programme/copy.html", given=given, described=described, found=found, fault=fault, structures=STRUCTURES,
        sheerness=SHEERNESS,
    )  # fmt: skip
    return (page, 400) if fault else page
