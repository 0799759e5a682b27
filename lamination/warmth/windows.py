"""When a rest may end: four marks, what sets them, and what becomes of the minutes that were chosen.

Possible from, good from, good until, possible until. Between the good marks there is nothing to say;
between good and possible it is tight; outside it minds. What is judged is the state at the end of the
rest, tempering included, for every length the rest might have.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import reduce
from itertools import pairwise
from typing import Literal

import numpy as np

from lamination.materials.thermal import Profile
from lamination.terms.said import c, span
from lamination.terms.trade import Worded

Verdict = Literal["good", "tight", "short", "long"]
_ON_TIME_MIN = 0.5  # a rest this close to a mark is on it


class Cause(Worded):
    """What sets a mark."""

    RELAXING = "relaxing", "relaxing"
    COOLING = "cooling", "cooling"
    COLD = "cold", "cooling for the lock-in"
    BRITTLE = "brittle", "brittle butter"
    SOFT = "soft", "soft butter"
    FROZEN = "frozen", "frozen dough"
    RISING = "rising", "rising between the turns"
    RIPE = "ripe", "ripening"
    PROOF = "proof", "the proof"
    OVER = "over", "over-proofing"
    DRIES = "dries", "a sheet that dries"


@dataclass(frozen=True, slots=True)
class RestWindow:
    """When a rest may end, min from its start; None where a mark never comes.

    ``best_min`` lies between the good marks. ``from_by`` and ``until_by`` say what sets them, ``by``
    what the verdict is owed to. ``middle_c`` and ``butter_c`` are at the chosen end (butter is None
    before the lock-in); ``reached_pct``: of a whole proof, where the rest is one.
    """

    stop: str
    chosen_min: float
    verdict: Verdict
    possible_from_min: float | None
    good_from_min: float | None
    best_min: float | None
    good_until_min: float | None
    possible_until_min: float | None
    from_by: Cause | None
    until_by: Cause | None
    by: Cause | None
    middle_c: float
    butter_c: float | None
    reached_pct: float | None
    says: str


@dataclass(frozen=True, slots=True)
class Condition:
    """Something that must hold at the end of a rest, for every length: margins, positive where it does.

    ``good`` and ``possible`` on the same minutes. ``comes``: time brings it about, so that failing it
    the rest is short; otherwise time takes it away.
    """

    cause: Cause
    comes: bool
    good: Profile
    possible: Profile


@dataclass(frozen=True, slots=True)
class _Span:
    """A stretch of lengths over which all conditions hold."""

    low: float
    high: float | None
    from_by: Cause | None
    until_by: Cause | None

    def holds(self, minutes: float) -> bool:
        until = self.high is None or minutes <= self.high + _ON_TIME_MIN
        return self.low - _ON_TIME_MIN <= minutes and until


def _edge(minutes: Profile, margin: Profile, i: int) -> float:
    """Where a margin crosses zero between the moments ``i`` and ``i + 1``."""
    a, b = float(margin[i]), float(margin[i + 1])
    share = a / (a - b) if a != b else 0.5
    return float(minutes[i] + min(max(share, 0.0), 1.0) * (minutes[i + 1] - minutes[i]))


def _spans(minutes: Profile, conditions: list[Condition], good: bool) -> list[_Span]:
    margins = [c.good if good else c.possible for c in conditions]
    if not margins:
        return [_Span(0.0, None, None, None)]
    ok = reduce(np.minimum, margins) >= 0
    turns = (ok[1:] != ok[:-1]).nonzero()[0] + 1  # where it begins to hold, and where it ends
    edges = [0, *turns.tolist(), len(ok)]
    spans: list[_Span] = []
    for start, end in pairwise(edges):
        if not ok[start]:
            continue
        low, from_by = _begins(minutes, margins, conditions, start)
        more = end < len(ok)
        high, until_by = _ends(minutes, margins, conditions, end - 1) if more else (None, None)
        spans.append(_Span(low, high, from_by, until_by))
    return spans


def _begins(
    minutes: Profile, margins: list[Profile], conditions: list[Condition], i: int
) -> tuple[float, Cause | None]:
    if i == 0:
        return 0.0, None
    failing = [n for n in range(len(conditions)) if margins[n][i - 1] < 0]
    edges = [(_edge(minutes, margins[n], i - 1), n) for n in failing]
    at, n = max(edges)
    return at, conditions[n].cause


def _ends(
    minutes: Profile, margins: list[Profile], conditions: list[Condition], i: int
) -> tuple[float, Cause]:
    failing = [n for n in range(len(conditions)) if margins[n][i + 1] < 0]
    edges = [(_edge(minutes, margins[n], i), n) for n in failing]
    at, n = min(edges)
    cause = conditions[n].cause
    return at, Cause.SOFT if cause is Cause.COOLING else cause


def _nearest(spans: list[_Span], chosen: float) -> _Span | None:
    """The stretch that holds the chosen minutes, or else the one nearest to them."""

    def off(s: _Span) -> float:
        return max(s.low - chosen, chosen - s.high if s.high is not None else 0.0, 0.0)

    return min(spans, key=off, default=None)


@dataclass(frozen=True, slots=True)
class State:
    """What a rest comes to for every length it might have, on the same ``minutes``."""

    minutes: Profile
    middle_c: Profile
    butter_c: Profile | None
    wanted_c: float | None = None
    reached_pct: Profile | None = None

    def at(self, values: Profile, minute: float) -> float:
        """One of its values at a length."""
        return float(np.interp(minute, self.minutes, values))


def window_of(
    stop: str, chosen_min: float, state: State, conditions: list[Condition]
) -> RestWindow:
    """The marks of a rest and its verdict, from what must hold at its end.

    The good stretch is the one nearest to the minutes chosen, and the possible one that holds it.
    """
    good = _nearest(_spans(state.minutes, conditions, True), chosen_min)
    possible_spans = _spans(state.minutes, conditions, False)
    around = chosen_min if good is None else min(max(chosen_min, good.low), good.high or 1e9)
    possible = _nearest(possible_spans, around)
    here = _nearest(possible_spans, chosen_min)
    verdict: Verdict
    by: Cause | None = None
    if good and good.holds(chosen_min):
        verdict = "good"
    elif here and here.holds(chosen_min):
        verdict, by = "tight", _failing(state.minutes, conditions, chosen_min, True)
    else:
        by = _failing(state.minutes, conditions, chosen_min, False)
        short = [c for c in conditions if c.comes and _margin(state, c, chosen_min) < 0]
        long = [c for c in conditions if not c.comes and _margin(state, c, chosen_min) < 0]
        before = possible is not None and chosen_min < possible.low
        verdict = "short" if before or (short and not long) else "long"
        if verdict == "short" and short:
            by = max(short, key=lambda c: -_margin(state, c, chosen_min)).cause
    best = None
    if good:
        target = good.low
        if state.wanted_c is not None and state.butter_c is not None:
            below = np.flatnonzero(state.butter_c <= state.wanted_c)
            target = float(state.minutes[below[0]]) if len(below) else good.low
        best = max(target, good.low)
        if good.high is not None:
            best = min(best, max((good.low + good.high) / 2, good.low))
    middle = state.at(state.middle_c, chosen_min)
    butter = None if state.butter_c is None else state.at(state.butter_c, chosen_min)
    reached = None if state.reached_pct is None else state.at(state.reached_pct, chosen_min)
    window = RestWindow(
        stop, chosen_min, verdict,
        possible.low if possible else None, good.low if good else None, best,
        good.high if good else None, possible.high if possible else None,
        good.from_by if good else None, good.until_by if good else None, by, middle, butter, reached,
        "",
    )  # fmt: skip
    return _with_words(window)


def _margin(state: State, condition: Condition, at: float) -> float:
    return state.at(condition.possible, at)


def _failing(minutes: Profile, conditions: list[Condition], at: float, good: bool) -> Cause | None:
    worst: tuple[float, Cause] | None = None
    for condition in conditions:
        margin = float(np.interp(at, minutes, condition.good if good else condition.possible))
        if margin < 1e-9 and (worst is None or margin < worst[0]):
            soft = condition.cause is Cause.COOLING and condition.good[0] >= 0
            worst = margin, Cause.SOFT if soft else condition.cause
    return worst[1] if worst else None


def _with_words(w: RestWindow) -> RestWindow:
    values = {name: getattr(w, name) for name in RestWindow.__dataclass_fields__}
    return RestWindow(**{**values, "says": said_of(w)})


_TIGHT = {
    Cause.RELAXING: "it may still spring back a little: give it a few minutes more if you can",
    Cause.COOLING: "it is just cold enough: be quick",
    Cause.COLD: "it is just cold enough: be quick",
    Cause.BRITTLE: "the outer butter is firm: begin with soft strokes, or let it stand a few minutes",
    Cause.SOFT: "the butter is nearly too soft: be quick",
    Cause.FROZEN: "its faces are frozen: let it stand a few minutes",
    Cause.RISING: "it has begun to rise: roll it now",
    Cause.RIPE: "it is getting ripe: use it soon",
    Cause.PROOF: "it is just ready",
    Cause.OVER: "bake it now",
    Cause.DRIES: "the sheet begins to dry and is harder to cut: keep it wrapped",
}
_LONG = {
    Cause.BRITTLE: "The outer butter is brittle and snaps. Let it stand on the bench before you roll.",
    Cause.SOFT: "The butter gets too soft here. Rest it somewhere colder.",
    Cause.COOLING: "The butter gets too soft here. Rest it somewhere colder.",
    Cause.FROZEN: "The dough is frozen: it has to thaw before it can be rolled.",
    Cause.RISING: "The yeast is waking: it rises, and tears as it is rolled. Keep it colder.",
    Cause.RIPE: "It has ripened too long: it turns slack and sour. A shorter rest, or a colder place.",
    Cause.OVER: "It is over-proofed by then: it may fall in the oven.",
    Cause.DRIES: "A rolled sheet dries by then and is hard to cut. Let it wait as a block, not rolled.",
}


def said_of(w: RestWindow) -> str:
    """A window's verdict in a sentence, with the reason that sets it."""
    if w.verdict == "tight":
        reason = _TIGHT.get(w.by, "it is at the edge") if w.by else "it is at the edge"
        return f"{_out(w)} {reason[0].upper()}{reason[1:]}."
    if w.verdict == "short":
        return _short(w)
    if w.verdict == "long":
        return _LONG.get(w.by, "It is too long here.") if w.by else "It is too long here."
    return _out(w)


def _out(w: RestWindow) -> str:
    if w.reached_pct is not None:
        return f"It has risen to {w.reached_pct:.0f} % of a whole proof by then; the signs decide."
    if w.butter_c is None:
        return f"It comes out at {c(w.middle_c)}."
    return f"The butter comes out at {c(w.butter_c)}."


def _short(w: RestWindow) -> str:
    if w.by is Cause.PROOF:
        if w.good_from_min is None:
            return "It does not finish here in a day: give it more warmth."
        more = round(w.good_from_min) - round(w.chosen_min)
        return f"Under-proofed: it wants about {span(more)} more here."
    why = (
        "the dough has not relaxed and will spring back"
        if w.by is Cause.RELAXING
        else f"the middle is still {c(w.middle_c)}"
    )
    if w.good_from_min is None:
        if w.by is Cause.RELAXING:
            return f"However long it lies here, {why}."
        return f"It never gets cold enough here: {why}."
    more = round(w.good_from_min) - round(w.chosen_min)
    return f"Wait {span(max(more, 1))} more: {why}."
