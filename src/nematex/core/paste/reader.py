"""Walks the lines of a pasted envelope once, remembering which section, view, band and sizes it is in.

Common practice, no source: a blank line ends a run of text, a heading ends what stood before it, a second list of
sizes begins a second band.
"""

from __future__ import annotations

import re
from statistics import median

from nematex.core.envelope import read_envelope
from nematex.core.lexicon import key
from nematex.core.paste.amounts import Amounts, read_amounts
from nematex.core.paste.draft import Draft, Line
from nematex.core.paste.figures import Figure, all_figures, figures, line_unit
from nematex.core.paste.sizes import read_sizes, size_groups
from nematex.core.paste.words import heading, lead_and_rest, measurement, plain, views_of
from nematex.core.tables import Tables

TEXTS = ("recommended", "avoid", "notions", "details", "licence", "season", "house", "code", "name", "garment", "lining")
TABLES = ("requirements", "body", "finished", "contrast", "interfacing", "lining")
USES = ("lining", "interfacing", "contrast")
_CODE = re.compile(r"\b[A-Z]{1,4}[- ]?\d{1,5}[A-Z]?\b|(?<=#)\d{2,6}\b")
_SENTENCE = re.compile(r"\b(?:suitable|suggested|recommended|designed|made for|works best|use|choose)\b", re.IGNORECASE)
LONGEST_TITLE = 80
_CELLS = re.compile(r"\t|\||\s{2,}")


