"""A step of a plan, and what a kind of step must say: everything else goes along a list of these.

A kind is one module of this package: what may be chosen (a :class:`Step`), what it does to what lies
on the bench (``effect``), how long it takes, what to say at the bench, what to mind. Nothing outside
needs to know a kind by name for that.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field, replace
from enum import IntEnum
from functools import cached_property
from itertools import pairwise
from typing import Annotated, Any, Generic, Literal, Self, TypeVar

from lamination.dough.recipe import Contents, Recipe
from lamination.dough.weighing import Weighed, WeighLine
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.machines import Rolled
from lamination.sheet.cells import Sheet
from lamination.terms.advice import Fix, Note, Put, Tone, Value, Working
from lamination.terms.limits import Checked, Length, swapped
from lamination.terms.rests import Minutes, Rest, Stay
from lamination.terms.said import c, span
from lamination.terms.sizes import Size
from lamination.terms.trade import Chilled, Machine, Place, Surface, Worded


class Form(Worded):
    """What lies on the bench between two steps."""

    NOTHING = "nothing", "nothing yet"
    DOUGH = "dough", "dough without butter"
    PACKAGE = "package", "a package of dough and butter"
    SHEET = "sheet", "the last sheet"
    PIECES = "pieces", "cut pieces"
    SHAPED = "shaped", "shaped pieces"
    BAKED = "baked", "baked pieces"


class Chapter(Worded):
    """The parts of the work."""

    BEFORE = "before", "Dough"
    TURNS = "turns", "Butter and turns"
    CUT = "cut", "Sheet and cut"
    OVEN = "oven", "Proof and oven"


@dataclass(frozen=True)
class Step(Checked):
    """What every step has: an id of its own that stays when others move, its rest, its minutes.

    ``rest`` follows the work. ``bench_min``: in place of the kitchen's. ``words``: the baker's own
    remark. ``on``: what it is worked on, ``chilled``: how that was made cold before.
    """

    id: Annotated[str, Length(0, 40, "characters")] = field(default="", kw_only=True)
    rest: Rest | None = field(default=None, kw_only=True)
    bench_min: Minutes | None = field(default=None, kw_only=True)
    words: Annotated[str, Length(0, 2_000, "characters")] = field(default="", kw_only=True)
    on: Surface = field(default=Surface.USUAL, kw_only=True)
    chilled: Chilled = field(default=Chilled.NOT, kw_only=True)

    @property
    def kind_name(self) -> str:
        """The name of its kind: the ``do`` that each kind declares as a field."""
        return str(getattr(self, "do"))  # noqa: B009

    @cached_property
    def bare(self) -> Self:
        """The step without its times and words: what of it shapes the dough."""
        return swapped(
            self, rest=None, bench_min=None, words="", on=Surface.USUAL, chilled=Chilled.NOT
        )

    @property
    def holds_back_pct(self) -> float:
        """The share of the plan's butter that waits for this step, %."""
        return 0.0

    def grown(self, grow: float) -> Self:
        """The step for a dough whose sheets are ``grow`` times as long and as wide."""
        return self

    @property
    def rests(self) -> bool:
        """Whether a rest of any length follows."""
        return self.rest is not None and self.rest.minutes > 0

    @property
    def proofs(self) -> bool:
        """Whether shaped pieces rest after it, which is a proof or a part of one."""
        return False

    @property
    def gives(self) -> int:
        """Which stay of its rest is made longer or shorter with it; 0 where it has none."""
        return self.rest.gives(self.proofs) if self.rest else 0

    def resting(self, minutes: float) -> Self:
        """The step with another length of its rest; as it is where it has none."""
        if self.rest is None or minutes == self.rest.minutes:
            return self
        return replace(self, rest=self.rest.lasting(minutes, self.proofs))


@dataclass(frozen=True, eq=False)
class Setting:
    """Where a plan is worked: its matter, the kitchen, what it is rolled by, what is weighed.

    ``wanted_sheet``: the dough sheet that a later step wants, which the dough is best flattened to.
    """

    recipe: Recipe
    rolled: Rolled
    weighed: Weighed | None
    wanted_sheet: Size

    @property
    def kitchen(self) -> Kitchen:
        """The kitchen it is worked in."""
        return self.recipe.kitchen


