"""A whole plan's warmth, from the mixer to the cut: one simulation, its rest windows and its clocks."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Annotated

import numpy as np

from lamination.dough.block import slab_for
from lamination.dough.recipe import (
    butter_composition,
    butter_physics,
    dough_composition,
    dough_physics,
)
from lamination.heat.conduction import Air, Body, Course, body, conduct, pressed, refolded, warmed
from lamination.heat.yeast import activity, full_dose
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import StopKind
from lamination.materials.composition import Composition
from lamination.materials.ingredients import Kind, Window
from lamination.materials.thermal import Thermal, thermal_of
from lamination.plan.laid import Laid, lay
from lamination.plan.plan import Plan
from lamination.plan.schedule import Scheduled, schedule
from lamination.sheet.passes import sheeter_of
from lamination.sheet.stacks import Material, walk
from lamination.terms.limits import Checked, Range
from lamination.terms.rests import Place, Rest, Surface
from lamination.warmth.rest import Lying, RestWindow, crossing, relaxing_min, window_of

_LOOKS_AHEAD_MIN = 150.0  # how long a rest is followed beyond the plan, to find its latest
_CLOCK_MIN = 90.0  # longer than this nobody works at one turn
_PLAIN_DOUGH = Composition(38.9, 7.4, 3.6, 48.6, 1.5, 6.3)  # where a plan has no formula
_CELLS = 12
# Steps of a plan, and of what is only looked at ahead: still right to a few hundredths of a kelvin.
_FINER, _AHEAD_FINER = 0.6, 0.4
_MOST_LAYERS = 60  # a package of more is taken as evenly mixed
_TRACE = 260  # points of the chart

# Preferments lie apart; once it is cut, the proof follows the piece by itself (see ``proof.py``).
_NOT_FOLLOWED = (
    StopKind.PREFERMENT, StopKind.SHAPE, StopKind.WASH, StopKind.BAKE, StopKind.LOOK,
)  # fmt: skip

Warmth = Annotated[float, Range(-60, 60, "°C")]


@dataclass(frozen=True)
class Measured(Checked):
    """A dough's temperature, °C, as it was when the work at a stop began, or its rest."""

    stop: str
    t_c: Warmth
    resting: bool = False


@dataclass(frozen=True)
class Today(Checked):
    """How warm it is today, °C, where it differs from the kitchen; the plan follows.

    ``starts``: what was really measured of the dough; ``butter_c``: of the butter at the lock-in.
    ``begins_h``: the hour of the day at which the plan starts; ``room_at_min``: how long after that
    the room was ``room_c``. From there the room takes the kitchen's course through the day.
    """

    room_c: Warmth | None = None
    fridge_c: Warmth | None = None
    freezer_c: Warmth | None = None
    starts: tuple[Measured, ...] = ()
    butter_c: Warmth | None = None
    begins_h: Annotated[float, Range(0, 24, "h")] | None = None
    room_at_min: Annotated[float, Range(0, 30 * 24 * 60, "min")] = 0.0

    def in_kitchen(self, kitchen: Kitchen) -> Kitchen:
        """The kitchen as warm as it is today."""
        today = {
            "room.c": self.room_c,
            "fridge.c": self.fridge_c,
            "freezer.c": self.freezer_c,
            "butter.at_lock_in_c": self.butter_c,
            "day.begins_h": self.begins_h,
        }
        changed = {key: value for key, value in today.items() if value is not None}
        return replace(kitchen, yours={**kitchen.yours, **changed}) if changed else kitchen


def room_through_the_day(kitchen: Kitchen, minute: float, read_at_min: float = 0.0) -> float:
    """The room's temperature, °C, so many minutes after the plan's start.

    A wave of ``room.swing_k`` from its coolest to its warmest, warmest at ``room.warmest_h``, and
    ``room.c`` at the minute it was read. Source: trade practice; a day of a closed room is near a wave.
    """

    def wave(at_min: float) -> float:
        hours = kitchen["day.begins_h"] + at_min / 60 - kitchen["room.warmest_h"]
        return kitchen["room.swing_k"] / 2 * math.cos(2 * math.pi * hours / 24)

    return kitchen["room.c"] + wave(minute) - wave(read_at_min)


