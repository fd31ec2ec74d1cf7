"""Numbers on an envelope as intervals: areal mass, stretch by direction, elastane, lifted out before the words are read.

Each found number becomes a Figure and its words are replaced by a mark (§0, §1 …). Invariant: a figure has the lower edge, the
upper edge or both that its words say, in either language; none is lost. Linear: no repeated group inside a repeated group.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from math import inf

from nematex.core.pattern.envelope.traced import Traced
from nematex.core.quantity.estimate import Range
from nematex.core.quantity.units import CM_PER_INCH, gsm_from_oz_yd2

_LEAST = (
    r"nothing (?:under|below|less than|lighter than)|"
    r"exceeding|"
    r"at least|a minimum of|minimum of|minimum|min|no(?:t)? less than|not below|no(?:t)? lighter than|more than|over|above|"
    r"from|heavier than|must have|>=|≥|>|mindestens|wenigstens|minimal|ab|uber|mehr als|nicht unter|nicht leichter als"
)
_MOST = (
    r"nothing (?:over|above|more than|heavier than)|"
    r"not (?:to )?exceed(?:ing)?|not to be over|"
    r"at most|up to|under|below|a maximum of|maximum of|maximum|max|no(?:t)? more than|not above|not over|"
    r"no(?:t)? heavier than|less than|lighter than|<=|≤|<|"
    r"hochstens|maximal|bis zu|bis|unter|weniger als|nicht mehr als|nicht uber|nicht schwerer als"
)
_ABOUT = r"about|around|approx|approximately|roughly|ca|circa|etwa|rund|ungefahr"
_OR_MORE = r"or more|or heavier|or above|and up|and above|and over|upwards|plus|\+|minimum|oder mehr|und mehr|oder schwerer"
_OR_LESS = r"or less|or lighter|or under|and under|and below|oder weniger|oder leichter"
_NUMBER = r"(?<![\d.§])\d{1,6}(?:\.\d{1,6})?(?!\d)"
_SPAN = rf"-|to|and|bis|und|but|, but|or|,(?=\s*(?:{_LEAST}|{_MOST}))"
_MASS = (
    r"gsm|g/m2|g/m²|g/sqm|g/qm|g per m2|g m-2|gram(?:s|mes)? per square met(?:re|er)|g per square met(?:re|er)|"
    r"gramm pro quadratmeter|oz/yd2|oz/yd²|oz/sq yd|oz|ounces?"
)
_AXIS = (
    r"across the grain|across the width|crosswise|crossways|weftwise|sideways|"
    r"cross[- ]?grain|across|widthwise|widthways|width|horizontally|horizontal|"
    r"lengthwise|lengthways|length|along the grain|along|vertically|vertical|(?:in )?both (?:ways|directions)|"
    r"(?:in )?all directions|each way|either way|quer|in der breite|langs|in der lange|in beide richtungen|beidseitig"
)
_WAY = r"four[- ]?way|two[- ]?way|4[- ]?way|2[- ]?way|both[- ]?way|bi[- ]?elastisch"
_STRETCH = r"stretch(?:iness)?|give|dehnung|dehnbarkeit|dehnbar|elastizitat"
_ELASTANE = r"elastane|spandex|elasthan|elastan"


def _interval(unit: str) -> str:
    """A number or two with what stands before and behind them; the unit may stand at each, or at the last alone."""
    lead = rf"(?:{_LEAST}|{_MOST}|{_ABOUT}|between|zwischen)"
    return (
        rf"(?:(?P<lead>(?<![a-z]){lead})(?:\s+of|\s+a|\s+eine[rn]?)?\s*)?(?P<low>{_NUMBER})\s*(?P<unit>{unit})?\s*"
        rf"(?:(?:{_SPAN})\s*(?:(?P<then>{lead})\s*)?(?P<high>{_NUMBER})\s*)?(?P<last>{unit})\s*"
        rf"(?P<tail>{_OR_MORE}|{_OR_LESS})?"
    )


_PERCENT = _interval("%")
_LIMIT = rf"(?<![a-z])(?:{_LEAST}|{_MOST})\b"
_ITSELF = rf"(?:(?P<way>{_WAY})\s+)?(?:(?P<before>{_AXIS})\s+)?"
PATTERNS = {
    "gsm": [re.compile(_interval(_MASS))],
    "elastane": [
        re.compile(rf"{_PERCENT}\s*(?:of\s+)?(?:{_ELASTANE})"),
        re.compile(rf"(?:{_ELASTANE})(?:\s*(?:content|share|anteil))?\s*(?:of|is|:)?\s*{_PERCENT}"),
    ],
    "stretch": [
        re.compile(rf"{_PERCENT}\s*(?:of\s+)?{_ITSELF}(?:of\s+)?(?:{_STRETCH})\b(?:\s+(?P<after>{_AXIS}))?"),
        re.compile(
            rf"(?:(?P<first>(?<![a-z])(?:{_LEAST}|{_MOST}))\s+)?{_ITSELF}(?:{_STRETCH})\s*(?:factor|percentage|content)?\s*(?:(?P<mid>{_AXIS})\s*)?(?:of|:|is)?\s*{_PERCENT}(?:\s*(?P<after>{_AXIS}))?"
        ),
        re.compile(rf"{_PERCENT}\s*(?P<way>)(?P<before>)(?P<after>{_AXIS})"),
        re.compile(rf"(?<![a-z])(?P<before>{_AXIS})\s*:?\s*(?P<way>){_PERCENT}(?P<after>)"),
    ],
    "percent": [re.compile(rf"(?={_LIMIT}){_PERCENT}")],  # a second limit: 'stretch of 40 % or more, no more than 80 %'
    "width": [
        re.compile(rf"(?:width|breite|wide|breit)\s*(?:of|is|:|von)?\s*(?={_LIMIT}){_interval('cm|in|inch|inches')}"),
        re.compile(rf"(?P<least>narrower than|schmaler als)\s*{_interval('cm|in|inch|inches')}"),
        re.compile(rf"(?={_LIMIT}){_interval('cm|in|inch|inches')}\s*(?:wide|width|breit|in width)"),
        re.compile(
            rf"(?P<least>minimum|min|mindest)\s*-?\s*(?:width|breite)\s*(?:of|:|von)?\s*{_interval('cm|in|inch|inches')}"
        ),
    ],
}
_REACHES = re.compile(
    rf"(?P<relaxed>{_NUMBER})\s*(?:cm|inches|inch|in\b|\")?\s*(?:of (?:cloth|fabric|knit)\s*)?"
    r"(?:(?:should|must|will|can|has to|needs to|mussen|muss|soll)\s+)?(?:sich\s+)?"
    r"(?:stretch(?:es|ing)?\s*(?:out\s*)?(?:to|easily to)|reach(?:es)?|auf)\s*(?:at least\s*|mindestens\s*)?"
    rf"(?P<pulled>{_NUMBER})\s*(?:cm|inches|inch|in\b|\")?(?:\s*dehn(?:en|bar)(?:\s+lassen|\s+sein)?)?"
)
_FROM_TO = re.compile(
    rf"(?:stretch(?:es)?|von|dehn(?:t|bar|en))\s+(?:sich\s+)?(?:from|von)?\s*(?P<relaxed>{_NUMBER})\s*(?:cm|inches|inch|in\b|\")?\s*"
    rf"(?:to|auf)\s*(?:at least\s*|mindestens\s*)?(?P<pulled>{_NUMBER})\s*(?:cm|inches|inch|in\b|\")?"
)
_OF_WIDTH = re.compile(
    rf"\b(?:{_STRETCH})(?:es)?\s+(?:by\s+)?(?:at least\s+)?(?:a |one )?(?P<share>half|third|quarter)(?: of its width)?"
)
SHARES = {"half": 50.0, "third": 33.0, "quarter": 25.0}


@dataclass(frozen=True, slots=True)
class Figure:
    """A number with what it speaks of: `cross`, `length` or `both` (stretch, %), `elastane` (%), `gsm`, `width` (cm), or
    `percent` of what was spoken of before; low 0 or high inf where that side is not said.
    """

    kind: str
    low: float
    high: float
    words: str = ""
    limits: bool = True  # 'at most', 'or more', a span: not a number alone

    @property
    def span(self) -> Range:
        return Range(self.low, self.high)


def names_direction(words: str) -> bool:
    """Whether a figure's words say across, along or both ways."""
    return re.search(_AXIS, words) is not None


