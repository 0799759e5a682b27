"""The best play of a lesson's day, searched; and what each decision of another play cost.

The search is coordinate ascent: one decision after another is given the value that is worth most with
the others as they are, until none gains; from the play itself, the plan, and a few plays drawn by the
seed. A play is followed in a few thousandths of a second, so nothing cleverer is needed.
"""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from lamination.lessons.choices import WORDS, Choice, Decided, Decision, Value, value_in, word
from lamination.lessons.lesson import Lesson
from lamination.lessons.outcome import Outcome, outcome_of
from lamination.lessons.play import played
from lamination.plan.walk import walk
from lamination.terms.limits import Faults
from lamination.terms.said import c, mm, named, say, span

_FEW = 7  # values of a range that are tried before it is looked at more closely
_STARTS = 1  # plays drawn by the seed, besides the plan and the play itself
_SWEEPS = 4
_GAINS = 1e-6
_SMALL = 0.005  # of what a play is worth: less is no cost to speak of

Progress = Callable[[float, Outcome], bool]


@dataclass(frozen=True, slots=True)
class BestPlay:
    """The best play found, what it comes to, how many were followed; ``stopped``: before its end."""

    decisions: tuple[Decision, ...]
    outcome: Outcome
    followed: int
    stopped: bool


@dataclass(frozen=True, slots=True)
class Cost:
    """What one decision cost: what would have come out had it alone been the best play's, less what did.

    Above 0 it cost something: lift, openness, evenness and worth that were lost, butter lost besides.
    ``instead``: the best play's value.
    """

    decision: str
    step: str
    field: Decided
    value: Value
    instead: Value
    lift: float
    openness_pct: float
    fat_lost_pct: float
    evenness_pct: float
    worth: float
    says: str


class Worths:
    """What plays of a lesson are worth, each followed once."""

    def __init__(self, lesson: Lesson) -> None:
        self.lesson, self.plan = lesson, values_of(lesson, ())
        self.known: dict[tuple[Value | None, ...], Outcome | None] = {}

    def of(self, values: tuple[Value | None, ...]) -> Outcome | None:
        """What a value for every choice comes to; None where it cannot be done."""
        if values not in self.known:
            try:
                self.known[values] = outcome_of(played(self.lesson, self._decided(values)))
            except Faults:
                self.known[values] = None
        return self.known[values]

    def _decided(self, values: tuple[Value | None, ...]) -> tuple[Decision, ...]:
        """Without what the plan says anyway."""
        kept = [None if v == p else v for v, p in zip(values, self.plan, strict=True)]
        return decisions_of(self.lesson, tuple(kept))


def decisions_of(lesson: Lesson, values: tuple[Value | None, ...]) -> tuple[Decision, ...]:
    """A value for every choice of a lesson as decisions; None decides nothing."""
    return tuple(
        Decision(choice.step, choice.field, value)
        for choice, value in zip(lesson.choices, values, strict=True)
        if value is not None
    )


def values_of(lesson: Lesson, decisions: tuple[Decision, ...]) -> tuple[Value | None, ...]:
    """The value of every choice in a play: what was decided, or else what the plan or the hands do."""
    decided = {d.key: d.value for d in decisions}
    return tuple(decided.get((c.step, c.field), value_in(lesson.plan, c)) for c in lesson.choices)


def random_play(lesson: Lesson, seed: int) -> tuple[Decision, ...]:
    """A play in which everything is decided by chance, among the values that a search tries."""
    chance = random.Random(f"play {seed}")
    return decisions_of(lesson, tuple(chance.choice(c.values) for c in lesson.choices))


def best_play(
    lesson: Lesson,
    begun: tuple[Decision, ...] = (),
    progress: Progress | None = None,
    known: Worths | None = None,
) -> BestPlay:
    """The play that is worth most on the lesson's day, as far as it was searched.

    ``progress``: told how far it is, 0 to 1, and the best so far; it stops where that answers False.
    ``known``: what plays of this lesson were worth in a search before, which goes on from there.
    Not proven to be the best of all; it is never worse than the play it begins with, nor than the plan.
    Raises Faults where not even the plan can be played.
    """
    worth = known or Worths(lesson)
    plan = values_of(lesson, ())
    best = plan, worth.of(plan) or outcome_of(played(lesson, ()))
    starts = [plan, values_of(lesson, begun)]
    starts += [values_of(lesson, random_play(lesson, lesson.seed + n)) for n in range(_STARTS)]
    steps = len(starts) * len(lesson.choices) * 2
    done = 0
    for start in starts:
        for climbed in _climb(worth, start):
            if _better(climbed[1], best[1]):
                best = climbed
            done += 1
            if progress and not progress(min(done / steps, 0.99), best[1]):
                return BestPlay(decisions_of(lesson, best[0]), best[1], len(worth.known), True)
    if progress:
        progress(1.0, best[1])
    return BestPlay(decisions_of(lesson, best[0]), best[1], len(worth.known), False)


def _better(one: Outcome, than: Outcome) -> bool:
    """Worth more; of two worth the same the one that is done sooner."""
    if abs(one.worth - than.worth) > _GAINS:
        return one.worth > than.worth
    return one.takes_min < than.takes_min - _GAINS