@dataclass(frozen=True, slots=True)
class WorkClock:
    """How long the butter stays workable on the bench at a stop; None when longer than any work."""

    stop: str
    takes_min: float
    lasts_min: float | None

    @property
    def short(self) -> bool:
        return self.lasts_min is not None and self.lasts_min < self.takes_min


@dataclass(frozen=True, slots=True)
class Stretch:
    """A stretch of the plan that is spent in one place; minutes from the start."""

    stop: str
    place: Place
    working: bool
    from_min: float
    to_min: float


@dataclass(frozen=True, slots=True)
class Trace:
    """The plan's warmth over time, °C; butter is None before the lock-in.

    ``cells_c``: the whole profile at each moment, bottom to top, for the tinted side view.
    ``yeast_pct``: how much of a proof the dough has used up by then; None for a dough without yeast.
    """

    minutes: tuple[float, ...]
    middle_c: tuple[float, ...]
    face_c: tuple[float, ...]
    butter_c: tuple[float | None, ...]
    cells_c: tuple[tuple[float, ...], ...]
    yeast_pct: tuple[float | None, ...]


@dataclass(frozen=True, slots=True)
class Followed:
    """What the simulation found, before it is put into words."""

    kitchen: Kitchen
    windows: tuple[RestWindow, ...]
    clocks: tuple[WorkClock, ...]
    stretches: tuple[Stretch, ...]
    trace: Trace
    butter: Window | None
    yeast_used_pct: float | None


@dataclass(slots=True)
class _Way:
    """The simulation under way: the clock, the body, and what was seen."""

    minute: float
    body: Body
    dose: float
    stretches: list[Stretch]
    seen: list[tuple[float, Course, float]]


def follow(plan: Plan, kitchen: Kitchen, today: Today | None = None) -> Followed:
    """Follow a plan's dough from the mixer (or the slab) to the cut.

    Work at a stop is half at the thickness it starts from and half at what it is rolled to, with
    the heat of rolling put in between. Rests are wrapped. Raises Faults as
    :func:`~lamination.plan.laid.lay` does. Source: core-model §6 to §8.
    """
    today = today or Today()
    kitchen = today.in_kitchen(kitchen)
    return _Follower(plan, kitchen, today).run()


