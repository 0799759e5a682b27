"""Lock-in: block, dough sheet and package for every school, and the sheet that results.

The block is given by its two sides; its thickness follows from the butter. The dough sheet is
sized to take it. *Across* is the width; the dough folds along the length.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from lamination.sheet.cells import Sheet, crease, origin, place, plain_sheet
from lamination.sheet.stacks import Material, leaf, pile
from lamination.sheet.trims import lay_ends_on, stack_panels
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import mm
from lamination.terms.sizes import Size
from lamination.terms.trade import Method

Counts = NDArray[np.float64]


# How many panels the dough sheet has, and how many of them lie under the block.
_PANELS: dict[Method, tuple[int, int]] = {
    Method.HALF: (2, 1),
    Method.HALF_STACKED: (2, 1),
    Method.TWO_THIRDS: (3, 2),
    Method.GATE: (4, 2),
    Method.OPEN_SIDED: (4, 2),
}
_LUMP_CHORD = 2 / 3  # mean way through a cube of side 1, by 4V/S


@dataclass(frozen=True, slots=True)
class LockedIn:
    """Butter shut in dough: the three sizes, and the exact ``sheet`` as it lies folded."""

    block: Size
    dough_sheet: Size
    package: Size
    creases_mm: tuple[float, ...]
    sheet: Sheet


@lru_cache(maxsize=64)
def lock_in(
    method: Method,
    dough_mm3: float,
    butter_mm3: float,
    block_width_mm: float,
    block_length_mm: float,
    margin_mm: float = 0.0,
    overlap_mm: float = 0.0,
    off_centre_mm: float = 0.0,
    lump_mm: float = 20.0,
    share: float = 2 / 3,
    flap: float = 0.25,
) -> LockedIn:
    """Size the block, the dough sheet and the package, and lay the butter in.

    Arguments: volumes in mm³; the block's sides in mm; ``margin_mm`` of bare dough all round the
    block; ``overlap_mm`` by which the envelope's flaps pass each other; ``off_centre_mm`` by which
    the block lies too far along the dough (a fault on purpose); ``lump_mm`` the side of the lumps;
    ``share`` (0 to 1) of the dough's length that butter covers, for that way; ``flap``: how thick the
    flaps of a cross are rolled, as a share of its middle.

    half: butter on half the dough, the bare half comes over (stacked: is cut off and laid on): one
    butter layer. two-thirds: butter on two thirds, the bare third folds first: two. gate: butter in
    the middle half, both ends fold in and meet: one, a seam in the middle. open-sided: the same, the
    ends cut off and laid on. envelope: square butter set at 45° on a square of dough, side = block ×
    √2 + 2 × overlap, four corners to the middle: one, seams on the diagonals (where flaps overlap,
    the leaf above is doubled along them, drawn on a grid).
    cross: a middle as large as the block, left thick, and four flaps as large, rolled thin, that all
    come over it one after the other: one butter layer, as much dough above as below it where the flaps
    are a quarter as thick. share: butter from the near end over a share of the dough, which is folded
    in three, the far third first. diamond: a square of dough set at 45° on a square of butter, whose
    corners come to the middle: two around one of dough.
    inverse: the butter is the outer sheet, the dough lies on half of it: two around one of dough.
    spread: all over the dough, which is folded afterwards; two-go: half of it, so that ``block`` is
    that half, and the rest comes before the second fold. lumps: pieces all through the dough: their
    number in a line from bottom to top is share × thickness / (⅔ lump), an estimate.

    Raises :class:`Faults` (paths relative to the lock-in) when the method cannot take the block.
    Source: geometry; trade practice.
    """
    block = Size(block_length_mm, block_width_mm, butter_mm3 / (block_length_mm * block_width_mm))
    if method.is_square:
        _square(block, method)
    if method is Method.ENVELOPE:
        return _envelope(block, dough_mm3, margin_mm, overlap_mm)
    if overlap_mm:
        raise Faults(Fault("overlap_mm", "Only the envelope has flaps that overlap. Set it to 0."))
    if margin_mm and not method.has_margin:
        raise Faults(Fault("margin_mm", "This way of locking in has no bare margin. Set it to 0."))
    if method is Method.INVERSE:
        return _inverse(block, dough_mm3)
    if method is Method.DIAMOND:
        return _diamond(block, dough_mm3)
    if method is Method.CROSS:
        return _cross(block, dough_mm3, flap)
    if method is Method.SHARE:
        return _shared(block, dough_mm3, share)
    if method in (Method.SPREAD, Method.TWO_GO):
        return _spread(block, dough_mm3, 0.5 if method is Method.TWO_GO else 1.0)
    if method is Method.NONE:
        return _bare(block, dough_mm3)
    if method is Method.LUMPS:
        return _lumps(block, dough_mm3, lump_mm)
    return _panelled(method, block, dough_mm3, margin_mm, off_centre_mm)


def sheet_over_block(method: Method) -> float | None:
    """How many times as long as the block a dough sheet is; None where the way has no panels.

    >>> sheet_over_block(Method.HALF), sheet_over_block(Method.TWO_THIRDS), sheet_over_block(Method.GATE)
    (2.0, 1.5, 2.0)
    """
    panels = _PANELS.get(method)
    return panels[0] / panels[1] if panels else None


def block_over_package(method: Method, share: float = 2 / 3) -> float:
    """How many times as long as the package its block is, of the same width; a square one by area.

    ``share``: of the dough that butter covers, for that way.

    >>> block_over_package(Method.HALF), block_over_package(Method.TWO_THIRDS)
    (1.0, 2.0)
    """
    if method is Method.SHARE:
        return 3 * share
    return 2.0 if method in (Method.TWO_THIRDS, Method.INVERSE, Method.DIAMOND) else 1.0


def _panelled(
    method: Method, block: Size, dough_mm3: float, margin_mm: float, off_centre_mm: float
) -> LockedIn:
    """The schools that lay a block on some panels of the dough and bring the others over it."""
    panels, under = _PANELS[method]
    width = block.width_mm + 2 * margin_mm
    covered = block.length_mm + 2 * margin_mm
    panel = covered / under
    length = panel * panels
    dough = Size(length, width, dough_mm3 / (length * width))
    middle = method in (Method.GATE, Method.OPEN_SIDED)
    at = (panel if middle else 0.0) + margin_mm + off_centre_mm
    if at < 0 or at + block.length_mm > length:
        room = -(at - off_centre_mm) if at < 0 else length - block.length_mm - at + off_centre_mm
        text = f"The block would hang over the edge of the dough. From here, {mm(room)} at most."
        raise Faults(Fault("off_centre_mm", text))
    sheet = place(
        plain_sheet(length, width, leaf(Material.DOUGH, dough.thickness_mm)),
        leaf(Material.BUTTER, block.thickness_mm),
        at,
        margin_mm,
        block.length_mm,
        block.width_mm,
    )
    creases = tuple(panel * i for i in range(1, panels))
    if method is Method.HALF:
        sheet = crease(sheet, panel, "high")
    elif method is Method.HALF_STACKED:
        sheet = stack_panels(sheet, 2)
    elif method is Method.TWO_THIRDS:
        # The bare panel lies at the far end: it comes over first, the near third last.
        sheet = crease(crease(sheet, 2 * panel, "high"), panel, "low")
    else:
        creases = (panel, 3 * panel)
        sheet = (
            crease(crease(sheet, 3 * panel, "high"), panel, "low")
            if method is Method.GATE
            else lay_ends_on(sheet, panel)
        )
    sheet = origin(sheet)
    package = Size(sheet.length_mm, width, sheet.thickness_mm)
    return LockedIn(block, dough, package, creases, sheet)


def _inverse(block: Size, dough_mm3: float) -> LockedIn:
    half = block.length_mm / 2
    dough = Size(half, block.width_mm, dough_mm3 / (half * block.width_mm))
    flat = place(
        plain_sheet(block.length_mm, block.width_mm, leaf(Material.BUTTER, block.thickness_mm)),
        leaf(Material.DOUGH, dough.thickness_mm),
        0,
        0,
        half,
        block.width_mm,
    )
    sheet = origin(crease(flat, half, "high"))
    package = Size(half, block.width_mm, sheet.thickness_mm)
    return LockedIn(block, dough, package, (half,), sheet)


def _square(block: Size, method: Method) -> None:
    if not math.isclose(block.length_mm, block.width_mm, rel_tol=1e-6):
        side = math.sqrt(block.length_mm * block.width_mm)
        what = "An envelope" if method is Method.ENVELOPE else "This way of locking in"
        text = f"{what} needs a square block. The same butter as a square is {mm(side)} each way."
        raise Faults(Fault("block_length_mm", text))


def _diamond(block: Size, dough_mm3: float) -> LockedIn:
    side = block.length_mm / math.sqrt(2)
    dough = Size(side, side, dough_mm3 / side**2)
    butter = leaf(Material.BUTTER, block.thickness_mm)
    stack = pile(pile(butter, leaf(Material.DOUGH, dough.thickness_mm)), butter)
    sheet = plain_sheet(side, side, stack)
    return LockedIn(block, dough, Size(side, side, sheet.thickness_mm), (), sheet)


def _cross(block: Size, dough_mm3: float, flap: float) -> LockedIn:
    area = block.length_mm**2
    middle = dough_mm3 / area / (1 + 4 * flap)
    dough = Size(block.length_mm, block.width_mm, middle)
    under = pile(leaf(Material.DOUGH, middle), leaf(Material.BUTTER, block.thickness_mm))
    sheet = plain_sheet(
        block.length_mm, block.width_mm, pile(under, leaf(Material.DOUGH, 4 * flap * middle))
    )
    package = Size(block.length_mm, block.width_mm, sheet.thickness_mm)
    return LockedIn(block, dough, package, (), sheet)


def _shared(block: Size, dough_mm3: float, share: float) -> LockedIn:
    length, width = block.length_mm / share, block.width_mm
    dough = Size(length, width, dough_mm3 / (length * width))
    flat = place(
        plain_sheet(length, width, leaf(Material.DOUGH, dough.thickness_mm)),
        leaf(Material.BUTTER, block.thickness_mm),
        0,
        0,
        block.length_mm,
        width,
    )
    creases = (length / 3, 2 * length / 3)
    sheet = origin(crease(crease(flat, creases[1], "high"), creases[0], "low"))
    package = Size(sheet.length_mm, width, sheet.thickness_mm)
    return LockedIn(block, dough, package, creases, sheet)


def _spread(block: Size, dough_mm3: float, share: float) -> LockedIn:
    dough = Size(block.length_mm, block.width_mm, dough_mm3 / (block.length_mm * block.width_mm))
    block = replace(block, thickness_mm=block.thickness_mm * share)
    stack = pile(
        leaf(Material.DOUGH, dough.thickness_mm), leaf(Material.BUTTER, block.thickness_mm)
    )
    sheet = plain_sheet(block.length_mm, block.width_mm, stack)
    package = Size(block.length_mm, block.width_mm, sheet.thickness_mm)
    return LockedIn(block, dough, package, (), sheet)


def _bare(block: Size, dough_mm3: float) -> LockedIn:
    area = block.length_mm * block.width_mm
    dough = Size(block.length_mm, block.width_mm, dough_mm3 / area)
    sheet = plain_sheet(dough.length_mm, dough.width_mm, leaf(Material.DOUGH, dough.thickness_mm))
    return LockedIn(replace(block, thickness_mm=0.0), dough, dough, (), sheet)


def _lumps(block: Size, dough_mm3: float, lump_mm: float) -> LockedIn:
    area = block.length_mm * block.width_mm
    dough = Size(block.length_mm, block.width_mm, dough_mm3 / area)
    butter_mm = block.thickness_mm
    lumps = max(1, round(butter_mm / (_LUMP_CHORD * lump_mm)))
    stack = leaf(Material.DOUGH, dough.thickness_mm / (lumps + 1))
    for _ in range(lumps):
        stack = pile(stack, leaf(Material.BUTTER, butter_mm / lumps))
        stack = pile(stack, leaf(Material.DOUGH, dough.thickness_mm / (lumps + 1)))
    sheet = plain_sheet(block.length_mm, block.width_mm, stack)
    package = Size(block.length_mm, block.width_mm, sheet.thickness_mm)
    return LockedIn(block, dough, package, (), sheet)


def _envelope(block: Size, dough_mm3: float, margin_mm: float, overlap_mm: float) -> LockedIn:
    if margin_mm:
        raise Faults(Fault("margin_mm", "The envelope has no bare margin; use the overlap."))
    side = block.length_mm * math.sqrt(2) + 2 * overlap_mm
    dough = Size(side, side, dough_mm3 / side**2)
    under = pile(
        leaf(Material.DOUGH, dough.thickness_mm), leaf(Material.BUTTER, block.thickness_mm)
    )
    over = _flaps_over(block.length_mm, overlap_mm)
    # Exactly what the dough has beyond the block's own square.
    thick = dough.thickness_mm * (side**2 / block.length_mm**2 - 1) / over.mean()
    counts = sorted(set(over.ravel().tolist()))
    lines = tuple(np.linspace(0, block.length_mm, len(over) + 1).tolist())
    pool = tuple(pile(under, leaf(Material.DOUGH, thick * n)) for n in counts)
    columns = tuple(tuple(2 * counts.index(n) for n in column.tolist()) for column in over)
    sheet = Sheet(lines, lines, columns, pool)
    package = Size(block.length_mm, block.width_mm, sheet.thickness_mm)
    return LockedIn(block, dough, package, (), sheet)


_FLAP_CELLS = 16  # cells along each side of an envelope whose flaps overlap
_FLAP_READ = 4  # places read along each side of such a cell


def _flaps_over(block_mm: float, overlap_mm: float) -> Counts:
    """How many flaps of an envelope lie over each cell of a grid on the block, in the mean.

    A flap lies over every place from its own side of the block to the diagonals and √2 times the
    overlap beyond; what of the dough stands out past two sides is folded in with both, once.
    """
    if not overlap_mm:
        return np.ones((1, 1))
    n = _FLAP_CELLS * _FLAP_READ
    middles = ((np.arange(n) + 0.5) / n - 0.5) * block_mm
    past, half = math.sqrt(2) * overlap_mm, block_mm / 2
    u, v = np.meshgrid(middles, middles, indexing="ij")
    flaps = np.zeros((n, n))
    for along, across in ((u, v), (-u, v), (v, u), (-v, u)):
        flaps += np.abs(across) <= along + past
    # The four ears beyond the block's corners: each is folded in twice, and is there once.
    flaps += 2 * half - np.abs(u) - np.abs(v) <= past
    found: Counts = flaps.reshape(_FLAP_CELLS, _FLAP_READ, _FLAP_CELLS, _FLAP_READ).mean(
        axis=(1, 3)
    )
    return found