def _climb(
    worth: Worths, values: tuple[Value | None, ...]
) -> Iterator[tuple[tuple[Value | None, ...], Outcome]]:
    """One decision after another at its best, until none gains; what stands after each."""
    now = worth.of(values)
    for _ in range(_SWEEPS):
        before = now
        for n, choice in enumerate(worth.lesson.choices):
            values, now = _best_of(worth, values, now, n, choice)
            if now is not None:
                yield values, now
        if now is None or (before is not None and not _better(now, before)):
            return


def _best_of(
    worth: Worths, values: tuple[Value | None, ...], now: Outcome | None, n: int, choice: Choice
) -> tuple[tuple[Value | None, ...], Outcome | None]:
    """The best value of one choice with the others as they are: of a few all, of many ever closer."""
    grid = choice.values
    step = max(1, (len(grid) - 1) // (_FEW - 1))
    places = set(range(0, len(grid), step)) | {len(grid) - 1}
    best = values, now
    at: int | None = None
    tried: set[int] = set()
    while True:
        for place in sorted(places - tried):
            tried.add(place)
            with_it = (*values[:n], grid[place], *values[n + 1 :])
            came = worth.of(with_it)
            if came and (best[1] is None or _better(came, best[1])):
                best, at = (with_it, came), place
        if step <= 1:
            return best
        step //= 2
        middle = at if at is not None else _nearest(grid, values[n])
        places = {p for p in (middle - step, middle, middle + step) if 0 <= p < len(grid)}


def _nearest(grid: tuple[Value, ...], value: Value | None) -> int:
    if not isinstance(value, int | float):
        return 0
    off = [abs(float(g) - value) for g in grid]
    return off.index(min(off))


def costs_of(lesson: Lesson, decisions: tuple[Decision, ...], best: BestPlay) -> tuple[Cost, ...]:
    """What each decision of a play cost, by changing it alone to the best play's; the dearest first.

    Costs do not add up: two mistakes on the same leaves cost less together than apart.
    """
    worth = Worths(lesson)
    hers, theirs = values_of(lesson, decisions), values_of(lesson, best.decisions)
    names = walk(lesson.plan, lesson.kitchen).names
    came = worth.of(hers) or outcome_of(played(lesson, decisions))
    found = []
    for n, choice in enumerate(lesson.choices):
        value, instead = hers[n], theirs[n]
        if value is None or instead is None:
            continue
        other = came if value == instead else worth.of((*hers[:n], instead, *hers[n + 1 :]))
        if other is None:
            continue
        name = named(names[lesson.plan.at(choice.step)])
        found.append(_cost(name, choice, value, instead, came, other))
    return tuple(sorted(found, key=lambda c: -c.worth))


def _cost(
    name: str, choice: Choice, value: Value, instead: Value, came: Outcome, other: Outcome
) -> Cost:
    lost = round(other.worth - came.worth, 3)
    return Cost(
        f"{choice.step} {choice.field.value}", choice.step, choice.field, value, instead,
        round(other.lift - came.lift, 3), round(other.openness_pct - came.openness_pct, 2),
        round(came.fat_lost_pct - other.fat_lost_pct, 2), round(other.evenness_pct - came.evenness_pct, 2),
        lost, _says(name, choice, value, instead, came, other),
    )  # fmt: skip


def value_said(field: Decided, value: Value) -> str:
    """A value of a choice in words: ``40 min``, ``8 mm``, ``fridge``."""
    words = WORDS.get(field)
    if words is not None:
        return word(words, value).said
    number = float(value)
    if field in (Decided.REST_MIN, Decided.TEMPER, Decided.STANDS):
        return span(number)
    if field is Decided.REST_AIR:
        return c(number)
    return f"{say(number)} %" if field is Decided.UNEVEN else mm(number)


def _says(
    name: str, choice: Choice, value: Value, instead: Value, came: Outcome, other: Outcome
) -> str:
    was = f"{name}, {choice.field.said}: {value_said(choice.field, value)}"
    if value == instead:
        return f"{was}, as in the best play."
    then = f"{was}; the best play has {value_said(choice.field, instead)}."
    gains = []
    if other.lift - came.lift > 0.02:
        gains.append(f"{other.lift - came.lift:.2f} times its height")
    if other.openness_pct - came.openness_pct > 0.3:
        gains.append(f"{say(other.openness_pct - came.openness_pct)} % of openness")
    if came.fat_lost_pct - other.fat_lost_pct > 0.2:
        gains.append(f"{say(came.fat_lost_pct - other.fat_lost_pct)} % of the butter")
    if other.evenness_pct - came.evenness_pct > 0.3:
        gains.append(f"{say(other.evenness_pct - came.evenness_pct)} % of evenness")
    if came.late_min - other.late_min > 1:
        gains.append(span(came.late_min - other.late_min))
    if not gains or other.worth - came.worth <= _SMALL:
        return f"{then} By itself it cost nothing to speak of."
    return f"{then} By itself it cost {', '.join(gains)}."
