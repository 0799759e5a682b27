"""The butter block from plaques as they are bought: how many, joined how, trimmed by how much."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from lamination.terms.said import counted, g, mm
from lamination.terms.sizes import Size

_HAIR = 1e-6


_ROLLS = 0.02  # a plaque that grows or shrinks by less is not rolled


@dataclass(frozen=True, slots=True)
class Plaques:
    """Plaques for one block.

    ``whole`` go in as they are, ``part_g`` is cut from one more (0: none). They lie ``across`` ×
    ``along`` side by side, and what was cut off lies on them or beside them; ``stretch`` is how
    many times the area grows (below 1: it is folded or pressed together) to come to the block.
    ``trim_g`` is left of the plaque that was cut.
    """

    whole: int
    part_g: float
    trim_g: float
    across: int
    along: int
    turned: bool
    part_length_mm: float
    plaque: Size
    stretch: float

    @property
    def count(self) -> int:
        """Plaques that are laid, the cut one included."""
        return self.whole + (self.part_g > 0)


def plaques_for(block_g: float, block: Size, plaque: Size, plaque_g: float) -> Plaques:
    """How a block of ``block_g`` is made of plaques of ``plaque`` size and ``plaque_g`` each.

    Whole plaques as many as fit, the rest cut from one more, straight across its length. They are
    laid in the grid that comes nearest to the block's proportions, edges joined, and rolled to
    size. A plaque bigger than the block is cut. Source: trade practice.
    """
    whole = int(block_g / plaque_g + _HAIR)
    part_g = block_g - whole * plaque_g
    if part_g < _HAIR * plaque_g:
        part_g = 0.0
    part_length = plaque.length_mm * part_g / plaque_g
    across, along, turned = _grid(max(whole, 1), block, plaque)
    area = (whole * plaque_g + part_g) / plaque_g * plaque.length_mm * plaque.width_mm
    stretch = block.length_mm * block.width_mm / area
    trim = plaque_g - part_g if part_g else 0.0
    return Plaques(
        whole,
        part_g,
        trim,
        across,
        along,
        turned,
        part_length,
        plaque,
        stretch,
    )


def _grid(count: int, block: Size, plaque: Size) -> tuple[int, int, bool]:
    """(across, along, turned) of the rows and columns nearest to the block's proportions."""
    wanted = math.log(block.length_mm / block.width_mm)
    choices = [
        (across, count // across, turned)
        for across in range(1, count + 1)
        if count % across == 0
        for turned in (False, True)
    ]

    def off(choice: tuple[int, int, bool]) -> float:
        across, along, turned = choice
        sides = (plaque.width_mm, plaque.length_mm)
        length, width = sides if turned else sides[::-1]
        return abs(math.log(along * length / (across * width)) - wanted)

    return min(choices, key=off)


@dataclass(frozen=True, slots=True)
class FoldBack:
    """Conditioning: rolled to a part of its thickness, then folded back. Length before the folds."""

    folds: int
    roll_to_mm: float
    length_mm: float
    width_mm: float


def fold_back(block: Size, folds: int) -> FoldBack:
    """Roll the block to 1/``folds`` of its thickness and fold it in ``folds`` back to size.

    Cold butter becomes pliable by this without getting warm. Source: trade practice.
    """
    return FoldBack(folds, block.thickness_mm / folds, block.length_mm * folds, block.width_mm)


def slab_for(dough: Size, volume_mm3: float, tray_length_mm: float, tray_width_mm: float) -> Size:
    """The slab a dough is chilled as: the sheet's own proportions, as large as sheet and tray let.

    Arguments: the sheet wanted at the lock-in and the tray's two sides, mm. It never comes out
    thinner than that sheet. Source: trade practice.
    """
    long, short = max(tray_length_mm, tray_width_mm), min(tray_length_mm, tray_width_mm)
    sides = max(dough.length_mm, dough.width_mm), min(dough.length_mm, dough.width_mm)
    share = min(1.0, long / sides[0], short / sides[1])
    length, width = dough.length_mm * share, dough.width_mm * share
    return Size(length, width, volume_mm3 / (length * width))


def said_of_plaques(plaques: Plaques, block: Size) -> Iterator[str]:
    """How a block is made of plaques, in sentences."""
    whole, plaque = plaques.whole, plaques.plaque
    grid = f", {plaques.across} × {plaques.along} edge to edge" if whole > 1 else ""
    wholes = f"{counted(whole, 'whole plaque')}{grid}" if whole else ""
    cut = (
        f"{g(plaques.part_g)} cut from {'one more' if whole else 'one'}: "
        f"{mm(plaques.part_length_mm)} of its {mm(plaque.length_mm)}, {g(plaques.trim_g)} is left"
        if plaques.part_g
        else ""
    )
    yield f"{', and '.join(filter(None, (wholes, cut)))}."
    if plaques.count > 1:
        yield "Press the joins together with butter on butter."
    if plaques.stretch > 1 + _ROLLS:
        yield f"Roll from {mm(plaque.thickness_mm)} to {mm(block.thickness_mm)}."
    elif plaques.stretch < 1 - _ROLLS:
        yield (
            f"Lay it double or press it together: the plaque is {mm(plaque.thickness_mm)}, the block "
            f"{mm(block.thickness_mm)}."
        )