class _Follower:
    def __init__(self, plan: Plan, kitchen: Kitchen, today: Today) -> None:
        self.plan, self.kitchen, self.today = plan, kitchen, today
        self.window = plan.butter_kind.window
        dough, butter = dough_physics(plan, kitchen), butter_physics(plan, kitchen)
        self.laid: Laid = lay(plan, dough.density_kg_m3, butter.density_kg_m3)
        made_of = dough_composition(plan) or _PLAIN_DOUGH
        self.dough: tuple[Thermal, float] = thermal_of(made_of), dough.density_kg_m3
        melts = thermal_of(butter_composition(plan), melts=True)
        self.butter: tuple[Thermal, float] = melts, butter.density_kg_m3
        self.full_dose = full_dose_of(plan, kitchen)
        self.windows: list[RestWindow] = []
        self.clocks: list[WorkClock] = []

    def run(self) -> Followed:
        stops = [s for s in schedule(self.plan, self.kitchen) if s.kind not in _NOT_FOLLOWED]
        wanted = self.plan.formula.mixing.wanted_c if self.plan.formula else None
        mixed = self.kitchen["dough.mixed_c"] if wanted is None else wanted
        lump = body([(False, self.kitchen["lump_mm"])], self.dough, self.butter, mixed, _CELLS)
        start = stops[0].starts_min
        way = _Way(start, self._measured(stops[0], lump), 0.0, [], [])
        for stop in stops:
            way.body = self._measured(stop, way.body)
            self._work(way, stop)
            if stop.rest and stop.rest.minutes > 0:
                way.body = self._measured(stop, way.body, resting=True)
                self._rest(way, stop, stop.rest)
        used = None if np.isinf(self.full_dose) else 100 * way.dose / self.full_dose
        return Followed(
            self.kitchen, tuple(self.windows), tuple(self.clocks), tuple(way.stretches),
            _trace(way.seen, self.full_dose), self.window, used,
        )  # fmt: skip

    def _measured(self, stop: Scheduled, now: Body, resting: bool = False) -> Body:
        """The body shifted to the temperature that was really measured, if one was."""
        starts = self.today.starts
        measured = [m.t_c for m in starts if m.stop == stop.key and m.resting is resting]
        return warmed(now, measured[-1] - now.middle_c) if measured else now

    # --- work on the bench

    def _work(self, way: _Way, stop: Scheduled) -> None:
        before, after = way.body, way.body
        over: tuple[bool, ...] = ()
        if stop.kind is StopKind.DOUGH:
            after = pressed(before, self._slab_m())
        elif stop.kind is StopKind.LOCK_IN:
            before = after = self._package(before.middle_c)
            # what rose before is pressed out again: from here it is counted anew
            way.dose = 0.0
        elif stop.kind is StopKind.TURN:
            i = int(stop.key[5:]) - 1
            after = pressed(before, self.laid.turns[i].rolled.thickness_mm / 1000)
            over = self.plan.turns[i].fold.lies
            if self.plan.turns[i].stacked:
                over = (False,) * len(over)
        elif stop.kind is StopKind.FINAL:
            after = pressed(before, self.laid.last.thickness_mm / 1000)
        rolls = stop.kind in (StopKind.TURN, StopKind.FINAL)
        half = stop.bench_min / 2
        first = self._on_bench(way, stop, before, half)
        thin = pressed(first, after.thickness_m) if after is not before else first
        if rolls:
            thin = self._rolled_warm(thin)
            self._clock(before, thin, stop, way.minute)
        second = self._on_bench(way, stop, thin, half)
        way.body = refolded(second, over) if over else second

    def _rolled_warm(self, of: Body) -> Body:
        by = "roll.by_sheeter_k" if sheeter_of(self.kitchen) else "roll.by_hand_k"
        return warmed(of, self.kitchen[by])

    def _clock(self, before: Body, sheet: Body, stop: Scheduled, minute: float) -> None:
        """Minutes of work until the mean butter leaves its range: half of it as the package."""
        lasts: float | None = None
        if self.window and before.has_butter:
            course = conduct(sheet, *self._bench(minute), _CLOCK_MIN, _AHEAD_FINER)
            mean = course.t_c @ sheet.butter_kg_m2 / sheet.butter_kg_m2.sum()
            lasts = crossing(course.minutes, mean, self.window.plastic_to_c, falling=False)
            if lasts is not None:
                warm = before.butter_c >= self.window.plastic_to_c
                lasts = 0.0 if warm else lasts + stop.bench_min / 2
        self.clocks.append(WorkClock(stop.key, stop.bench_min, lasts))

    def _bench(self, minute: float, on: Surface = Surface.USUAL) -> tuple[Air, Air]:
        """What lies under and over a dough on the bench at a minute of the plan."""
        kitchen = self.kitchen
        room = room_through_the_day(kitchen, minute, self.today.room_at_min)
        film = kitchen["bench.under" if on is Surface.USUAL else f"under.{on}"]
        under = Air(room - kitchen["bench.chilled_k"], film)
        return under, Air(room, kitchen["bench.film"])

    def _on_bench(self, way: _Way, stop: Scheduled, now: Body, minutes: float) -> Body:
        if minutes <= 0:
            return now
        course = conduct(now, *self._bench(way.minute + minutes / 2), minutes, _FINER)
        self._seen(
            way, course, Stretch(stop.key, Place.BENCH, True, way.minute, way.minute + minutes)
        )
        return course.end

    # --- rests

    def _rest(self, way: _Way, stop: Scheduled, rest: Rest) -> None:
        start, whole = way.body, Course(np.array([0.0]), way.body.t_c[None, :], way.body, 0.0)
        dose_before, began = way.dose, way.minute
        stays = rest.stays
        ahead = max(_LOOKS_AHEAD_MIN, rest.minutes) - rest.minutes
        for n, stay in enumerate(stays):
            around = self._around(rest, stay.place, way.minute + stay.minutes / 2)
            course = conduct(whole.end, *around, stay.minutes, _FINER)
            end = way.minute + stay.minutes
            self._seen(way, course, Stretch(stop.key, stay.place, False, way.minute, end))
            whole = _joined(whole, course)
            if n + 1 == len(stays):
                on = conduct(whole.end, *around, ahead, _AHEAD_FINER)
                looked = _joined(whole, on)
        asleep = self._asleep_until(dose_before, looked)
        lying = Lying(
            stop.key,
            looked,
            rest.minutes,
            relaxing_min(self.plan, stop.key, self.kitchen),
            self.window if start.has_butter else None,
            stop.kind is not StopKind.FINAL,
            self.kitchen["spread_k"],
            self.kitchen["dough.cold_c"] if stop.kind is StopKind.DOUGH else 100.0,
            asleep,
        )
        found = window_of(lying)
        if found.verdict == "late" and self.window and start.has_butter:
            found = replace(found, temper_min=self._temper(whole.end, way.minute))
        self.windows.append(found)
        way.body = whole.end
        assert abs(way.minute - began - rest.minutes) < 1e-6

    def _around(self, rest: Rest, place: Place, minute: float) -> tuple[Air, Air]:
        """What is under and over a wrapped package in a place, on what it lies on, iced or not."""
        kitchen = self.kitchen
        if place is Place.BENCH:
            under, over = self._bench(minute, rest.on)
        else:
            c = kitchen[f"{place}.c"]
            over = Air(c, self._wrapped(kitchen[f"{place}.film"]))
            under = over
            if rest.on is not Surface.USUAL:
                under = Air(c, self._wrapped(kitchen[f"under.{rest.on}"]))
        if rest.iced:
            over = Air(kitchen["ice.c"], self._wrapped(kitchen["ice.film"]))
        return under, over

    def _wrapped(self, film: float) -> float:
        """A film coefficient with the wrap in series, W/(m²·K)."""
        return 1 / (1 / film + 1 / self.kitchen["wrap.film"])

    def _temper(self, now: Body, minute: float) -> float | None:
        """Minutes on the bench until no butter is brittle."""
        assert self.window is not None
        course = conduct(now, *self._bench(minute), _CLOCK_MIN, _AHEAD_FINER)
        some = now.butter_kg_m2 > 0.5 * now.butter_kg_m2.max()
        coldest = course.t_c[:, some].min(axis=1)
        return crossing(course.minutes, coldest, self.window.brittle_c, falling=False)

    def _asleep_until(self, dose_before: float, course: Course) -> float | None:
        """When the yeast has had its share before the proof, min from the rest's start."""
        when = "between_turns" if course.end.has_butter else "before_lock_in"
        share = self.full_dose * self.kitchen[f"yeast.{when}_pct"] / 100
        if np.isinf(share):
            return None
        rate = activity(course.t_c).mean(axis=1)
        steps = (rate[1:] + rate[:-1]) / 2 * np.diff(course.minutes)
        doses = dose_before + np.concatenate(([0.0], np.cumsum(steps)))
        return crossing(course.minutes, doses, share, falling=False)

    # --- what is seen

    def _seen(self, way: _Way, course: Course, stretch: Stretch) -> None:
        way.seen.append((way.minute, course, way.dose))
        way.stretches.append(stretch)
        way.minute = stretch.to_min
        rate = activity(course.t_c).mean(axis=1)
        way.dose += float(np.trapezoid(rate, course.minutes))

    def _slab_m(self) -> float:
        sheet = self.laid.locked.dough_sheet
        tray = self.kitchen["tray.length_mm"], self.kitchen["tray.width_mm"]
        return slab_for(sheet, sheet.volume_mm3, *tray).thickness_mm / 1000

    def _package(self, dough_c: float) -> Body:
        """Butter shut in dough, both at their own temperatures."""
        stack = self.laid.locked.sheet.fullest()
        press = self.laid.locked.sheet.press
        butter_c = self.kitchen["butter.at_lock_in_c"]
        if stack.leaves <= _MOST_LAYERS:
            layers = [(n.material is Material.BUTTER, n.thickness * press) for n in walk(stack)]
            return body(layers, self.dough, self.butter, (dough_c, butter_c), _CELLS)
        share = stack.butter_mm / stack.thickness
        thin = stack.thickness * press / _MOST_LAYERS
        layers = [
            (b, thin * (share if b else 1 - share))
            for _ in range(_MOST_LAYERS)
            for b in (False, True)
        ]
        return body(layers, self.dough, self.butter, (dough_c, butter_c), _CELLS)


