"""The simulated bench: every step of a play as it stands, what a hand would feel, and the course of a rest.

What is asked at a step, and how warm the dough would be after any minute in each place it may lie in, so
that a tablet can let time run without asking again.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from lamination.heat.body import Body
from lamination.heat.conduction import Course, still
from lamination.lessons.best import value_said, values_of
from lamination.lessons.choices import WORDS, Choice, Decided, Decision, Value
from lamination.lessons.harms import owed
from lamination.lessons.play import Played
from lamination.materials.thermal import Profile
from lamination.plan.work import work
from lamination.steps.base import Step
from lamination.terms.rests import Stay
from lamination.terms.trade import Place
from lamination.warmth import Bend, Stretch

_UNITS = {
    Decided.REST_MIN: "min",
    Decided.TEMPER: "min",
    Decided.STANDS: "min",
    Decided.REST_AIR: "°C",
    Decided.UNEVEN: "%",
}
_BEYOND_MIN = 60.0  # a rest whose minutes are not asked for is shown so far beyond them
_LONGEST_MIN = 24 * 60.0


@dataclass(frozen=True, slots=True)
class Felt:
    """What a probe and a hand say: the middle and the coldest or warmest face, °C, and the butter's mean.

    ``bend``: what a corner of the butter does; None without butter. ``pulls_back``: the dough has not
    relaxed. ``risen_pct``: of a whole proof since the last roll or, of pieces, since they were shaped.
    """

    middle_c: float
    face_c: float
    butter_c: float | None
    bend: Bend | None
    pulls_back: bool
    risen_pct: float | None
    says: str


@dataclass(frozen=True, slots=True)
class FeltSign:
    """What is felt or seen of a dough from a minute of its rest on, in a sentence."""

    from_min: float
    says: str


@dataclass(frozen=True, slots=True)
class PlaceCourse:
    """A dough in one place, minute by minute from when its rest begins, as :class:`Felt` has it.

    ``butter_c`` and ``risen_pct`` are empty where there is none. ``signs``: what a hand and an eye would
    say, each from its minute on.
    """

    place: Place
    said: str
    minutes: tuple[float, ...]
    middle_c: tuple[float, ...]
    face_c: tuple[float, ...]
    butter_c: tuple[float, ...]
    risen_pct: tuple[float, ...]
    signs: tuple[FeltSign, ...]


@dataclass(frozen=True, slots=True)
class AskedOption:
    """One of several that may be chosen, with its name."""

    value: str
    said: str


@dataclass(frozen=True, slots=True)
class AskedChoice:
    """What may be decided at a step: its name, the range and its unit or the options, and what stands."""

    field: Decided
    said: str
    low: float | None
    high: float | None
    unit: str
    options: tuple[AskedOption, ...]
    now: Value | None
    now_said: str


@dataclass(frozen=True, slots=True)
class Moment:
    """A step of the play: when its work begins, min, how long it takes, what is felt before and after.

    ``asked``: what is decided before the work; ``asked_rest``: when it rests. ``call_min``: somebody
    calls as it is about to begin. ``proofs``: what rests are shaped pieces. ``courses``: its rest in every
    place that may be chosen, from ``rests_at_min`` on; ``rest_min``: how long it rests as it stands.
    """

    stop: str
    name: str
    n: int
    starts_min: float
    takes_min: float
    does: tuple[str, ...]
    hint: str
    call_min: float | None
    before: Felt | None
    after: Felt | None
    asked: tuple[AskedChoice, ...]
    asked_rest: tuple[AskedChoice, ...]
    place: Place | None
    where: str
    proofs: bool
    rests_at_min: float
    rest_min: float
    courses: tuple[PlaceCourse, ...]


@dataclass(frozen=True, slots=True)
class SimulatedBench:
    """A play as it stands. ``opens``: the step at which the first decision is asked for.

    ``butter``: the four marks of the butter as its maker says, °C; this lot may be softer or harder.
    """

    moments: tuple[Moment, ...]
    opens: int
    begins_h: float
    brittle_c: float
    plastic_from_c: float
    plastic_to_c: float
    oils_c: float
    butterless: bool
    stretches: tuple[Stretch, ...]


def bench_of(play: Played) -> SimulatedBench:
    """A play as its bench stands, every step of it."""
    found, lesson = play.followed, play.lesson
    steps = found.walk.plan.steps
    values = dict(
        zip(
            ((c.step, c.field) for c in lesson.choices),
            values_of(lesson, _decisions(play)),
            strict=True,
        )
    )
    does = {s.key: s.does for s in work(play.plan, play.kitchen).strip}
    calls = dict(play.mood.calls)
    hints = {h.step: h.says for h in lesson.hints}
    owes = owed(play)
    moments = []
    for n, step in enumerate(steps):
        timed = found.walk.clock[n]
        asked = [_asked(c, values[c.step, c.field]) for c in lesson.choices if c.step == step.id]
        at_it = [course for _, course, _ in found.spent(step.id, working=True)]
        before = at_it[0].body_at(0.0) if at_it else None
        began = found.began.get(step.id)
        after = began.body if began else at_it[-1].end if at_it else None
        moments.append(
            Moment(
                step.id, found.walk.names[n], n, timed.starts_min, timed.bench_min,
                does.get(step.id, ()), hints.get(step.id, ""), calls.get(step.id),
                _felt(play, before, owes[n].before_min, None) if before is not None else None,
                _felt(play, after, owes[n].after_min, None) if after is not None else None,
                tuple(a for a in asked if not a.field.value.startswith("rest.")),
                tuple(a for a in asked if a.field.value.startswith("rest.")),
                step.rest.stays[step.gives].place if step.rest else None,
                step.rest.stays[step.gives].there if step.rest else "",
                step.proofs,
                timed.starts_min + timed.bench_min,
                step.rest.minutes if step.rest else 0.0,
                _courses(play, n, step, owes[n].after_min),
            )
        )  # fmt: skip
    window = found.walk.recipe.window
    opens = min(found.walk.plan.at(c.step) for c in lesson.choices)
    return SimulatedBench(
        tuple(moments), opens, play.kitchen["day.begins_h"], window.brittle_c, window.plastic_from_c,
        window.plastic_to_c, window.oils_c, found.walk.recipe.butterless, found.stretches,
    )  # fmt: skip


def _decisions(play: Played) -> tuple[Decision, ...]:
    return tuple(Decision(step, field, value) for (step, field), value in play.decided.items())


def _asked(choice: Choice, now: Value | None) -> AskedChoice:
    words = WORDS.get(choice.field)
    options = tuple(
        AskedOption(o, words(o).said)  # type: ignore[call-arg]
        for o in choice.options
        if words
    )
    said = "" if now is None else value_said(choice.field, now)
    return AskedChoice(
        choice.field, choice.field.said, choice.low, choice.high,
        "" if options else _UNITS.get(choice.field, "mm"), options, now, said,
    )  # fmt: skip


def _felt(play: Played, body: Body, owes_min: float, risen_pct: float | None) -> Felt:
    face = _face(body, body.t_c[None, :])[0]
    butter = float(body.butter_shares @ body.t_c) if body.has_butter else None
    bend = None if butter is None else bends(play, butter)
    pulls = owes_min > 0.5
    return Felt(
        round(body.middle_c, 1), round(float(face), 1), None if butter is None else round(butter, 1), bend,
        pulls, risen_pct, _touch(bend, pulls),
    )  # fmt: skip


def bends(play: Played, butter_c: float) -> Bend:
    """What a corner of this lot's butter does at a temperature: cracks, bends or smears."""
    window = play.window
    if butter_c < window.brittle_c:
        return Bend.CRACKS
    return Bend.SMEARS if butter_c > window.plastic_to_c else Bend.BENDS


