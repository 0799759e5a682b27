"""A whole plan's warmth, from the mixer to the proof: one simulation, its rests and its work judged."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np

from lamination.dough.formula import balance
from lamination.heat.body import Body, middle_of, pressed, refolded, warmed
from lamination.heat.conduction import Air, Course, Slab, conduct, still
from lamination.heat.yeast import Leaven, clocks
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Window
from lamination.materials.thermal import Profile
from lamination.plan.plan import Plan
from lamination.plan.walk import Walk, walk
from lamination.steps import kind_of
from lamination.steps.base import Form, Handling
from lamination.terms.limits import swapped
from lamination.terms.rests import Rest
from lamination.terms.trade import Place, Tool
from lamination.warmth.bodies import Around, Matter, Today
from lamination.warmth.conditions import (
    after_rest,
    cold_enough,
    of_butter,
    of_yeast,
    relaxed,
    thawed,
)
from lamination.warmth.followed import (
    Began,
    Followed,
    Stretch,
    WorkClock,
    Works,
    traced,
)
from lamination.warmth.windows import Cause, Condition, RestWindow, State, window_of

_CLOCK_MIN = 90.0  # longer than this nobody works at one turn
AHEAD_MIN = 180.0  # how long a rest is followed beyond the plan, to find its marks
_LONG_AHEAD_MIN = 60 * 60.0  # and one in which nothing happens but ripening
_DAY_MIN = 1_440.0
_TEMPERED = 12  # lengths of a rest whose tempering is followed


def leaven_of(found: Walk, kitchen: Kitchen) -> Leaven | None:
    """What makes a plan's dough rise; None without yeast. Yeasts count by their own strength."""
    formula = found.plan.formula
    if formula is None:
        return None
    of = balance(formula)
    if of.yeast_pct <= 0:
        return None
    return Leaven(
        of.yeast_pct, of.sugar_pct, kitchen["proof.reference_min"],
        kitchen["proof.sugar_from_pct"], kitchen["proof.sugar_slows"],
    )  # fmt: skip


def follow(
    plan: Plan, kitchen: Kitchen, today: Today | None = None, ahead_min: float = AHEAD_MIN
) -> Followed:
    """Follow a plan's dough from the mixer (or the slab) to the end of its proof.

    Work at a step is half at the thickness it starts from and half at what it is rolled to, with the
    heat of rolling put in between. Rests are wrapped; shaped pieces lie open. ``ahead_min``: how long a
    rest with butter in it might become, to look for its marks. The same plan in the same
    kitchen on the same day is followed once. Raises Faults as :func:`~lamination.plan.walk.walk` does.
    """
    today = today or Today()
    # neither a name nor words make a dough warmer
    steps = tuple(swapped(s, words="") if s.words else s for s in plan.steps)
    quiet = swapped(plan, name="-", words="", steps=steps)
    return _follow(quiet, today.in_kitchen(kitchen), today, ahead_min)


@lru_cache(maxsize=64)
def _follow(plan: Plan, kitchen: Kitchen, today: Today, ahead_min: float) -> Followed:
    return Follower(walk(plan, kitchen), kitchen, today, ahead_min).run()


