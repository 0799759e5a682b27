"""Mornings to try: several doughs on one bench, before it is real."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from django.http import Http404, HttpRequest
from ninja import Body, Router

from bakehouse.lessons.files import mornings
from bakehouse.loops import wait_for_none
from bakehouse.people.roles import signed_in
from lamination.lessons import (
    Begins,
    Morning,
    MorningCost,
    MorningPlay,
    best_morning,
    morning_costs,
    morning_play,
)
from lamination.terms import Checked, Length, Range

router = Router(tags=["lessons"])


@dataclass
class MorningLine:
    """A morning in the list."""

    key: str
    name: str
    words: str


@dataclass
class MorningView:
    """A morning: when each dough begins if nobody says else, and what it comes to so."""

    line: MorningLine
    hint: str
    begins: list[Begins]
    play: MorningPlay


@dataclass(frozen=True)
class MorningBegun(Checked):
    """When each dough is begun; and how many seconds the best may be looked for."""

    begins: Annotated[tuple[Begins, ...], Length(0, 40, "doughs")] = ()
    seconds: Annotated[float, Range(0, 20, "s")] = 0.0


@dataclass
class MorningResult:
    """One's own morning, the best that was found, and what each dough's hour cost."""

    mine: MorningPlay
    best: MorningPlay
    costs: list[MorningCost]


def _morning(key: str) -> Morning:
    found = mornings().get(key)
    if found is None:
        raise Http404("There is no such morning.")
    return found


@router.get("/mornings", auth=signed_in, response=list[MorningLine])
def all_mornings(request: HttpRequest) -> list[MorningLine]:
    return [MorningLine(key, of.name, of.words) for key, of in mornings().items()]


@router.get("/mornings/{morning}", auth=signed_in, response=MorningView)
def one_morning(request: HttpRequest, morning: str) -> MorningView:
    of = _morning(morning)
    wait_for_none()
    begins = [Begins(held.dough, held.at) for held in of.day.held]
    line = MorningLine(morning, of.name, of.words)
    return MorningView(line, of.hint, begins, morning_play(of))


@router.post("/mornings/{morning}/play", auth=signed_in, response=MorningPlay)
def play_morning(request: HttpRequest, morning: str, begun: Body[MorningBegun]) -> MorningPlay:
    of = _morning(morning)
    wait_for_none()
    return morning_play(of, begun.begins)


@router.post("/mornings/{morning}/outcome", auth=signed_in, response=MorningResult)
def morning_outcome(request: HttpRequest, morning: str, begun: Body[MorningBegun]) -> MorningResult:
    """What a morning comes to, beside the best found in so many seconds."""
    of = _morning(morning)
    wait_for_none()
    mine = morning_play(of, begun.begins)
    best = best_morning(of, begun.seconds)
    if mine.timetable.cost <= best.timetable.cost:
        best = mine
    return MorningResult(mine, best, list(morning_costs(of, begun.begins, best)))
