"""A whole plan's warmth, from the mixer to the proof: one simulation, its rests and its work judged."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from lamination.heat.body import Body, warmed
from lamination.heat.conduction import Course
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.walk import Walk, walk
from lamination.steps.base import Form, Handling
from lamination.terms.limits import swapped
from lamination.terms.rests import Rest, Stay
from lamination.terms.trade import Place
from lamination.warmth.bench import job, worked
from lamination.warmth.bodies import Today
from lamination.warmth.followed import (
    Began,
    Followed,
    Stretch,
    Until,
    WorkClock,
)
from lamination.warmth.rests import asked, judged
from lamination.warmth.scene import AHEAD_MIN, leaven_of, scene_of
from lamination.warmth.windows import RestWindow

_UNTIL_MIN = 12 * 60.0  # how long beyond its minutes a stay is followed that ends by its warmth


def follow(
    plan: Plan,
    kitchen: Kitchen,
    today: Today | None = None,
    ahead_min: float = AHEAD_MIN,
    judges: bool = True,
) -> Followed:
    """Follow a plan's dough from the mixer (or the slab) to the end of its proof.

    Work at a step is half at the thickness it starts from and half at what it is rolled to, with the
    heat of rolling put in between. Rests are wrapped; shaped pieces lie open. ``ahead_min``: how long a
    rest with butter in it might become, to look for its marks; without ``judges`` none are looked for,
    which is most of the work. The same plan in the same kitchen on the same day is followed once. Raises
    Faults as :func:`~lamination.plan.walk.walk` does.
    """
    today = today or Today()
    # neither a name nor words make a dough warmer
    steps = tuple(swapped(s, words="") if s.words else s for s in plan.steps)
    quiet = swapped(plan, name="-", words="", steps=steps)
    return _follow(quiet, today.in_kitchen(kitchen), today, ahead_min, judges)


def body_before(plan: Plan, kitchen: Kitchen, step: str) -> Body | None:
    """What lies there before a step, as it takes up heat; None where there is nothing yet.

    Raises Faults as :func:`~lamination.plan.walk.walk` does.
    """
    follower = Follower(walk(plan, kitchen), kitchen, Today())
    follower.run(before=plan.at(step))
    return follower.body


@lru_cache(maxsize=64)
def _follow(plan: Plan, kitchen: Kitchen, today: Today, ahead_min: float, judges: bool) -> Followed:
    return Follower(walk(plan, kitchen), kitchen, today, ahead_min, judges).run()


class Follower:
    """The simulation under way: the clock, the body, and what was seen."""

    def __init__(
        self,
        found: Walk,
        kitchen: Kitchen,
        today: Today,
        ahead_min: float = AHEAD_MIN,
        judges: bool = True,
    ) -> None:
        self.found, self.today, self.judges = found, today, judges
        leaven = leaven_of(found, kitchen)
        self.scene = scene_of(kitchen, found.recipe, leaven, today.room_at_min, ahead_min)
        self.body: Body | None = None
        self.minute = self.rise = self.ripe_h = self.sugar = self.proofed = 0.0
        self.windows: list[RestWindow] = []
        self.clocks: list[WorkClock] = []
        self.stretches: list[Stretch] = []
        self.seen: list[tuple[float, Course, float, float]] = []
        self.began: dict[str, Began] = {}
        self.cut_c: float | None = None
        self.until: list[Until] = []

    def run(self, before: int | None = None) -> Followed:
        """Along the steps, until the pieces have proofed; or up to one, without it."""
        found = self.found
        in_open_air = [
            n
            for n, (step, made) in enumerate(zip(found.plan.steps, found.made, strict=True))
            if step.rests and made.lies.form is Form.SHAPED
        ]
        proof = in_open_air[-1] if in_open_air else len(found.made)
        for n, (step, made) in enumerate(zip(found.plan.steps, found.made, strict=True)):
            if n == before:
                break
            self.minute = found.clock[n].starts_min
            if made.handling.apart or made.lies.form is Form.BAKED or n > proof:
                continue
            self._work(n, made.handling)
            if made.lies.form is Form.PIECES:
                self.cut_c = self.body.mean_c if self.body else None
            if step.rest and step.rest.minutes > 0:
                self._measured(step.id, resting=True)
                self._rest(n, step.rest, before_proof=n in in_open_air[:-1])
        yeasted = self.scene.leaven is not None
        return Followed(
            found, self.scene, tuple(self.windows), tuple(self.clocks), tuple(self.stretches),
            tuple(self.seen), self.began,
            100 * self.rise / self.scene.whole if yeasted else None, self.ripe_h if yeasted else None,
            self.cut_c, tuple(self.until),
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
            return self.scene.matter.lump(handling.mixed_c)
        if self.body is not None:
            return self.body
        mixed = not handling.shut_in
        return self.scene.matter.lump(self.scene.kitchen["dough.mixed_c" if mixed else "fridge.c"])

    def _work(self, n: int, handling: Handling) -> None:
        step = self.found.plan.steps[n]
        before = self._there(handling)
        if handling.shut_in:
            said = self.today.butter_c is None and handling.kept_cold
            butter_c = self.scene.kitchen["fridge.c" if said else "butter.at_lock_in_c"]
            before = self.scene.matter.package(handling.shut_in, before.mean_c, butter_c)
        if handling.coil_mm:
            before = self.scene.matter.coil(handling.coil_mm, before.mean_c)
        if handling.piece_mm and step.kind_name == "shape":
            before = self.scene.matter.piece(handling.piece_mm, before.mean_c)
        self.body = before
        self._measured(step.id)
        before = self.body
        if handling.rolls or handling.shut_in:
            self.rise = 0.0
        done = worked(self.scene, job(self.found, n), before)
        for course in done.courses:
            self._saw(course, step.id, Place.BENCH, working=True)
        if done.clock:
            self.clocks.append(done.clock)
        self.body = done.end

    # --- rests

    def _rest(self, n: int, rest: Rest, before_proof: bool) -> None:
        assert self.body is not None
        made = self.found.made[n]
        open_air = made.lies.form is Form.SHAPED
        began = Began(
            n, self.body, self.minute, self.rise, self.ripe_h, self.sugar, open_air, self.proofed
        )
        step_id, risen = self.found.plan.steps[n].id, self.rise
        self.began[step_id] = began
        # pieces rest several times on their way to the oven: that is one proof, judged at its end
        passed_over = before_proof or not self.judges
        window = None if passed_over else judged(self.scene, began, asked(self.found, n, rest))
        if window:
            self.windows.append(window)
        for k, stay in enumerate(rest.stays):
            if stay.minutes <= 0:
                continue
            course = self.scene.through(self.body, stay, open_air, self.minute)
            if stay.until_c is not None:
                self.until.append(self._until(step_id, k, stay, course, open_air))
            self._saw(course, step_id, stay.place)
            self.body = course.end
        if open_air:
            self.proofed += self.rise - risen

    def _until(self, stop: str, k: int, stay: Stay, course: Course, open_air: bool) -> Until:
        """When a stay that ends by the warmth of the middle would end."""
        assert stay.until_c is not None
        assert self.body is not None
        ahead = self.scene.through(self.body, stay, open_air, self.minute, beyond=_UNTIL_MIN)
        moments = np.arange(0.0, float(ahead.minutes[-1]), 0.5)
        middle = self.body.middle_of(ahead.at(moments))
        cools = middle[0] > stay.until_c
        there = np.flatnonzero(middle <= stay.until_c if cools else middle >= stay.until_c)
        end_c = float(course.end.middle_c)
        return Until(stop, k, end_c, float(moments[there[0]]) if len(there) else None)

    # --- what is seen

    def _saw(self, course: Course, stop: str, place: Place, working: bool = False) -> None:
        lasted = course.minutes[-1:]
        end = self.minute + float(lasted[0])
        self.seen.append((self.minute, course, self.rise, self.ripe_h))
        self.stretches.append(Stretch(stop, place, working, self.minute, end))
        self.minute = end
        active, ripe = course.gathered(self.scene.rates, lasted)[:, 0].tolist()
        self.rise += active
        self.sugar += active
        self.ripe_h += ripe
