"""The bakehouse at Teasel Lock: its plans, and how some of its doughs went.

A lock-keeper's house on a canal, baking for a Saturday market, two café boats and a station kiosk.
Everything here is made up for this application.
"""

from __future__ import annotations

import random
from dataclasses import dataclass

from lamination.day import Wanted
from lamination.dough import Butter, Development, Dough, Formula, Line, OldDough, PrefermentKind
from lamination.kitchen import Kitchen
from lamination.materials import Allergen, Composition, Ingredient, Kind, Strength
from lamination.pieces import Bake, Card, Oven, Product, Shape, Stage, Wash
from lamination.plan import Plan
from lamination.run import Probe, Verdict
from lamination.steps.bake import Baking
from lamination.steps.cut import Cut
from lamination.steps.flatten import Flattening
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.look import Looking
from lamination.steps.mix import Mixing
from lamination.steps.own import OwnStep
from lamination.steps.preferment import Preferment
from lamination.steps.shape import Shaping
from lamination.steps.turn import Turn
from lamination.steps.wash import Washing
from lamination.store import Holds, Which
from lamination.terms import Family, Fold, Method, Place, Rest, Stay, Tool

ACCOUNTS = {"wren": ("head", "towpath-head"), "tansy": ("bench", "towpath-bench")}


def _fridge(minutes: float) -> Rest:
    return Rest.at(Place.FRIDGE, minutes)


LOCK_FLOUR = Ingredient(
    "flour-lock", "Lock mill flour", Kind.FLOUR, Composition(14, 12.6, 1.3, 71.5, 0.6, 1.2),
    allergens=(Allergen.GLUTEN,), strength=Strength.STRONG,
)  # fmt: skip


def _lines(**pct: float) -> tuple[Line, ...]:
    return tuple(Line(key.replace("_", "-"), value) for key, value in pct.items())


MARKET_FORMULA = Formula(
    _lines(flour_lock=80, flour_medium=20, water=42, milk_whole=11, sugar=11, salt=2,
           yeast_fresh=3.2, malt_flour=0.5, butter_table=5),
    own=(LOCK_FLOUR,),
)  # fmt: skip
STATION_FORMULA = Formula(
    _lines(flour_strong=100, water=51, milk_powder=2, sugar=12, salt=2, yeast_instant=1.3,
           butter_table=5),
    old_dough=OldDough(6),
)  # fmt: skip
BOATS_FORMULA = Formula(
    _lines(flour_medium=70, flour_strong=30, water=47, salt=2, lemon=1.5, butter_table=11)
)
DANISH_FORMULA = Formula(
    _lines(flour_strong=100, water=27, milk_whole=18, egg_whole=12, sugar=12, salt=1.8,
           yeast_fresh=4.5, butter_cultured=8),
    whole_eggs=True,
)  # fmt: skip

MARKET = Plan(
    name="Saturday market croissant",
    family=Family.CROISSANT,
    dough=Dough(1980),
    butter=Butter(540),
    formula=MARKET_FORMULA,
    rolled_by=Tool.HAND,
    steps=(
        Preferment(PrefermentKind.POOLISH, 25, 100, 8, rest=Rest.at(Place.BENCH, 660)),
        Mixing(24, 19, 12, 4, 4, rest=_fridge(45)),
        Flattening(rest=_fridge(720)),
        LockIn(Method.HALF, block_width_mm=260, block_length_mm=210),
        Turn(Fold.LETTER, 8, rest=_fridge(30)),
        Turn(Fold.LETTER, 8, rest=_fridge(35)),
        Turn(Fold.LETTER, 8, rest=_fridge(42)),
        LastSheet(4, width_mm=290, rest=_fridge(10)),
        Cut(
            (Product("Croissant", Shape.TRIANGLE, 95, 280, notch_mm=15, card=Card.CRESCENT),),
            kerf_mm=2,
        ),
        Shaping(rest=Rest.at(Place.PROOFER, 150)),
        Washing(Wash.EGG_SALT),
        Baking(
            Bake(Oven.DECK, (Stage(4, 220, steam=True), Stage(14, 190)), core_c=94),
            rest=Rest.at(Place.BENCH, 30),
        ),
        Looking(),
    ),
    words="By hand on the ash table. Two thirds of the strength of the miller's strong flour.",
)

