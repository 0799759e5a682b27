"""What a timetable could not have, in sentences: late doughs, rests out of their marks, hands missing."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from lamination.day.busy import TAKEN, Busy, Counts, Line, Placed
from lamination.day.day import Day
from lamination.day.threads import Thread
from lamination.kitchen.kitchen import Kitchen
from lamination.terms.said import counted, named, span
from lamination.terms.trade import Place

_FAR_TOLD_MIN = 30


@dataclass(frozen=True, slots=True)
class Give:
    """Something that could not be had: a sentence, what it weighs, and what would mend it.

    ``code``: late, stale, rest, far, tight, hand, machine, place or held. ``mend`` is empty where nothing
    was tried or nothing helps. ``minute``: when it is, counted from the day's beginning.
    """

    code: str
    dough: str | None
    step: str | None
    weighs: float
    says: str
    minute: int
    mend: str = ""


@dataclass(frozen=True, eq=False)
class Figures:
    """A day as it lies, for the sentences about it."""

    day: Day
    kitchen: Kitchen
    threads: Sequence[Thread]
    placed: Sequence[Placed]
    busy: Busy

    def clock(self, minute: float) -> str:
        """A minute as the clock shows it; with the weekday where that is not the day's last."""
        at = self.day.at(minute)
        ends = self.day.ends.astimezone(self.day.tz)
        return f"{at:%H:%M}" if at.date() == ends.date() else f"{at:%a %H:%M}"


def gives_of(f: Figures) -> tuple[Give, ...]:
    """Every compromise of a day, the dearest first."""
    found = [*_late(f), *_stale(f), *_rests(f), *_far(f), *_ripe(f), *_missing(f), *_held(f)]
    return tuple(sorted(found, key=lambda give: -give.weighs))


def called(dough: str, name: str) -> str:
    """A dough as it is spoken of: by its number and its plan."""
    return f"Dough {dough} ({named(name)})" if name and name != dough else f"Dough {dough}"


def _late(f: Figures) -> Iterator[Give]:
    for thread, placed in zip(f.threads, f.placed, strict=True):
        end = thread.ended(placed.starts, len(thread.jobs) - 1)
        if end > thread.ready:
            late = end - thread.ready
            yield Give(
                "late", thread.dough, thread.jobs[-1].step, f.kitchen["day.late"] * late,
                f"{called(thread.dough, thread.name)} is {span(late)} late: ready at {f.clock(end)}, "
                f"wanted at {f.clock(thread.ready)}.", thread.ready,
            )  # fmt: skip


def _stale(f: Figures) -> Iterator[Give]:
    for thread, placed in zip(f.threads, f.placed, strict=True):
        end = thread.ended(placed.starts, len(thread.jobs) - 1)
        over = thread.ready - thread.fresh - end
        if over > 0:
            yield Give(
                "stale", thread.dough, thread.jobs[-1].step, f.kitchen["day.stale"] * over,
                f"{called(thread.dough, thread.name)} is ready at {f.clock(end)}, {span(thread.ready - end)} "
                f"before {f.clock(thread.ready)}: baked, it is fresh for {span(thread.fresh)}.", end,
            )  # fmt: skip


def _far(f: Figures) -> Iterator[Give]:
    """Rests that are as good, and not what the plan means: nights where there is no night in it."""
    for thread, placed in zip(f.threads, f.placed, strict=True):
        for k, gap in enumerate(thread.gaps):
            minutes = placed.starts[k + 1] - thread.ended(placed.starts, k)
            away = gap.away(minutes)
            if k + 1 < placed.free or away < _FAR_TOLD_MIN or gap.verdict(minutes) != "good":
                continue
            yield Give(
                "far", thread.dough, gap.step, gap.far * away,
                f"{called(thread.dough, thread.name)}: {span(minutes)} in place of {span(gap.chosen)} after "
                f"{thread.jobs[k].name.lower()}. It is good, and not what the plan says.",
                placed.starts[k + 1],
            )  # fmt: skip