@dataclass(frozen=True, slots=True)
class Carried:
    """What was strewn or spread on a dough and goes along with it, evenly: an ingredient or a name, g.

    ``layer_mm3``: how much room it takes as a layer of its own; 0 where it was rolled into the dough.
    """

    what: str
    grams: float
    layer_mm3: float = 0.0


@dataclass(frozen=True, slots=True)
class Coil:
    """A sheet rolled up: across the coil, mm, and how often it goes round."""

    diameter_mm: float
    rounds: float


@dataclass(frozen=True, slots=True, eq=False)
class Lies:
    """What lies on the bench: its form, its size, and of a laminate the sheet as it lies for a roll.

    ``naive``: the product of the folds that never fuses. ``waiting_mm3``: butter of a second go that
    has still to come; ``ready_mm3``: butter that goes in at the next fold, and
    ``later_pct`` of all of it at folds after that. ``carried``: what goes along
    with the dough. ``part``: the share of it that goes on, where it was divided. ``plies``:
    panels of a last sheet that lie on each other for the knife. ``coil``:
    the sheet is rolled up. ``of_cut``: the cut that pieces come from, and its figures;
    ``offcuts_g``: what of its leavings is made use of.
    """

    form: Form = Form.NOTHING
    size: Size | None = None
    sheet: Sheet | None = None
    naive: int = 1
    turns: int = 0
    estimate: bool = False
    waiting_mm3: float = 0.0
    ready_mm3: float = 0.0
    later_pct: float = 0.0
    carried: tuple[Carried, ...] = ()
    part: float = 1.0
    plies: tuple[Sheet, ...] = ()
    coil: Coil | None = None
    of_cut: Any = None
    offcuts_g: float = 0.0
    oven_loads: int = 1

    @property
    def laminate(self) -> Sheet:
        """The laminate that lies there; a kind that takes one may count on it."""
        assert self.sheet is not None
        return self.sheet

    @property
    def under(self) -> Sheet:
        """The sheet as one sees it from above: the lowest panel, where several lie on each other."""
        return self.plies[0] if self.plies else self.laminate

    @property
    def carried_g(self) -> float:
        """All that goes along with the dough, g."""
        return sum(c.grams for c in self.carried)

    def with_offcuts(self, used_g: float) -> Lies:
        """The same, with so much more of the cut's leavings made use of."""
        return replace(self, offcuts_g=self.offcuts_g + used_g)

    def keeping(self, share: float) -> tuple[Carried, ...]:
        """What goes along with a share (0 to 1) of what lies there."""
        return tuple(
            replace(c, grams=c.grams * share, layer_mm3=c.layer_mm3 * share) for c in self.carried
        )

    def leaves(self) -> tuple[int, int]:
        """Butter leaves and all leaves, where the folds made all of them."""
        if self.sheet is None:
            return 0, 1
        full = self.sheet.fullest()
        return full.butter_leaves, full.leaves


@dataclass(frozen=True, slots=True)
class Handling:
    """What a step's work does to a body of dough, for its warmth and its rise.

    ``to_mm``: rolled or flattened to; None where it stays as thick. ``over``: panels laid on each other
    afterwards, True where turned over. ``rolls``: a roll warms it, and presses out what has risen.
    ``shut_in``: butter is shut in, as (is butter, mm) from bottom to top. ``apart``: it lies elsewhere,
    and this dough's warmth is not followed through it. ``piece_mm``: what lies there then are pieces,
    so thick. ``mixed_c``: a dough comes to be, so warm. ``coil_mm``: it is rolled up, so far across.
    ``kept_cold``: the butter that is shut in is as cold as it was kept, and was not made pliable.
    """

    to_mm: float | None = None
    over: tuple[bool, ...] = ()
    rolls: bool = False
    shut_in: tuple[tuple[bool, float], ...] = ()
    apart: bool = False
    piece_mm: float | None = None
    mixed_c: float | None = None
    coil_mm: float | None = None
    kept_cold: bool = False


@dataclass(frozen=True, slots=True)
class Saved:
    """What a step leaves over and is saved for the next dough, g, and the butter that is in it."""

    grams: float
    butter_g: float


@dataclass(frozen=True, slots=True)
class PutAway:
    """A part of the dough that is put away: where, how heavy, its butter, g, and its turns.

    ``later_g``: butter that it has still to get; ``keeps_h``: how long it keeps there, h.
    """

    place: Place
    grams: float
    butter_g: float
    turns: int
    later_g: float = 0.0
    keeps_h: float | None = None


