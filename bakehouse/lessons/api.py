"""Lessons: listed, played without butter, made from a plan or a real run, and a class side by side."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Annotated
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, Router, Status

from bakehouse.bench.runs import events_of, run_of, snapshot
from bakehouse.documents import as_download, dump, read
from bakehouse.kitchen.shelf import the_kitchen
from bakehouse.lessons.files import AnyLesson
from bakehouse.lessons.library import OWN, Kept, all_kept, best_of, kept
from bakehouse.lessons.models import LessonRecord, PlayRecord
from bakehouse.people.roles import HEAD, head_only, role_of, signed_in, user_of
from bakehouse.plans.library import plan_of, saved_anew
from lamination.lessons import (
    BestPlay,
    Cost,
    Decision,
    Decisions,
    DrawnPiece,
    GoalLine,
    LeafMethod,
    LeavesAfter,
    Lesson,
    Outcome,
    SimulatedBench,
    bench_of,
    checked,
    costs_of,
    drawn_piece,
    goal_lines,
    lesson_of_plan,
    lesson_of_run,
    outcome_of,
    played,
    put_into_plan,
    seen_inside,
)
from lamination.run import stand
from lamination.terms import Checked, Fault, Faults, Length, Range
from lamination.warmth import Stretch

router = Router(tags=["lessons"])
_MOST_PLAYS = 500  # that one person keeps of all lessons


@dataclass
class LessonLine:
    """A lesson in the list: ``best`` is what one's own best play of it was worth."""

    key: str
    name: str
    words: str
    ships: bool
    source: str
    revision: int | None
    plan_id: int | None
    by: str | None
    plays: int
    best: float | None
    passed: bool


@dataclass
class LessonView:
    """A lesson and its bench before anything was decided."""

    line: LessonLine
    lesson: Lesson
    bench: SimulatedBench


@dataclass(frozen=True)
class PlaySoFar(Checked):
    """What was decided so far; and how many seconds the best play may be searched for."""

    decisions: Annotated[tuple[Decision, ...], Length(0, 40, "decisions")] = ()
    seconds: Annotated[float, Range(0, 10, "s")] = 0.0


@dataclass
class PlayView:
    """What a play comes to: the outcome, the piece cut across, the goal's lines, and where it lay when."""

    outcome: Outcome
    goal: list[GoalLine]
    drawn: DrawnPiece
    stretches: list[Stretch]
    decisions: list[Decision]


@dataclass
class PlayResult:
    """One's own play, the best of the same day as far as it was searched, and what each decision cost."""

    mine: PlayView
    best: PlayView | None
    costs: list[Cost]
    searched: float
    done: bool


@dataclass(frozen=True)
class PlayDone(Checked):
    """A finished play, as a tablet keeps it; ``id`` is the tablet's own."""

    id: UUID
    lesson: Annotated[str, Length(1, 60, "characters")]
    decisions: Annotated[tuple[Decision, ...], Length(0, 40, "decisions")]
    at: datetime


@dataclass
class PlayKept:
    """A finished play as it is kept: what it came to, and whether its lesson's goal was reached."""

    id: UUID
    lesson: str
    worth: float
    passed: bool


@dataclass
class ClassRow:
    """A person's best play of a lesson, beside the others'. ``who`` is a letter where names are not shown."""

    who: str
    mine: bool
    plays: int
    passed: bool
    view: PlayView


@dataclass(frozen=True)
class NewLesson(Checked):
    """A seed for a lesson that is made: the same seed is the same day; and its name."""

    seed: Annotated[int, Range(0, 1_000_000_000, whole=True)] = 1
    name: Annotated[str, Length(1, 80, "characters")] | None = None


@dataclass
class IntoPlan:
    """The plan that a best play was put into, and its revision."""

    plan_id: int
    revision: int


def _lines(request: HttpRequest, of: list[Kept]) -> list[LessonLine]:
    mine: dict[str, list[PlayRecord]] = {}
    for play in PlayRecord.objects.filter(by=user_of(request)).only("lesson", "outcome", "passed"):
        mine.setdefault(play.lesson, []).append(play)
    return [_line(one, mine.get(one.key, [])) for one in of]


def _line(one: Kept, plays: list[PlayRecord]) -> LessonLine:
    record = one.record
    return LessonLine(
        one.key,
        one.lesson.name,
        one.lesson.words,
        record is None,
        record.source if record else "",
        record.revision if record else None,
        record.plan_id if record else None,
        record.updated_by.get_username() if record and record.updated_by else None,
        len(plays),
        max((float(p.outcome["worth"]) for p in plays), default=None),
        any(p.passed for p in plays),
    )


