"""Photos taken at the bench, read into the hidden boxes of their measurement."""

from __future__ import annotations

from collections.abc import Mapping

from nematex.core.colour.difference import LUMINANCE
from nematex.core.errors import FieldFault
from nematex.store.cloth.readings import add_photo
from nematex.store.records import ClothRecord, Photo
from nematex.usecases.cloth.bench.measures import Measure, Method
from nematex.usecases.files.photo_file import Opened, open_photo, taken
from nematex.usecases.held.shop import Shop
from nematex.usecases.photo.interpretation import disc_json


def _halves(photo: Opened) -> tuple[float, float]:
    """Mean linear tones of the middle of the left half (cloth) and of the right half (bare card)."""
    height, width = photo.linear.shape[:2]
    tone = photo.linear[height // 4 : -(height // 4)] @ LUMINANCE
    left, right = tone[:, width // 8 : 3 * width // 8], tone[:, 5 * width // 8 : 7 * width // 8]
    return float(left.mean()), float(right.mean())


def _over_cards(sent: Mapping[str, bytes]) -> dict[str, str]:
    found: dict[str, str] = {}
    for card in ("black", "white"):
        cloth, bare = _halves(open_photo(sent[card]))
        found |= {f"on_{card}-0": f"{cloth:.5f}", f"bare_{card}-0": f"{bare:.5f}"}
    return found


def _scale_typed(values: Mapping[str, str]) -> str:
    return f"{values.get('px_per_cm-0', '')} {values.get('wide-0', '')}".strip()


def _disc(shop: Shop, record: ClothRecord, content: bytes, values: Mapping[str, str]) -> dict[str, str]:
    sent = taken(content)
    scale = sent.opened.px_per_cm(values.get("px_per_cm-0", ""), values.get("wide-0", ""))
    found = disc_json(sent.opened, scale)
    with shop.database.work() as work:
        photo_id = add_photo(work, Photo(0, record.id, "disc", sent.copy, scale * sent.reduced, found))
    folds = found["folds"]
    return {
        "drape-0": str(found["drape_coefficient_pct"]),
        "folds-0": "" if folds is None else str(folds),
        "sure-0": str(found["confidence"]["drape_coefficient_pct"]),
        "photo_id-0": str(photo_id),
        "read_with-0": _scale_typed(values),
    }


def read_photos(
    shop: Shop, record: ClothRecord, measure: Measure, method: Method, sent: Mapping[str, bytes], values: Mapping[str, str]
) -> dict[str, str]:
    """The hidden boxes as the photos say; those typed or read before where no new photo was sent. Raises FieldFault."""
    boxes = [each for each in method.fields if each.photo]
    missing = [each for each in boxes if not sent.get(each.name)]
    if not boxes:
        return {}
    if missing:
        hidden = [each for each in method.fields if each.hidden]
        if len(missing) == len(boxes) and values.get(f"{hidden[0].name}-0"):
            if measure.name == "disc" and _scale_typed(values) != values.get("read_with-0"):
                raise FieldFault("Scale", _scale_typed(values), "was changed since; choose the photo again")
            return {}
        raise FieldFault(missing[0].label, "", "is missing; choose a JPEG, PNG or WebP photo")
    return _over_cards(sent) if measure.name == "sheer" else _disc(shop, record, sent["photo"], values)