class _Reader:
    """What is open while the lines are read."""

    def __init__(self, tables: Tables) -> None:
        self.tables = tables
        self.draft = Draft()
        self.section = ""
        self.unit = ""
        self.views: list[str] = []
        self.use = "main"
        self.nap = self.always_nap = False
        self.groups: list[list[str]] = []
        self.columns: list[tuple[str, float | None]] = []
        self.last_count = 0
        self.width: float | None = None

    # -- one line at a time ------------------------------------------------------------------------

    def read(self, text: str) -> Draft:
        for number, raw in enumerate(text.replace("\r", "").replace("\u00a0", " ").split("\n"), 1):
            line = Line(number, raw)
            self.draft.lines.append(line)
            if raw.strip():
                self._line(line)
            else:
                self.columns = []
                self.section = self.section if self.section in TABLES and self.section != "lining" else ""
        return self.draft

    def _line(self, line: Line) -> None:
        text = line.text.strip()
        steps = (
            self._in_columns,
            self._view,
            self._heading,
            self._part,
            self._header,
            self._measurement,
            self._amounts,
            self._again,
        )
        for step in steps:
            if step(line, text):
                return
        if self.section in TEXTS:
            self._take(line, self.section, text)
        elif self.draft.texts.get("name") or self._begun(line) or len(text) > LONGEST_TITLE or _SENTENCE.search(text):
            self._loose(line, text)
        else:
            self._title(line, text)

    def _take(self, line: Line, name: str, text: str) -> None:
        if name == "details":
            self.draft.details += self._details(text)
            self._flags(text)
        elif name == "lining":
            self._flags(f"lined {text}")
        else:
            self.draft.add_text(name, text)
        line.field = line.field or name

    def _begun(self, line: Line) -> bool:
        """Whether it is too late for a title: tables or cloths have been read, or it is not near the top."""
        return line.number > 3 or bool(self.draft.sizes or self.draft.requirements or self.draft.texts.get("recommended"))

    # -- headings ------------------------------------------------------------------------------------

    def _heading(self, line: Line, text: str) -> bool:
        found = heading(text, self.tables)
        if found is None:
            return False
        kind, lead, rest = found
        step = getattr(self, f"_on_{kind}", None)
        if step:
            done: bool = step(line, lead, rest)
            return done
        if kind in ("recommended", "notions") and self._amounts(line, text):
            return True
        self.section, self.views = kind, []
        if rest:
            self._take(line, kind, rest)
        line.field = line.field or kind
        return True

    def _on_sizes(self, line: Line, lead: str, rest: str) -> bool:
        whole = line.text.strip()
        named = read_amounts(whole, self.unit)
        if self._header(line, whole) or (named and named.sizes and self._amounts(line, whole)):
            return True
        cells = [cell for cell in _CELLS.split(rest) if cell.strip()]
        groups = size_groups(cells) if len(cells) > 1 else None
        if groups is None and re.search(r"\d\s*[-–]\s*\d+\s+\d+\s*[-–]", rest):
            groups = size_groups(re.findall(r"\S+\s*[-–]\s*\S+|\S+", rest))
        labels = read_sizes(rest) or ([label for group in groups for label in group] if groups else None)
        known = {size["label"] for size in self.draft.sizes}
        if groups and all(label in known for group in groups for label in group):
            self.groups = groups
            line.field = "sizes"
            return True
        if labels is None:
            self.section = "body"
            line.field = "sizes"
            if rest.strip():
                line.field, line.fault = "", "is no list of sizes; write it like 8 10 12 or XS–XL"
            return True
        self._new_sizes(labels, lead)
        if groups and any(len(group) > 1 for group in groups):
            self.groups = [[self._own(label) for label in group] for group in groups]
        self.section = self.section if self.section in ("requirements", "finished") else "body"
        line.field = "sizes"
        return True

    def _new_sizes(self, labels: list[str], lead: str) -> None:
        known = {size["label"]: size for size in self.draft.sizes}
        if known and all(label in known for label in labels):
            self.groups = [[label] for label in labels]
            return
        bands = self.draft.sizes[-1]["band"] if known else ""
        name = re.sub(r"\b(?:uk|us|eu|sizes?|range|band)\b|[():]", " ", lead.casefold()).strip()
        band = name or (f"band {len({size['band'] for size in self.draft.sizes}) + 1}" if known else "")
        if known and not bands:
            for size in self.draft.sizes:
                size["band"] = "band 1"
        self.band = band
        for label in labels:
            own = label if label not in known else f"{label} ({band})"
            self.draft.sizes.append({"label": own, "band": band})
        self.groups = [[self._own(label)] for label in labels]

    def _own(self, label: str) -> str:
        """The label as it stands in the band that is open."""
        twin = f"{label} ({getattr(self, 'band', '')})"
        return twin if any(size["label"] == twin for size in self.draft.sizes) else label

    def _table(self, line: Line, name: str, lead: str, rest: str) -> bool:
        self.section, self.use, self.width = name, name if name in USES else "main", None
        self.unit = line_unit(lead) or line_unit(rest if not all_figures(rest) else "")
        if not self.unit and "yard" in lead.casefold():
            self.unit = "yd"
        if not self.unit and re.search(r"met(?:re|er|r)age", lead.casefold()):
            self.unit = "m"
        self.nap = self.always_nap or "with nap" in lead.casefold()
        line.field = name
        if rest.strip():
            self._rest_of_table(line, rest)
        return True

    def _rest_of_table(self, line: Line, rest: str) -> None:
        line.field = ""
        viewed = views_of(rest)
        if viewed:
            self.views, rest = viewed
        if self._amounts(line, rest) or self._measurement(line, rest) or line_unit(rest) == rest.strip().strip("()").casefold():
            line.field = line.field or self.section
            if self.section == "interfacing" and re.search(
                r"fusible|sew|woven|knit|light|medium|firm|canvas", rest, re.IGNORECASE
            ):
                self.draft.add_text("notions", f"interfacing: {rest}")
            return
        if self.section in ("interfacing", "contrast"):
            self._take(line, "notions", f"{rest} {self.section}" if self.section not in rest else rest)
        elif self.section == "lining":
            self._take(line, "lining", rest)
        elif self.section == "requirements":
            self._take(line, "recommended", rest)
            self.section = "recommended"
        else:
            line.fault = "was not understood as a row of this table"

    def _on_requirements(self, line: Line, lead: str, rest: str) -> bool:
        return self._table(line, "requirements", lead, rest)

    def _on_body(self, line: Line, lead: str, rest: str) -> bool:
        return self._table(line, "body", lead, rest)

    def _on_finished(self, line: Line, lead: str, rest: str) -> bool:
        return self._table(line, "finished", lead, rest)

    def _on_lining(self, line: Line, lead: str, rest: str) -> bool:
        return self._table(line, "lining", lead, rest)

    def _on_interfacing(self, line: Line, lead: str, rest: str) -> bool:
        return self._table(line, "interfacing", lead, rest)

    def _on_contrast(self, line: Line, lead: str, rest: str) -> bool:
        return self._table(line, "contrast", lead, rest)

    def _on_difficulty(self, line: Line, lead: str, rest: str) -> bool:
        levels = self.tables.paste_words["level"]
        word = re.split(r"[,;./(]", rest)[0]
        found = levels.get(key(word)) or next((levels[key(each)] for each in word.split() if key(each) in levels), None)
        if found is None:
            line.fault = "is no difficulty; choose from easy, improver, intermediate, advanced"
            return True
        self.draft.texts["difficulty"], line.field, self.section = found, "difficulty", ""
        return True

    def _on_stretch(self, line: Line, lead: str, rest: str) -> bool:
        if re.match(r"\s*(?:none|no\b|non)", rest, re.IGNORECASE):
            line.field = "stretch"
            return True
        words = rest if "stretch" in rest.casefold() else f"{rest} stretch"
        reading = read_envelope(words, self.tables)
        if reading.min_cross_pct is None and reading.max_cross_pct is None:
            line.fault = "says no stretch; write it like 40 % across"
            return True
        for name, value in (("cross", reading.min_cross_pct), ("length", reading.min_length_pct)):
            if value:
                self.draft.numbers[f"min_stretch_{name}_pct"] = value
        line.field, self.section = "stretch", ""
        return True

    def _on_sold_as(self, line: Line, lead: str, rest: str) -> bool:
        low = rest.casefold()
        both = "pdf" in low and ("paper" in low or "print" in low)
        self.draft.texts["sold_as"] = "paper and PDF" if both else "PDF" if "pdf" in low or "download" in low else "paper"
        line.field, self.section = "sold as", ""
        return True

    def _on_parts(self, line: Line, lead: str, rest: str) -> bool:
        for piece in re.split(r";|,(?![^(]*\))", rest):
            found = re.match(r"\s*(?P<name>[^()]*?)\s*(?:\((?P<more>[^)]*)\))?\s*$", piece)
            if not found or not found["name"]:
                continue
            name, words = found["name"], (found["more"] or found["name"]).casefold()
            fit = next((fit for fit in ("semi", "loose", "free", "close") if fit in words), None)
            if re.fullmatch(r"(?:very\s+)?(?:close|semi|loose|free)[\w\s-]*", name.casefold()):
                name = "body"
            self.draft.parts.append({"name": name, "fit": fit, "details": self._details(found["more"] or "")})
        line.field, self.section = "parts", ""
        return True

    def _on_views(self, line: Line, lead: str, rest: str) -> bool:
        self.section, line.field = "views", "views"
        for piece in re.split(r";|(?<=[a-z)])[.,]\s+(?=(?:View\s+)?[A-Z0-9]\b[\s:–-])", rest):
            found = re.match(r"\s*(?:view\s+)?([A-Z0-9])\b\s*[:–-]?\s*(.*)", piece, re.IGNORECASE)
            if found:
                self._options([found[1].upper()], found[2])
        return True

    def _on_nap(self, line: Line, lead: str, rest: str) -> bool:
        self.nap = self.always_nap = bool(re.match(r"\s*(?:yes|with|required)", rest, re.IGNORECASE))
        line.field = "nap"
        return True

    def _on_widest(self, line: Line, lead: str, rest: str) -> bool:
        found = figures(rest)
        if found:
            self.draft.numbers["widest_piece_cm"], line.field = round(found[0].cm("cm"), 1), "widest piece"
        else:
            line.fault = "holds no measurement; write it like 62 cm"
        return True

    def _on_structure(self, line: Line, lead: str, rest: str) -> bool:
        low = rest.casefold()
        knit, woven = bool(re.search(r"\bknits?\b|\bjersey\b|\bstretch\b", low)), bool(re.search(r"\bwovens?\b", low))
        if not (knit or woven or "either" in low):
            return False
        both = (knit and woven) or "either" in low
        self.draft.texts["structure"] = "either" if both else "knit" if knit else "woven"
        line.field, self.section = "structure", ""
        return True

    def _on_wearer(self, line: Line, lead: str, rest: str) -> bool:
        self.draft.texts["for"] = "child" if re.search(r"child|kid|baby|toddler|boy|girl", rest.casefold()) else "adult"
        line.field = "worn by"
        return True

    # -- views and their options ---------------------------------------------------------------------

    def _view(self, line: Line, text: str) -> bool:
        viewed = views_of(text)
        if viewed is None:
            return False
        if self.section == "notions" and viewed[1]:
            self._take(line, "notions", text)
            return True
        self.views, rest = viewed
        if self.section in TEXTS:
            self.section = ""
        line.field = "views"
        if not rest:
            return True
        line.field = ""
        use, self.use = self.use, "main" if self.section not in USES else self.use
        if self._amounts(line, rest):
            return True
        self.use = use
        found = heading(rest, self.tables)
        if found and found[0] in (*USES, "notions", "requirements"):
            return self._view_heading(line, found[0], found[2], rest)
        self._options(self.views, rest)
        line.field = "views"
        return True

    def _view_heading(self, line: Line, kind: str, rest: str, whole: str) -> bool:
        """'View A lining: 1.2 m of 140 cm', 'View B notions: zip'."""
        if kind == "notions":
            self._take(line, "notions", f"View {', '.join(self.views)}: {rest}")
            return True
        self.use = kind if kind in USES else "main"
        if not self._amounts(line, rest):
            self._take(line, "notions", whole)
        self.use = "main"
        return True

    def _details(self, text: str) -> list[str]:
        """The details that a run of words names."""
        found = []
        for piece in re.split(r"[,;.&/]|\band\b|\bwith\b|\bplus\b", text):
            detail = self.tables.details.find_within(piece)
            if detail and not re.search(r"\b(?:no|without)\b", piece.casefold()):
                found.append(re.sub(r"^\s*(?:a|an|the)\s+", "", piece.strip().casefold()))
        return [word for word in dict.fromkeys(found) if word not in self.draft.details]

    def _options(self, views: list[str], text: str) -> None:
        """The details of a view become options that other views can borrow."""
        for word in self._details(text):
            twin = next((each for each in self.draft.options if key(each["name"]) == key(word)), None)
            if twin:
                twin["views"] = list(dict.fromkeys([*twin["views"], *views]))
            else:
                part = next((kind.name for kind in self.tables.parts.rows if key(kind.name) in key(word)), "")
                self.draft.options.append({"name": word, "part": part, "views": list(views), "details": [word]})
        self._flags(text)

    def _flags(self, text: str) -> None:
        low = text.casefold()
        part_only = re.search(r"\b(?:pocket|yoke|hood|part|half|un)[\w-]*\s*-?\s*lin", low)
        if re.search(r"\blined\b", low) and not part_only and "unlined" not in low:
            self.draft.flags["lined"] = True

    def _part(self, line: Line, text: str) -> bool:
        """'Sleeves: dotted tulle' and 'Sleeves in dotted tulle: 0.8 m of 140 cm' speak of one part's cloth."""
        lead, rest = lead_and_rest(text)
        words = plain(lead).split(" in ")
        part = self.tables.parts.find(words[0]) if lead else None
        if part is None or self.section == "views":
            return False
        use, self.use = self.use, "main" if part.name == "body" else "contrast"
        amounts = self._amounts(line, rest)
        self.use = use
        if amounts:
            if len(words) > 1:
                self.draft.add_text("recommended", lead.strip() + ".")
            return True
        if not read_envelope(rest, self.tables).cloths:
            return False
        self.draft.add_text("recommended", text if text.endswith(".") else f"{text}.")
        line.field = "recommended"
        return True

    # -- tables --------------------------------------------------------------------------------------

    def _measurement(self, line: Line, text: str) -> bool:
        first = next(iter(all_figures(text)), None)
        lead, rest = lead_and_rest(text)
        if not lead and first:
            lead, rest = text[: first.start], text[first.start :]
        found = measurement(lead, self.tables) if lead else None
        if found is None:
            return False
        name, finished = found
        line.field = "measurements"
        if name == "cup":
            for size in self.draft.sizes:
                size["cup"] = size.get("cup") or " ".join(re.findall(r"\b[A-H]{1,2}\b", rest.upper()))
            return True
        values = figures(self._upper(rest))
        if name == "skip" or not values:
            return True
        self._spread(line, name, finished or self.section == "finished", values, line_unit(text) or self.unit)
        return True

    def _upper(self, text: str) -> str:
        """Of a range of body measurements the upper end counts: the size must reach it."""
        return re.sub(r"\d+(?:[.,]\d+)?\s*[-–]\s*(\d+(?:[.,]\d+)?)", r"\1", text)

    def _spread(self, line: Line, name: str, finished: bool, values: list[Figure], unit: str) -> None:
        if len(values) != len(self.groups):
            line.field = ""
            line.fault = f"has {len(values)} numbers for {len(self.groups)} sizes; give one for each"
            return
        usual = "in" if unit == "in" or (unit != "cm" and median(each.value for each in values) < 62) else "cm"
        column = f"finished_{name}_cm" if finished else f"{name}_cm"
        if column in ("finished_high_bust_cm", "cup_cm"):
            return
        by_label = {size["label"]: size for size in self.draft.sizes}
        for group, value in zip(self.groups, values, strict=True):
            for label in group:
                by_label[label][column] = round(value.cm(usual), 1)
        self.last_count = len(values)

    def _again(self, line: Line, text: str) -> bool:
        """A line of bare numbers says the row above again in the other system."""
        if not re.fullmatch(r"[\d\s.,/½¼¾⅛⅜⅝⅞\t|]+(?:cm|in|ins|inches|\"|yds?|m)?\.?", text, re.IGNORECASE):
            return False
        if self.last_count and len(figures(text)) == self.last_count:
            line.field = "said again"
            return True
        return False

    def _amounts(self, line: Line, text: str) -> bool:
        lead = heading(text, self.tables)
        use = lead[0] if lead and lead[0] in USES else self.use
        table = self.section in ("requirements", *USES)
        clauses = [part for part in re.split(r";|\bor\b|(?<=[a-z])\.\s", text) if part.strip()]
        found = [read_amounts(part, self.unit, None, table) for part in clauses]
        if len(clauses) < 2 or not all(found):
            found = [read_amounts(text, self.unit, None, table)]
        if not all(found) or (not table and not self._plain_amount(text)):
            return False
        for amounts in found:
            if amounts and not self._add(line, amounts, use):
                return True
        line.field = use if use != "main" else "requirements"
        return True

    def _plain_amount(self, text: str) -> bool:
        """Outside a table of amounts a line must say a length with its unit."""
        return any(each.unit in ("m", "yd") for each in figures(text))

    def _add(self, line: Line, amounts: Amounts, use: str) -> bool:
        lengths = list(amounts.lengths_m)
        if len(lengths) == 1:
            labels = [self._own(label) for label in amounts.sizes] or [label for group in self.groups for label in group]
            rows = [(labels, lengths[0])]
        elif len(lengths) == len(self.groups):
            rows = self._together(lengths)
        else:
            line.fault = f"has {len(lengths)} amounts for {len(self.groups)} sizes; give one, or one for each"
            return False
        for view in self.views or ["A"]:
            for labels, length in rows:
                self.draft.requirements.append(
                    {
                        "view": view,
                        "sizes": labels,
                        "width_cm": amounts.width_cm,
                        "length_m": length,
                        "with_nap": amounts.with_nap or self.nap,
                        "use": use,
                    }
                )
        self.last_count = len(lengths)
        return True

    def _together(self, lengths: list[float]) -> list[tuple[list[str], float]]:
        """Neighbouring sizes that take the same length are one row."""
        rows: list[tuple[list[str], float]] = []
        for group, length in zip(self.groups, lengths, strict=True):
            if rows and rows[-1][1] == length:
                rows[-1][0].extend(group)
            else:
                rows.append((list(group), length))
        return rows

    # -- tables whose columns are measurements ---------------------------------------------------------

    def _header(self, line: Line, text: str) -> bool:
        cells = [cell.strip() for cell in _CELLS.split(text)]
        if len(cells) < 3 and not (len(cells) == 2 and re.search(r"[\t|]", line.text)):
            return False
        columns = [self._column(cell) for cell in cells]
        names = {column[0] for column in columns if column}
        if None in columns or not names - {"size"} or not names & {"size", "view"}:
            return False
        self.columns = [column for column in columns if column]
        measured = [cell for cell in cells if measurement(cell, self.tables)]
        self.unit = line_unit(" ".join(measured)) or self.unit
        line.field = "table"
        return True

    def _column(self, cell: str) -> tuple[str, float | None] | None:
        words = plain(cell)
        if self.tables.paste_words["heading"].get(words) == "sizes":
            return "size", None
        found = measurement(cell, self.tables)
        if found:
            return (f"finished_{found[0]}" if found[1] or self.section == "finished" else found[0]), None
        column = self.tables.paste_words["column"].get(words)
        if column:
            return column, None
        wide = figures(cell)
        if len(wide) != 1 or wide[0].unit not in ("cm", "in", ""):
            return None
        width_cm = wide[0].cm("in" if wide[0].value < 70 else "cm")
        return ("at", round(width_cm, 1)) if 70 <= width_cm <= 320 else None

    def _in_columns(self, line: Line, text: str) -> bool:
        if not self.columns:
            return False
        cells = [cell.strip() for cell in _CELLS.split(text)]
        if len(cells) < 2 or len(cells) > len(self.columns):
            self.columns = []
            return False
        row: dict[str, str] = {}
        widths: list[tuple[float, str]] = []
        for (name, wide), cell in zip(self.columns, cells, strict=False):
            if name == "at" and wide:
                widths.append((wide, cell))
            else:
                row[name] = cell
        labels = read_sizes(row.get("size", "")) or []
        if row.get("size") and not labels:
            self.columns = []
            return False
        line.field = "table"
        measured = {name: cell for name, cell in row.items() if name not in ("size", "width", "length", "view", "nap", "use")}
        if measured:
            self._size_row(line, labels, measured)
        for wide, cell in widths:
            self._column_amount(line, labels, row, f"{wide} cm", cell)
        if "length" in row and "width" in row:
            self._column_amount(line, labels, row, row["width"], row["length"])
        return True

    def _size_row(self, line: Line, labels: list[str], measured: dict[str, str]) -> None:
        known = {size["label"]: size for size in self.draft.sizes}
        for label in labels:
            if label not in known:
                known[label] = {"label": label, "band": ""}
                self.draft.sizes.append(known[label])
                self.groups.append([label])
            for name, cell in measured.items():
                values = figures(self._upper(cell))
                if name.endswith("skip") or not values:
                    continue
                if name == "cup":
                    known[label]["cup"] = cell
                    continue
                guessed = "in" if values[0].value < 62 else "cm"
                known[label][f"{name}_cm"] = round(values[0].cm(self.unit if self.unit in ("cm", "in") else guessed), 1)

    def _column_amount(self, line: Line, labels: list[str], row: dict[str, str], width: str, length: str) -> None:
        bare = figures(width)
        imperial = bool(bare) and (bare[0].unit == "in" or (not bare[0].unit and bare[0].value < 70))
        wide = f"{bare[0].cm('in' if imperial else 'cm'):.1f} cm" if bare else width
        unit = self.unit if self.unit in ("m", "yd") else ("yd" if imperial else "m")
        amounts = read_amounts(f"{wide} wide {length}{'' if line_unit(length) else ' ' + unit}", unit, None, True)
        if amounts is None:
            line.fault = f"has no amount for {width}: “{length}”" if length else ""
            return
        nap = "nap" in row and bool(re.match(r"yes|with\b|y\b", row["nap"], re.IGNORECASE))
        use = next((use for use in USES if use in row.get("use", "").casefold()), self.use)
        view = row.get("view", "") or (self.views[0] if self.views else "A")
        view = re.sub(r"^view\s+", "", view, flags=re.IGNORECASE)
        own = [self._own(label) for label in labels] or [label for group in self.groups for label in group]
        self.draft.requirements.append(
            {
                "view": view,
                "sizes": own,
                "width_cm": amounts.width_cm,
                "length_m": amounts.lengths_m[0],
                "with_nap": nap or amounts.with_nap or self.nap,
                "use": use,
            }
        )

    # -- lines that stand alone ------------------------------------------------------------------------

    def _title(self, line: Line, text: str) -> None:
        """'BR-50 Godwit wide trousers by Brindlecote': code, name, house and kind of garment."""
        code = _CODE.search(text)
        if code:
            self.draft.texts["code"] = code[0]
            text = (text[: code.start()] + " " + text[code.end() :]).strip(" #-–,:")
        name, _, house = text.partition(" by ")
        if not house and " | " in name:
            name, _, house = name.partition(" | ")
        self.draft.texts["name"] = " ".join(name.split()).strip(" -–,")
        if house:
            self.draft.texts["house"] = house.strip()
        garment = self.tables.garments.find_within(name)
        if garment and "garment" not in self.draft.texts:
            self.draft.texts["garment"] = garment.name
        line.field = "name"

    def _loose(self, line: Line, text: str) -> None:
        """A sentence without a heading: what it says of the cloth, of lining, or of its parts."""
        low = text.casefold()
        reading = read_envelope(text, self.tables)
        if re.match(r"not suitable|unsuitable|avoid|do not", low):
            self._take(line, "recommended" if self.draft.texts.get("recommended") else "avoid", text)
        elif _SENTENCE.search(text) and (reading.cloths or reading.structures or reading.weights):
            self._take(line, "recommended", text)
            self.section = "recommended"
        elif re.search(r"\blined\b", low):
            self._flags(text)
            line.field = "lining"
        else:
            words = self._details(text)
            if words:
                self.draft.details += words
                line.field = "details"


def read_paste(text: str, tables: Tables) -> Draft:
    """Read a pasted envelope; what was not understood is in `unread`, and rows that do not fit say why."""
    return _Reader(tables).read(text)