class Follower:
    """The simulation under way: the clock, the body, and what was seen."""

    def __init__(
        self, found: Walk, kitchen: Kitchen, today: Today, ahead_min: float = AHEAD_MIN
    ) -> None:
        self.found, self.kitchen, self.today, self.ahead_min = found, kitchen, today, ahead_min
        self.matter = Matter(found.recipe, kitchen)
        self.around = Around(kitchen, today.room_at_min)
        self.window: Window = found.recipe.window
        self.leaven = leaven_of(found, kitchen)
        self.rates = clocks(kitchen["ripe.times_per_10_k"], self.matter.freezes_c)
        self.whole = self.leaven.whole_dose if self.leaven else float("inf")
        self.body: Body | None = None
        self.minute = self.rise = self.ripe_h = self.sugar = 0.0
        self.windows: list[RestWindow] = []
        self.clocks: list[WorkClock] = []
        self.stretches: list[Stretch] = []
        self.seen: list[tuple[float, Course, float, float]] = []
        self.began: dict[str, Began] = {}
        self.cut_c: float | None = None

    def run(self) -> Followed:
        """Along the steps, until the pieces have proofed."""
        found = self.found
        proofed = False
        for n, (step, made) in enumerate(zip(found.plan.steps, found.made, strict=True)):
            timed = found.clock[n]
            self.minute = timed.starts_min
            if made.handling.apart or made.lies.form is Form.BAKED or proofed:
                continue
            self._work(n, made.handling, timed.bench_min)
            if made.lies.form is Form.PIECES:
                self.cut_c = self.body.mean_c if self.body else None
            if step.rest and step.rest.minutes > 0:
                self._measured(step.id, resting=True)
                self._rest(n, step.rest)
                proofed = made.lies.form is Form.SHAPED
        yeasted = self.leaven is not None
        return Followed(
            found, self.kitchen, tuple(self.windows), tuple(self.clocks), tuple(self.stretches),
            traced(self.seen, self.rates, self.whole if yeasted else None), self.began, self.leaven,
            100 * self.rise / self.whole if yeasted else None, self.ripe_h if yeasted else None,
            self.cut_c,
        )  # fmt: skip

    # --- the body

    def _measured(self, stop: str, resting: bool = False) -> None:
        """Shift the body to the temperature that was really measured, if one was."""
        measured = [m.t_c for m in self.today.starts if m.stop == stop and m.resting is resting]
        if measured and self.body:
            self.body = warmed(self.body, measured[-1] - self.body.middle_c)

    def _there(self, handling: Handling) -> Body:
        """The body that a step begins with, made where there is none."""
        if handling.mixed_c is not None:
            return self.matter.lump(handling.mixed_c)
        if self.body is not None:
            return self.body
        mixed = not handling.shut_in
        return self.matter.lump(self.kitchen["dough.mixed_c" if mixed else "fridge.c"])

    def _work(self, n: int, handling: Handling, minutes: float) -> None:
        step = self.found.plan.steps[n]
        before = self._there(handling)
        if handling.shut_in:
            before = self.matter.package(handling.shut_in, before.mean_c)
        if handling.piece_mm and step.kind_name == "shape":
            before = self.matter.piece(handling.piece_mm, before.mean_c)
        self.body = before
        self._measured(step.id)
        before = self.body
        if handling.rolls or handling.shut_in:
            self.rise = 0.0
        half = minutes / 2
        first = self._on_bench(n, before, half)
        thin = pressed(first, handling.to_mm / 1000) if handling.to_mm else first
        if handling.rolls:
            sheeter = self.found.setting.rolled.tool is Tool.SHEETER
            thin = warmed(thin, self.kitchen[f"roll.by_{'sheeter' if sheeter else 'hand'}_k"])
            self._clock(n, before, thin, minutes)
        second = self._on_bench(n, thin, half)
        self.body = refolded(second, handling.over) if handling.over else second

    def _on_bench(self, n: int, now: Body, minutes: float) -> Body:
        if minutes <= 0:
            return now
        step = self.found.plan.steps[n]
        around = self.around.bench(self.minute + minutes / 2, step.on, step.chilled)
        course = conduct(now, *around, minutes)
        self._saw(course, Stretch(step.id, Place.BENCH, True, self.minute, self.minute + minutes))
        return course.end

    def _clock(self, n: int, before: Body, sheet: Body, takes: float) -> None:
        """Minutes of work until the mean butter leaves its range: half of it as the package."""
        step = self.found.plan.steps[n]
        lasts: float | None = None
        late_c = -np.inf
        if before.has_butter:
            # the course that the work itself takes, and on from there
            around = self.around.bench(self.minute + takes / 4, step.on, step.chilled)
            begun = conduct(sheet, *around, takes / 2)
            course = begun.then(conduct(begun.end, *around, _CLOCK_MIN - takes / 2))
            minutes = np.arange(0, _CLOCK_MIN + 0.25, 0.5)
            soft = np.flatnonzero(
                course.at(minutes) @ sheet.butter_shares >= self.window.plastic_to_c
            )
            if len(soft):
                warm = before.butter_c >= self.window.plastic_to_c
                lasts = 0.0 if warm else float(minutes[soft[0]]) + takes / 2
            late_c = float(course.at(np.array([takes / 2]))[0] @ sheet.butter_shares)
        # past its range at the end, yet far from oily: quick hands manage it
        soft_c, tight = self.window.plastic_to_c, self.kitchen["clock.tight_pct"] / 100
        bears_c = soft_c + tight * (self.window.oils_c - soft_c)
        works: Works = "yes"
        if lasts is not None and lasts < takes and late_c <= soft_c + self.kitchen["clock.slack_k"]:
            lasts = takes
        elif lasts is not None and lasts < takes:
            works = "tight" if late_c <= bears_c else "no"
        self.clocks.append(WorkClock(step.id, takes, lasts, works))

    # --- rests

    def _rest(self, n: int, rest: Rest) -> None:
        assert self.body is not None
        made = self.found.made[n]
        open_air = made.lies.form is Form.SHAPED
        began = Began(n, self.body, self.minute, self.rise, self.ripe_h, self.sugar, open_air)
        step_id = self.found.plan.steps[n].id
        self.began[step_id] = began
        window = self.judged(began, rest)
        if window:
            self.windows.append(window)
        for stay in rest.stays:
            course = conduct(self.body, *self._in(rest, stay.place, stay.minutes, open_air),
                             stay.minutes)  # fmt: skip
            end = self.minute + stay.minutes
            self._saw(course, Stretch(step_id, stay.place, False, self.minute, end))
            self.body = course.end

    def _in(
        self, rest: Rest, place: Place, minutes: float, open_air: bool, at: float | None = None
    ) -> tuple[Air | Slab, Air]:
        middle = (self.minute if at is None else at) + minutes / 2
        if open_air:
            air = self.around.open_air(place, middle, rest.air_c)
            return air, air
        return self.around.place(rest, place, middle)

    def judged(self, began: Began, rest: Rest) -> RestWindow | None:
        """A rest judged from how it began, for the minutes and places given; None if nothing can be."""
        stop = self.found.plan.steps[began.n].id
        if began.open_air:
            return self._proof(began, rest, stop)
        made = self.found.made[began.n]
        if made.lies.form is Form.PIECES or made.lies.form is Form.NOTHING:
            return None
        lengths, courses = self._lengths(began, rest)
        state, conditions = self._conditions(began, rest, lengths, courses)
        return window_of(stop, rest.minutes, state, conditions)

    def _lengths(self, began: Began, rest: Rest) -> tuple[Profile, Course]:
        """The course of a rest up to its tempering, followed beyond what was chosen."""
        ends = (
            (rest.first.minutes if rest.first else 0.0),
            (rest.last.minutes if rest.last else 0.0),
        )
        long = self.ahead_min if began.body.has_butter else _LONG_AHEAD_MIN
        beyond = max(long, rest.minutes + AHEAD_MIN / 2)
        course, at = still(began.body), began.minute
        if rest.first and rest.first.minutes > 0:
            around = self._in(rest, rest.first.place, ends[0], False, at)
            course = course.then(conduct(course.end, *around, ends[0]))
        # first as long as it was chosen, which is what the dough goes on from
        main = max(rest.minutes - ends[0] - ends[1], 0.0)
        around = self._in(rest, rest.place, main, False, at + ends[0])
        for lasts in (main, beyond - ends[0] - main):
            course = course.then(conduct(course.end, *around, lasts))
        coarse: Profile = np.zeros(0)
        fine = np.arange(0, min(beyond, 2 * AHEAD_MIN), 0.5)
        if beyond > 2 * AHEAD_MIN:
            coarse = np.arange(2 * AHEAD_MIN, beyond + 5, 10.0)
        lengths = np.unique(np.concatenate((fine, coarse, [rest.minutes])))
        return lengths[lengths >= ends[0] + ends[1] - 1e-9], course

    def _conditions(
        self, began: Began, rest: Rest, lengths: Profile, course: Course
    ) -> tuple[State, list[Condition]]:
        """What must hold at the end of a rest of each length, tempering included."""
        last = rest.last.minutes if rest.last else 0.0
        if rest.last and last > 0:
            profiles, sums = self._tempered(rest, lengths, course, last)
        else:
            profiles = course.at(lengths)
            sums = course.gathered(self.rates, lengths)
        body, found = began.body, self.found
        butter = profiles @ body.butter_shares if body.has_butter else None
        wanted = (self.window.plastic_from_c + self.window.plastic_to_c) / 2
        state = State(
            lengths, middle_of(profiles), butter, wanted if body.has_butter else None
        )  # fmt: skip
        after = after_rest(found, began.n)
        relax = kind_of(found.plan.steps[began.n]).relaxing(found.here(began.n))
        conditions = relaxed(relax, after, lengths, self.kitchen)
        if butter is not None:
            conditions += of_butter(body, profiles, butter, self.window, after, self.kitchen)
        elif after.locks_in:
            conditions += cold_enough(state.middle_c, self.kitchen)
        if after.worked:
            conditions += thawed(profiles, body, self.matter.freezes_c)
        if self.leaven is not None:
            conditions += of_yeast(began, sums, self.whole, after, self.kitchen)
        return state, conditions

    def _tempered(
        self, rest: Rest, lengths: Profile, course: Course, last: float
    ) -> tuple[Profile, Profile]:
        """The profiles after the last stay, for a few lengths of what comes before it, and between."""
        assert rest.last is not None
        before = np.maximum(lengths - last, 0.0)
        low, high = float(before[0]), float(min(before[-1], max(rest.minutes * 2, 240.0)))
        few = np.unique(
            np.concatenate((np.geomspace(low + 5, high + 5, _TEMPERED) - 5, [rest.minutes - last]))
        )
        ends, active, ripe = [], [], []
        around = self.around.place(rest, rest.last.place, self.minute + rest.minutes)
        sums = course.gathered(self.rates, few)
        for i, main in enumerate(few):
            stood = conduct(course.body_at(float(main)), *around, last)
            ends.append(stood.end.t_c)
            both = sums[:, i] + stood.gathered(self.rates, np.array([last]))[:, 0]
            active.append(both[0])
            ripe.append(both[1])
        table = np.array(ends)
        at = np.minimum(before, few[-1])
        profiles = np.array([np.interp(at, few, column) for column in table.T]).T
        return profiles, np.stack((np.interp(at, few, active), np.interp(at, few, ripe)))

    # --- the proof

    def _proof(self, began: Began, rest: Rest, stop: str) -> RestWindow | None:
        if self.leaven is None:
            return None
        family, kitchen = self.found.plan.family, self.kitchen
        course = self.proof_course(began, rest)
        grid = np.unique(
            np.concatenate((np.arange(0, _DAY_MIN, 2.0), [rest.minutes, course.minutes[-1]]))
        )
        profiles = course.at(grid)
        doses = course.gathered(self.rates, grid)[0]
        usual = tuple(kitchen.of_family(family, f"proof.yeast_pct.{e}") for e in ("low", "high"))
        by_clock = 100 * doses / self.leaven.dose_for((usual[0], usual[1]))
        marks = [
            kitchen.of_family(family, f"proof.{name}_pct")
            for name in ("possible_from", "good_from", "good_until", "possible_until")
        ]
        share = kitchen.of_family(family, "proof.share_pct")
        rise = 100 * doses / self.whole
        state = State(grid, middle_of(profiles), None, None, rise)
        conditions = [
            Condition(Cause.PROOF, True, by_clock - marks[1], by_clock - marks[0]),
            Condition(Cause.OVER, False, marks[2] - by_clock, marks[3] - by_clock),
        ]
        window = window_of(stop, rest.minutes, state, conditions)
        done = np.flatnonzero(rise >= share)
        best = float(grid[done[0]]) if len(done) else window.best_min
        if best is not None and window.good_from_min is not None:
            best = max(best, window.good_from_min)
            if window.good_until_min is not None:
                best = min(best, window.good_until_min)
        return replace(window, best_min=best)

    def proof_course(self, began: Began, rest: Rest) -> Course:
        """A piece through the places of its rest, and on in the last of them for a day."""
        course = still(began.body)
        at = began.minute
        for i, stay in enumerate(rest.stays):
            last = i + 1 == len(rest.stays)
            lasts = max(stay.minutes, _DAY_MIN - (at - began.minute)) if last else stay.minutes
            air = self.around.open_air(stay.place, at + stay.minutes / 2, rest.air_c)
            course = course.then(conduct(course.end, air, air, lasts))
            at += stay.minutes
        return course

    # --- what is seen

    def _saw(self, course: Course, stretch: Stretch) -> None:
        self.seen.append((self.minute, course, self.rise, self.ripe_h))
        self.stretches.append(stretch)
        self.minute = stretch.to_min
        lasted = np.array([stretch.to_min - stretch.from_min])
        active, ripe = course.gathered(self.rates, lasted)[:, 0].tolist()
        self.rise += active
        self.sugar += active
        self.ripe_h += ripe
