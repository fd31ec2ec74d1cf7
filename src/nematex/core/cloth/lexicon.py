"""The lexicon of cloth names: what a cloth of that name typically is, found by name, alias and fibre."""

from __future__ import annotations

import math
import re
import unicodedata
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from nematex.core.cloth.fibres import FibreContent
from nematex.core.quantity.estimate import Range
from nematex.core.rules.reckoning import HandlesLike


@dataclass(frozen=True, slots=True)
class ClothType:
    """One cloth name with its typical ranges (g/m², cm, %, mm); sheerness 0 opaque to 3 sheer, press 0 to 3.

    `surface` is how it looks and feels, `end_uses` what it is made and bought for.
    """

    name: str
    aliases: tuple[str, ...]
    structure: str
    family: str
    use: str
    surface: str
    end_uses: frozenset[str]
    fibres: tuple[tuple[str, ...], ...]
    width_cm: float
    weight_gsm: Range
    bend_cm: Range
    stretch_cross_pct: Range
    stretch_length_pct: Range
    sheer: Range
    nap: bool
    fray: int
    shrink_hi_pct: float
    press: int
    thickness_mm: Range
    sewing: int
    season: str

    @property
    def all_fibres(self) -> frozenset[str]:
        return frozenset(name for blend in self.fibres for name in blend)


def stem(word: str) -> str:
    """A word without its plural ending, so that 'crepes' finds 'crepe'."""
    if not word.endswith("s"):
        return word
    if len(word) > 4 and word.endswith("ies"):
        return word[:-3] + "y"
    if len(word) > 5 and word.endswith(("shes", "ches", "xes", "sses")):
        return word[:-2]
    if len(word) > 6 and word.endswith("ases"):
        return word[:-3]  # 'canvases' as 'canvas', which loses its own s
    return word[:-1] if len(word) > 3 and not word.endswith("ss") else word


def plain(text: str) -> str:
    """In small letters without accents: 'Köper' and 'crêpe' as 'koper' and 'crepe'."""
    small = text.casefold()
    if small.isascii():
        return small
    return "".join(each for each in unicodedata.normalize("NFD", small) if not unicodedata.combining(each))


def key(text: str) -> str:
    """The form in which names are compared."""
    return " ".join(stem(word) for word in re.findall(r"[a-z0-9&']+", plain(text).replace("-", " ")))


FIBRE_WORDS = {
    "viscose": ("viscose", "rayon"),
    "polyamide": ("polyamide", "nylon"),
    "linen": ("linen",),
    "wool": ("wool",),
    "silk": ("silk",),
    "cotton": ("cotton",),
    "modal": ("modal",),
    "lyocell": ("lyocell",),
    "cupro": ("cupro",),
    "polyester": ("polyester",),
    "hemp": ("hemp",),
}


BARE = {key(word) for words in FIBRE_WORDS.values() for word in words} | {"organic", "pure", "washed", "soft"}
SHORTEST = 4  # letters of a word that another may end in


