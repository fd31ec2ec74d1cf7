"""What hangs from the waist: skirts, tiers, flounces, legs."""

from __future__ import annotations

from nematex.core.pattern.look import BOTTOMS, Look
from nematex.web.drawing.curves import both, curve, mirrored, outline, waved, whole
from nematex.web.drawing.sheet import FLAT_SKIRT, HIP_BELOW_CM, HIP_HALF, TIERS, WAIST_HALF, Sheet, hung, pocket

KNEE_CM = {"tapered": 5.0, "gathered in": 4.0}
SHORT_LEG_CM = 56.0


def waistband(sheet: Sheet, at: float, waist: str) -> None:
    sheet.panels.append(outline([(-WAIST_HALF, at), (WAIST_HALF, at), (WAIST_HALF + 0.4, at + 4), (-WAIST_HALF - 0.4, at + 4)]))
    if waist == "elastic":
        sheet.lines += [outline([(x, at + 0.4), (x + 0.3, at + 3.6)], False) for x in range(-15, 16, 3)]


def below(sheet: Sheet, drawn: Look, at: float, tenths: int) -> None:
    """Skirt or legs from a waist at this height."""
    top = at + 4.0 if drawn.kind in BOTTOMS else at
    if drawn.kind in ("trousers", "shorts", "jumpsuit", "dungarees"):
        _legs(sheet, drawn, top, tenths)
    elif drawn.skirt == "tiered":
        _tiers(sheet, drawn, top, tenths)
    else:
        _skirt(sheet, drawn, top, tenths)
    if drawn.pockets and drawn.kind in (*BOTTOMS, "dungarees"):
        pocket(sheet, 12.0, top + 14.0)


def _skirt(sheet: Sheet, drawn: Look, top: float, tenths: int) -> None:
    length, waist = drawn.length_cm, WAIST_HALF + 0.4
    deep = top + length
    if drawn.skirt == "straight":
        right = [(waist, top), *curve((waist, top), (HIP_HALF, top + 8), (HIP_HALF, top + HIP_BELOW_CM)), (HIP_HALF - 1, deep)]
        sheet.panels.append(whole([(0.0, top), *right, (0.0, deep + 0.8)]))
        _front(sheet, drawn, top, deep)
        return
    gathered = drawn.skirt in ("gathered", "pleated", "bubble")
    found = hung("gathered skirt", length, 1.8, tenths) if gathered else hung("A-line skirt", length, None, tenths)
    spread = found.hem_radius_cm * FLAT_SKIRT * (1.25 if drawn.skirt == "flared" else 1.0)
    lean = (waist + (spread - waist) * (0.75 if gathered else 0.3), top + length * 0.3)
    side = curve((waist, top), lean, (spread, deep), 10)
    folds = max(2, round(found.folds / 2.5)) if gathered or drawn.skirt == "flared" else max(1, round(found.folds / 4))
    depth = min(1.6, found.fold_depth_cm * 0.35)
    hem = waved((-spread, deep), (spread, deep), folds, depth if drawn.skirt != "pleated" else 0.3)
    if drawn.skirt == "bubble":  # its hem is drawn in again
        side = [*side[:-3], *curve(side[-4], (spread + 2.0, deep), (spread * 0.7, deep + 1.0))]
        hem = [(spread * 0.7, deep + 1.0), (-spread * 0.7, deep + 1.0)]
    sheet.panels.append(outline([(-waist, top), *side, *hem[1:-1], *mirrored(side)]))
    _front(sheet, drawn, top, deep)
    sheet.lines += _folds(waist, spread, top, deep, folds, gathered, drawn.skirt == "pleated")
    if drawn.flounce:
        flounce(sheet, spread, deep, folds)


def _front(sheet: Sheet, drawn: Look, top: float, deep: float) -> None:
    """What closes a skirt in front: one side over the other, or a row of buttons."""
    if drawn.kind != "skirt":
        return
    if drawn.neck == "wrap":
        sheet.lines.append(outline(curve((WAIST_HALF - 2.0, top), (4.0, top + 20.0), (-6.0, deep)), False))
    elif drawn.closure == "buttons":
        sheet.lines.append(both([(1.6, top), (1.6, deep)]))
        count = max(3, int((deep - top) / 9))
        sheet.dots += [(0.0, top + (deep - top) * (number + 0.5) / count) for number in range(count)]