STATION = Plan(
    name="Station kiosk croissant",
    family=Family.CROISSANT,
    dough=Dough(7100),
    butter=Butter(1950, ingredient="butter-sheet", fold_back=3),
    formula=STATION_FORMULA,
    rolled_by=Tool.SHEETER,
    steps=(
        Preferment(PrefermentKind.SPONGE, 30, 60, 20, rest=_fridge(900)),
        Mixing(23, 19, 12, 4, 5, rest=_fridge(60)),
        Flattening(rest=_fridge(840)),
        LockIn(Method.HALF, block_width_mm=440, block_length_mm=380),
        Turn(Fold.LETTER, 10, rest=_fridge(30), bench_min=5),
        Turn(Fold.BOOK, 10, rest=_fridge(45), bench_min=5),
        Turn(Fold.LETTER, 12.5, rest=_fridge(60), bench_min=5),
        LastSheet(4, width_mm=885, rest=_fridge(12)),
        Cut((Product("Croissant", Shape.TRIANGLE, 92, 295, card=Card.CRESCENT),)),
    ),
    words="By sheeter, on the long belt. Three strips across the last sheet.",
)

BOATS = Plan(
    name="Café boat puff",
    family=Family.PUFF,
    dough=Dough(1500),
    butter=Butter(1050),
    formula=BOATS_FORMULA,
    rolled_by=Tool.HAND,
    steps=(
        Mixing(21, 19, 12, 5, 1, Development.SHORT),
        Flattening(rest=_fridge(120)),
        LockIn(Method.ENVELOPE, block_width_mm=290, block_length_mm=290, rest=_fridge(20)),
        Turn(Fold.LETTER, 8),
        Turn(Fold.LETTER, 8, rest=_fridge(45)),
        Turn(Fold.LETTER, 8),
        Turn(Fold.LETTER, 8, rest=_fridge(60)),
        OwnStep(
            "Mark the block for the boats", bench_min=3,
            words="A blue thread round it: the café boats collect at six, the market does not.",
        ),
        Turn(Fold.LETTER, 7, rest=_fridge(45)),
        LastSheet(3, width_mm=437, rest=_fridge(20), bench_min=10),
        Cut(
            (
                Product("Turnover", Shape.SQUARE, 120, rows=2, card=Card.TURNOVER),
                Product("Puff disc", Shape.DISC, 88, rows=2),
            ),
            kerf_mm=1,
        ),
    ),
    words="For the turnovers. Five letters are leaves enough; a sixth gains nothing here.",
)  # fmt: skip

DANISH = Plan(
    name="Lock garden Danish",
    family=Family.DANISH,
    dough=Dough(3300),
    butter=Butter(1000),
    formula=DANISH_FORMULA,
    rolled_by=Tool.SHEETER,
    steps=(
        Mixing(24, 19, 12, 4, 5, rest=_fridge(40)),
        Flattening(rest=_fridge(600)),
        LockIn(Method.TWO_THIRDS, block_width_mm=320, block_length_mm=400),
        Turn(Fold.BOOK, 9, rest=Rest((Stay(Place.FRIDGE, 32), Stay(Place.BENCH, 10))), bench_min=5),
        Turn(Fold.LETTER, 9, rest=_fridge(45), bench_min=5),
        LastSheet(4.5, width_mm=405, rest=_fridge(15)),
        Cut((Product("Pinwheel", Shape.SQUARE, 100, card=Card.PINWHEEL),)),
        Shaping(rest=Rest.at(Place.PROOFER, 100)),
        Washing(),
        Baking(Bake(Oven.FAN, (Stage(16, 175),), core_c=93), rest=Rest.at(Place.BENCH, 20)),
        Looking(),
    ),
    words="Squares for pinwheels. Egg in the dough: keep it cold.",
)

# The bench at Teasel Lock is the sheeter's belt with the ash table at its end.
KITCHEN = Kitchen(
    {
        "bench.length_mm": 2400,
        "bench.width_mm": 900,
        "sheeter.belt_length_mm": 2400,
        "sheeter.belt_width_mm": 900,
        "oven.trays": 8,
    },
    (LOCK_FLOUR,),
)

