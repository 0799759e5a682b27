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
Inside = tuple[Extent, Extent]  # of butter and of dough
Ends = tuple[Leaf, Leaf]

# A key is a rolling hash of the leaves as they were laid, read upwards and read downwards, and the power
# that shifts another behind it: of two stacks on each other it is worked from theirs.
Key = tuple[int, int, int]
_PRIME, _BASE = 1_073_741_789, 715_827_883  # below 2³⁰: quick to multiply
_SAME_MM_DIGITS = 9  # leaves are as thick as each other when they are so to so many digits, mm


@dataclass(slots=True, eq=False)
class Stack:
    """Leaves from ``bottom`` to ``top``: a summary, and how to walk them.

    ``lowest`` and ``highest``: what the leaves at its ends are made of. ``key``: two with the same have
    the same leaves. ``tucked``: trimmings were laid in here, so that it has more leaves than the
    folds made.
    """

    butter_leaves: int
    dough_leaves: int
    butter_mm: float
    dough_mm: float
    lowest: Material
    highest: Material
    key: Key
    tucked: bool = False
    # Written out, a few folds would fill a library. The last of ``parts`` says whether the upper lies
    # turned over.
    parts: tuple[Stack, Stack, bool] | None = field(default=None, repr=False)
    flipped: Stack | None = field(default=None, repr=False)
    pressed: tuple[Stack, float] | None = field(default=None, repr=False)
    # worked once they are asked for
    ends: Ends | None = field(default=None, repr=False)
    inside: Inside | None = field(default=None, repr=False)

    @property
    def bottom(self) -> Leaf:
        """The leaf that it lies on."""
        return _ends(self)[0]

    @property
    def top(self) -> Leaf:
        """The leaf that lies uppermost."""
        return _ends(self)[1]

    @property
    def leaves(self) -> int:
        return self.butter_leaves + self.dough_leaves

    @property
    def thickness(self) -> float:
        return self.butter_mm + self.dough_mm

    def extent(self, material: Material) -> Extent:
        """Thinnest and thickest leaf of ``material``, both ends included, mm before press."""
        inner = _inside(self)[material is Material.DOUGH]
        for end in _ends(self):
            if end.material is material:
                inner = inner.also(end.thickness)
        return inner


def leaf(material: Material, thickness: float) -> Stack:
    """A stack of one leaf of ``thickness`` mm."""
    butter = material is Material.BUTTER
    return Stack(
        int(butter),
        int(not butter),
        thickness if butter else 0.0,
        0.0 if butter else thickness,
        material,
        material,
        (one := hash((butter, round(thickness, _SAME_MM_DIGITS))) % _PRIME, one, _BASE),
    )


def flip(stack: Stack) -> Stack:
    """The stack turned over."""
    up, down, long = stack.key
    if up == down:
        return stack
    if stack.flipped is not None:
        return stack.flipped
    made = (None, stack, None)
    key = (down, up, long)
    return _like(stack, stack.highest, stack.lowest, key, stack.tucked, made)


def tucked(stack: Stack) -> Stack:
    """The stack marked as holding trimmings that were tucked in."""
    made = (stack.parts, stack.flipped, stack.pressed)
    return _like(stack, stack.lowest, stack.highest, stack.key, True, made)


def scaled(stack: Stack, by: float) -> Stack:
    """The stack with every leaf ``by`` times as thick."""
    up, down, _ = stack.key
    return Stack(
        stack.butter_leaves,
        stack.dough_leaves,
        stack.butter_mm * by,
        stack.dough_mm * by,
        stack.lowest,
        stack.highest,
        (hash((up, by)) % _PRIME, hash((down, by)) % _PRIME, _BASE),
        stack.tucked,
        None,
        None,
        (stack, by) if stack.leaves > 1 else None,
    )


_Made = tuple["tuple[Stack, Stack, bool] | None", "Stack | None", "tuple[Stack, float] | None"]


def _like(
    stack: Stack,
    lowest: Material,
    highest: Material,
    key: Key,
    tucked: bool,
    made: _Made,
) -> Stack:
    # Said out in full: a fold makes hundreds of these, and dataclasses.replace takes its time.
    return Stack(
        stack.butter_leaves,
        stack.dough_leaves,
        stack.butter_mm,
        stack.dough_mm,
        lowest,
        highest,
        key,
        tucked,
        *made,
    )