def _touch(bend: Bend | None, pulls: bool) -> str:
    dough = "it pulls back" if pulls else "it lies quiet"
    if bend is None:
        return f"{dough[0].upper()}{dough[1:]} when you lift an edge."
    return f"A corner {bend.said}; {dough} when you lift an edge."


def _face(body: Body, profiles: Profile) -> Profile:
    """The face farther from the middle, °C, of every profile."""
    middle, below, above = body.middle_of(profiles), profiles[:, 0], profiles[:, -1]
    found: Profile = np.where(np.abs(below - middle) > np.abs(above - middle), below, above)
    return found


def _courses(play: Played, n: int, step: Step, owes_min: float) -> tuple[PlaceCourse, ...]:
    """A rest in every place that may be chosen, as far as its minutes may go."""
    lesson, began = play.lesson, play.followed.began.get(step.id)
    minutes, places = (
        lesson.choice(step.id, Decided.REST_MIN),
        lesson.choice(step.id, Decided.REST_PLACE),
    )
    body = began.body if began else _end_of_work(play, step.id)
    if (minutes is None and places is None) or body is None:
        return ()
    rest = step.rest
    stays = rest.stays if rest else (Stay(Place.FRIDGE, 0.0),)
    at = step.gives
    most = (
        minutes.high if minutes and minutes.high else (rest.minutes if rest else 0.0) + _BEYOND_MIN
    )
    until = min(max(most, rest.minutes if rest else 0.0), _LONGEST_MIN)
    options = [Place(o) for o in places.options] if places else [stays[at].place]  # type: ignore[call-arg]
    return tuple(
        _in_place(play, n, body, stays[:at], _there(stays[at], p), until, owes_min) for p in options
    )