# The Saturday order: which plan, and what is wanted of it.
ORDER_NAME = "Saturday market and the boats"
# of which plan what is wanted, and at what hour; the market's own is the order's
ORDER = (
    (MARKET, (Wanted("Croissant", 60, 58, 9), Wanted("Almond half-moon", 24, 62, 9)), None),
    (BOATS, (Wanted("Turnover square", 70, 33, 8), Wanted("Puff disc", 40, 28, 24)), "08:00"),
    (STATION, (Wanted("Kiosk croissant", 130, 56, 8),), "06:00"),
    (DANISH, (Wanted("Pinwheel", 80, 48, 9),), "08:30"),
)
ORDER_AT = "07:00"
# what stands for every Saturday, where it is not what this one wants
STANDING_NAME = "Saturdays"
USUALLY = {"Croissant": 48, "Kiosk croissant": 120, "Almond half-moon": 30}
# who is there: name, hands, from and to, in hours before and after that morning's midnight
HANDS = (("Thursday evening", 1, -32.0, -28.0), ("Friday", 2, -18.0, -7.0), ("early", 2, 2.5, 11.0))

# The day that is under way in the demo: pieces wanted in so many hours from now.
TODAY_NAME = "Today: the kiosk and the boats"
TODAY = (
    (MARKET, (Wanted("Croissant", 60, 58, 9),), 4.5),
    (BOATS, (Wanted("Turnover square", 70, 33, 8),), 5.5),
    (DANISH, (Wanted("Pinwheel", 60, 48, 9),), 5.0),
)
TODAY_HANDS = (("night", 1, -32.0, -3.0), ("Tansy and Alder", 2, -7.0, 6.5))

PLANS = (MARKET, STATION, BOATS, DANISH)


@dataclass(frozen=True)
class Went:
    """How a run went: minutes late (or early) at each deed, and what was said on the way."""

    plan: Plan
    started: tuple[int, str] | int  # days ago and the time of day; or, under way, minutes ago
    late_min: tuple[float, ...]  # up to the cut; the trays follow the plan, or ``trays_ago_min``
    readings: tuple[tuple[int, Probe, float], ...]  # before which deed, of what, °C
    notes: tuple[tuple[int, str], ...] = ()
    verdict: Verdict | None = None
    weighed: tuple[tuple[str, float], ...] = ()  # lines whose weight differed, g
    pieces_g: tuple[float, ...] = ()  # of the first product, on the scale after the cut
    trays_ago_min: tuple[tuple[float, ...], ...] = ()  # of each tray, how long ago each step was


_ROOM, _DOUGH, _BUTTER = Probe.ROOM, Probe.DOUGH, Probe.BUTTER

RUNS = (
    Went(
        MARKET, started=(3, "19:00"),
        late_min=(7, 4, 6, 3, 2, 15, 6, 3, 12, 4, 1, 16, 5, 2, 6, 9, 6),
        readings=((2, _ROOM, 19.0), (2, _DOUGH, 24.5), (5, _DOUGH, 4.5), (5, _BUTTER, 12.5),
                  (6, _DOUGH, 8.5), (8, _DOUGH, 6.0), (9, _DOUGH, 9.0), (9, _BUTTER, 13.0),
                  (11, _DOUGH, 6.5), (12, _DOUGH, 10.0), (14, _ROOM, 20.5), (14, _DOUGH, 7.0)),
        notes=((6, "Butter a little firmer than the dough at the corners."),
               (11, "Sprang back at the ends: gave it ten minutes more.")),
        weighed=(("mix/water", 206), ("mix/flour-lock", 626)),
        pieces_g=(58.4, 57.9, 58.8, 57.6, 57.2, 57.9, 56.8, 57.0, 56.4, 56.9, 55.8, 56.1),
        verdict=Verdict(
            4, 4, 4, 5, "Even comb, one tight spot at the tail. Rest turn 2 longer.",
            shape=4, dryness=4, fat=5, taste=5, before_g=57.2, after_g=48.9,
        ),
    ),
    Went(
        BOATS, started=(1, "11:30"),
        late_min=(5, 1, 5, 3, 4, 2, 3, 14, 6, 5, 20, 5, 4, 11, 6, 8, 5),
        readings=((1, _ROOM, 23.5), (3, _BUTTER, 14.0), (3, _DOUGH, 9.0), (6, _DOUGH, 12.5),
                  (7, _BUTTER, 15.5), (8, _DOUGH, 7.0), (10, _DOUGH, 13.0), (12, _DOUGH, 7.5),
                  (14, _ROOM, 25.0), (14, _DOUGH, 11.0)),
        notes=((6, "Room warming up. Ice pack under the tray."),),
        verdict=Verdict(5, None, 4, 4, "Tall and dry. Slight lean where the third turn ran warm."),
    ),
    Went(
        MARKET, started=1845,
        late_min=(6, 4, 6, 3, 2, 9, 6, 3, 8, 4, 1, 9, 5, 2, 6, 7),
        readings=((2, _ROOM, 20.0), (4, _DOUGH, 24.0), (6, _BUTTER, 12.5), (6, _DOUGH, 7.0),
                  (14, _DOUGH, 8.0)),
        notes=((11, "A little springy: three strokes more."),),
        pieces_g=(57.6, 57.1, 57.8, 57.0, 57.3, 56.9, 57.5, 57.2),
        trays_ago_min=((148, 18, 13, 9), (124,), (118,)),
    ),
    Went(
        STATION, started=1892,
        late_min=(7, 4, 6, 3, 4, 12, 8, 6),
        readings=((2, _DOUGH, 23.5), (4, _ROOM, 18.5), (5, _DOUGH, 4.0), (6, _BUTTER, 11.5),
                  (6, _DOUGH, 7.5), (7, _DOUGH, 9.5)),
        notes=((6, "New butter sheets: bend well at 11 °C."),),
    ),
)  # fmt: skip


