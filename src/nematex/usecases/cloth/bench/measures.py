"""The measurements of the bench: for each its methods, and for each method its boxes and what to do."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.errors import UnknownChoice
from nematex.tables import properties


@dataclass(frozen=True)
class Field:
    """One input of a measurement: `count` boxes for repeats, a choice of words, a photo, or hidden: read from a photo."""

    name: str
    label: str
    unit: str = ""
    count: int = 1
    default: str = ""
    choices: tuple[str, ...] = ()
    photo: bool = False
    hidden: bool = False


@dataclass(frozen=True)
class Method:
    """One way to measure."""

    name: str
    label: str
    fields: tuple[Field, ...]
    instrument: str
    how: str


@dataclass(frozen=True)
class Measure:
    """One guided page of the bench."""

    name: str
    label: str
    properties: tuple[str, ...]
    methods: tuple[Method, ...]

    def method(self, name: str) -> Method:
        found = next((each for each in self.methods if each.name == name), None)
        if found is None:
            raise UnknownChoice("method", name, [each.name for each in self.methods], "method")
        return found


def _words(name: str) -> tuple[str, ...]:
    return properties()[name].words


TONES = (
    ("on_black", "Cloth over black"),
    ("on_white", "Cloth over white"),
    ("bare_black", "Bare black card"),
    ("bare_white", "Bare white card"),
)
MASS = Field("grams", "Mass on the scale", "g", 3)
MEASURES = {
    each.name: each
    for each in (
        Measure("weight", "Weight", ("weight_gsm",), (
            Method("square", "A cut square on a scale", (Field("side", "Side of the square", "cm", default="10"), MASS), "scale",
                   "Cut along the printed square, away from the selvedge. Weigh three pieces, each once."),
            Method("disc", "A cut disc on a scale", (Field("diameter", "Diameter of the disc", "cm", default="11.3"), MASS), "scale",
                   "A disc of 11.3 cm holds 100 cm²."),
            Method("ounces", "The mill says oz/yd²", (Field("ounces", "Weight", "oz/yd²"),), "stated", "Taken as stated, not measured."),
            Method("bolt", "A whole bolt", (Field("kilograms", "Mass without the core", "kg"), Field("metres", "Length on it", "m"),
                   Field("width", "Full width", "cm")), "scale", "Weigh the core too when the bolt is sold, and correct it."),
        )),
        Measure("ramp", "Drape on the ramp", ("bending_length_cm", "bend_along_cm", "bend_across_cm"), (
            Method("ramp", "Overhang on the 41.5° ramp", (
                Field("along_up", "Strip cut along, face up", "cm", 2), Field("along_down", "Strip cut along, face down", "cm", 2),
                Field("across_up", "Strip cut across, face up", "cm", 2), Field("across_down", "Strip cut across, face down", "cm", 2)),
                "ramp", "Push a strip 2.5 cm wide over the edge until its tip touches the slope; read how far it was pushed."),
        )),
        Measure("disc", "Drape of a disc", ("drape_coefficient_pct",), (
            Method("photo", "A photo of its shadow from above", (Field("photo", "Photo of the draped disc", photo=True),
                   Field("px_per_cm", "Scale", "px per cm"), Field("wide", "or: the picture shows, left to right", "cm"),
                   Field("drape", "Drape coefficient", hidden=True), Field("folds", "Folds", hidden=True),
                   Field("sure", "Confidence", hidden=True), Field("photo_id", "Photo kept", hidden=True),
                   Field("read_with", "Scale it was read with", hidden=True)), "camera",
                   "Lay the 30 cm disc over the 18 cm stand and photograph straight from above, the whole shadow in the picture."),
            Method("area", "Its shadow's area", (Field("area", "Area of the shadow with the stand", "cm²", 3),), "typed",
                   "Draw round the shadow, cut it out and weigh it, or count squares."),
        )),
        Measure("hand", "Handle, by touch", ("hand",), (
            Method("hand", "By the reference card", (Field("hand", "It feels", choices=_words("hand")),), "hand",
                   "Push 8 cm, a hand's width, over the edge of the table and compare with the card."),
        )),
        Measure("stretch", "Stretch and recovery", ("stretch_cross_pct", "stretch_length_pct", "recovery_pct"), (
            Method("gauge", "On the printed gauge", (Field("relaxed", "Mark, relaxed", "cm", default="10"),
                   Field("across", "Pulled across, until it resists", "cm", 3), Field("along", "Pulled along", "cm", 3),
                   Field("after", "The mark pulled across, a minute after letting go", "cm")), "gauge",
                   "Fold the cloth, mark 10 cm away from the edges, pull along the gauge with the same hand each time."),
        )),
        Measure("sheer", "See-through", ("sheer",), (
            Method("photos", "Two photos over black and white card", (Field("black", "Photo over black", photo=True),
                   Field("white", "Photo over white", photo=True), *(Field(name, label, hidden=True) for name, label in TONES)),
                   "camera",
                   "The cloth over the left half, the bare card in the right half of both pictures; same light, same exposure."),
            Method("tones", "Four tones from a light table", tuple(Field(name, label) for name, label in TONES), "light table",
                   "Linear tones of one picture; any scale."),
            Method("card", "By the show-through card", (Field("sheer", "What shows through", choices=_words("sheer")),), "card",
                   "Lay one layer over the printed card: bars not seen, dark bar seen, all bars seen, print read through it."),
        )),
        Measure("thickness", "Thickness", ("thickness_mm",), (
            Method("stack", "A stack of layers under a ruler", (Field("layers", "Layers", default="10"),
                   Field("height", "Height of the stack", "mm", 3)), "ruler",
                   "Fold the cloth into ten layers, lay a book on it, and read the height beside the fold, not on it."),
        )),
        Measure("width", "Width", ("width_cm", "width_full_cm"), (
            Method("tape", "With the tape", (Field("full", "Edge to edge", "cm", 3), Field("usable", "Between the selvedges", "cm", 3)), "tape",
                   "Flat and relaxed, at three places at least a metre apart."),
        )),
        Measure("shrink", "Shrinkage", ("shrink_length_pct", "shrink_width_pct"), (
            Method("wash", "A marked square, washed", (Field("before", "Mark before the wash", "cm", default="50"),
                   Field("along_after", "Along, after wash and drying", "cm"), Field("across_after", "Across, after", "cm")), "tape",
                   "Mark a square with thread, wash and dry as the garment will be, let it lie for an hour."),
        )),
        Measure("fastness", "Colour fastness", ("colour_fastness",), (
            Method("white", "A white rag washed with it", (Field("colour_fastness", "Grade of the rag, 1 stained to 5 clean", "", 3),), "eye",
                   "Sew a scrap to a white cotton rag, wash at 40 °C, dry, and hold the rag beside a clean one and the grey scale."),
        )),
        Measure("sewing", "Fray, creasing, pressing", ("fray", "crease", "press"), (
            Method("eye", "By eye", (Field("fray", "A raw edge rubbed ten times frays", choices=_words("fray")),
                   Field("crease", "Held in the fist for a minute it creases", choices=_words("crease")),
                   Field("press", "It takes a press", choices=_words("press"))), "eye",
                   "Rub a raw edge between two fingers; the iron on the lowest heat that works, a press cloth between."),
        )),
    )
}  # fmt: skip


def measure_named(name: str) -> Measure:
    if name not in MEASURES:
        raise UnknownChoice("measurement", name, MEASURES, "measurement")
    return MEASURES[name]
