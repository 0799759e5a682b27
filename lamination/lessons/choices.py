"""What may be decided at the simulated bench: a value of the plan's own step, or how the hands do it."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from typing import Annotated, Any, TypeVar

from lamination.plan.plan import Plan
from lamination.steps.base import Step
from lamination.terms.limits import Checked, Fault, Faults, Length, Range, ranges
from lamination.terms.rests import Rest, Stay
from lamination.terms.trade import Chilled, Fold, Place, Worded

StepId = Annotated[str, Length(1, 40, "characters")]


class Decided(Worded):
    """What is decided at a step. A value with its own field in the plan is kept under that name."""

    CALL = "call", "when somebody calls"
    STANDS = "stands_min", "butter block on the bench"
    CHILLED = "chilled", "bench top beforehand"
    MARGIN = "margin_mm", "bare margin round the block"
    BLOCK_WIDTH = "block_width_mm", "width of the block"
    OFF_CENTRE = "off_centre_mm", "block off centre"
    CARE = "care", "measuring"
    DIRECTION = "direction", "direction of the roll"
    ROLL_TO = "roll_to_mm", "rolled to"
    UNEVEN = "uneven_pct", "one side thicker"
    PACE = "pace", "steps of the roll"
    TRIM = "trim.ends_mm", "trimmed off the ends"
    FOLD = "fold", "fold"
    SHORT = "short_mm", "flaps short"
    MARKS = "marks", "marking the pieces"
    REST_PLACE = "rest.place", "where it rests"
    REST_AIR = "rest.air_c", "proofer set to"
    REST_MIN = "rest.minutes", "how long it rests"
    TEMPER = "rest.temper_min", "then on the bench"


class Calls(Worded):
    """What becomes of a dough while somebody calls."""

    LEAVE = "leave", "leave it on the bench"
    AWAY = "away", "put it back first"


class Care(Worded):
    """How sizes and edges are found."""

    MEASURED = "measured", "with the ruler"
    BY_EYE = "by eye", "by eye"


class Direction(Worded):
    """Which way a package is rolled."""

    OPEN = "open", "towards the open ends"
    CLOSED = "closed", "towards the closed edges"


class Pace(Worded):
    """How fast a sheet is brought down."""

    SMALL = "small", "many small steps"
    USUAL = "usual", "as usual"
    BIG = "big", "a few big steps"


class Marking(Worded):
    """From what pieces are marked."""

    DATUM = "datum", "all from one edge"
    LAST = "last", "each from the last cut"


WORDS: dict[Decided, type[Worded]] = {
    Decided.CALL: Calls,
    Decided.CARE: Care,
    Decided.CHILLED: Chilled,
    Decided.DIRECTION: Direction,
    Decided.FOLD: Fold,
    Decided.MARKS: Marking,
    Decided.PACE: Pace,
    Decided.REST_PLACE: Place,
}
# What hands do otherwise than the plan says has no field there: what is taken where nothing is decided.
BY_HAND: dict[Decided, str | float] = {
    Decided.CALL: Calls.LEAVE,
    Decided.CARE: Care.MEASURED,
    Decided.DIRECTION: Direction.OPEN,
    Decided.MARKS: Marking.DATUM,
    Decided.PACE: Pace.USUAL,
}
# mm, %, °C or min by which a search goes through a range.
_BY = {
    Decided.REST_MIN: 5.0,
    Decided.TEMPER: 5.0,
    Decided.REST_AIR: 1.0,
    Decided.STANDS: 5.0,
    Decided.ROLL_TO: 0.5,
    Decided.MARGIN: 5.0,
    Decided.BLOCK_WIDTH: 10.0,
    Decided.OFF_CENTRE: 5.0,
    Decided.TRIM: 5.0,
    Decided.SHORT: 5.0,
    Decided.UNEVEN: 2.0,
}
_FINEST = 400  # values of one choice: a search goes through all of a few, and finer ones by halves
Value = float | str
W = TypeVar("W", bound=Worded)


def word(kind: type[W], value: Value) -> W:
    """A value as the choice it names. Raises ValueError for one that is none."""
    return kind(str(value))  # type: ignore[call-arg]


@dataclass(frozen=True)
class Choice(Checked):
    """What may be decided at a step: a number from ``low`` to ``high``, or one of ``options``.

    ``step``: its id in the plan. Raises Faults where neither is given, or options that are no such words.
    """

    step: StepId
    field: Decided
    low: Annotated[float, Range(-300, 10_080)] | None = None
    high: Annotated[float, Range(-300, 10_080)] | None = None
    options: Annotated[
        tuple[Annotated[str, Length(1, 40, "characters")], ...], Length(0, 12, "options")
    ] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        words = WORDS.get(self.field)
        if words is not None:
            known = [w.value for w in words]
            for n, option in enumerate(self.options):
                if option not in known:
                    text = f"This should be one of {', '.join(known)}."
                    raise Faults(Fault(f"options[{n}]", text))
            if len(set(self.options)) < 2:
                raise Faults(Fault("options", "A choice needs at least two options."))
            return
        missing = [
            Fault(end, "This is missing.") for end in ("low", "high") if getattr(self, end) is None
        ]
        if missing:
            raise Faults(*missing)
        assert self.low is not None
        assert self.high is not None
        if self.low >= self.high:
            raise Faults(Fault("high", "This must be more than the lowest."))

    @property
    def values(self) -> tuple[Value, ...]:
        """All that a search tries: the options, or the range in a baker's own steps."""
        if self.options:
            return self.options
        low, high = self.low or 0.0, self.high or 0.0
        by = max(_BY[self.field], (high - low) / _FINEST)
        many = int((high - low) / by + 1e-9)
        steps = [round(low + by * k, 3) for k in range(many + 1)]
        return tuple(steps) if steps[-1] >= high - 1e-9 else (*steps, high)

    def complaint(self, value: Value) -> str | None:
        """The sentence about a value that this choice does not allow; None where it does."""
        if self.options:
            return (
                None
                if value in self.options
                else f"This should be one of {', '.join(self.options)}."
            )
        if isinstance(value, str):
            return "This is not a number."
        return Range(self.low or 0.0, self.high or 0.0).complaint(value)