@dataclass(frozen=True)
class Lay:
    """What lies in the cold: of which run (by its number above) or by hand, since how many hours."""

    hours_ago: float
    place: Place
    shelf: int
    grams: float | None = None
    run: int | None = None
    stop: str = ""
    which: Which = Which.WHOLE
    holds: Holds = Holds.DOUGH
    name: str = ""
    lots: str = ""
    wanted: str = ""  # tomorrow at five, and what for


_LOTS = "flour 4417, butter L-208"
STORE = (
    Lay(62, Place.FREEZER, 1, 2260, 0, "turn-3", lots=_LOTS, wanted="Saturday market"),
    Lay(61.9, Place.FREEZER, 1, 1310, 0, "turn-3", lots=_LOTS),
    Lay(58, Place.FREEZER, 2, 1200, 0, "shape", lots=_LOTS),
    Lay(20, Place.FREEZER, 2, 2400, 1, "turn-4", lots="flour 4417, butter L-211"),
    Lay(19, Place.FRIDGE, 2, 1650, 1, "turn-5", lots="flour 4417, butter L-211"),
    Lay(12, Place.FRIDGE, 1, 2050, 2, "turn-3", lots="flour 4420, butter L-211"),
    Lay(17, Place.FRIDGE, 3, None, 1, "cut", Which.TRIMMINGS),
    Lay(70, Place.FRIDGE, 3, 1000, holds=Holds.BUTTER, name="Plaque, cut", lots="butter L-211"),
    Lay(50, Place.FREEZER, 3, 880, holds=Holds.BAKED, name="Almond half-moons"),
)


def book(months: int = 6) -> tuple[Went, ...]:
    """What the book of Teasel Lock has of the market's croissant: a bake a week, most of them good; a hot
    July week, a weak fridge and a new colleague among them. The same each time.
    """
    dice = random.Random(8)
    found = []
    for week in range(months * 4, 0, -1):
        warm = week in (19, 20)
        hasty = week in (9, 10)
        late = tuple(dice.choice((1, 2, 3, 5, 6, 8)) + (5 if hasty else 0) for _ in range(17))
        butter = dice.uniform(12, 14.5) + (4.0 if warm else 0)
        room = dice.uniform(18.5, 21.5) + (4.5 if warm else 0)
        readings = (
            (2, _ROOM, round(room, 1)), (2, _DOUGH, round(dice.uniform(23.5, 25), 1)),
            (5, _BUTTER, round(butter, 1)), (8, _DOUGH, round(dice.uniform(5.5, 7.5), 1)),
            (14, _DOUGH, round(dice.uniform(6, 8), 1)),
        )  # fmt: skip
        marks = (2, 2, 3, 4) if warm else (3, 3, 3, 4) if hasty else dice.choice(_GOOD)
        spread = 1.6 if hasty else 0.7
        found.append(
            Went(
                MARKET, started=(7 * week + 2, "19:00"), late_min=late, readings=readings,
                verdict=Verdict(
                    *marks, _OF_WARM if warm else _OF_HASTE if hasty else "",
                    shape=marks[0], dryness=4, fat=2 if warm else 5, taste=4,
                ),
                pieces_g=tuple(round(dice.gauss(57.2, spread), 1) for _ in range(8)),
            )
        )  # fmt: skip
    return tuple(found)


_GOOD = ((5, 4, 4, 5), (4, 4, 5, 4), (5, 5, 4, 4), (4, 5, 4, 5), (4, 4, 4, 4))
_OF_WARM = "Heat wave. Butter on the trays, few cells."
_OF_HASTE = "Pieces of every weight. Rolled in a hurry."