@dataclass(frozen=True, slots=True, eq=False)
class Made:
    """What came of a step: what lies there then, its figures, and how the dough was handled.

    ``saved``: what is left over for the next dough; ``put``: a part that is kept as it is.
    """

    lies: Lies
    figures: Any = None
    handling: Handling = Handling()
    saved: Saved | None = None
    put: PutAway | None = None


S = TypeVar("S", bound=Step)


@dataclass(frozen=True, eq=False)
class Here(Generic[S]):
    """A step with all round it: what the words and the advice about it may look at."""

    n: int
    name: str
    steps: tuple[Step, ...]
    made: tuple[Made, ...]
    setting: Setting

    @property
    def step(self) -> S:
        """The step itself."""
        return self.steps[self.n]  # type: ignore[return-value]

    @property
    def figures(self) -> Any:
        """What came of it."""
        return self.made[self.n].figures

    @property
    def recipe(self) -> Recipe:
        """Dough and butter."""
        return self.setting.recipe

    @property
    def kitchen(self) -> Kitchen:
        """The kitchen it is worked in."""
        return self.setting.recipe.kitchen

    @property
    def before(self) -> Lies:
        """What lay there when the step began."""
        return self.made[self.n - 1].lies if self.n else Lies()

    def path(self, name: str, n: int | None = None) -> str:
        """The path of a field of this step in the plan, or of the ``n``-th."""
        return f"steps[{self.n if n is None else n}].{name}"

    def note(
        self,
        code: str,
        tone: Tone,
        title: str,
        text: str,
        name: str | None = None,
        fixes: Iterable[Fix] = (),
        values: Iterable[Value] = (),
        plan_field: str | None = None,
    ) -> Note:
        """Advice at this step; ``name``: the field it is about, ``plan_field``: one of the plan's."""
        at = self.path(name) if name else plan_field
        return Note(code, self.step.id, tone, title, text, at, tuple(fixes), tuple(values))

    def fix(self, label: str, **puts: Any) -> Fix:
        """A way out that puts values in this step's fields."""
        return Fix(label, tuple(Put(self.path(k), v) for k, v in puts.items()))

    def fix_at(self, label: str, name: str, value: Any) -> Fix:
        """A way out that puts one value, at a path below this step."""
        return Fix(label, (Put(self.path(name), value),))

    def works(self, of: str, text: str) -> Working:
        """How a number of this step was got."""
        return Working(f"{self.step.id}.{of}", text)

    def all_of(self, kind: type[Step]) -> list[tuple[int, Any, Made]]:
        """Every step of a kind, with its number and what came of it."""
        pairs = zip(self.steps, self.made, strict=True)
        return [(n, s, m) for n, (s, m) in enumerate(pairs) if isinstance(s, kind)]


@dataclass(frozen=True, slots=True)
class Weighs:
    """What is weighed for a step: the name of its sheet, its lines, and what is in them."""

    name: str
    lines: tuple[WeighLine, ...]
    contents: Contents


class Often(IntEnum):
    """How often a kind may stand in a plan."""

    ONCE = 1
    FEW = 4
    MANY = 12


@dataclass(frozen=True, slots=True)
class Alarm:
    """What is called out so long after something was done, min: after it went ``"in"``, or was ``"done"``.

    ``minutes``: None for the end of its span, which the bench may have made longer or shorter; below 0
    so long before that end.
    """

    after: Literal["in", "done"]
    minutes: float | None
    says: str


@dataclass(frozen=True, slots=True)
class Ahead:
    """What has to be begun so many minutes before a step: an oven that heats."""

    minutes: float
    says: str


def rest_over(here: Here[Any]) -> Iterator[Alarm]:
    """Every change of place in the rest that follows, and its end."""
    if here.step.rests:
        yield from changes(here.step)
        yield Alarm("done", None, over(here.step.rest, "its time is up, take it out"))


def over(rest: Rest | None, says: str) -> str:
    """What is said when a rest is over: of one that ends by its warmth, that it is to be looked at."""
    last = rest.passed[-1] if rest and rest.passed else None
    if last is None or last.until_c is None:
        return says
    return f"is its middle at {c(last.until_c)}? Then take it out"


def changes(step: Step) -> Iterator[Alarm]:
    """From one place of a rest to the next: what is before the stay that gives by the time since it began,
    the others by what is left, so that each is called when it is due however long the rest becomes.
    """
    rest = step.rest
    if rest is None:
        return
    gives, gone = rest.stays[step.gives], 0.0
    given = False
    for stay, then in pairwise(rest.passed):
        gone += stay.minutes
        given = given or stay is gives
        yield Alarm("done", gone - rest.minutes if given else gone, _changes(stay, then))