@router.get("/lessons", auth=signed_in, response=list[LessonLine])
def lessons(request: HttpRequest) -> list[LessonLine]:
    return _lines(request, all_kept())


@router.get("/lessons/{key}", auth=signed_in, response=LessonView)
def lesson(request: HttpRequest, key: str) -> LessonView:
    one = kept(key)
    return LessonView(_lines(request, [one])[0], one.lesson, bench_of(played(one.lesson)))


@router.post("/lessons/{key}/bench", auth=signed_in, response=SimulatedBench)
def bench(request: HttpRequest, key: str, so_far: Body[PlaySoFar]) -> SimulatedBench:
    """The simulated bench as a play stands: readings, and the course of every rest."""
    of = kept(key).lesson
    return bench_of(played(of, checked(of, Decisions(so_far.decisions))))


def _view(of: Lesson, decided: tuple[Decision, ...]) -> PlayView:
    play = played(of, decided)
    came = outcome_of(play)
    lines = list(goal_lines(of.goal, came))
    return PlayView(
        came, lines, drawn_piece(play, came), list(play.followed.stretches), list(decided)
    )


@router.post("/lessons/{key}/outcome", auth=signed_in, response=PlayResult)
def outcome(request: HttpRequest, key: str, so_far: Body[PlaySoFar]) -> PlayResult:
    """What a play comes to. The best of its day is searched for so many seconds; asked again, it goes on."""
    of = kept(key).lesson
    decided = checked(of, Decisions(so_far.decisions))
    mine = _view(of, decided)
    best, searched = best_of(of, decided, so_far.seconds)
    if best is not None and mine.outcome.worth > best.outcome.worth:
        # a search need not find what somebody did: then hers is the best that is known
        best = BestPlay(decided, mine.outcome, best.followed, best.stopped)
    costs = list(costs_of(of, decided, best)) if best else []
    return PlayResult(
        mine, _view(of, best.decisions) if best else None, costs, searched, searched >= 1
    )


@router.post("/plays", auth=signed_in, response={200: PlayKept, 201: PlayKept})
def keep_play(request: HttpRequest, play: Body[PlayDone]) -> Status[PlayKept]:
    """A finished play, kept once however often it is sent; it is worked here, and never taken on trust."""
    of, user = kept(play.lesson).lesson, user_of(request)
    came = outcome_of(played(of, checked(of, Decisions(play.decisions))))
    passed = all(line.reached for line in goal_lines(of.goal, came))
    known = PlayRecord.objects.filter(pk=play.id).first()
    if known and known.by_id != user.pk:
        raise Faults(Fault("", "This play is somebody else's."))
    if known is None:
        PlayRecord.objects.create(
            pk=play.id,
            lesson=play.lesson,
            by=user,
            decisions=[dump(d) for d in play.decisions],
            outcome=dump(came),
            passed=passed,
            at=min(play.at, timezone.now()),
        )
        old = PlayRecord.objects.filter(by=user).order_by("-at").values_list("pk", flat=True)
        PlayRecord.objects.filter(pk__in=list(old[_MOST_PLAYS:])).delete()
    answer = PlayKept(play.id, play.lesson, came.worth, passed)
    return Status(200 if known else 201, answer)


@router.get("/lessons/{key}/class", auth=signed_in, response=list[ClassRow])
def class_of(request: HttpRequest, key: str, named: bool = False) -> list[ClassRow]:
    """Everybody's best play of a lesson side by side. Only a head baker may see whose is whose."""
    of, user = kept(key).lesson, user_of(request)
    plays: dict[int, list[PlayRecord]] = {}
    for play in PlayRecord.objects.filter(lesson=key).select_related("by").order_by("at"):
        plays.setdefault(play.by_id, []).append(play)
    rows = []
    shown = named and role_of(user) == HEAD
    for number, (by, of_one) in enumerate(plays.items()):
        best = max(of_one, key=lambda p: float(p.outcome["worth"]))
        try:
            decided = checked(of, read(Decisions, {"decisions": best.decisions}))
        except Faults:
            continue  # the lesson was changed since, and leaves something else to decide
        who = best.by.get_username() if shown else _letter(number)
        passed = any(p.passed for p in of_one)
        rows.append(ClassRow(who, by == user.pk, len(of_one), passed, _view(of, decided)))
    return sorted(rows, key=lambda row: -row.view.outcome.worth)


