"""Reads the tables below data/ into one core value. The only place that knows their files."""

from __future__ import annotations

import csv
import tomllib
from functools import cache
from importlib.resources import files
from typing import Any
from zoneinfo import ZoneInfo

from nematex.core.air.notes.claims import Claim
from nematex.core.air.notes.kinds import NoteKind
from nematex.core.air.sew_along.regions import Region
from nematex.core.cloth.fibres import Fibre, FibreNames
from nematex.core.cloth.lexicon import ClothType, Lexicon, key
from nematex.core.cloth.properties import Home, Property
from nematex.core.colour.names import ColourName
from nematex.core.colour.words import ColourWords
from nematex.core.people.rights import ROLES, Right, Rights
from nematex.core.quantity.estimate import Known, Range
from nematex.core.rules import read_rules
from nematex.core.sayings import read_sayings
from nematex.core.tables import (
    Caution,
    Describing,
    Detail,
    EnvelopePhrases,
    FibreCare,
    Garment,
    HackKind,
    HackNumber,
    HandWord,
    Interfacing,
    Named,
    PartKind,
    Role,
    Shape,
    Tables,
    Trait,
    UsualPiece,
    WeightWord,
)

Row = dict[str, str]
WIDTH_COLUMNS = ("w36_in", "w39_in", "w41_in", "w45_in", "w50_in", "w54_in", "w60_in")


def _text(name: str) -> str:
    return files("nematex.data").joinpath(name).read_text(encoding="utf-8")


ENVELOPE_WORDS = ("envelope_words.csv", "envelope_words_de.csv")  # a language each; a third is one more
PASTE_WORDS = ("paste_words.csv", "paste_words_de.csv")


def _rows(name: str) -> list[Row]:
    return list(csv.DictReader(_text(name).splitlines()))


def _many(cell: str, mark: str = "|") -> tuple[str, ...]:
    return tuple(part.strip() for part in cell.split(mark) if part.strip())


def _number(cell: str) -> float | None:
    return float(cell) if cell else None


def _range(row: Row, low: str, high: str) -> Range:
    return Range(float(row[low]), float(row[high]))


def _cloth_type(row: Row) -> ClothType:
    return ClothType(
        name=row["name"],
        aliases=_many(row["aliases"]),
        structure=row["structure"],
        family=row["family"],
        use=row["use"],
        surface=row["surface"],
        end_uses=frozenset(_many(row["end_uses"])),
        fibres=tuple(_many(blend, "+") for blend in _many(row["fibres"], "/")),
        width_cm=float(row["width_cm"]),
        weight_gsm=_range(row, "weight_lo_gsm", "weight_hi_gsm"),
        bend_cm=_range(row, "bend_lo_cm", "bend_hi_cm"),
        stretch_cross_pct=_range(row, "stretch_cross_lo_pct", "stretch_cross_hi_pct"),
        stretch_length_pct=_range(row, "stretch_length_lo_pct", "stretch_length_hi_pct"),
        sheer=_range(row, "sheer_lo", "sheer_hi"),
        nap=row["nap"] == "1",
        fray=int(row["fray"]),
        shrink_hi_pct=float(row["shrink_hi_pct"]),
        press=int(row["press"]),
        thickness_mm=_range(row, "thick_lo_mm", "thick_hi_mm"),
        sewing=int(row["sewing"]),
        season=row["season"],
    )


def _detail(row: Row) -> Detail:
    numbers: dict[str, Any] = {
        name: _number(row[name])
        for name in (
            "weight_lo_gsm",
            "weight_hi_gsm",
            "knit_weight_hi_gsm",
            "thick_hi_mm",
            "bend_lo_cm",
            "bend_lo_tolerance_cm",
            "flowing_bend_lo_cm",
            "bend_hi_cm",
            "stretch_lo_pct",
            "width_lo_cm",
        )
    }
    return Detail(
        name=row["name"],
        structure=row["structure"],
        recovers=row["recovers"] == "1",
        press_min=int(row["press_min"]) if row["press_min"] else None,
        press_worst=row["press_worst"],
        needs_body=row["needs_body"] == "1",
        breathes=row["breathes"] == "1",
        welcomes=_many(row["welcomes"]),
        light_sheers=row["light_sheers"] == "1",
        refuses=_many(row["refuses"]),
        unless=row["unless"],
        why=row["why"],
        remedy=row["remedy"],
        aloud=row["aloud"],
        roles=frozenset(Role(word) for word in _many(row["roles"])),
        **numbers,
    )


def _hand(row: Row) -> HandWord:
    return HandWord(row["word"], _range(row, "bend_lo_cm", "bend_hi_cm"), row["needs_body"] == "1")


