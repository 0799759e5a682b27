"""What the core writes for the front end's tests to read: runs as they stand, and a plan worked.

They lie in `web/tests/written/`; a test holds them to the core, and ``make written`` writes them anew.
"""

import json
from collections.abc import Iterator
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from pathlib import Path

from bakehouse.demo.teasel_lock import KITCHEN, PLANS
from bakehouse.documents import dump
from bakehouse.kitchen.api import trade_words, view_of
from lamination.kitchen import Kitchen
from lamination.plan import Plan, WorkedPlan, starting_finish, work
from lamination.run import Event, EventKind, admit, called, planned_deeds, stand, tray_steps
from lamination.steps.again import BakeAgain
from lamination.steps.crank import Crank
from lamination.steps.divide import Divide
from lamination.steps.fry import Frying
from lamination.steps.lay_double import LayDouble
from lamination.steps.more_butter import MoreButter
from lamination.steps.offcuts import Offcuts
from lamination.steps.own import OwnStep
from lamination.steps.plain_turn import PlainTurn
from lamination.steps.roll_up import RollUp
from lamination.steps.strew import Strew
from lamination.terms import Family, Rest
from lamination.terms.said import say
from lamination.terms.trade import Fold, Place
from lamination.warmth import work_warmth
from tests.plans import station, turns

FOLDER = Path(__file__).parents[1] / "web/tests/written"
START = datetime(2026, 3, 7, 4, 0, tzinfo=UTC)
DONE, OUT, IN = EventKind.DONE, EventKind.OUT, EventKind.IN


class Tablet:
    """Says things at the bench, as many minutes after the start as one likes."""

    def __init__(self, worked: WorkedPlan) -> None:
        self.worked = worked
        self.events: tuple[Event, ...] = ()

    def say(self, minute: float, kind: EventKind, **more: object) -> Event:
        at = START + timedelta(minutes=minute)
        event = Event(f"event-{len(self.events):04}", at, kind, **more)
        admit(self.worked, START, self.events, event)
        self.events = (*self.events, event)
        return event


def _plain(worked: WorkedPlan) -> Tablet:
    """A clock that goes wrong, a time put right, a rest made longer, and an undo."""
    tablet = Tablet(worked)
    tablet.say(10, DONE, stop="dough")
    locked = tablet.say(25, DONE, stop="lock_in")
    tablet.say(30, EventKind.MOVE, target=locked.id, minutes=-5)
    tablet.say(18, DONE, stop="turn-1")  # before the lock-in: a slow clock
    tablet.say(31, EventKind.REST, stop="turn-1", minutes=50)
    tablet.say(75, OUT, stop="turn-1")
    wrong = tablet.say(80, DONE, stop="turn-2")
    tablet.say(81, EventKind.UNDO, target=wrong.id)
    tablet.say(85, DONE, stop="turn-2")
    return tablet


def _before(worked: WorkedPlan) -> Tablet:
    """Begun before anybody said so, told in two goes, one taken back; then its first step, and when."""
    tablet = Tablet(worked)
    tablet.say(1, EventKind.BEGUN, minutes=-30)
    wrong = tablet.say(2, EventKind.BEGUN, minutes=-60)
    tablet.say(3, EventKind.UNDO, target=wrong.id)
    done = tablet.say(4, DONE, stop="dough")
    tablet.say(5, EventKind.MOVE, target=done.id, minutes=-20)
    tablet.say(25, DONE, stop="lock_in")
    return tablet


def _by_trays(worked: WorkedPlan) -> Tablet:
    """Trays at different stages, one of them lost, the cut said late by another tablet."""
    tablet = Tablet(worked)
    for n, stop in enumerate(("dough", "lock_in", "turn-1", "final", "cut")):
        tablet.say(5 * n, DONE, stop=stop)
    one, two, *others = (t for p in worked.shaped.trays.products for t in p.trays)
    tablet.say(15, DONE, stop="shape", tray=one)  # before the cut: a slow clock
    tablet.say(24, DONE, stop="shape", tray=two)
    for n, tray in enumerate(others):
        tablet.say(30 + n, EventKind.LOST, tray=tray)
    for tray, late in ((one, 0), (two, 12)):
        tablet.say(180 + late, OUT, stop="shape", tray=tray)
        tablet.say(183 + late, DONE, stop="wash", tray=tray)
        tablet.say(186 + late, IN, stop="bake", tray=tray)
    tablet.say(204, DONE, stop="bake", tray=one)
    burnt = tablet.say(230, EventKind.LOST, tray=two)
    tablet.say(231, EventKind.UNDO, target=burnt.id)
    tablet.say(232, DONE, stop="bake", tray=two)
    for tray in (one, two):
        tablet.say(260, OUT, stop="bake", tray=tray)
    tablet.say(262, DONE, stop="look")
    return tablet