def _axis(words: str | None) -> str | None:
    if not words:
        return None
    if re.search(r"\b(?:both|all)\b|beide", words):
        return "both"
    if re.search(r"each|either", words):
        return "both"
    return "length" if re.search(r"length|along|vertical|lang", words) else "cross"


def _value(number: str, unit: str | None, other: str | None) -> float:
    named = unit or other or ""
    if named.startswith("in"):
        return float(number) * CM_PER_INCH
    return gsm_from_oz_yd2(float(number)) if named.startswith("o") else float(number)


def _is(words: str | None, pattern: str) -> bool:
    return bool(words) and re.fullmatch(pattern, (words or "").strip()) is not None


def _edges(match: re.Match[str], about: float, bare_is_least: bool) -> tuple[float, float, bool]:
    """Lower edge, upper edge, and whether the words set a limit."""
    unit, last = match["unit"], match["last"]
    low = _value(match["low"], unit, last)
    lead, then, tail = match["lead"], match["then"], match["tail"]
    if lead is None and "first" in match.re.groupindex:
        lead = match["first"]  # 'maximum stretch 30 %'
    if match["high"] is not None:
        high = _value(match["high"], last, unit)
        if _is(lead, _MOST) and _is(then, _LEAST):
            low, high = high, low
        low, high = sorted((low, high))
        return low, (inf if _is(tail, _OR_MORE) and not bare_is_least else high), True
    if _is(lead, _MOST) or _is(tail, _OR_LESS):
        return 0.0, low, True
    if _is(lead, _LEAST) or _is(tail, _OR_MORE):
        return low, inf, True
    if bare_is_least:
        return low, inf, False
    return low * (1 - about), low * (1 + about), False


