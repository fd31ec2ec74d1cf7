"""Line drawings of garments on a 200 × 220 sheet: the right half is drawn, the left is its mirror."""

from __future__ import annotations

from nematex.store.records import PatternRecord

BODICE = "M100 34 C108 36 114 34 118 28 L140 36 L146 44"
HALVES = {
    "dress": (BODICE, "M140 36 L164 84 L148 92 L138 68", "M138 68 L134 108 L158 200 L100 204", "M134 108 L100 110"),
    "shift": (BODICE, "M140 36 L158 78 L144 84 L137 66", "M137 66 L136 110 L146 196 L100 198", "M128 78 L116 82"),
    "skirt": ("M128 40 L100 42", "M130 50 L100 52", "M128 40 L130 50 L168 196 C146 202 122 203 100 203"),
    "tiered skirt": (
        "M126 34 L100 35 M127 44 L100 45 M126 34 L127 44",
        "M127 44 L142 92 C128 96 114 97 100 97",
        "M142 92 L158 144 C138 149 118 150 100 150",
        "M158 144 L176 198 C150 204 124 205 100 205",
        "M136 94 l2 8 M124 97 l2 9 M112 98 l1 9 M150 147 l3 9 M134 150 l2 9 M116 151 l1 9",
    ),
    "trousers": ("M130 30 L100 31 M131 40 L100 41 M130 30 L131 40", "M131 40 L146 206 L110 208 L100 88", "M100 41 L100 88"),
    "wide trousers": ("M128 30 L100 31 M129 40 L100 41 M128 30 L129 40", "M129 40 L162 206 L108 209 L100 86", "M100 41 L100 86", "M116 41 L118 70"),
    "shorts": ("M130 60 L100 61 M131 70 L100 71 M130 60 L131 70", "M131 70 L144 150 L108 153 L100 112", "M100 71 L100 112"),
    "tee": ("M100 50 C110 50 117 46 120 40 L142 48 L168 82 L150 94 L139 80", "M139 80 L138 168 L100 170"),
    "shirt": ("M100 44 L112 40 L118 34 L141 42 L170 128 L154 134 L138 84", "M138 84 L140 182 L100 186", "M100 44 L100 186", "M112 40 L104 56 L100 46", "M122 84 L110 85 L110 102 L122 101 Z"),
    "hoodie": ("M100 52 C112 50 120 42 118 28 C112 18 106 16 100 16", "M118 40 L142 50 L168 140 L152 146 L138 88", "M138 88 L138 168 L100 170", "M138 178 L100 180 M138 168 L138 178", "M124 148 L116 120 L100 120"),
    "coat": ("M100 92 L116 40 L122 34 L146 44 L168 130 L150 136 L140 90", "M140 90 L146 204 L100 206", "M100 92 L100 206", "M116 40 L124 62 L112 66 L100 92", "M132 130 L114 132 L115 138 L133 136 Z"),
    "jumpsuit": (BODICE, "M140 36 L158 76 L146 82 L136 64", "M136 64 L132 100 L100 101 M132 100 L150 208 L109 210 L100 134", "M100 34 L100 134"),
    "dungarees": ("M116 26 L120 60 L100 60 M116 26 L111 26 L114 60", "M120 60 L128 92 L100 93 M128 92 L146 206 L109 208 L100 128", "M100 93 L100 128", "M112 66 L100 66 M112 66 L112 82 L100 83"),
    "gown": ("M100 110 L116 36 L144 44 L172 130 L152 136 L138 92", "M138 92 L152 206 L100 207", "M116 36 L110 34 L100 60", "M141 112 L100 110 M141 118 L100 117", "M100 117 L100 207"),
    "slip": ("M122 24 L118 58 C112 66 106 70 100 70", "M118 58 C124 64 126 66 128 74 L126 104 C138 140 150 176 156 200 C136 206 118 206 100 206"),
}  # fmt: skip
BY_WORD = (
    ("tiered", "tiered skirt"),
    ("wide", "wide trousers"),
    ("dungaree", "dungarees"),
    ("jumpsuit", "jumpsuit"),
    ("dressing gown", "gown"),
    ("robe", "gown"),
    ("slip", "slip"),
    ("hood", "hoodie"),
    ("coat", "coat"),
    ("jacket", "coat"),
    ("shorts", "shorts"),
    ("jogger", "trousers"),
    ("pyjama", "trousers"),
    ("trouser", "trousers"),
    ("skirt", "skirt"),
    ("shift", "shift"),
    ("sheath", "shift"),
    ("cocoon", "shift"),
    ("dress", "dress"),
    ("nightshirt", "dress"),
    ("tee", "tee"),
    ("overshirt", "shirt"),
    ("shirt", "shirt"),
    ("blouse", "shirt"),
)


def drawing(record: PatternRecord) -> tuple[str, ...]:
    """The half drawing that fits the pattern's name and garment; a tee where nothing fits."""
    words = f"{record.facts.name} {record.facts.garment}".casefold()
    name = next((shape for word, shape in BY_WORD if word in words), "tee")
    return HALVES[name]
