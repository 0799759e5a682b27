"""A day: what was ordered, what must be made for it, and when each hand does what."""

from lamination.day.day import Day, Dough, Happened, Held, Prefer, Quiet, Shift
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
)
from lamination.day.order import Order, Ordered, Wanted, WorkedOrder, work_order
from lamination.day.ordered import Numbered, copied, day_of
from lamination.day.timetable import Since, arranged, timetable
from lamination.day.told import Task, Timetable

__all__ = [
    "Day", "Dough", "Due", "Happened", "Held", "Lying", "Numbered", "Order", "Ordered", "Prefer", "Quiet",
    "Shift", "Since", "Task", "Timetable", "Wanted", "When", "WorkedOrder", "arranged", "copied",
    "day_of", "due", "given_up_of", "handover", "happened_of", "lying", "on_now", "timetable", "work_order",
]  # fmt: skip
