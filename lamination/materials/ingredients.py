"""Ingredients: what each is made of, and the library a bakery starts with.

Compositions are rounded from published tables of food; a bakery adds its own from the sack's
label. Everything that depends on the kind of an ingredient asks ``kind``, never the name.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from difflib import get_close_matches
from typing import Annotated

from lamination.materials.composition import Celsius, Composition
from lamination.terms.limits import Checked, Fault, Faults, Length, Range
from lamination.terms.said import c, named
from lamination.terms.trade import Worded


class Kind(Worded):
    """What an ingredient is to a formula."""

    FLOUR = "flour", "Flour"
    WATER = "water", "Water"
    MILK = "milk", "Milk"
    EGG = "egg", "Egg"
    FAT = "fat", "Butter and fat"
    SUGAR = "sugar", "Sugar"
    SALT = "salt", "Salt"
    YEAST = "yeast", "Yeast"
    MALT = "malt", "Malt"
    ACID = "acid", "Acid"
    OTHER = "other", "Other"
    PREPARED = "prepared", "Prepared here"


class Allergen(Worded):
    """Allergens that a label names."""

    GLUTEN = "gluten", "gluten"
    MILK = "milk", "milk"
    EGG = "egg", "egg"
    NUTS = "nuts", "nuts"
    SOYA = "soya", "soya"
    SESAME = "sesame", "sesame"
    PEANUTS = "peanuts", "peanuts"
    SULPHITES = "sulphites", "sulphites"
    LUPIN = "lupin", "lupin"
    MUSTARD = "mustard", "mustard"


class Strength(Worded):
    """How strong a flour is."""

    WEAK = "weak", "weak"
    MEDIUM = "medium", "medium"
    STRONG = "strong", "strong"


@dataclass(frozen=True)
class Window(Checked):
    """A butter's working window, °C: brittle below, plastic from and to, oils out above.

    ``bears_k``: how much colder than usual its outermost leaf may be and still roll, as butter made for
    laminating does. Raises :class:`Faults` when the four do not rise.
    """

    brittle_c: Celsius
    plastic_from_c: Celsius
    plastic_to_c: Celsius
    oils_c: Celsius
    bears_k: Annotated[float, Range(0, 10, "K")] = 0.0

    def __post_init__(self) -> None:
        super().__post_init__()
        names = ("brittle_c", "plastic_from_c", "plastic_to_c", "oils_c")
        values = [getattr(self, n) for n in names]
        for i in range(1, 4):
            if values[i] < values[i - 1]:
                raise Faults(
                    Fault(names[i], f"This comes after {c(values[i - 1])}, so it must be warmer.")
                )


@dataclass(frozen=True)
class Ingredient(Checked):
    """One thing on the shelf. ``key`` is its name in a formula and never changes.

    ``as_fresh``: for a yeast, the grams of fresh yeast that one gram stands for. ``piece_g``: what
    one piece weighs, for what is bought by the piece (an egg without its shell). ``also``: other names that
    people write. ``unknown``: what is in it of which nothing is known here, allergens included.
    """

    key: Annotated[str, Length(1, 40, "characters")]
    name: Annotated[str, Length(1, 60, "characters")]
    kind: Kind
    composition: Composition
    allergens: tuple[Allergen, ...] = ()
    strength: Strength | None = None
    as_fresh: Annotated[float, Range(0.1, 10)] | None = None
    piece_g: Annotated[float, Range(1, 5_000, "g")] | None = None
    window: Window | None = None
    also: Annotated[tuple[str, ...], Length(0, 20, "names")] = ()
    unknown: Annotated[tuple[str, ...], Length(0, 30, "names")] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.kind is Kind.YEAST and self.as_fresh is None:
            raise Faults(
                Fault(
                    "as_fresh",
                    "A yeast says how many grams of fresh yeast one gram stands for: 1 for fresh, "
                    "about 2.5 for instant.",
                )
            )

    @property
    def locks_in(self) -> bool:
        """Whether it can be locked in: a firm fat, no oil."""
        return self.kind is Kind.FAT and (self.window is not None or self.composition.fat_pct < 99)


def _of(key: str, name: str, kind: Kind, *shares: float, **more: object) -> Ingredient:
    return Ingredient(key, name, kind, Composition(*shares), **more)  # type: ignore[arg-type]


_GLUTEN, _MILK, _EGG = (Allergen.GLUTEN,), (Allergen.MILK,), (Allergen.EGG,)
_NUTS = (Allergen.NUTS,)
_TABLE_WINDOW, _SHEET_WINDOW = Window(9, 12, 16, 20), Window(8, 11, 18, 23, bears_k=2)

# water, protein, fat, carbohydrate, ash, sugar: % of the mass
LIBRARY: tuple[Ingredient, ...] = (
    _of("flour-strong", "Strong wheat flour", Kind.FLOUR, 14, 12, 1.2, 72.3, 0.5, 1,
        allergens=_GLUTEN, strength=Strength.STRONG,
        also=("strong flour", "bread flour", "strong white flour", "strong white bread flour",
              "strong bread flour", "white bread flour", "high-gluten flour")),
    _of("flour-medium", "Plain wheat flour", Kind.FLOUR, 14, 10.5, 1.1, 73.9, 0.5, 1,
        allergens=_GLUTEN, strength=Strength.MEDIUM,
        also=("flour", "plain flour", "all-purpose flour", "all purpose flour", "ap flour", "white flour",
              "wheat flour", "plain white flour")),
    _of("flour-weak", "Soft wheat flour", Kind.FLOUR, 14, 9, 1.1, 75.4, 0.5, 1,
        allergens=_GLUTEN, strength=Strength.WEAK,
        also=("soft flour", "cake flour", "pastry flour", "soft white flour")),
    _of("flour-wholemeal", "Wholemeal wheat flour", Kind.FLOUR, 13, 12.5, 2.3, 70.7, 1.5, 1.5,
        allergens=_GLUTEN, strength=Strength.MEDIUM,
        also=("wholemeal flour", "whole meal flour", "wholewheat flour", "whole wheat flour",
              "whole-wheat flour")),
    _of("flour-rye", "Light rye flour", Kind.FLOUR, 14, 8, 1.3, 75.9, 0.8, 2,
        allergens=_GLUTEN, strength=Strength.WEAK, also=("rye flour", "rye")),
    _of("water", "Water", Kind.WATER, 100, 0, 0, 0, 0),
    _of("milk-whole", "Whole milk", Kind.MILK, 88, 3.3, 3.5, 4.6, 0.6, 4.6, allergens=_MILK,
        also=("milk", "full-fat milk", "full fat milk", "full-cream milk", "full cream milk")),
    _of("milk-skimmed", "Skimmed milk", Kind.MILK, 91, 3.4, 0.1, 4.8, 0.7, 4.8, allergens=_MILK,
        also=("skim milk", "skimmed milk", "fat-free milk", "nonfat milk", "non-fat milk")),
    _of("milk-powder", "Skimmed milk powder", Kind.OTHER, 3.5, 35.5, 0.8, 52.2, 8, 52,
        allergens=_MILK,
        also=("milk powder", "dried milk", "dry milk", "powdered milk", "skim milk powder",
              "dried milk powder",
              "dry milk powder", "dried skimmed milk", "nonfat dry milk", "non-fat dry milk",
              "dried skimmed milk powder")),
    _of("egg-whole", "Whole egg", Kind.EGG, 76, 12.6, 9.6, 0.8, 1, 0.4, allergens=_EGG, piece_g=50,
        also=("egg", "eggs", "whole eggs", "beaten egg")),
    _of("egg-yolk", "Egg yolk", Kind.EGG, 51, 16, 30.5, 0.8, 1.7, 0.4, allergens=_EGG, piece_g=18,
        also=("egg yolks", "yolk", "yolks")),
    _of("sugar", "Sugar", Kind.SUGAR, 0, 0, 0, 100, 0, 100,
        also=("caster sugar", "castor sugar", "granulated sugar", "white sugar", "superfine sugar",
              "brown sugar", "light brown sugar", "demerara sugar")),
    _of("honey", "Honey", Kind.SUGAR, 17, 0.3, 0, 82.5, 0.2, 82),
    _of("salt", "Salt", Kind.SALT, 0, 0, 0, 0, 100,
        also=("sea salt", "table salt", "fine salt", "fine sea salt", "cooking salt")),
    _of("yeast-fresh", "Fresh yeast", Kind.YEAST, 70, 13.5, 1, 13.5, 2, as_fresh=1,
        also=("compressed yeast", "cake yeast", "fresh baker's yeast")),
    _of("yeast-instant", "Instant yeast", Kind.YEAST, 5, 45, 0, 45, 5, as_fresh=2.5,
        also=("instant dry yeast", "instant dried yeast", "fast-action yeast", "fast action yeast",
              "fast-action dried yeast", "fast action dried yeast", "easy-bake yeast", "quick yeast",
              "rapid-rise yeast", "quick-rise yeast", "osmotolerant yeast")),
    _of("yeast-dry", "Active dry yeast", Kind.YEAST, 7, 43, 0, 45, 5, as_fresh=2,
        also=("dry yeast", "dried yeast", "active dried yeast", "dried active yeast")),
    _of("malt-flour", "Malt flour", Kind.MALT, 8, 11, 1.6, 78, 1.4, 6, allergens=_GLUTEN,
        also=("malt", "malt powder", "diastatic malt", "diastatic malt powder", "malted barley flour")),
    _of("malt-syrup", "Malt syrup", Kind.MALT, 20, 5, 0, 74, 1, 70, allergens=_GLUTEN,
        also=("malt extract", "barley malt syrup")),
    _of("vinegar", "White vinegar, 5 %", Kind.ACID, 94.5, 0, 0, 5.3, 0.2,
        also=("vinegar", "white vinegar", "white wine vinegar", "cider vinegar")),
    _of("lemon", "Lemon juice", Kind.ACID, 91, 0.4, 0.2, 8, 0.4, 2.5),
    _of("butter-table", "Table butter", Kind.FAT, 16, 0.9, 82, 0.8, 0.3, 0.8,
        allergens=_MILK, window=_TABLE_WINDOW, also=("butter", "unsalted butter", "sweet butter")),
    _of("butter-sheet", "Laminating butter", Kind.FAT, 15, 0.7, 83.3, 0.7, 0.3, 0.7,
        allergens=_MILK, window=_SHEET_WINDOW,
        also=("butter sheet", "butter sheets", "sheet butter", "dry butter", "lamination butter")),
    _of("butter-cultured", "Cultured butter", Kind.FAT, 16, 0.9, 82, 0.8, 0.3, 0.5,
        allergens=_MILK, window=_TABLE_WINDOW,
        also=("european butter", "european-style butter", "european style butter", "lactic butter")),
    _of("oil", "Sunflower oil", Kind.FAT, 0, 0, 100, 0, 0, also=("vegetable oil", "neutral oil")),
    _of("cream-cheese", "Soft curd cheese", Kind.OTHER, 76, 11, 7, 4.8, 1.2, 4,
        allergens=_MILK),
    _of("almond", "Ground almonds", Kind.OTHER, 5, 21, 53, 18, 3, 5, allergens=_NUTS,
        also=("almonds", "almond flour", "almond meal")),
    _of("soya-flour", "Soya flour", Kind.OTHER, 7, 38, 21, 29, 5, 8, allergens=(Allergen.SOYA,)),
    _of("egg-white", "Egg white", Kind.EGG, 88, 10.5, 0.2, 0.7, 0.6, 0.7, allergens=_EGG, piece_g=32,
        also=("egg whites",)),
    _of("cream", "Whipping cream", Kind.MILK, 58, 2.2, 36, 3.2, 0.6, 3.2, allergens=_MILK,
        also=("double cream", "heavy cream")),
    _of("almond-flaked", "Flaked almonds", Kind.OTHER, 5, 21, 53, 18, 3, 5, allergens=_NUTS,
        also=("sliced almonds", "almond flakes")),
    _of("hazelnut", "Hazelnuts", Kind.OTHER, 5, 15, 61, 16.7, 2.3, 4, allergens=_NUTS,
        also=("hazelnut", "ground hazelnuts", "chopped hazelnuts", "hazelnut flour")),
    _of("walnut", "Walnuts", Kind.OTHER, 4, 15, 65, 14, 2, 2.6, allergens=_NUTS,
        also=("chopped walnuts", "walnut pieces")),
    _of("pistachio", "Pistachios", Kind.OTHER, 4, 20, 45, 28, 3, 8, allergens=_NUTS,
        also=("chopped pistachios", "pistachio nibs")),
    _of("peanut", "Peanuts", Kind.OTHER, 6.5, 26, 49, 16, 2.5, 4.7, allergens=(Allergen.PEANUTS,),
        also=("chopped peanuts",)),
    _of("sesame", "Sesame seeds", Kind.OTHER, 5, 18, 50, 22.5, 4.5, 0.3,
        allergens=(Allergen.SESAME,), also=("sesame",)),
    _of("poppy", "Poppy seeds", Kind.OTHER, 6, 18, 42, 28, 6, 3, also=("poppyseed", "poppy seed")),
    _of("sugar-icing", "Icing sugar", Kind.SUGAR, 0.5, 0, 0, 99.5, 0, 98,
        also=("powdered sugar", "confectioners' sugar")),
    _of("cinnamon", "Cinnamon", Kind.OTHER, 10.5, 4, 1.2, 80.7, 3.6, 2.2, also=("ground cinnamon",)),
    _of("cocoa", "Cocoa powder", Kind.OTHER, 3, 19.6, 13.7, 57.9, 5.8, 1.8, also=("cocoa",)),
)  # fmt: skip
# What can be locked in, in the library's order: kitchens keep the place of the one they use.
BUTTERS = tuple(i for i in LIBRARY if i.locks_in)


class Shelf:
    """The library with a bakery's own ingredients before it; finds one by its key."""

    def __init__(self, own: Iterable[Ingredient] = ()) -> None:
        self._by_key = {i.key: i for i in (*LIBRARY, *own)}
        self._by_name: dict[str, Ingredient] = {}
        for one in self._by_key.values():
            for name in (*one.also, one.name):  # a name of its own before another's other name
                self._by_name[name.lower()] = one

    def __contains__(self, key: str) -> bool:
        return key in self._by_key

    def __getitem__(self, key: str) -> Ingredient:
        return self._by_key[key]

    def __iter__(self) -> Iterator[Ingredient]:
        return iter(self._by_key.values())

    def find(self, what: str) -> Ingredient | None:
        """The ingredient that is meant by its key, its name, or another name that people write."""
        said = what.strip().lower()
        for name in (said, said.removesuffix("s"), f"{said}s"):
            if found := self._by_key.get(name) or self._by_name.get(name):
                return found
        return self._by_key.get(what)

    def complaint(self, key: str) -> str:
        """The sentence for a key that is not on the shelf, with what is nearest to it."""
        near = [k for k in self._by_key if key.lower() in k] or get_close_matches(
            key.lower(), self._by_key, 3, 0.5
        )
        said = f" Nearest: {', '.join(near[:3])}." if near else " Add it with its composition."
        return f"There is no ingredient “{named(key)}”.{said}"


PLAIN_SHELF = Shelf()