def _end_of_work(play: Played, stop: str) -> Body | None:
    ends = [course.end for _, course, _ in play.followed.spent(stop, working=True)]
    return ends[-1] if ends else None


def _there(stay: Stay, place: Place) -> Stay:
    return (
        stay
        if stay.place is place
        else replace(stay, place=place, air_c=None, to_c=None, until_c=None)
    )


def _in_place(
    play: Played,
    n: int,
    body: Body,
    before: tuple[Stay, ...],
    stay: Stay,
    until: float,
    owes_min: float,
) -> PlaceCourse:
    found = play.followed
    began = found.began.get(found.walk.plan.steps[n].id)
    open_air = began.open_air if began else False
    clock = found.walk.clock[n]
    course, at = still(body), clock.starts_min + clock.bench_min
    for one in before:
        course = course.then(found.scene.through(course.end, one, open_air, at))
        at += one.minutes
    lasts = max(until - sum(s.minutes for s in before), 1.0)
    course = course.then(
        found.scene.through(course.end, replace(stay, minutes=lasts), open_air, at)
    )
    moments = _minutes(float(course.minutes[-1]))
    profiles = course.at(moments)
    butter = profiles @ body.butter_shares if body.has_butter and not open_air else None
    risen = _risen(play, course, moments, began.proofed if open_air and began else 0.0)
    signs = (
        _of_pieces(play, moments, risen) if open_air else _of_dough(play, moments, butter, owes_min)
    )
    return PlaceCourse(
        stay.place,
        stay.there,
        tuple(moments.tolist()),
        tuple(body.middle_of(profiles).round(1).tolist()),
        tuple(_face(body, profiles).round(1).tolist()),
        () if butter is None else tuple(butter.round(1).tolist()),
        risen,
        signs,
    )


# What an eye sees of pieces, from so many hundredths of what their family wants on. Source: trade practice.
_SEEN = (
    (0, "The pieces stand as they were shaped."),
    (20, "They have begun to swell; the leaves are still shut."),
    (50, "Half as big again; leaves show at the cut edges."),
    (85, "Doubled; leaves are visible, and the tray trembles when it is nudged."),
    (130, "Very full; a touch leaves a mark that fills slowly."),
    (180, "Blown up and slack; a touch leaves a dent that stays."),
)


def _of_pieces(play: Played, moments: Profile, risen: tuple[float, ...]) -> tuple[FeltSign, ...]:
    share = play.kitchen.of_family(play.plan.family, "proof.share_pct")
    if not risen or share <= 0:
        return (FeltSign(0.0, _SEEN[0][1]),)
    said = [next(text for pct, text in reversed(_SEEN) if 100 * at / share >= pct) for at in risen]
    return _as_they_change(moments, said)


def _of_dough(
    play: Played, moments: Profile, butter: Profile | None, owes_min: float
) -> tuple[FeltSign, ...]:
    said = []
    for n, minute in enumerate(moments.tolist()):
        at = None if butter is None else float(butter[n])
        bend = None if at is None else bends(play, at)
        said.append(_touch(bend, minute < owes_min - 0.5))
    return _as_they_change(moments, said)


def _as_they_change(moments: Profile, said: list[str]) -> tuple[FeltSign, ...]:
    return tuple(
        FeltSign(minute, text)
        for n, (minute, text) in enumerate(zip(moments.tolist(), said, strict=True))
        if n == 0 or said[n - 1] != text
    )


def _risen(play: Played, course: Course, moments: Profile, before: float) -> tuple[float, ...]:
    found = play.followed
    if found.leaven is None:
        return ()
    doses = before + course.gathered(found.scene.rates, moments)[0]
    return tuple((100 * doses / found.scene.whole).round(1).tolist())


def _minutes(until: float) -> Profile:
    """Every minute of two hours, every five of eight, every quarter of an hour from then on."""
    parts = [
        np.arange(0, min(until, 120), 1.0),
        np.arange(120, min(until, 480), 5.0),
        np.arange(480, until, 15.0),
    ]
    return np.union1d(np.concatenate([p for p in parts if len(p)]), [until])