def _changes(stay: Stay, then: Stay) -> str:
    lasts = span(then.minutes)
    if stay.until_c is not None:
        return f"is its middle at {c(stay.until_c)}? Then {then.into}, {lasts}"
    if stay.place is then.place:
        set_to = then.air_c if then.air_c is not None else then.to_c
        if set_to is None:
            return f"it stays {then.where}, {lasts}"
        return f"set the {then.place.said} to {c(set_to)}, {lasts}"
    return f"{then.into} now, {lasts}"


def _nothing(*_: Any) -> Iterator[Any]:
    return iter(())


def _no_minutes(*_: Any) -> float:
    return 0.0


@dataclass(frozen=True, kw_only=True, eq=False)
class Kind(Generic[S]):
    """A kind of step: all that the rest of the application asks of it.

    ``stem``: ids begin so. ``rank``: where it usually stands among the others. ``takes``: what may lie
    there; ``leaves``: what lies there then, None where that stays. ``minutes``: the kitchen's row for
    its work, or a function of step, figures and kitchen. ``relaxing``: minutes the gluten wants
    afterwards. ``alarms``: what is called out while it goes on, and at its end; ``ahead``: what has to
    be begun before it, which is called out while something rests before it. ``weighs``: what is
    weighed for it. ``by_tray``: trays go through it each at its own
    time; ``loads``: and into an oven. ``machine``: what it takes up, or a function of the step.
    ``feels_warmth``: what comes of it hangs on the kitchen's rows of warmth (those of the group cold).
    ``apart``: it is made while another rests. ``needed``: no plan is without one. ``wants``: the dough
    sheet it wants to find. ``fresh``: one to start from, by the steps there are and the place it will
    have among them.
    """

    of: type[S]
    do: str
    name: str
    stem: str
    rank: int
    chapter: Chapter
    takes: frozenset[Form]
    leaves: Form | None
    effect: Callable[[S, Lies, Setting], Made]
    instruct: Callable[[Here[S]], Iterator[str]]
    caution: str
    figures: type | None = None
    mind: Callable[[Here[S]], Iterator[Note]] = _nothing
    workings: Callable[[Here[S]], Iterator[Working]] = _nothing
    weighs: Callable[[Here[S]], Iterator[Weighs]] = _nothing
    minutes: str | Callable[[S, Any, Kitchen], float] = "minutes.own"
    relaxing: Callable[[Here[S]], float] = _no_minutes
    alarms: Callable[[Here[S]], Iterator[Alarm]] = rest_over
    ahead: Callable[[Here[S]], Iterator[Ahead]] = _nothing
    often: Often = Often.ONCE
    needed: bool = False
    by_tray: bool = False
    loads: bool = False
    machine: Machine | Callable[[S], Machine | None] | None = None
    feels_warmth: bool = False
    apart: bool = False
    counts_as_turn: bool = False
    wants: Callable[[S, Recipe], Size] | None = None
    fresh: Callable[[tuple[Step, ...], int], S] | None = None
    called: Callable[[S, int, int], str] | None = None

    def bench_min(self, step: S, figures: Any, kitchen: Kitchen) -> float:
        """Minutes of work: the step's own, or the kitchen's."""
        if step.bench_min is not None:
            return step.bench_min
        if isinstance(self.minutes, str):
            return kitchen[self.minutes]
        return self.minutes(step, figures, kitchen)

    def machine_of(self, step: S) -> Machine | None:
        """What a step takes up while it is worked."""
        return self.machine(step) if callable(self.machine) else self.machine

    def name_of(self, step: S, number: int, of: int) -> str:
        """What a step is called, the ``number``-th of ``of`` of its kind."""
        if self.called:
            return self.called(step, number, of)
        return f"{self.name} {number}" if self.often is Often.MANY else self.name


def with_id(step: S, taken: set[str], kind: Kind[S]) -> S:
    """The step with an id that is not taken yet, where it has none."""
    if step.id:
        return step
    if kind.often is not Often.MANY and kind.stem not in taken:
        return replace(step, id=kind.stem)
    n = 1
    while f"{kind.stem}-{n}" in taken:
        n += 1
    return replace(step, id=f"{kind.stem}-{n}")