@dataclass(frozen=True)
class Decision(Checked):
    """What was decided: at which step, of what, and the value."""

    step: StepId
    field: Decided
    value: Value

    @property
    def key(self) -> tuple[str, Decided]:
        """What it decides."""
        return self.step, self.field


def value_in(plan: Plan, choice: Choice) -> Value | None:
    """What the plan itself says, or what hands do by themselves; None where the step has no such thing."""
    if choice.field in BY_HAND:
        return BY_HAND[choice.field]
    if choice.field is Decided.STANDS:
        return 0.0  # straight from the fridge, where that is to be decided
    step = plan.steps[plan.at(choice.step)]
    if choice.field in _OF_REST:
        return _rest_value(step, choice.field)
    held: Any = step
    for name in choice.field.value.split("."):
        held = getattr(held, name, None)
    if held is None and choice.field is Decided.TRIM:
        return 0.0
    return held.value if isinstance(held, Worded) else held


_OF_REST = (Decided.REST_MIN, Decided.REST_PLACE, Decided.REST_AIR, Decided.TEMPER)


def _rest_value(step: Step, field: Decided) -> Value | None:
    if step.rest is None:
        return 0.0 if field in (Decided.REST_MIN, Decided.TEMPER) else None
    stay = step.rest.stays[step.gives]
    if field is Decided.TEMPER:
        return step.rest.stays[-1].minutes if _tempers(step.rest) else 0.0
    if field is Decided.REST_MIN:
        return step.rest.minutes
    return stay.place.value if field is Decided.REST_PLACE else stay.air_c


def _tempers(rest: Rest) -> bool:
    """Whether a rest ends on the bench after it lay elsewhere."""
    return len(rest.stays) > 1 and rest.stays[-1].place is Place.BENCH


