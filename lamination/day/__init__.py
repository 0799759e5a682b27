"""A day: what was ordered, and what must be made for it."""

from lamination.day.order import Order, Ordered, Wanted, WorkedOrder, work_order

__all__ = [
    "Order", "Ordered", "Wanted", "WorkedOrder", "work_order",
]  # fmt: skip
