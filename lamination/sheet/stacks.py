"""Stacks of leaves: a summary that combines in O(1), and how to walk what it stands for.

A six-letter puff has 1 459 leaves and twelve book folds would have tens of millions, so a stack
never lists its leaves: it is built from two smaller stacks, or from one that was turned over or
pressed, and keeps a summary. The leaves are walked only where they are drawn. Where a fold lays a
leaf on another of the same material, the two fuse.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from enum import StrEnum


class Material(StrEnum):
    """What a leaf is made of."""

    DOUGH = "dough"
    BUTTER = "butter"


# A plan makes thousands of the three classes below. Nothing changes them once they are made, but they
# are not marked as frozen: a frozen dataclass takes three times as long to make.


@dataclass(slots=True)
class Leaf:
    """One layer of one material, ``thickness`` in mm (before the sheet's ``press``)."""

    material: Material
    thickness: float


@dataclass(slots=True, unsafe_hash=True)
class Extent:
    """The thinnest and the thickest of some leaves, mm; ``(inf, 0)`` when there are none."""

    low: float = math.inf
    high: float = 0.0

    def also(self, thickness: float) -> Extent:
        """The extent with one more leaf counted in."""
        if self.low <= thickness <= self.high:
            return self
        return Extent(min(self.low, thickness), max(self.high, thickness))

    def joined(self, other: Extent) -> Extent:
        """The extent of both."""
        if other.high <= self.high and other.low >= self.low:
            return self
        return Extent(min(self.low, other.low), max(self.high, other.high))

    def scaled(self, by: float) -> Extent:
        """The extent of the same leaves, ``by`` times as thick."""
        return Extent(self.low * by, self.high * by)


_NONE = Extent()


@dataclass(slots=True, eq=False)
class Stack:
    """Leaves from ``bottom`` to ``top``: a summary, and how to walk them.

    ``inner_butter`` and ``inner_dough`` are extents of the leaves strictly inside: the two end
    leaves stay out of them, because the next fold may still fuse an end with its neighbour.
    ``bent``: it lies in a strip where a closed edge bent its leaves. ``tucked``: trimmings were laid
    in here, so that it has more leaves than the folds made.
    """

    butter_leaves: int
    dough_leaves: int
    butter_mm: float
    dough_mm: float
    bottom: Leaf
    top: Leaf
    inner_butter: Extent = _NONE
    inner_dough: Extent = _NONE
    bent: bool = False
    tucked: bool = False
    # Written out, a few folds would fill a library.
    parts: tuple[Stack, Stack] | None = field(default=None, repr=False)
    flipped: Stack | None = field(default=None, repr=False)
    pressed: tuple[Stack, float] | None = field(default=None, repr=False)

    @property
    def leaves(self) -> int:
        return self.butter_leaves + self.dough_leaves

    @property
    def thickness(self) -> float:
        return self.butter_mm + self.dough_mm

    def extent(self, material: Material) -> Extent:
        """Thinnest and thickest leaf of ``material``, both ends included, mm before press."""
        inner = self.inner_butter if material is Material.BUTTER else self.inner_dough
        for end in (self.bottom, self.top):
            if end.material is material:
                inner = inner.also(end.thickness)
        return inner


def leaf(material: Material, thickness: float) -> Stack:
    """A stack of one leaf of ``thickness`` mm."""
    one = Leaf(material, thickness)
    butter = material is Material.BUTTER
    return Stack(
        int(butter),
        int(not butter),
        thickness if butter else 0.0,
        0.0 if butter else thickness,
        one,
        one,
    )


def flip(stack: Stack) -> Stack:
    """The stack turned over."""
    if stack.leaves == 1:
        return stack
    if stack.flipped is not None:
        return stack.flipped
    return _like(stack, stack.top, stack.bottom, stack.bent, stack.tucked, (None, stack, None))


def bent(stack: Stack) -> Stack:
    """The stack marked as lying where a closed edge bent its leaves."""
    if stack.bent:
        return stack
    made = (stack.parts, stack.flipped, stack.pressed)
    return _like(stack, stack.bottom, stack.top, True, stack.tucked, made)


def tucked(stack: Stack) -> Stack:
    """The stack marked as holding trimmings that were tucked in."""
    made = (stack.parts, stack.flipped, stack.pressed)
    return _like(stack, stack.bottom, stack.top, stack.bent, True, made)


def scaled(stack: Stack, by: float) -> Stack:
    """The stack with every leaf ``by`` times as thick."""
    return Stack(
        stack.butter_leaves,
        stack.dough_leaves,
        stack.butter_mm * by,
        stack.dough_mm * by,
        Leaf(stack.bottom.material, stack.bottom.thickness * by),
        Leaf(stack.top.material, stack.top.thickness * by),
        stack.inner_butter.scaled(by),
        stack.inner_dough.scaled(by),
        stack.bent,
        stack.tucked,
        None,
        None,
        (stack, by) if stack.leaves > 1 else None,
    )


_Made = tuple["tuple[Stack, Stack] | None", "Stack | None", "tuple[Stack, float] | None"]


def _like(stack: Stack, bottom: Leaf, top: Leaf, bent: bool, tucked: bool, made: _Made) -> Stack:
    # Said out in full: a fold makes hundreds of these, and dataclasses.replace takes its time.
    return Stack(
        stack.butter_leaves,
        stack.dough_leaves,
        stack.butter_mm,
        stack.dough_mm,
        bottom,
        top,
        stack.inner_butter,
        stack.inner_dough,
        bent,
        tucked,
        *made,
    )


def pile(below: Stack, above: Stack) -> Stack:
    """``above`` laid on ``below``; where equal materials meet they fuse into one leaf. O(1)."""
    lower, upper = below.top, above.bottom
    fuses = lower.material is upper.material
    butter = below.butter_leaves + above.butter_leaves
    dough = below.dough_leaves + above.dough_leaves
    in_butter = below.inner_butter.joined(above.inner_butter)
    in_dough = below.inner_dough.joined(above.inner_dough)
    bottom, top = below.bottom, above.top
    if fuses:
        met = Leaf(lower.material, lower.thickness + upper.thickness)
        if lower.material is Material.BUTTER:
            butter -= 1
        else:
            dough -= 1
        meeting = [met]
        if below.butter_leaves + below.dough_leaves == 1:
            bottom = met
            meeting = []
        if above.butter_leaves + above.dough_leaves == 1:
            top = met
            meeting = []
    else:
        meeting = []
        if below.butter_leaves + below.dough_leaves > 1:
            meeting.append(lower)
        if above.butter_leaves + above.dough_leaves > 1:
            meeting.append(upper)
    for met in meeting:
        if met.material is Material.BUTTER:
            in_butter = in_butter.also(met.thickness)
        else:
            in_dough = in_dough.also(met.thickness)
    return Stack(
        butter,
        dough,
        below.butter_mm + above.butter_mm,
        below.dough_mm + above.dough_mm,
        bottom,
        top,
        in_butter,
        in_dough,
        below.bent or above.bent,
        below.tucked or above.tucked,
        (below, above),
    )


def walk(stack: Stack, low: float = -math.inf, high: float = math.inf) -> Iterator[Leaf]:
    """The leaves that reach into heights ``low`` to ``high`` (mm before press), bottom to top.

    Skips whole sub-stacks outside the window, so a narrow window of a huge stack is cheap.
    Neighbours of one material come out fused.
    """
    pending: Leaf | None = None
    todo: list[tuple[Stack, bool, float, float]] = [(stack, False, 0.0, 1.0)]
    while todo:
        node, over, at, by = todo.pop()
        if at >= high or at + node.thickness * by <= low:
            # A leaf cut off by the window's edge must not fuse with one beyond it.
            if pending is not None:
                yield pending
                pending = None
            continue
        if node.flipped is not None:
            todo.append((node.flipped, not over, at, by))
        elif node.pressed is not None:
            todo.append((node.pressed[0], over, at, by * node.pressed[1]))
        elif node.parts is not None:
            first, second = reversed(node.parts) if over else node.parts
            todo.append((second, over, at + first.thickness * by, by))
            todo.append((first, over, at, by))
        else:
            here = node.bottom.thickness * by
            if pending is not None and pending.material is node.bottom.material:
                pending = Leaf(pending.material, pending.thickness + here)
                continue
            if pending is not None:
                yield pending
            pending = Leaf(node.bottom.material, here)
    if pending is not None:
        yield pending
