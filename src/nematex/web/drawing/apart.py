"""Garments without a bodice and set-in sleeves: cape, kimono, waistcoat, swimsuit, apron; and bag and hat. In cm."""

from __future__ import annotations

from collections.abc import Callable

from nematex.core.pattern.look import Look
from nematex.web.drawing.curves import both, curve, mirrored, outline, waved, whole
from nematex.web.drawing.sheet import FLAT_SKIRT, HIP_HALF, SHOULDER, UNDERARM, WAIST_CM, WAIST_HALF, Sheet, hung, pocket

NECK_HALF = 7.5
CAPE_OPEN_HALF = 1.2


def cape(sheet: Sheet, drawn: Look, tenths: int) -> None:
    """From the shoulders to its hem like half a circle, the hands through slits."""
    deep = drawn.length_cm
    found = hung("A-line skirt", deep, None, tenths)
    spread = max(found.hem_radius_cm * FLAT_SKIRT + 6.0, 34.0)
    side = [(NECK_HALF, 0.0), *curve((NECK_HALF, 0.0), (21.0, 3.0), (26.0, 22.0)), (spread, deep)]
    hem = waved((-spread, deep), (spread, deep), max(3, round(found.folds / 2)), min(1.6, found.fold_depth_cm * 0.35))
    sheet.panels.append(outline([(0.0, 7.5), *side, *hem[1:-1], *mirrored(side)]))
    sheet.lines.append(outline([(0.0, 7.5), (0.0, deep)], False))
    at = min(deep - 8.0, 48.0)
    sheet.lines.append(both([(spread * 0.55, at - 16.0), (spread * 0.62, at)]))
    if drawn.collar != "hood":
        sheet.lines.append(both(curve((CAPE_OPEN_HALF, 9.0), (7.0, 8.5), (8.6, 1.0))))


def kimono(sheet: Sheet, drawn: Look, _: int) -> None:
    """Straight body and straight wide sleeves, open in front, a band along neck and fronts."""
    deep = drawn.length_cm
    sleeve = [(23.0, 2.5), (58.0, 10.0), (55.0, 46.0), (26.0, 36.0)]
    sheet.behind += [outline(sleeve), outline(mirrored(sleeve))]
    sheet.panels.append(whole([(0.0, 34.0), (NECK_HALF, 0.0), (24.0, 2.5), (26.5, 36.0), (27.0, deep), (0.0, deep)]))
    sheet.lines += [both([(NECK_HALF + 3.5, 0.8), (4.5, 34.0), (4.5, deep)]), outline([(0.0, 34.0), (0.0, deep)], False)]
    sheet.lines.append(both([(54.0, 8.0), (51.5, 45.0)]))


def waistcoat(sheet: Sheet, drawn: Look, _: int) -> None:
    """Close, without sleeves, a deep V, buttons and two points at the hem."""
    deep, neck = drawn.length_cm, 29.0
    side = [*curve((15.5, 3.6), (14.5, 18.0), (21.5, 27.0)), *curve((21.5, 27.0), (18.0, 40.0), (20.5, deep - 4.0))]
    points = [(20.5, deep - 4.0), (8.5, deep + 6.0), (0.6, deep - 1.0), (0.0, deep - 2.0)]
    sheet.panels.append(whole([(0.0, neck), (NECK_HALF, 0.0), *side, *points]))
    sheet.lines.append(outline([(1.4, neck - 1.0), (1.4, deep - 1.5)], False))
    step = (deep - neck - 4.0) / 5
    sheet.dots += [(0.0, neck + 2.0 + step * at) for at in range(5)]
    sheet.lines.append(both([(7.0, deep - 13.0), (15.0, deep - 14.5), (15.0, deep - 12.5), (7.0, deep - 11.0)]))


