"""A day under way: what was said of its doughs at the bench, and what that leaves to be arranged."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from itertools import takewhile
from typing import NamedTuple

from lamination.day.day import Day, Happened
from lamination.day.threads import Thread
from lamination.day.told import Task
from lamination.plan import Plan
from lamination.warmth import Today


class Went(NamedTuple):
    """A dough as it went at the bench: its plan with the minutes it really took, and what was measured."""

    plan: Plan
    today: Today


@dataclass(frozen=True)
class Since:
    """What a day is arranged again from: the moment, what has happened, and the timetable before.

    ``went``: how doughs went that are under way, by which their rests are judged.
    """

    now: datetime
    happened: tuple[Happened, ...]
    before: tuple[Task, ...]
    given_up: tuple[str, ...] = ()
    went: Mapping[str, Went] = field(default_factory=dict)


def happened(thread: Thread, day: Day, since: Since) -> Thread:
    """The thread with what was said of it; a step under way takes as long as it does, and no less."""
    there = {d.id for d in day.doughs} - set(since.given_up)
    leaders = {
        t.step: t.together for t in since.before if t.dough == thread.dough and t.together in there
    }
    # what is mixed with another's is so from its beginning; an oven is shared later
    along = list(takewhile(lambda step: step in leaders, (job.step for job in thread.jobs)))
    said = {h.step: h for h in since.happened if h.step in along and leaders[h.step] == h.dough}
    said |= {h.step: h for h in since.happened if h.dough == thread.dough}
    done: list[tuple[int, int]] = []
    for job in thread.jobs:
        event = said.get(job.step)
        if event is None:
            break
        starts = day.minute(event.starts)
        ends = starts + job.minutes
        if event.ends is not None:
            ends = max(day.minute(event.ends), starts)
        else:
            ends = max(ends, day.minute(since.now))
        if done:
            starts = max(starts, done[-1][1])
        done.append((starts, max(ends, starts)))
    # what another did for it, or is doing, is the other's
    leader = leaders[along[0]] if along else None
    return replace(thread, done=tuple(done), trunk=len(along), leader=leader)


def gone_on(
    thread: Thread, before: Mapping[str, int], now: int, trunk: Sequence[int] = ()
) -> list[int]:
    """When each task begins where all goes on as it was arranged: later only where it must wait for its own.

    ``before``: by step, the minute it was to begin at; ``trunk``: when what another does for it begins. A
    rest is cut no shorter than it was to be, or than is good; what is held to a minute is there.
    """
    starts = [begun for begun, _ in thread.done]
    starts += trunk[len(starts) :]
    for k in range(len(starts), len(thread.jobs)):
        step = thread.jobs[k].step
        at = max(thread.held.get(step, before.get(step, now)), now)
        if k:
            gap, ended = thread.gaps[k - 1], thread.ended(starts, k - 1)
            was = before.get(thread.jobs[k].step, 0) - _ended(thread, before, k - 1)
            at = max(at, ended + max(min(was, gap.good_from), gap.least))
        starts.append(at)
    return starts


def all_gone_on(
    threads: Sequence[Thread], before: Sequence[Task], day: Day, now: int
) -> dict[str, list[int]]:
    """When each task of every dough that was there begins, where all goes on as it was arranged."""
    lay: dict[str, dict[str, int]] = {}
    for task in before:
        lay.setdefault(task.dough, {})[task.step] = day.minute(task.starts)
    starts: dict[str, list[int]] = {}
    for thread in sorted(threads, key=lambda t: t.leader is not None):
        # who is mixed with a dough that is new lies where that is put
        if thread.dough in lay and (thread.leader is None or thread.leader in starts):
            trunk = starts[thread.leader][: thread.trunk] if thread.leader else ()
            starts[thread.dough] = gone_on(thread, lay[thread.dough], now, trunk)
    return starts


def _ended(thread: Thread, before: Mapping[str, int], k: int) -> int:
    job = thread.jobs[k]
    return before.get(job.step, 0) + job.minutes
