"""Plans of Teasel Lock in which something happens round the folds: divided, strewn, rolled up."""

from __future__ import annotations

from lamination.dough import Butter, Dough, Formula, Line
from lamination.pieces import Bake, Card, Colour, Oven, Product, Shape, Stage
from lamination.plan import Plan, starting_formula
from lamination.steps import ButterState, Strewn
from lamination.steps.bake import Baking
from lamination.steps.cut import Cut
from lamination.steps.divide import Divide
from lamination.steps.flatten import Flattening
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.look import Looking
from lamination.steps.mix import Mixing
from lamination.steps.more_butter import MoreButter
from lamination.steps.roll_up import RollUp
from lamination.steps.shape import Shaping
from lamination.steps.strew import Strew
from lamination.steps.turn import Turn
from lamination.steps.wash import Washing
from lamination.terms import Family, Fold, Method, Place, Rest, Tool


def _fridge(minutes: float) -> Rest:
    return Rest.at(Place.FRIDGE, minutes)


def _lines(**pct: float) -> Formula:
    return Formula(tuple(Line(key.replace("_", "-"), value) for key, value in pct.items()))


KOUIGN = Plan(
    name="Towpath kouign-amann",
    family=Family.KOUIGN,
    dough=Dough(1400),
    butter=Butter(640, ingredient="butter-cultured"),
    formula=_lines(flour_strong=60, flour_medium=40, water=59, salt=2.3, yeast_fresh=1.8),
    rolled_by=Tool.HAND,
    steps=(
        Mixing(23, 19, 12, 5, 2, rest=_fridge(60)),
        Flattening(rest=_fridge(240)),
        LockIn(Method.HALF, block_width_mm=230, block_length_mm=180, rest=_fridge(20)),
        Turn(Fold.LETTER, 9, rest=_fridge(40)),
        MoreButter(40, ButterState.GRATED),
        Turn(Fold.LETTER, 9, rest=_fridge(40)),
        Strew("sugar", 300, Strewn.BOTH),
        LastSheet(7, width_mm=330, rest=_fridge(10)),
        Cut((Product("Kouign", Shape.SQUARE, 105),), grid=True),
        Shaping(rest=Rest.at(Place.BENCH, 45)),
        Baking(
            Bake(Oven.DECK, (Stage(32, 185),), core_c=97, colour=Colour.DEEP),
            moulded=True, sugared=True, rest=Rest.at(Place.BENCH, 30),
        ),
        Looking(),
    ),
    words="Two goes of butter, the second grated cold. Sugar at the very end, and then be quick.",
)  # fmt: skip

# A Danish sheet of 4 mm, wide enough to be rolled up.
_TO_ROLL_UP = (
    Mixing(23, 19, 12, 4, 5, rest=_fridge(60)),
    Flattening(rest=_fridge(600)),
    LockIn(Method.HALF, block_width_mm=300, block_length_mm=220),
    Turn(Fold.LETTER, 8, rest=_fridge(30)),
    Turn(Fold.LETTER, 8, rest=_fridge(30)),
    Turn(Fold.LETTER, 8, rest=_fridge(40)),
    LastSheet(4, width_mm=860, rest=_fridge(10)),
)

WHIRL = Plan(
    name="Reed whirl",
    family=Family.DANISH,
    dough=Dough(2200),
    butter=Butter(620),
    formula=starting_formula(Family.DANISH),
    rolled_by=Tool.SHEETER,
    steps=(
        *_TO_ROLL_UP,
        Strew("poppy and lemon butter", 320, spread=True),
        RollUp(rest=_fridge(30)),
        Cut((Product("Whirl", Shape.SQUARE, 25, card=Card.SLICE),), rest=_fridge(15)),
        Shaping(rest=Rest.at(Place.PROOFER, 100)),
        Washing(),
        Baking(Bake(Oven.FAN, (Stage(17, 175),), core_c=94), rest=Rest.at(Place.BENCH, 20)),
        Looking(),
    ),
    words="Rolled up from the short side and chilled before the knife.",
)

LID = Plan(
    name="Lock gate tart, base",
    family=Family.PUFF,
    dough=Dough(2000),
    butter=Butter(1400, ingredient="butter-sheet"),
    formula=starting_formula(Family.PUFF),
    rolled_by=Tool.SHEETER,
    steps=(
        Mixing(20, 19, 12, 5, 1),
        Flattening(rest=_fridge(180)),
        LockIn(Method.HALF, block_width_mm=380, block_length_mm=300, rest=_fridge(20)),
        Turn(Fold.BOOK, 10, rest=_fridge(45)),
        Turn(Fold.LETTER, 10, rest=_fridge(45)),
        Turn(Fold.BOOK, 10, rest=_fridge(45)),
        Turn(Fold.LETTER, 10, rest=_fridge(60)),
        Divide(40, put=Place.FREEZER),
        LastSheet(2, width_mm=560, rest=_fridge(20)),
        Cut((Product("Base", Shape.DISC, 180),)),
    ),
    words="A thin docked base from the smaller part. The other part is another plan: the thick lid.",
)

PLAIT = Plan(
    name="Millrace plait",
    family=Family.DANISH,
    dough=Dough(2400),
    butter=Butter(640),
    formula=starting_formula(Family.DANISH),
    rolled_by=Tool.SHEETER,
    steps=(
        *_TO_ROLL_UP,
        Strew("hazelnut and cocoa paste", 480, spread=True),
        RollUp(rest=_fridge(40)),
        Cut((Product("Plait", Shape.SQUARE, 210, card=Card.SPLIT),)),
        Shaping(rest=Rest.at(Place.PROOFER, 110)),
        Washing(),
        Baking(Bake(Oven.FAN, (Stage(24, 165),), core_c=94), rest=Rest.at(Place.BENCH, 30)),
        Looking(),
    ),
    words="Cold when it is split, and the cut sides up from the first lap to the last.",
)

FAN = Plan(
    name="Weir loaf",
    family=Family.CROISSANT,
    dough=Dough(2600),
    butter=Butter(660),
    formula=starting_formula(Family.CROISSANT),
    rolled_by=Tool.SHEETER,
    steps=(
        Mixing(23, 19, 12, 4, 5, rest=_fridge(60)),
        Flattening(rest=_fridge(600)),
        LockIn(Method.HALF, block_width_mm=300, block_length_mm=240),
        Turn(Fold.LETTER, 8, rest=_fridge(30)),
        Turn(Fold.LETTER, 8, rest=_fridge(30)),
        Turn(Fold.LETTER, 8, rest=_fridge(40)),
        LastSheet(5, width_mm=420, rest=_fridge(15)),
        Cut((Product("Loaf", Shape.STRIP, 700, 205, card=Card.FAN),)),
        Shaping(rest=Rest.at(Place.PROOFER, 150)),
        Washing(),
        Baking(
            Bake(Oven.DECK, (Stage(38, 180),), core_c=95, colour=Colour.DEEP),
            moulded=True, rest=Rest.at(Place.BENCH, 60),
        ),
        Looking(),
    ),
    words="One strip to a loaf, folded as wide as the tin and stood on its folds.",
)  # fmt: skip

MADE_UP = (KOUIGN, WHIRL, LID, PLAIT, FAN)
