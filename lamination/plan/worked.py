"""What a worked plan holds: figures first, then the words made from them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any, TypeVar

from lamination.dough.formula import Balance, Fed
from lamination.dough.recipe import Physics, Shares
from lamination.dough.shopping import Needed
from lamination.dough.weighing import WeighSheet
from lamination.materials.ingredients import Kind as Ingredients
from lamination.materials.ingredients import Window
from lamination.sheet.coverage import Layers
from lamination.steps import FIGURES, OneOf
from lamination.steps._labels import Label
from lamination.steps.base import Alarm, Chapter, PutAway
from lamination.steps.cut import CutFigures
from lamination.steps.flatten import FlattenFigures
from lamination.steps.last_sheet import LastSheetFigures
from lamination.steps.lock_in import LockInFigures
from lamination.steps.shape import ShapeFigures
from lamination.steps.turn import TurnFigures
from lamination.terms.advice import Note, Working
from lamination.terms.rests import Rest
from lamination.terms.sizes import Size

AnyFigures = Annotated[Any, OneOf(lambda: FIGURES)]
F = TypeVar("F")


@dataclass(frozen=True, slots=True)
class Scrap:
    """What is left over at a step and saved for the next dough, g, and the butter that is in it."""

    stop: str
    grams: float
    butter_g: float


@dataclass(frozen=True, slots=True)
class Kept:
    """A part of the dough that a step puts away."""

    stop: str
    part: PutAway


@dataclass(frozen=True, slots=True)
class FormulaPart:
    """An ingredient of one dough: % of all flour and g, all preferments included.

    ``measure``: about how many cups or spoons that is; None where nobody knows.
    """

    ingredient: str
    name: str
    kind: Ingredients
    pct: float
    grams: float
    measure: str | None


@dataclass(frozen=True, slots=True)
class Feeding:
    """Old dough fed back: g in one dough, and the balance as written, today, and settled."""

    grams: float
    butter_g: float
    today: Fed
    settled: Fed


@dataclass(frozen=True, slots=True)
class FormulaFigures:
    """What a formula amounts to in one dough; ``rounding``: what the scales did to it, in words."""

    flour_g: float
    total_pct: float
    parts: tuple[FormulaPart, ...]
    balance: Balance
    feeding: Feeding | None
    rounding: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class ButterFigures:
    """What the butter is, and the range it works in."""

    name: str
    physics: Physics
    window: Window


@dataclass(frozen=True, slots=True)
class Facts:
    """What plans are compared by. ``waste_g``: trims that are saved, and what the cut leaves."""

    butter_layers: int
    leaves: int
    butter_um: float
    dough_um: float
    full_pct: float
    bent_pct: float
    waste_g: float
    turns: int
    rests: int
    bench_min: float
    total_min: float
    to_cut_min: float
    longest_mm: float
    pieces: int | None
    piece_g: float | None


@dataclass(frozen=True, slots=True)
class Stop:
    """A step as it is worked: when its work starts, how long it takes, its rest, and what lies there.

    ``starts_min`` counts from the start of the first. ``n``: its number in the plan. ``does`` says what
    to do, in order, the first sentence being the one to read from two metres; ``words`` are the
    baker's own. ``gives``: which stay of its rest is made longer or shorter with it. ``trays``: trays go
    through it each at its own time. ``alarms``: what is called out.
    """

    key: str
    do: str
    n: int
    chapter: Chapter
    name: str
    starts_min: float
    bench_min: float
    rest: Rest | None
    gives: int
    lies: Size | None
    butter_layers: int
    leaves: int
    made: AnyFigures | None
    does: tuple[str, ...]
    words: str
    caution: str
    trays: bool
    oven: bool
    turn: bool
    alarms: tuple[Alarm, ...]


@dataclass(frozen=True, slots=True)
class WorkedPlan:
    """All that follows from a plan, step by step.

    ``total_g``: dough, butter and what is laid on it; ``comes_out_g``: what of that lies under the knife.
    """

    name: str
    total_g: float
    comes_out_g: float
    butter_share: Shares
    formula: FormulaFigures | None
    dough: Physics
    butter: ButterFigures
    layers: Layers
    strip: tuple[Stop, ...]
    total_min: float
    facts: Facts
    scrap: tuple[Scrap, ...]
    put_away: tuple[Kept, ...]
    sheets: tuple[WeighSheet, ...]
    shopping_says: str
    shopping: tuple[Needed, ...]
    labels: tuple[Label, ...]
    notes: tuple[Note, ...]
    workings: tuple[Working, ...]

    def stop(self, key: str) -> Stop | None:
        """A step by its id."""
        return next((s for s in self.strip if s.key == key), None)

    def made(self, of: type[F]) -> tuple[F, ...]:
        """The figures of every step of a kind."""
        return tuple(s.made for s in self.strip if isinstance(s.made, of))

    @property
    def slab(self) -> Size | None:
        """The dough as it is chilled."""
        found = self.made(FlattenFigures)
        return found[0].slab if found else None

    @property
    def lock_in(self) -> LockInFigures:
        """The lock-in."""
        return self.made(LockInFigures)[0]

    @property
    def steps(self) -> tuple[TurnFigures, ...]:
        """The turns."""
        return self.made(TurnFigures)

    @property
    def final(self) -> LastSheetFigures:
        """The last sheet."""
        return self.made(LastSheetFigures)[0]

    @property
    def cut(self) -> CutFigures | None:
        """The cut."""
        return next(iter(self.made(CutFigures)), None)

    @property
    def shaped(self) -> ShapeFigures | None:
        """The trays."""
        return next(iter(self.made(ShapeFigures)), None)
