"""The section along any line of a sheet: the true stacks that the line runs through."""

from __future__ import annotations

from bisect import bisect_left
from dataclasses import dataclass
from itertools import groupby
from typing import Annotated

from lamination.sheet.cells import Sheet, turn
from lamination.sheet.stacks import Material, Stack, lie, walk
from lamination.terms.limits import Checked, Range

MOST_LEAVES = 3_000  # a stack of more is drawn leaf by leaf only through a narrower window


@dataclass(frozen=True)
class Across(Checked):
    """Where a sheet is cut across: ``at_pct`` of its width, or of its length when ``crosswise``.

    The leaves wanted lie from ``low_pct`` to ``high_pct`` of its height.
    """

    at_pct: Annotated[float, Range(0, 100, "%")] = 50.0
    crosswise: bool = False
    low_pct: Annotated[float, Range(0, 100, "%")] = 0.0
    high_pct: Annotated[float, Range(0, 100, "%")] = 100.0


@dataclass(frozen=True, slots=True)
class DrawnStack:
    """A stack's leaves inside the window, from the one that starts at ``from_um``; µm upwards.

    ``leaves_um`` alternate between the materials, beginning with ``bottom``. When they were too many
    to list it is empty, and the stack is a tone of dough and ``butter_pct`` butter. ``butter_um`` and
    ``dough_um``: a leaf of each on average, 0 where there is none.
    """

    height_um: float
    from_um: float
    bottom: Material
    leaves_um: tuple[float, ...]
    butter_pct: float
    butter: int
    dough: int
    bent: bool
    butter_um: float
    dough_um: float


@dataclass(frozen=True, slots=True)
class Column:
    """A stretch of the line, mm from its start, over which one stack reigns."""

    from_mm: float
    to_mm: float
    stack: int


@dataclass(frozen=True, slots=True)
class LineSection:
    """What a cut along a line shows, left to right."""

    length_mm: float
    height_um: float
    columns: tuple[Column, ...]
    stacks: tuple[DrawnStack, ...]


def cut_along(sheet: Sheet, line: Across) -> LineSection:
    """The section of a sheet along a line. Lengths in mm from the sheet's corner, heights in µm."""
    if line.crosswise:
        sheet = turn(sheet)
    y = sheet.ys[0] + sheet.width_mm * line.at_pct / 100
    across = max(min(bisect_left(sheet.ys, y) - 1, len(sheet.ys) - 2), 0)
    row = [column[across] for column in sheet.cells]
    numbers: dict[int, int] = {}
    columns = []
    for member, cells in groupby(range(len(row)), key=lambda i: row[i]):
        run = list(cells)
        columns.append(
            Column(
                round(sheet.xs[run[0]] - sheet.xs[0], 3),
                round(sheet.xs[run[-1] + 1] - sheet.xs[0], 3),
                numbers.setdefault(member, len(numbers)),
            )
        )
    um = 1_000 * sheet.press
    height = max(sheet.pool[m >> 1].thickness for m in numbers)
    window = height * line.low_pct / 100, height * line.high_pct / 100
    drawn = tuple(_drawn(sheet.pool[m >> 1], m & 1 > 0, window, um) for m in numbers)
    return LineSection(sheet.length_mm, height * um, tuple(columns), drawn)


def _drawn(stack: Stack, bent: bool, window: tuple[float, float], um: float) -> DrawnStack:
    low, high = window
    inside = max(0.0, min(high, stack.thickness) - low) / stack.thickness
    starts, bottom, leaves = 0.0, stack.lowest, list[float]()
    if stack.leaves * inside <= MOST_LEAVES:
        # Leaves cut off by the window come whole, so the first may start below it.
        found = list(walk(stack, low, high))
        if low > 0 and found:
            starts = _start_of(stack, low)
        leaves = [round(n.thickness * um, 2) for n in found]
        bottom = found[0].material if found else bottom
    return DrawnStack(
        stack.thickness * um,
        starts * um,
        bottom,
        tuple(leaves),
        100 * stack.butter_mm / stack.thickness,
        stack.butter_leaves,
        stack.dough_leaves,
        bent,
        um * stack.butter_mm / max(stack.butter_leaves, 1),
        um * stack.dough_mm / max(stack.dough_leaves, 1),
    )


def _start_of(stack: Stack, low: float) -> float:
    """Where the first thing that :func:`walk` gives for a window from ``low`` begins."""
    at, node, over, by = 0.0, stack, False, 1.0
    while True:
        if node.flipped is not None:
            node, over = node.flipped, not over
        elif node.pressed is not None:
            inner, press = node.pressed
            node, by = inner, by * press
        elif node.parts is not None:
            (first, first_over), (second, second_over) = lie(node.parts, over)
            if at + first.thickness * by <= low:
                at, node, over = at + first.thickness * by, second, second_over
            else:
                node, over = first, first_over
        else:
            return at