def lift_figures(text: Traced, about: float) -> tuple[Traced, list[Figure]]:
    """The text with its figures replaced by marks, and the figures in the order of their marks.

    `about` is how far a number without "up to" or "at least" reaches to either side, as a share of it; a stretch without
    such words is the least that is asked.
    """
    figures: list[Figure] = []

    def keep(figure: Figure) -> str:
        figures.append(figure)
        return f" §{len(figures) - 1} "

    def reaches(match: re.Match[str]) -> str:
        relaxed, pulled = float(match["relaxed"]), float(match["pulled"])
        if not pulled > relaxed > 0:
            return match.group()
        return keep(Figure("cross", round(100 * (pulled / relaxed - 1), 1), inf, match.group().strip()))

    def by_half(match: re.Match[str]) -> str:
        return keep(Figure("cross", SHARES[match["share"]], inf, match.group().strip()))

    steps: list[tuple[re.Pattern[str], Callable[[re.Match[str]], str]]] = []
    for kind, patterns in PATTERNS.items():
        steps += [(each, _reader(kind, about, keep)) for each in patterns]
        if kind == "elastane":
            steps += [(_FROM_TO, reaches), (_REACHES, reaches), (_OF_WIDTH, by_half)]
    for pattern, lift in steps:
        text = text.sub(pattern, lift)
    return text, figures


def _reader(kind: str, about: float, keep: Callable[[Figure], str]) -> Callable[[re.Match[str]], str]:
    def lift(match: re.Match[str]) -> str:
        low, high, limits = _edges(match, about, bare_is_least=kind == "stretch")
        words, of = match.group().strip(), kind
        if "least" in match.re.groupindex:
            low, high, limits = _value(match["low"], match["unit"], match["last"]), inf, True
        if kind == "stretch":
            axis = _axis(match["after"]) or _axis(match["before"]) or _axis(match.groupdict().get("mid"))
            of = axis or ("both" if re.search(r"four|two|4|2|both|bi", match["way"] or "") else "cross")
        return keep(Figure(of, low, high, words, limits))

    return lift