def _folds(waist: float, spread: float, top: float, deep: float, folds: int, gathered: bool, pleated: bool) -> list[str]:
    """Lines of folds: from the waist where it is gathered or pleated, else only near the hem."""
    found = []
    for number in range(1, folds):
        share = 2 * number / folds - 1
        start = 0.02 if pleated else 0.05 if gathered else 0.55
        end = 0.98 if pleated else 0.4 if gathered and number % 2 else 0.95
        x_at = {at: (waist + (spread - waist) * at) * share for at in (start, end)}
        found.append(outline([(x_at[start], top + (deep - top) * start), (x_at[end], top + (deep - top) * end)], False))
    return found


def _tiers(sheet: Sheet, drawn: Look, top: float, tenths: int) -> None:
    found = hung("gathered skirt", drawn.length_cm, 1.8, tenths)
    each, half = drawn.length_cm / TIERS, WAIST_HALF + 0.4
    step = (found.hem_radius_cm * FLAT_SKIRT * 1.12 - half) / TIERS
    for tier in range(TIERS):
        up, deep = top + tier * each, top + (tier + 1) * each
        wide = half + step
        side = curve((half, up), (half + step * 0.9, up + each * 0.35), (wide, deep), 5)
        folds = max(3, round(found.folds / 3) + tier)
        hem = waved((-wide, deep), (wide, deep), folds, min(1.4, found.fold_depth_cm * 0.3))
        sheet.panels.append(outline([(-half, up), *side, *hem[1:-1], *mirrored(side)]))
        sheet.lines += [
            outline([(x, up + 0.5), (x * 1.06, up + each * (0.28 if number % 2 else 0.18))], False)
            for number in range(1, 2 * folds)
            for x in ((number / folds - 1) * half * 0.95,)
        ]
        half = wide - 0.4


def flounce(sheet: Sheet, half: float, at: float, folds: int) -> None:
    side = curve((half, at), (half + 3, at + 3), (half + 5, at + 14), 4)
    hem = waved((-half - 5, at + 14), (half + 5, at + 14), folds + 2, 1.8)
    sheet.panels.append(outline([(-half, at), (half, at), *side[1:], *hem[1:-1], *mirrored(side)[:-1]]))


def _legs(sheet: Sheet, drawn: Look, top: float, tenths: int) -> None:
    deep, crotch = top + drawn.length_cm, top + 27.0
    waist, hip = WAIST_HALF + 0.4, HIP_HALF + (3.0 if drawn.loose else 0.0)
    if drawn.leg == "wide":
        radius = hung("wide leg", min(drawn.length_cm - 25, 95.0), None, tenths).hem_radius_cm
        inner, outer = 1.5, 2 * radius + 3.5
    else:
        short = drawn.length_cm < SHORT_LEG_CM
        knee = 12.0 if short else KNEE_CM.get(drawn.leg, 8.0)
        if drawn.leg == "close":
            knee = 9.0 if short else 3.6
        inner, outer = 2.5 if short else 5.0, 6.0 + 2 * knee
    side = [*curve((waist, top), (hip, top + 8), (hip, top + HIP_BELOW_CM)), (outer, deep)]
    inside = [(inner, deep + 0.5)]
    if drawn.leg == "flared":
        bend = top + drawn.length_cm * 0.55
        side, inside = [*side[:-1], (17.0, bend), (21.5, deep)], [(2.0, deep + 0.5), (5.0, bend)]
    right = [(0.0, top), *side, *inside, (0.8, crotch)]
    sheet.panels.append(whole(right))
    sheet.lines.append(outline([(0.0, top), (0.0, crotch)], False))
    if drawn.leg == "wide":
        middle = (inner + outer) / 2
        sheet.lines.append(both([(middle * 0.82, top + 32), (middle, deep - 1)]))
    if drawn.leg == "gathered in":
        sheet.lines.append(both([(inner, deep - 4.5), (outer, deep - 5)]))
    if drawn.waist != "elastic" and drawn.kind in ("trousers", "shorts"):
        sheet.lines += [
            both([(waist - 6, top), (waist - 0.5, top + 13)]),
            outline([(2.2, top), (2.2, top + 15), (0, top + 18)], False),
        ]