def _hands(use: str) -> dict[str, HandWord]:
    rows = [row for row in _rows("hand_words.csv") if row["use"] == use]
    return {key(name): _hand(row) for row in rows for name in (row["word"], *_many(row["aliases"]))}


def _named(name: str, column: str, make: Any) -> Named[Any]:
    rows = _rows(name)
    made = [make(row) for row in rows]
    by_key: dict[str, Any] = {}
    for row, item in zip(rows, made, strict=True):
        for alias in (row[column], *_many(row["aliases"])):
            by_key.setdefault(key(alias), item)
    return Named(tuple(made), by_key)


def _weight_word(row: Row) -> WeightWord:
    return WeightWord(
        row["word"],
        row["structure"],
        _range(row, "cloth_lo_gsm", "cloth_hi_gsm"),
        _range(row, "pattern_lo_gsm", "pattern_hi_gsm"),
    )


def _cloths_abroad() -> dict[str, str]:
    """What cloths are called in other languages → the English name or group word."""
    rows = (row for name in ENVELOPE_WORDS[1:] for row in _rows(name) if row["kind"] == "cloth")
    return {phrase: row["value"] for row in rows for phrase in _many(row["phrases"])}


def _paste_words() -> dict[str, dict[str, str]]:
    words: dict[str, dict[str, str]] = {}
    for row in (row for name in PASTE_WORDS for row in _rows(name)):
        known = words.setdefault(row["kind"], {})
        for phrase in _many(row["phrases"]):
            known.setdefault(key(phrase), row["value"])  # a word of two languages means what the first says
    return words


def _sayings(language: str) -> dict[str, Any]:
    """The bench's words and, beside them, what is said aloud."""
    bench, aloud = (tomllib.loads(_text(f"sayings/{language}{part}.toml")) for part in ("", "_aloud"))
    return bench | aloud


def _traits() -> dict[str, tuple[Trait, ...]]:
    """The rows of each trait in the order of the table."""
    found: dict[str, tuple[Trait, ...]] = {}
    for row in _rows("drawn_details.csv"):
        found[row["trait"]] = (*found.get(row["trait"], ()), Trait(row["value"], float(row["cm"] or 0), _many(row["words"])))
    return found


def _hack(row: Row) -> HackKind:
    fields = []
    for each in _many(row["fields"]):
        name, *numbers = each.split(":")
        fields.append(HackNumber(name, *map(float, numbers)))
    becomes = dict(each.split(">") for each in _many(row["garments"]))
    return HackKind(row["kind"], row["label"], row["says"], tuple(fields), _many(row["adds"]), _many(row["removes"]), becomes)


@cache
def trade_tables() -> Tables:
    """The tables as shipped."""
    weight_rows = _rows("weight_words.csv")
    fibre_rows = _rows("fibres.csv")
    judging = read_rules(tomllib.loads(_text("judging.toml")))
    group_rows = _rows("groups.csv")
    chart = _rows("width_chart.csv")
    return Tables(
        fibres=FibreNames(
            [
                (
                    Fibre(row["name"], row["kind"], row["breathes"] == "1", row["note"]),
                    _many(row["aliases"]),
                    (*_many(row["codes"]), *_many(row["abroad"])),
                )
                for row in fibre_rows
            ]
        ),
        lexicon=Lexicon(
            map(_cloth_type, _rows("cloths.csv")),
            {row["word"]: _many(row["cloths"]) for row in group_rows},
            {row["word"]: _many(row["knits"]) for row in group_rows},
            judging.handles_like,
            _cloths_abroad(),
        ),
        weight_words=tuple(map(_weight_word, weight_rows)),
        weight_keys={key(name): row["word"] for row in weight_rows for name in (row["word"], *_many(row["aliases"]))},
        cloth_hands=_hands("cloth"),
        pattern_hands=_hands("pattern"),
        avoid_hands=_hands("avoid"),
        envelope_phrases=tuple(
            EnvelopePhrases(row["kind"], row["value"], _many(row["phrases"])) for name in ENVELOPE_WORDS for row in _rows(name)
        ),
        paste_words=_paste_words(),
        details=_named("details.csv", "name", _detail),
        garments=_named(
            "garments.csv",
            "garment",
            lambda row: Garment(
                row["garment"],
                row["bifurcated"] == "1",
                row["below_waist"] == "1",
                row["slides"] == "1",
                _many(row["details"]),
                row["over"] == "1",
                dict(pair.split("=", 1) for pair in _many(row["instead"])),
                row["layer"],
                row["drawn"],
                dict(pair.split("=", 1) for pair in _many(row["look"])),
                frozenset(_many(row["end_uses"])),
            ),
        ),
        shapes=tuple(Shape(row["word"], row["hung"]) for row in _rows("garment_shapes.csv")),
        traits=_traits(),
        hacks={row["kind"]: _hack(row) for row in _rows("hacks.csv")},
        usual_pieces={
            row["part"]: UsualPiece(int(row["count"]), float(row["along_cm"]), float(row["across_cm"]))
            for row in _rows("usual_pieces.csv")
        },
        parts=_named(
            "parts.csv",
            "part",
            lambda row: PartKind(
                row["part"],
                row["fit"],
                row["band"] == "1",
                row["main"] == "1",
                row["listed"] == "1",
                row["around"] == "1",
                tuple(row["pieces"].split("|")) if row["pieces"] else (),
            ),
        ),
        interfacings=tuple(
            Interfacing(
                row["name"],
                row["knit"] == "1",
                row["fused"] == "1",
                _range(row, "gsm_lo", "gsm_hi"),
                row["tailored"] == "1",
                row["good_for"],
            )
            for row in _rows("interfacings.csv")
        ),
        width_chart={float(name[1:3]): tuple(float(row[name]) for row in chart) for name in WIDTH_COLUMNS},
        cautions={
            row["code"]: Caution(
                grave=int(row["grave"]), **{name: row[name] for name in row if name not in ("grave", "source")}
            )
            for row in _rows("cautions.csv")
        },
        properties=properties(),
        judging=judging,
        sayings=read_sayings(_sayings("en"), "sayings/en"),
        fibre_care={
            row["fibre"]: FibreCare(**{name: row[name] for name in row if name != "source"}) for row in _rows("fibre_care.csv")
        },
        spoils=frozenset((row["cloth_for"], row["garment_for"]) for row in _rows("spoils.csv")),
    )


