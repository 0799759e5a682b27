"""Where lessons are kept: those that ship and those of this house, each by its key; and best plays."""

from __future__ import annotations

import hashlib
import json
import time
from dataclasses import dataclass
from functools import lru_cache

from django.http import Http404

from bakehouse.documents import dump, read
from bakehouse.lessons.files import read_lesson, shipped
from bakehouse.lessons.models import BestRecord, LessonRecord
from lamination.lessons import (
    BestPlay,
    Decision,
    Decisions,
    Lesson,
    Outcome,
    Worths,
    best_play,
    outcome_of,
    played,
)
from lamination.terms import Faults

OWN = "own-"


@dataclass(frozen=True)
class Kept:
    """A lesson with its key. ``record``: of this house, None where it ships."""

    key: str
    lesson: Lesson
    record: LessonRecord | None


def all_kept() -> list[Kept]:
    """The lessons that ship, then this house's own, the latest first."""
    own = LessonRecord.objects.filter(deleted_at__isnull=True)
    return [
        *(Kept(one.key, one.lesson, None) for one in shipped()),
        *(_of(record) for record in own),
    ]


def kept(key: str) -> Kept:
    """A lesson by its key. Raises Http404 with a sentence."""
    for one in shipped():
        if one.key == key:
            return Kept(key, one.lesson, None)
    number = key.removeprefix(OWN)
    if key.startswith(OWN) and number.isdigit() and len(number) < 10:
        return _of(LessonRecord.there(int(number)))
    raise Http404("There is no such lesson. It may have been deleted.")


def _of(record: LessonRecord) -> Kept:
    return Kept(f"{OWN}{record.pk}", _read(json.dumps(record.document)), record)


@lru_cache(maxsize=64)
def _read(text: str) -> Lesson:
    """One lesson is one object, so that what was followed of it is found again."""
    return read_lesson(json.loads(text))


@lru_cache(maxsize=8)
def _worths(lesson: Lesson) -> Worths:
    return Worths(lesson)


def best_of(
    lesson: Lesson, begun: tuple[Decision, ...], seconds: float
) -> tuple[BestPlay | None, float]:
    """The best play of a lesson's day, and how far it was searched, 0 to 1.

    What was searched to its end is kept. A search goes on for so many seconds, and from there the next
    time; with none, it is only looked up.
    """
    mark = _mark(lesson)
    known = BestRecord.objects.filter(pk=mark).first()
    if known:
        try:
            decisions = read(Decisions, {"decisions": known.decisions}).decisions
            came = outcome_of(played(lesson, decisions))
        except Faults:
            known.delete()
        else:
            return BestPlay(decisions, came, known.followed, False), 1.0
    if seconds <= 0:
        return None, 0.0
    until, far = time.monotonic() + seconds, [0.0]

    def progress(share: float, best: Outcome) -> bool:
        far[0] = share
        return time.monotonic() < until

    found = best_play(lesson, begun, progress, _worths(lesson))
    if not found.stopped:
        kept_best = {"decisions": [dump(d) for d in found.decisions], "followed": found.followed}
        BestRecord.objects.update_or_create(pk=mark, defaults=kept_best)
    return found, far[0]


def _mark(lesson: Lesson) -> str:
    """What a best play is known by: all that the lesson says but its name and words."""
    said = {k: v for k, v in dump(lesson).items() if k not in ("name", "words", "hints")}
    return hashlib.sha256(json.dumps(said, sort_keys=True).encode()).hexdigest()
