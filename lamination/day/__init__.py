"""A day: what was ordered, what must be made for it, and when each hand does what."""

from lamination.day.amended import OrderAmendment, amend_order
from lamination.day.at_hand import ready
from lamination.day.batch import Wanted
from lamination.day.day import Day, Dough, Happened, Held, Prefer, Quiet, Shift, Weekday
from lamination.day.from_store import FromStore
from lamination.day.now import (
    Due,
    Lying,
    When,
    due,
    given_up_of,
    handover,
    happened_of,
    lying,
    on_now,
    went_of,
)
from lamination.day.order import Order, Ordered, WorkedOrder, work_order
from lamination.day.ordered import Numbered, copied, day_of
from lamination.day.since import Since
from lamination.day.standing import (
    Different,
    changes,
    date_of,
    first_ready,
    last_like,
    standing_on,
    stands_next,
)
from lamination.day.timetable import arranged, hardly_more, timetable
from lamination.day.told import Task, Timetable, first_change

__all__ = [
    "Day",
    "Different",
    "Dough",
    "Due",
    "FromStore",
    "Happened",
    "Held",
    "Lying",
    "Numbered",
    "Order",
    "OrderAmendment",
    "Ordered",
    "Prefer",
    "Quiet",
    "Shift",
    "Since",
    "Task",
    "Timetable",
    "Wanted",
    "Weekday",
    "When",
    "WorkedOrder",
    "amend_order",
    "arranged",
    "changes",
    "copied",
    "date_of",
    "day_of",
    "due",
    "first_change",
    "first_ready",
    "given_up_of",
    "handover",
    "happened_of",
    "hardly_more",
    "last_like",
    "lying",
    "on_now",
    "ready",
    "standing_on",
    "stands_next",
    "timetable",
    "went_of",
    "work_order",
]  # fmt: skip