def swimsuit(sheet: Sheet, drawn: Look, _: int) -> None:
    """Body and legs cut high, in one."""
    hip = [*curve(UNDERARM, (WAIST_HALF - 1.0, 38.0), (WAIST_HALF, WAIST_CM)), (HIP_HALF - 2.0, 58.0)]
    leg = curve((HIP_HALF - 2.0, 58.0), (7.0, 62.0), (4.0, 78.0))
    if drawn.sleeve == "none":
        neck = curve((0.0, 20.0), (9.0, 19.0), (11.0, 1.0))
        upper = [(11.0, 1.0), (14.0, 1.2), *curve((14.0, 1.2), (15.5, 19.0), UNDERARM)]
    else:
        neck = curve((0.0, 10.0), (7.0, 9.0), (8.0, 0.2))
        upper = [(8.0, 0.2), *curve(SHOULDER, (16.5, 17.0), UNDERARM)]
    sheet.panels.append(whole([*neck, *upper, *hip, *leg, (0.0, 79.0)]))
    sheet.lines.append(both([(x, y + 1.6) for x, y in neck]))
    sheet.lines.append(both([(x - 0.4, y - 1.8) for x, y in leg]))


def apron(sheet: Sheet, drawn: Look, _: int) -> None:
    """A bib on a strap, a front to the knee, ties at the sides."""
    deep = drawn.length_cm
    sheet.behind.append(whole([(0.0, -12.0), *curve((0.0, -12.0), (11.0, -11.0), (10.5, 16.0)), (8.5, 16.0), (0.0, -9.5)]))
    side = [(11.0, 15.0), *curve((11.0, 15.0), (13.0, 36.0), (HIP_HALF + 1.0, WAIST_CM)), (HIP_HALF + 2.0, deep)]
    sheet.panels.append(whole([(0.0, 15.0), *side, (0.0, deep)]))
    sheet.lines += [both([(HIP_HALF + 1.0, WAIST_CM + 1.0), (HIP_HALF + 9.0, WAIST_CM + 16.0)])]
    sheet.panels.append(outline([(-13.0, 56.0), (13.0, 56.0), (13.0, 74.0), (-13.0, 74.0)]))
    sheet.lines.append(outline([(0.0, 56.0), (0.0, 74.0)], False))


def bag(sheet: Sheet, drawn: Look, _: int) -> None:
    """A flat bag with two straps."""
    deep = 30.0 + drawn.length_cm
    strap = [
        (8.0, 30.0),
        *curve((8.0, 30.0), (9.0, -6.0), (0.0, -6.0)),
        (0.0, -3.5),
        *curve((0.0, -3.5), (6.5, -3.0), (5.5, 30.0)),
    ]
    sheet.behind += [outline([*strap]), outline(mirrored(strap))]
    sheet.panels.append(whole([(0.0, 30.0), (19.0, 30.0), (20.0, deep), (0.0, deep)]))
    sheet.lines.append(both([(0.0, 33.5), (19.0, 33.5)]))
    if drawn.pockets:
        pocket(sheet, 9.0, 42.0)


def hat(sheet: Sheet, _: Look, __: int) -> None:
    """A soft hat: crown, side, and a brim that falls."""
    brim = [(0.0, 20.0), *curve((10.0, 19.0), (18.0, 21.0), (23.0, 29.0)), *curve((23.0, 29.0), (12.0, 35.0), (0.0, 35.0))]
    sheet.panels.append(whole(brim))
    sheet.panels.append(
        whole(
            [
                (0.0, 2.0),
                *curve((0.0, 2.0), (10.0, 2.0), (11.0, 7.0)),
                (12.5, 21.0),
                *curve((12.5, 21.0), (7.0, 24.0), (0.0, 24.0)),
            ]
        )
    )
    sheet.lines.append(both(curve((0.0, 9.0), (8.0, 9.0), (11.2, 7.0))))
    sheet.lines += [both(curve((0.0, at), (12.0, at - 1.0), (at * 0.62, 28.0))) for at in (28.0, 31.0)]


APART: dict[str, Callable[[Sheet, Look, int], None]] = {
    "cape": cape, "kimono": kimono, "waistcoat": waistcoat, "swimsuit": swimsuit, "apron": apron, "bag": bag, "hat": hat,
}  # fmt: skip