def _rests(f: Figures) -> Iterator[Give]:
    for thread, placed in zip(f.threads, f.placed, strict=True):
        for k, gap in enumerate(thread.gaps):
            if k + 1 < placed.free:
                continue
            minutes = placed.starts[k + 1] - thread.ended(placed.starts, k)
            verdict = gap.verdict(minutes)
            if verdict == "good":
                continue
            where = "on" if gap.place is Place.BENCH else "in"
            rest = f"{where} the {gap.place.said} after {thread.jobs[k].name.lower()}"
            off = gap.outside(minutes)
            if verdict == "tight":
                from_, until = span(gap.good_from), gap.good_until
                good = f"{from_} to {span(until)}" if until is not None else f"{from_} or more"
                yield Give(
                    "tight", thread.dough, gap.step, float(gap.tight(minutes)),
                    f"{called(thread.dough, thread.name)}: {span(minutes)} {rest} is possible but tight; "
                    f"{good} is good.", placed.starts[k + 1],
                )  # fmt: skip
            else:
                short = verdict == "short"
                bears = gap.possible_from if short else gap.possible_until
                wrong = "too short; it needs at least" if short else "too long; it bears at most"
                yield Give(
                    "rest", thread.dough, gap.step, f.kitchen["day.outside"] * off,
                    f"{called(thread.dough, thread.name)}: {span(minutes)} {rest} is {span(off)} {wrong} "
                    f"{span(bears or 0)}.", placed.starts[k + 1],
                )  # fmt: skip


def _ripe(f: Figures) -> Iterator[Give]:
    for thread, placed in zip(f.threads, f.placed, strict=True):
        minutes = thread.ripening(placed.starts)
        tight, outside = thread.too_ripe(minutes)
        if tight and thread.ripe:
            longest = max(
                (k for k, gap in enumerate(thread.gaps) if gap.ripens),
                key=lambda k: placed.starts[k + 1] - thread.ended(placed.starts, k),
            )
            good, bears = thread.ripe
            says = f"up to {span(good)} is good" + (f", {span(bears)} the most" if outside else "")
            yield Give(
                "rest" if outside else "tight", thread.dough, thread.gaps[longest].step,
                tight + (f.kitchen["day.outside"] - 1) * outside,
                f"{called(thread.dough, thread.name)} ripens {span(minutes)} in the fridge, all its "
                f"rests together: {says}.", placed.starts[longest + 1],
            )  # fmt: skip


def _missing(f: Figures) -> Iterator[Give]:
    hands: Counts = np.sum([_over(line) for line in f.busy.hands], axis=0)
    for a, b, many in _stretches(hands):
        yield Give(
            "hand", None, None, TAKEN * many * (b - a),
            f"From {f.clock(a)} to {f.clock(b)}: {counted(many, 'hand')} short.", a,
        )  # fmt: skip
    for thread, placed in zip(f.threads, f.placed, strict=True):
        for k, job in enumerate(thread.jobs):
            if k < placed.free or job.held:
                continue
            start, end = placed.starts[k], placed.starts[k] + job.minutes
            alone = round(float(f.busy.nobody[end] - f.busy.nobody[start]))
            if alone:
                yield Give(
                    "hand", thread.dough, job.step, TAKEN * alone,
                    f"{called(thread.dough, thread.name)}: {job.name.lower()} begins at "
                    f"{f.clock(start)}, and for {span(alone)} of it nobody is there.", start,
                )  # fmt: skip
    for machine, line in f.busy.machines.items():
        for a, b, many in _stretches(_over(line)):
            yield Give(
                "machine", None, None, TAKEN * many * (b - a),
                f"From {f.clock(a)} to {f.clock(b)}: {counted(many, machine.said)} short.", a,
            )  # fmt: skip
    for place, line in f.busy.places.items():
        for a, b, many in _stretches(_over(line)):
            holds = int(line.there[a])
            yield Give(
                "place", None, None, f.kitchen["day.crowded"] * many * (b - a),
                f"From {f.clock(a)} to {f.clock(b)} the {place.said} is too full: up to {many + holds}, and "
                f"it holds {holds}. Let up to {many} wait elsewhere.", a,
            )  # fmt: skip


def _held(f: Figures) -> Iterator[Give]:
    for thread, placed in zip(f.threads, f.placed, strict=True):
        for k, job in enumerate(thread.jobs):
            at = thread.held.get(job.step)
            if at is not None and k >= placed.free and placed.starts[k] != at:
                yield Give(
                    "held", thread.dough, job.step, float(abs(placed.starts[k] - at)),
                    f"{called(thread.dough, thread.name)}: {job.name.lower()} is fixed at "
                    f"{f.clock(at)} but cannot begin before {f.clock(placed.starts[k])}.", placed.starts[k],
                )  # fmt: skip


def _over(line: Line) -> Counts:
    return (line.taken - line.there).clip(min=0)


def _stretches(over: Counts) -> Iterator[tuple[int, int, int]]:
    """Stretches in which something is missing: from, until, and how many at most."""
    changes = np.flatnonzero(np.diff(np.concatenate(([0], (over > 0).astype(int), [0]))))
    for a, b in zip(changes[::2].tolist(), changes[1::2].tolist(), strict=True):
        yield a, b, int(over[a:b].max())
