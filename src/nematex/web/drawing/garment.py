"""A garment drawn from its details, in cm, so that a cloth's print can lie on it to scale; fullness hangs by the model.

Panels are closed paths that are filled with the cloth, lines are drawn over them. No photograph: the common middle size
of the hang model, seen from the front.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from nematex.core.hang.hem import MODERATE_CM
from nematex.core.pattern.look import BOTTOMS, Look
from nematex.web.drawing.apart import APART
from nematex.web.drawing.below import below, flounce, waistband
from nematex.web.drawing.curves import Point, along, both, curve, mirrored, outline, waved, whole
from nematex.web.drawing.sheet import (
    FLAT_SLEEVE,
    HIP_HALF,
    LOOSE_HALF,
    SHOULDER,
    UNDERARM,
    WAIST_CM,
    WAIST_HALF,
    Sheet,
    hung,
    pocket,
)

PEPLUM_FOLDS = 5


@dataclass(frozen=True)
class Figure:
    """A finished drawing: filled panels in their order, lines, buttons, and its box (left, top, width, height) in cm."""

    panels: tuple[str, ...]
    lines: tuple[str, ...]
    dots: tuple[Point, ...]
    box: tuple[float, float, float, float]


def drawn_figure(drawn: Look, bend_cm: float = MODERATE_CM) -> Figure:
    """The garment in a cloth of this bending length."""
    return _figure(drawn, round(bend_cm * 10))


@lru_cache(maxsize=2048)
def _figure(drawn: Look, tenths: int) -> Figure:
    sheet = Sheet()
    if drawn.kind in BOTTOMS:
        waistband(sheet, 0.0, drawn.waist)
        below(sheet, drawn, 0.0, tenths)
    elif drawn.kind in APART:
        if drawn.sleeve != "none" and drawn.kind == "swimsuit":
            _sleeves(sheet, drawn, tenths)
        APART[drawn.kind](sheet, drawn, tenths)
        if drawn.collar == "hood":
            _collar(sheet, drawn, _neck(drawn))
    else:
        _above(sheet, drawn, tenths)
    return _finished(sheet, drawn)


def _finished(sheet: Sheet, drawn: Look) -> Figure:
    numbers = [
        tuple(map(float, pair.split()))
        for path in (*sheet.behind, *sheet.panels)
        for pair in path.replace("Z", "").replace("M", "L").split("L")
        if pair
    ]
    half = max(abs(x) for x, _ in numbers) + 1.5
    top, deep = min(y for _, y in numbers) - 1.5, max(y for _, y in numbers) + 1.5
    least = 30.0 if drawn.kind in BOTTOMS else 36.0
    half = max(half, least)
    return Figure((*sheet.behind, *sheet.panels), tuple(sheet.lines), tuple(sheet.dots), (-half, top, 2 * half, deep - top))


def _above(sheet: Sheet, drawn: Look, tenths: int) -> None:
    """Bodice with neck, sleeves and what hangs from it."""
    straps = drawn.kind in ("slip", "dungarees") or (drawn.sleeve == "none" and drawn.kind == "dress" and drawn.neck == "v")
    low = drawn.kind in ("dress", "jumpsuit")
    if straps:
        _strapped(sheet, drawn)
    else:
        _sleeves(sheet, drawn, tenths)
        _bodice(sheet, drawn)
    if low and drawn.waist == "none":
        return
    if drawn.flounce and drawn.kind == "tee":
        flounce(sheet, LOOSE_HALF - 1.0, drawn.length_cm, PEPLUM_FOLDS)
    if low or drawn.kind == "dungarees":
        at = {"dropped": 56.0, "empire": 30.0}.get(drawn.waist, WAIST_CM)
        if drawn.waist == "elastic":
            sheet.lines += [outline([(x, at - 1.5), (x + 0.3, at + 1.5)], False) for x in range(-15, 16, 3)]
        below(sheet, replace(drawn, length_cm=drawn.length_cm + WAIST_CM - at), at, tenths)


def _neck(drawn: Look) -> list[Point]:
    """Half of the neckline, from the middle to the shoulder."""
    if drawn.neck == "boat":
        return curve((0, 4.5), (9, 5), (13.5, 1.5))
    if drawn.neck == "square":
        return [(0, 14), (9.5, 14), (8.5, 0)]
    if drawn.neck in ("v", "wrap", "lapels"):
        return [(0, 21 if drawn.neck != "lapels" else 30), (7.5, 0)]
    if drawn.neck == "scoop":
        return curve((0, 16), (9, 15), (9.5, 0.5))
    if drawn.neck == "cowl":
        return curve((0, 12), (8, 9), (10.5, 0.5))
    return curve((0, 7.5), (6.5, 7), (7.5, 0))


def _bottom(drawn: Look) -> list[Point]:
    """The right side of a bodice from the underarm to the middle of its lower edge."""
    loose = drawn.loose or drawn.kind in ("tee", "shirt", "hoodie", "coat", "gown")
    if drawn.kind in ("dress", "jumpsuit") and drawn.waist != "none":
        at = {"dropped": 56.0, "empire": 30.0}.get(drawn.waist, WAIST_CM)
        half = 21.0 if drawn.waist == "dropped" else 20.5 if drawn.waist == "empire" else WAIST_HALF + 0.4
        return [*curve(UNDERARM, (half, (UNDERARM[1] + at) / 2), (half, at)), (0.0, at)]
    deep = drawn.length_cm if drawn.kind not in ("dress", "jumpsuit") else WAIST_CM + drawn.length_cm
    if not loose:
        hip = [(HIP_HALF, 62.0), (HIP_HALF + 2, deep)] if deep > 66 else [(HIP_HALF, deep)] if deep > WAIST_CM + 6 else []
        return [*curve(UNDERARM, (WAIST_HALF + 1, 36), (WAIST_HALF + 1.5, WAIST_CM)), *hip, (0.0, deep + 0.6)]
    wide = LOOSE_HALF + (3 if drawn.loose else 0) + (3 if drawn.kind in ("coat", "gown") else 0)
    return [*curve(UNDERARM, (wide - 1.5, 40), (wide, deep), 6), (0.0, deep + 0.8)]


def _bodice(sheet: Sheet, drawn: Look) -> None:
    neck, side = _neck(drawn), _bottom(drawn)
    armhole = curve(SHOULDER, (16.5, 17), UNDERARM) if drawn.sleeve != "grown-on" else [SHOULDER, UNDERARM]
    sheet.panels.append(whole([*neck, *armhole, *side]))
    deep = side[-1][1]
    _neckline(sheet, drawn, neck, deep)
    open_from = neck[0][1]
    if drawn.closure:
        sheet.lines.append(
            outline(
                [(1.6 if drawn.closure == "buttons" else 0, open_from), (1.6 if drawn.closure == "buttons" else 0, deep)], False
            )
        )
    if drawn.closure == "buttons":
        count = max(3, int((deep - open_from) / 9))
        sheet.dots += [(0.0, open_from + (deep - open_from) * (number + 0.5) / count) for number in range(count)]
    if drawn.pockets:
        pocket(sheet, 13.0, 28.0 if drawn.kind == "shirt" else deep - 30.0)
    if drawn.kind == "hoodie":
        sheet.panels.append(outline([(-13, deep - 20), (13, deep - 20), (18, deep - 5), (-18, deep - 5)]))
        sheet.lines.append(both([(0, deep - 3.5), (26.5, deep - 4)]))
    if drawn.knot:
        middle = (side[-1][1] if drawn.waist == "none" or drawn.kind not in ("dress", "jumpsuit") else WAIST_CM) - 2
        at = min(middle, 44.0)
        sheet.panels += [outline([(0, at - 3), (4, at - 1), (3, at + 3), (0, at + 2), (-3, at + 3), (-4, at - 1)])]
        sheet.lines += [both([(3.5, at), (15, at - 7)]), both([(3.5, at + 1), (16, at + 2)])]
    if drawn.kind == "gown":
        sheet.lines.append(both([(0, WAIST_CM + 4), (25, WAIST_CM + 2)]))
        sheet.lines.append(both([(0, WAIST_CM + 8), (25, WAIST_CM + 6)]))


def _neckline(sheet: Sheet, drawn: Look, neck: list[Point], deep: float) -> None:
    """What finishes the neck: wrap, lapels, cowl folds, a band, a collar, a hood."""
    if drawn.neck == "wrap":
        sheet.lines.append(outline([(7.5, 0), (0, 21), (-14, min(deep, WAIST_CM) - 1)], False))
    elif drawn.neck == "lapels":
        sheet.panels += [outline([(side * x, y) for x, y in ((7.5, 0), (11.5, 9), (15, 12), (0.6, 30))]) for side in (1, -1)]
    elif drawn.neck == "cowl":
        sheet.lines += [both(curve((0, 12 + fold), (9, 10 + fold), (12 + fold * 0.4, 2))) for fold in (4, 8, 12)]
    elif not drawn.collar:
        inner = [(x * 1.02, y + 1.8) for x, y in neck]
        sheet.lines.append(both(inner))
    _collar(sheet, drawn, neck)


def _collar(sheet: Sheet, drawn: Look, neck: list[Point]) -> None:
    if drawn.collar == "shirt":
        for side in (1, -1):
            points = [(0.2, 7.5), (4.5, 3.6), (6.8, -1.6), (9.8, 2.6), (9.2, 8.5), (5.2, 12)]
            sheet.panels.append(outline([(side * x, y) for x, y in points]))
    elif drawn.collar == "stand":
        sheet.panels.append(whole([(0, 7.2), *neck[1:], (7.2, -4.2), *curve((7.2, -4.2), (4, 1.5), (0, 2.5))[1:]]))
    elif drawn.collar == "ruffle":
        frill = [(x * 1.0, y) for x, y in curve((0, 7.5), (6.5, 7), (7.8, -1))]
        outer = [(x * 1.55 + (0.8 if at % 2 else -0.2), y * 1.35 + (1.6 if at % 2 else 0.4)) for at, (x, y) in enumerate(frill)]
        sheet.panels.append(whole([*frill, *reversed(outer)]))
    elif drawn.collar == "hood":
        sheet.behind.append(whole([(0, -22), *curve((0, -22), (17, -22), (13.5, 2), 8), (7.5, 6), (0, 8)]))
        sheet.panels.append(
            whole([(0, 9), *curve((0, 9), (8, 4), (9.5, -8)), (13, -2), (12.5, 4), *curve((12.5, 4), (9, 10), (0, 14))])
        )


def _strapped(sheet: Sheet, drawn: Look) -> None:
    """A bodice that hangs from straps: slip, camisole, dungarees."""
    for sign in (1, -1):
        sheet.behind.append(outline([(sign * 11, 16), (sign * 10.2, 16), (sign * 11.6, 0), (sign * 12.4, 0)]))
    if drawn.kind == "dungarees":
        sheet.panels.append(outline([(-11, 15), (11, 15), (14, WAIST_CM), (-14, WAIST_CM)]))
        sheet.panels.append(outline([(-6, 22), (6, 22), (6, 34), (-6, 34)]))
        sheet.dots += [(10.6, 16.5), (-10.6, 16.5)]
        sheet.panels.append(
            outline(
                [
                    (-WAIST_HALF, WAIST_CM - 3),
                    (WAIST_HALF, WAIST_CM - 3),
                    (WAIST_HALF + 0.4, WAIST_CM),
                    (-WAIST_HALF - 0.4, WAIST_CM),
                ]
            )
        )
        return
    neck = [(0, 22.0), (11.5, 15.0)]
    side = [*curve((11.5, 15), (18, 21), UNDERARM), *_bottom(replace(drawn, loose=False))[1:]]
    sheet.panels.append(whole([*neck, *side]))


def _sleeves(sheet: Sheet, drawn: Look, tenths: int) -> None:
    length = drawn.sleeve_cm
    if length == 0:
        return
    middle = ((SHOULDER[0] + UNDERARM[0]) / 2, (SHOULDER[1] + UNDERARM[1]) / 2)
    end = (middle[0] + 0.42 * length, middle[1] + 0.9 * length)
    half_end = {
        "full": 4.6,
        "bell": 12.0,
        "flutter": 15.0,
        "puff": 7.0,
        "cap": 9.5,
        "short": 8.2,
        "grown-on": 10.0,
        "elbow": 7.2,
    }
    ends = half_end.get(drawn.sleeve, 5.6 if drawn.kind != "coat" else 7.0)
    swell = 0.0
    if drawn.sleeve in ("full", "puff"):
        found = hung("full sleeve", length, 2.0, tenths)
        swell = found.widest_radius_cm * FLAT_SLEEVE
    at, reach = (0.72, 0.93) if drawn.sleeve == "full" else (0.5, 1.0)
    outer, inner = along(middle, end, reach, ends), along(middle, end, reach, -ends)
    if swell:
        over = curve(SHOULDER, along(middle, end, at, swell * 1.7), outer, 9)
        under = curve(inner, along(middle, end, at, -swell * 0.9), UNDERARM, 9)
    else:
        over, under = (
            curve(SHOULDER, along(middle, end, 0.3, 9.5), outer, 5),
            curve(inner, along(middle, end, 0.35, -7.0), UNDERARM, 5),
        )
    hem = waved(inner, outer, 4, 1.2) if drawn.sleeve in ("flutter", "bell") else [outer, inner]
    sleeve = [(16.0, 14.0), *over, *hem[1:-1], *under]
    sheet.behind += [outline(sleeve), outline(mirrored(sleeve))]
    if drawn.sleeve == "full":
        cuff = [outer, along(middle, end, 1.06, ends - 0.4), along(middle, end, 1.06, -ends + 0.4), inner]
        sheet.behind += [outline(cuff), outline(mirrored(cuff))]
    elif drawn.sleeve in ("long", "three-quarter") and drawn.kind == "shirt":
        sheet.lines.append(both([along(middle, end, 0.9, ends + 0.6), along(middle, end, 0.9, -ends - 0.2)]))
    elif drawn.kind == "hoodie":
        sheet.lines.append(both([along(middle, end, 0.93, ends + 0.4), along(middle, end, 0.93, -ends)]))