def _letter(number: int) -> str:
    return chr(ord("A") + number % 26) * (number // 26 + 1)


# --- lessons of this house


@router.post("/lessons", auth=head_only, response={201: LessonLine})
def new_lesson(request: HttpRequest, of: Body[AnyLesson]) -> Status[LessonLine]:
    """A lesson from its file."""
    return _begun(request, of, "a file")


@router.put("/lessons/{key}", auth=head_only, response=LessonLine)
def change_lesson(request: HttpRequest, key: str, revision: int, of: Body[AnyLesson]) -> LessonLine:
    """A lesson of this house with other words, choices, moods or goal."""
    record = _own(key)
    outcome_of(played(of))  # raises where not even its plan can be played
    saved = record.saved_over(revision, dump(of), user_of(request))
    return _lines(request, [kept(f"{OWN}{saved.pk}")])[0]


@router.delete("/lessons/{key}", auth=head_only, response={204: None})
def delete_lesson(request: HttpRequest, key: str) -> Status[None]:
    _own(key).gone(user_of(request))
    return Status(204, None)


@router.get("/lessons/{key}/file", auth=signed_in)
def lesson_file(request: HttpRequest, key: str) -> HttpResponse:
    """The lesson as a file, to be given to somebody else."""
    of = kept(key).lesson
    text = json.dumps(dump(of), indent=1, ensure_ascii=False)
    return as_download(text, "application/json", of.name, "lesson.json")


@router.post("/lessons/from-plan/{int:plan_id}", auth=head_only, response={201: LessonLine})
def from_plan(request: HttpRequest, plan_id: int, new: Body[NewLesson]) -> Status[LessonLine]:
    plan = plan_of(plan_id)
    of = lesson_of_plan(plan, the_kitchen(), new.seed)
    return _begun(request, _called(of, new), f"the plan {plan.name}", plan_id)


@router.post("/lessons/from-run/{uuid:run_id}", auth=head_only, response={201: LessonLine})
def from_run(request: HttpRequest, run_id: UUID, new: Body[NewLesson]) -> Status[LessonLine]:
    """A lesson of a day that was, with the room, the hands and the fridge as they were."""
    run = run_of(run_id)
    plan, worked, kitchen = snapshot(run)
    zone = timezone.get_current_timezone()
    now = stand(worked, run.started_at, events_of(run))
    of = lesson_of_run(plan, worked, kitchen, now, zone, new.seed)
    day = run.started_at.astimezone(zone).strftime("%d %b %Y")
    return _begun(request, _called(of, new), f"the run of {plan.name} on {day}")


def _called(of: Lesson, new: NewLesson) -> Lesson:
    return replace(of, name=new.name) if new.name else of


@router.post("/lessons/{key}/into-plan", auth=head_only, response=IntoPlan)
def into_plan(request: HttpRequest, key: str, so_far: Body[PlaySoFar]) -> IntoPlan:
    """What was decided put into the plan that the lesson was made from, as its next revision."""
    one = kept(key)
    if one.record is None or one.record.plan_id is None:
        raise Faults(Fault("key", "This lesson was not made from a plan of this house."))
    decided = checked(one.lesson, Decisions(so_far.decisions))
    plan_id = one.record.plan_id
    saved = saved_anew(plan_id, lambda plan: put_into_plan(plan, decided), user_of(request))
    return IntoPlan(plan_id, saved.revision)


def _begun(
    request: HttpRequest, of: Lesson, source: str, plan_id: int | None = None
) -> Status[LessonLine]:
    outcome_of(played(of))  # raises where not even its plan can be played
    record = LessonRecord.begun(dump(of), user_of(request), source=source[:120], plan_id=plan_id)
    return Status(201, _lines(request, [kept(f"{OWN}{record.pk}")])[0])


def _own(key: str) -> LessonRecord:
    record = kept(key).record
    if record is None:
        raise Faults(
            Fault("key", "This lesson ships with Eight Turn. Make one of your own from its file.")
        )
    return record


@router.post("/inside", auth=signed_in, response=list[LeavesAfter])
def inside(request: HttpRequest, of: Body[LeafMethod]) -> list[LeavesAfter]:
    """A method seen inside: its leaves after every fold."""
    return list(seen_inside(of, the_kitchen()))