class Lexicon:
    """Cloth types by name and alias, and the envelope's group words, with their meaning in a pattern for knits."""

    def __init__(
        self,
        types: Iterable[ClothType],
        groups: dict[str, tuple[str, ...]],
        knits: dict[str, tuple[str, ...]],
        step: HandlesLike,
        abroad: Mapping[str, str] | None = None,
    ) -> None:
        self.step = step
        self.abroad = abroad or {}  # words of other languages → the name or word that stands for the same
        self.types = tuple(types)
        self.index = {item.name: number for number, item in enumerate(self.types)}
        self.by_key = {key(name): item for item in self.types for name in (item.name, *item.aliases)}
        for word, name in self.abroad.items():
            if key(name) in self.by_key:
                self.by_key.setdefault(key(word), self.by_key[key(name)])
        plain_names = [name for name in self.by_key if " " not in name and len(name) > SHORTEST]
        abroad_names = [key(word) for word in self.abroad if " " not in word and len(word) >= SHORTEST]
        self.endings = sorted({*plain_names, *abroad_names}, key=lambda name: (-len(name), name))
        self.groups = {word: tuple(map(self.get, names)) for word, names in groups.items()}
        self.by_group_key = {key(word): kinds for word, kinds in self.groups.items()}
        self.knits = {key(word): names for word, names in knits.items()}

    def get(self, name: str) -> ClothType:
        return self.types[self.index[name]]

    def _suffix_match(self, words: list[str]) -> ClothType | None:
        """The longest run of words that is a cloth name, latest first: 'bean row cotton lawn' → cotton lawn.

        A bare fibre is a cloth's name only where no other is: 'jersey organic cotton' is a jersey.
        """
        runs = ((start, start + size) for size in range(len(words), 0, -1) for start in range(len(words) - size, -1, -1))
        named = [(run, found) for run in runs if (found := self.by_key.get(" ".join(words[slice(*run)])))]
        cloths = [found for (start, end), found in named if not set(words[start:end]) <= BARE]
        return next(iter(cloths), named[0][1] if named else None)

    def _compound(self, words: list[str]) -> ClothType | None:
        """A word that ends in the name of a cloth: 'Hemdenpopeline' is a poplin. The last such word counts."""
        for word in reversed(words):
            ending = next((each for each in self.endings if word.endswith(each) and each in self.by_key), None)
            if ending:
                return self.by_key[ending]
        return None

    def find(
        self, name: str, fibres: FibreContent | None = None, structure: str | None = None, anywhere: bool = True
    ) -> ClothType | None:
        """The cloth type meant by a shop's words; fibre and structure decide between namesakes."""
        text = key(name)
        found = self.by_key.get(text)
        if found is None and anywhere:
            found = self._suffix_match(text.split()) or self._compound(text.split())
        if found is None:
            return None
        return self._namesake(found, text, fibres, structure)

    def _namesake(self, found: ClothType, text: str, fibres: FibreContent | None, structure: str | None) -> ClothType:
        """A lawn of viscose is a viscose lawn; a velvet that is a knit is a stretch velvet."""
        noun = text.rsplit(maxsplit=1)[-1]
        if structure and structure != found.structure:
            tries = (f"{text} knit", f"stretch {text}", f"{text} jersey", f"woven {text}", f"stretch {noun}", f"{noun} knit")
            found = self._first(tries, structure) or found
        if fibres is None or not fibres.main:
            return found
        several = (
            len(found.all_fibres) > 1 and found.name not in text
        )  # a 'crepe' of any fibre: of viscose it is a viscose crepe
        strange = fibres.main not in found.all_fibres and not fibres.share("elastane", "elastomultiester")
        if strange and (kin := self._of_these_fibres(text, fibres, structure or found.structure)):
            return kin  # a velvet of viscose and silk is no cotton velvet
        if fibres.main not in found.all_fibres or several:
            words = FIBRE_WORDS.get(fibres.main, ())
            kin = self._first([f"{word} {name}" for word in words for name in (noun, text)], structure or found.structure)
            if kin:
                return kin
        stretches = found.structure == "woven" and fibres.share("elastane", "elastomultiester") >= 0.01
        if stretches and "elastane" not in found.all_fibres:
            # A little elastane makes no knit of a woven; a polyester "velvet" with it was no cotton velvet to begin with.
            same = found.structure if fibres.main in found.all_fibres else ""
            return self._first([f"stretch {other}" for other in (found.name, *found.aliases, noun)], same) or found
        return found

    def _of_these_fibres(self, text: str, fibres: FibreContent, structure: str) -> ClothType | None:
        """Of the cloths that share the noun of a name the one of most of these fibres, said with the fewest other words."""
        noun, said = text.rsplit(maxsplit=1)[-1], {*text.split(), *map(key, fibres.shares)}
        bearers = {kind.name: kind for name, kind in self.by_key.items() if name.rsplit(maxsplit=1)[-1] == noun}
        kin = [each for each in bearers.values() if each.structure == structure and fibres.main in each.all_fibres]

        def fit(kind: ClothType) -> tuple[float, int]:
            return fibres.share(*kind.all_fibres), -len(set(key(kind.name).split()) - said)

        return max(kin, key=fit, default=None)

    def namesakes(self, name: str) -> tuple[ClothType, ...]:
        """Where a bare name is borne by wovens and knits alike ('velvet', 'lace'), all that bear it; else nothing."""
        bearers = self.by_group_key.get(key(name), ())
        return bearers if len({kind.structure == "knit" for kind in bearers}) > 1 else ()

    def _first(self, names: Iterable[str], structure: str = "") -> ClothType | None:
        """The first of these names that is a cloth, of this structure where one is asked."""
        kin = (self.by_key.get(name) for name in names)
        return next((kind for kind in kin if kind and structure in ("", kind.structure)), None)

    def nearest(
        self,
        weight_gsm: float,
        bend_cm: float,
        stretch_pct: float,
        structure: str,
        count: int = 3,
        among: Iterable[ClothType] | None = None,
    ) -> list[str]:
        """Names of the cloths that handle alike: by weight (log), bending length and stretch across (log)."""

        step = self.step

        def distance(item: ClothType) -> float:
            by_weight = math.log(max(weight_gsm, 1.0) / item.weight_gsm.middle) / step.weight_log
            by_drape = (bend_cm - item.bend_cm.middle) / step.drape_cm
            by_stretch = (math.log1p(stretch_pct / 10) - math.log1p(item.stretch_cross_pct.middle / 10)) / step.stretch_log
            other = 0.0 if item.structure == structure else step.other_structure
            return by_weight**2 + by_drape**2 + by_stretch**2 + other

        kinds = [item for item in self.types if item.use in ("garment", "occasion")] if among is None else among
        return [item.name for item in sorted(kinds, key=distance)[:count]]