def full_dose_of(plan: Plan, kitchen: Kitchen) -> float:
    """The dose of a complete proof; infinite for a dough without yeast. Fresh yeast in its weight."""
    if plan.formula is None:
        return float("inf")
    fresh = sum(
        pct * (1 if what.composition.water_pct > 40 else 2.5)
        for what, pct in plan.formula.parts
        if what.kind is Kind.YEAST
    )
    sugar = sum(pct for what, pct in plan.formula.parts if what.kind is Kind.SUGAR)
    return full_dose(fresh, sugar, kitchen["proof.reference_min"])


def _joined(first: Course, then: Course) -> Course:
    return Course(
        np.concatenate((first.minutes, first.minutes[-1] + then.minutes[1:])),
        np.concatenate((first.t_c, then.t_c[1:])),
        then.end,
        first.taken_j_m2 + then.taken_j_m2,
    )


def _trace(seen: list[tuple[float, Course, float]], full_dose: float) -> Trace:
    """The chart's points, thinned; the ends of every stretch stay, for that is where lines break."""
    steps = sum(len(course.minutes) for _, course, _ in seen)
    keep = max(1, -(-steps // _TRACE))
    minutes: list[float] = []
    middle: list[float] = []
    face: list[float] = []
    butter: list[float | None] = []
    cells: list[tuple[float, ...]] = []
    yeast: list[float | None] = []
    for start, course, dose in seen:
        last = len(course.minutes) - 1
        chosen = [i for i in range(last + 1) if i in (0, last) or i % keep == 0]
        t = course.t_c[chosen]
        n = t.shape[1]
        middles = (t[:, (n - 1) // 2] + t[:, n // 2]) / 2
        held = course.end.butter_kg_m2
        means = t @ held / held.sum() if course.end.has_butter else None
        minutes += (start + course.minutes[chosen]).round(2).tolist()
        middle += middles.round(2).tolist()
        below, above = t[:, 0], t[:, -1]
        further = np.where(np.abs(below - middles) > np.abs(above - middles), below, above)
        face += further.round(2).tolist()
        butter += [None] * len(chosen) if means is None else means.round(2).tolist()
        if np.isinf(full_dose):
            yeast += [None] * len(chosen)
        else:
            rate = activity(course.t_c).mean(axis=1)
            parts = (rate[1:] + rate[:-1]) / 2 * np.diff(course.minutes)
            doses = dose + np.concatenate(([0.0], np.cumsum(parts)))
            yeast += (100 * doses[chosen] / full_dose).round(1).tolist()
        cells += [tuple(row) for row in t[:, :: max(1, n // 9)].round(1).tolist()]
    return Trace(tuple(minutes), tuple(middle), tuple(face), tuple(butter), tuple(cells),
                 tuple(yeast))  # fmt: skip
