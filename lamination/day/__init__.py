"""A day: what was ordered, what must be made for it, and when each hand does what."""

from lamination.day.day import Day, Dough, Happened, Held, Prefer, Quiet, Shift
from lamination.day.order import Order, Ordered, Wanted, WorkedOrder, work_order
from lamination.day.timetable import Since, arranged, timetable
from lamination.day.told import Task, Timetable

__all__ = [
    "Day", "Dough", "Happened", "Held", "Order", "Ordered", "Prefer", "Quiet", "Shift", "Since", "Task",
    "Timetable", "Wanted", "WorkedOrder", "arranged", "timetable", "work_order",
]  # fmt: skip