def pile(below: Stack, above: Stack, turned: bool = False) -> Stack:
    """``above`` laid on ``below``, ``turned`` over if so; where equal materials meet they fuse into one
    leaf. O(1).
    """
    lower, upper, highest = below.highest, above.lowest, above.highest
    (up, down, long), (up_, down_, long_) = below.key, above.key
    if turned:
        upper, highest, up_, down_ = highest, upper, down_, up_
    key = (up * long_ + up_) % _PRIME, (down_ * long + down) % _PRIME, long * long_ % _PRIME
    butter = below.butter_leaves + above.butter_leaves
    dough = below.dough_leaves + above.dough_leaves
    if lower is upper:
        if lower is Material.BUTTER:
            butter -= 1
        else:
            dough -= 1
    return Stack(
        butter,
        dough,
        below.butter_mm + above.butter_mm,
        below.dough_mm + above.dough_mm,
        below.lowest,
        highest,
        key,
        below.tucked or above.tucked,
        (below, above, turned),
    )


def _ends(stack: Stack) -> Ends:
    """The leaves at its two ends, lowest first; of one leaf, twice that."""
    if stack.ends is None:
        stack.ends = _found_ends(stack)
    return stack.ends


def _found_ends(stack: Stack) -> Ends:
    if stack.leaves == 1:
        one = Leaf(stack.lowest, stack.thickness)
        return one, one
    if stack.flipped is not None:
        return _ends(stack.flipped)[::-1]
    if stack.pressed is not None:
        inner, by = stack.pressed
        bottom, top = (Leaf(e.material, e.thickness * by) for e in _ends(inner))
        return bottom, top
    assert stack.parts is not None
    below, above, turned = stack.parts
    bottom, lower = _ends(below)
    upper, top = _ends(above)[::-1] if turned else _ends(above)
    if lower.material is upper.material:
        met = Leaf(lower.material, lower.thickness + upper.thickness)
        bottom = met if below.leaves == 1 else bottom
        top = met if above.leaves == 1 else top
    return bottom, top


def _inside(stack: Stack) -> Inside:
    """Extents of the leaves strictly inside: the two end leaves stay out, because the next fold may
    still fuse an end with its neighbour.
    """
    if stack.inside is None:
        stack.inside = _found_inside(stack)
    return stack.inside


def _found_inside(stack: Stack) -> Inside:
    if stack.flipped is not None:
        return _inside(stack.flipped)
    if stack.pressed is not None:
        inner, by = stack.pressed
        butter, dough = _inside(inner)
        return butter.scaled(by), dough.scaled(by)
    if stack.parts is None:
        return _NONE, _NONE
    below, above, turned = stack.parts
    butter, dough = (a.joined(b) for a, b in zip(_inside(below), _inside(above), strict=True))
    lower, upper = below.top, above.top if turned else above.bottom
    if lower.material is upper.material:
        both = below.leaves > 1 and above.leaves > 1
        within = [Leaf(lower.material, lower.thickness + upper.thickness)] if both else []
    else:
        within = [end for end, part in ((lower, below), (upper, above)) if part.leaves > 1]
    for met in within:
        if met.material is Material.BUTTER:
            butter = butter.also(met.thickness)
        else:
            dough = dough.also(met.thickness)
    return butter, dough


def lie(
    parts: tuple[Stack, Stack, bool], over: bool
) -> tuple[tuple[Stack, bool], tuple[Stack, bool]]:
    """The lower and the upper of two parts as they lie, each with whether it lies turned over;
    ``over``: the whole of them does.
    """
    below, above, turned = parts
    one, two = (below, over), (above, over is not turned)
    return (two, one) if over else (one, two)


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
            (first, first_over), (second, second_over) = lie(node.parts, over)
            todo.append((second, second_over, at + first.thickness * by, by))
            todo.append((first, first_over, at, by))
        else:
            here = node.thickness * by
            if pending is not None and pending.material is node.lowest:
                pending = Leaf(pending.material, pending.thickness + here)
                continue
            if pending is not None:
                yield pending
            pending = Leaf(node.lowest, here)
    if pending is not None:
        yield pending


def thicknesses(stack: Stack) -> list[float]:
    """Every leaf's thickness from bottom to top, mm before press; materials alternate from ``bottom``.

    All of them are written out: for a stack of few leaves.
    """
    if stack.flipped is not None:
        return thicknesses(stack.flipped)[::-1]
    if stack.pressed is not None:
        inner, by = stack.pressed
        return [t * by for t in thicknesses(inner)]
    if stack.parts is None:
        return [stack.thickness]
    below, above, turned = stack.parts
    lower, upper = thicknesses(below), thicknesses(above)
    if turned:
        upper.reverse()
    if len(lower) + len(upper) > stack.leaves:
        lower[-1] += upper[0]
        del upper[0]
    return lower + upper