@cache
def colour_names() -> tuple[ColourName, ...]:
    """The words for colours."""
    rows = _rows("colour_names.csv")
    triples = [tuple(bytes.fromhex(row["srgb"].removeprefix("#"))) for row in rows]
    return tuple(ColourName(row["name"], row["family"], (r, g, b)) for row, (r, g, b) in zip(rows, triples, strict=True))


@cache
def describing_words() -> tuple[Describing, ...]:
    """Words by which lists describe a cloth, in every language."""
    return tuple(Describing(row["property"], row["value"], _many(row["phrases"])) for row in _rows("describing_words.csv"))


@cache
def colour_words() -> ColourWords:
    """What a colour word stands for: the names above, and other words for them."""
    by_name = {each.name: "#{:02x}{:02x}{:02x}".format(*each.srgb) for each in colour_names()}
    return ColourWords(by_name, {row["word"]: row["means"] for row in _rows("colour_words.csv")})


@cache
def rights() -> Rights:
    """What each role may do."""
    found = {}
    for row in _rows("rights.csv"):
        roles = frozenset(role for role in ROLES if row[role] == "1")
        found[row["right"]] = Right(row["right"], row["lets"], roles)
    return found


@cache
def regions() -> dict[str, Region]:
    """Where parcels go: the shop's own country first."""
    return {
        row["name"]: Region(
            row["name"], row["country"], row["subdivision"], ZoneInfo(row["zone"]), int(row["low_days"]), int(row["high_days"])
        )
        for row in _rows("regions.csv")
    }


@cache
def claims() -> tuple[Claim, ...]:
    """The words that promise something of a cloth."""
    return tuple(Claim(row["word"], row["ground"], row["why"], row["source"]) for row in _rows("claims.csv"))


@cache
def note_kinds() -> dict[str, NoteKind]:
    """What is published of a programme, each with the template that ships."""
    found = tomllib.loads(_text("notes/kinds.toml"))
    return {
        name: NoteKind(name, row["title"], row["markdown"], row.get("limit", 0), _text(f"notes/{name}.md"))
        for name, row in found.items()
    }


@cache
def properties() -> dict[str, Property]:
    """Everything that can be known of a cloth, in the order it is shown."""
    return {row["name"]: _property(row) for row in _rows("properties.csv")}


@cache
def readable() -> dict[str, Property]:
    """The properties of which readings are kept."""
    return {name: row for name, row in properties().items() if row.reading}


def _property(row: Row) -> Property:
    return Property(
        name=row["name"],
        label=row["label"],
        kind=row["kind"],
        unit=row["unit"],
        low=float(row["low"] or "-inf"),
        high=float(row["high"] or "inf"),
        agree_pct=float(row["agree_pct"] or 100),
        reading=row["reading"],
        known=Known.from_word(row["known"]) if row["known"] else None,
        check=row["check"],
        words=_many(row["words"]),
        longest=int(row["longest"] or 300),
        home=Home(row["home"]),
        group=row["group"],
        form_label=row["form_label"] or row["label"],
        hint=row["hint"],
        headings=_many(row["headings"]),
    )
