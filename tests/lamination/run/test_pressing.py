"""What presses most: the tray that is ready first, whatever the dough as a whole does."""

from datetime import timedelta

from lamination.plan.work import work
from lamination.run.events import Event, EventKind
from lamination.run.pressing import pressing
from lamination.run.standing import stand
from tests.plans import station

from .test_tray_run import START, TRAYS, Desk


def test_a_dough_at_rest_presses_by_its_own_time():
    worked = work(station())
    events = tuple(
        Event(f"event-{n:04}", START + timedelta(minutes=n), EventKind.DONE, stop)
        for n, stop in enumerate(("dough", "lock_in", "turn-1"))
    )
    first = pressing(stand(worked, START, events))
    assert (first.stop, first.tray) == ("turn-1", None)
    assert first.at == START + timedelta(minutes=2 + 30)
    assert pressing(stand(worked, START, events[:1])) is None


def test_of_several_trays_the_one_that_is_ready_first_presses():
    desk = Desk()
    assert pressing(desk.now) is None
    desk.tray(10, TRAYS[1], 0)
    desk.tray(25, TRAYS[0], 0)
    first = pressing(desk.now)
    assert (first.stop, first.tray) == ("shape", TRAYS[1])
    # it stays first while another still waits for hands
    assert first.at < desk.at(TRAYS[0]).until


def test_a_tray_that_is_lost_presses_no_more():
    desk = Desk()
    desk.tray(10, TRAYS[1], 0)
    desk.tray(25, TRAYS[0], 0)
    desk.say(30, EventKind.LOST, tray=TRAYS[1])
    assert pressing(desk.now).tray == TRAYS[0]


def test_what_is_over_presses_nobody():
    desk = Desk()
    desk.tray(10, TRAYS[1], 0)
    desk.say(12, EventKind.GIVE_UP)
    assert pressing(desk.now) is None
