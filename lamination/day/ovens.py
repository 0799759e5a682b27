"""What goes into an oven together: doughs that are baked alike, as many trays as it holds."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from lamination.day.threads import Job, Thread

_AT_ONCE_MIN = 10  # what was put in so soon after another is in the same oven

Alike = tuple[object, int]  # how something is baked, and for how long


def alike(job: Job) -> Alike:
    """What two tasks have in common that may go into an oven together."""
    return job.load, job.minutes


def loads(threads: Sequence[Thread], room: int) -> dict[Alike, int]:
    """What at least two doughs still to be baked may share an oven of so many trays for, numbered."""
    trays: dict[Alike, list[int]] = {}
    for thread in threads:
        for job in thread.jobs[len(thread.done) :]:
            if job.load and 0 < job.trays < room:
                trays.setdefault(alike(job), []).append(job.trays)
    shared = [of for of, each in trays.items() if len(each) > 1 and sum(sorted(each)[:2]) <= room]
    return {of: n for n, of in enumerate(shared)}


def gone_in(threads: Sequence[Thread], room: int) -> dict[tuple[str, int], str]:
    """Of what has been put in already: each task that is in with another dough's, and whose that is."""
    begun = sorted((starts, thread.dough, k, job) for starts, thread, k, job in _begun(threads))
    ovens: list[tuple[int, str, Alike, int]] = []  # since when, whose, what, and room left
    found: dict[tuple[str, int], str] = {}
    for starts, dough, k, job in begun:
        for n, (since, whose, of, left) in enumerate(ovens):
            if of == alike(job) and starts - since <= _AT_ONCE_MIN and job.trays <= left:
                ovens[n] = since, whose, of, left - job.trays
                found[dough, k] = whose
                break
        else:
            ovens.append((starts, dough, alike(job), room - job.trays))
    return found


def _begun(threads: Sequence[Thread]) -> Iterator[tuple[int, Thread, int, Job]]:
    for thread in threads:
        for k, (starts, _) in enumerate(thread.done):
            if thread.jobs[k].load:
                yield starts, thread, k, thread.jobs[k]