def _given_up(worked: WorkedPlan) -> Tablet:
    tablet = Tablet(worked)
    tablet.say(10, DONE, stop="dough")
    stopped = tablet.say(20, EventKind.GIVE_UP)
    tablet.say(22, EventKind.UNDO, target=stopped.id)
    tablet.say(30, EventKind.GIVE_UP)
    return tablet


def runs() -> Iterator[dict]:
    """Runs, and where they stand after each thing that was said."""
    plain = station(turns=turns("letter", "letter", rest=Rest.at(Place.FRIDGE, 30)), cut=None)
    trays = station(turns=turns("letter", rest=None), finish=starting_finish(Family.CROISSANT))
    told = {
        "a clock that goes wrong": (plain, _plain),
        "begun before anybody said so": (plain, _before),
        "trays, and some of them lost": (trays, _by_trays),
        "given up, taken back, given up": (plain, _given_up),
    }
    for name, (plan, tell) in told.items():
        worked = work(plan, Kitchen({"oven.trays": 2}))
        tablet = tell(worked)
        yield {
            "name": name,
            "started_at": dump(START),
            "worked": {"strip": dump(worked)["strip"]},
            "order": [dump(d) for d in planned_deeds(worked.strip)],
            "tray_steps": [dump(t) for t in tray_steps(worked)],
            "events": [dump(e) for e in tablet.events],
            "called": [
                dump(called(worked, stand(worked, START, tablet.events[:n])))
                for n in range(len(tablet.events) + 1)
            ],
            "standings": [
                dump(stand(worked, START, tablet.events[:n])) for n in range(len(tablet.events) + 1)
            ],
        }


def _with_own(plan: Plan) -> Plan:
    """The plan with what is not in it, and a step of the baker's own: every kind stands in it then."""
    at = next(n for n, s in enumerate(plan.steps) if s.do == "turn")
    own = OwnStep("Turn the tub", words="seam down", id="own-1")
    more = (MoreButter(20, id="more_butter-1"), Strew("sugar", 120, id="strew-1"))
    steps = (
        *plan.steps[:at],
        *more,
        plan.steps[at],
        own,
        Divide(60, id="divide-1"),
        *plan.steps[at + 1 :],
    )
    cut = next(n for n, s in enumerate(steps) if s.do == "cut")
    steps = (*steps[:cut], LayDouble(2, id="lay_double"), *steps[cut:])
    dough = next(n for n, s in enumerate(steps) if s.do == "flatten")
    plain = PlainTurn(Fold.LETTER, 12, id="plain_turn-1")
    cut = next(n for n, s in enumerate(steps) if s.do == "cut") + 1
    steps = (*steps[:cut], Offcuts("Bun", 40, id="offcuts-1"), *steps[cut:])
    steps = (*steps, BakeAgain("almond", 25, id="again-1"))
    return replace(plan, steps=(*steps[:dough], plain, Crank(2, id="crank-1"), *steps[dough:]))


def panels() -> dict:
    """A plan with a step of every kind, worked, its warmth, and the words of the trade.

    A sheet is laid double or rolled up, and baked or fried, never both: ``coiled`` has what the first
    has not.
    """
    plan = _with_own(PLANS[0])
    instead = {"lay_double": RollUp(id="roll_up"), "bake": Frying(id="fry")}
    coiled = plan.with_steps(*(instead.get(s.do, s) for s in plan.steps))
    return {
        "coiled": {"plan": dump(coiled), "worked": dump(work(coiled, KITCHEN))},
        "plan": dump(plan),
        "worked": dump(work(plan, KITCHEN)),
        "warmth": dump(work_warmth(plan, KITCHEN, fixes=False)),
        "trade": dump(trade_words()),
        "kitchen": dump(view_of(KITCHEN, 1)),
    }


def numbers() -> list[tuple[float, str]]:
    """Numbers and how sentences have them, halves and what is nearly a half among them."""
    exact = [n / 40 for n in range(4, 200)] + [99.94, 99.95, 99.96, 100.5, 131.4, 240.45]
    summed = [sum([n / 100] * 3) for n in range(5, 60)]
    return [(value, say(value)) for value in (*exact, *summed)]


def texts() -> dict[str, str]:
    """Every file that is written, by its name."""
    found = {"runs": list(runs()), "panels": panels(), "numbers": numbers()}
    return {
        f"{name}.json": json.dumps(what, ensure_ascii=False, sort_keys=True) + "\n"
        for name, what in found.items()
    }