def fault_of(plan: Plan, choice: Choice) -> Fault | None:
    """Why a choice cannot be given in this plan; None where it can."""
    if plan.at(choice.step) < 0:
        return Fault("step", "The plan has no step with this id.")
    step = plan.steps[plan.at(choice.step)]
    if not _ALLOWED[choice.field](step):
        return Fault(
            "field", f"There is no such thing to decide at this step: {choice.field.said}."
        )
    bounds = ranges(type(step)).get(choice.field.value)
    if bounds and choice.low is not None and choice.high is not None:
        for end, value in (("low", choice.low), ("high", choice.high)):
            said = Range(*bounds).complaint(value)
            if said:
                return Fault(end, said)
    return None


def _has(name: str) -> Callable[[Step], bool]:
    return lambda step: hasattr(step, name)


def _rolls(step: Step) -> bool:
    return getattr(step, "roll_to_mm", None) is not None


_ALLOWED: dict[Decided, Callable[[Step], bool]] = {
    Decided.CALL: lambda step: True,
    Decided.STANDS: _has("block_width_mm"),
    Decided.CHILLED: lambda step: True,
    Decided.MARGIN: _has("margin_mm"),
    Decided.BLOCK_WIDTH: _has("block_width_mm"),
    Decided.OFF_CENTRE: _has("off_centre_mm"),
    Decided.CARE: lambda step: _rolls(step) or hasattr(step, "off_centre_mm"),
    Decided.DIRECTION: _rolls,
    Decided.ROLL_TO: _rolls,
    Decided.UNEVEN: _has("uneven_pct"),
    Decided.PACE: _rolls,
    Decided.TRIM: _has("trim"),
    Decided.FOLD: _has("fold"),
    Decided.SHORT: _has("short_mm"),
    Decided.MARKS: _has("kerf_mm"),
    Decided.REST_PLACE: lambda step: step.rest is not None,
    Decided.REST_AIR: lambda step: step.rest is not None,
    Decided.REST_MIN: lambda step: True,
    Decided.TEMPER: lambda step: step.rest is not None,
}


def in_order(decisions: Iterable[Decision]) -> list[Decision]:
    """Decisions as they are put: where a dough lies comes before for how long."""
    return sorted(decisions, key=lambda d: list(Decided).index(d.field))


def put(step: Step, field: Decided, value: Value, trim: type[Any]) -> Step:
    """A step with a value decided for it; as it is where hands decide and the plan has no field.

    ``trim``: what a step's trim is made of. Raises Faults where what comes of it is no step.
    """
    if field in BY_HAND or field is Decided.STANDS:
        return step
    if field is Decided.REST_MIN:
        minutes = float(value)
        if step.rest is None:
            return replace(step, rest=Rest.at(Place.FRIDGE, minutes)) if minutes else step
        return step.resting(minutes)
    if field in (Decided.REST_PLACE, Decided.REST_AIR):
        assert step.rest is not None
        n = step.gives
        stay = step.rest.stays[n]
        if field is Decided.REST_PLACE:
            # what one place was set to says nothing of another
            at = word(Place, value)
            air_c = stay.air_c if at is stay.place else None
            stay = replace(stay, place=at, air_c=air_c, to_c=None, until_c=None)
        else:
            stay = replace(stay, air_c=float(value), to_c=None)
        return replace(step, rest=step.rest.with_stay(n, stay))
    if field is Decided.TEMPER:
        assert step.rest is not None
        stays = step.rest.stays[:-1] if _tempers(step.rest) else step.rest.stays
        return replace(step, rest=Rest((*stays, Stay(Place.BENCH, float(value)))))
    if field is Decided.TRIM:
        now = getattr(step, "trim") or trim()  # noqa: B009
        return replace(step, trim=replace(now, ends_mm=float(value)))  # type: ignore[call-arg]
    words = WORDS.get(field)
    made: Any = word(words, value) if words else float(value)
    return replace(step, **{field.value: made})
