"""Lock-in: block, dough sheet and package for every school, and the sheet that results.

The block is given by its two sides; its thickness follows from the butter. The dough sheet is
sized to take it. *Across* is the width; the dough folds along the length.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum

from lamination.laminate import Material, Sheet, crease, leaf, pile, place, plain_sheet
from lamination.limits import Fault, Faults


class Method(StrEnum):
    """Schools of lock-in."""

    HALF = "half"
    TWO_THIRDS = "two_thirds"
    ENVELOPE = "envelope"


@dataclass(frozen=True, slots=True)
class Size:
    """Length (along the next roll or fold), width and thickness, mm."""

    length_mm: float
    width_mm: float
    thickness_mm: float

    @property
    def volume_mm3(self) -> float:
        return self.length_mm * self.width_mm * self.thickness_mm


@dataclass(frozen=True, slots=True)
class LockedIn:
    """Butter shut in dough: the three sizes, and the exact ``sheet`` as it lies folded."""

    block: Size
    dough_sheet: Size
    package: Size
    creases_mm: tuple[float, ...]
    sheet: Sheet


def lock_in(
    method: Method,
    dough_mm3: float,
    butter_mm3: float,
    block_width_mm: float,
    block_length_mm: float,
    margin_mm: float = 0.0,
    overlap_mm: float = 0.0,
) -> LockedIn:
    """Size the block, the dough sheet and the package, and fold the butter in.

    Arguments: volumes in mm³; the block's sides in mm; ``margin_mm`` of bare dough all round the
    block (half, two-thirds); ``overlap_mm`` by which the envelope's flaps pass each other.

    half: butter on half the dough, the bare half comes over: one butter layer. two-thirds: butter
    on two thirds, the bare third folds first: two butter layers. envelope: square butter set at
    45° on a square of dough, side = block × √2 + 2 × overlap, four corners to the middle: one
    butter layer (seams are not mapped; an overlap is taken as a thicker upper leaf).

    Raises :class:`Faults` (paths relative to the lock-in) when the method cannot take the block.
    Source: core-model §3; trade practice.
    """
    block = Size(block_length_mm, block_width_mm, butter_mm3 / (block_length_mm * block_width_mm))
    if method is Method.ENVELOPE:
        return _envelope(block, dough_mm3, margin_mm, overlap_mm)
    if overlap_mm:
        raise Faults(Fault("overlap_mm", "Only the envelope has flaps that overlap. Set it to 0."))
    width = block.width_mm + 2 * margin_mm
    covered = block.length_mm + 2 * margin_mm
    # half: one panel is buttered of two; two-thirds: two panels are buttered of three.
    buttered, panels = (1, 2) if method is Method.HALF else (2, 3)
    panel = covered / buttered
    length = panel * panels
    dough = Size(length, width, dough_mm3 / (length * width))
    flat = plain_sheet(length, width, leaf(Material.DOUGH, dough.thickness_mm))
    buttered_sheet = place(
        flat,
        leaf(Material.BUTTER, block.thickness_mm),
        margin_mm,
        margin_mm,
        block.length_mm,
        block.width_mm,
    )
    # The bare panel lies at the far end: it comes over first, the near third last.
    sheet = crease(buttered_sheet, panel * (panels - 1), "high")
    if method is Method.TWO_THIRDS:
        sheet = crease(sheet, panel, "low")
    package = Size(panel, width, sheet.thickness_mm)
    creases = tuple(panel * i for i in range(1, panels))
    return LockedIn(block, dough, package, creases, sheet)


def _envelope(block: Size, dough_mm3: float, margin_mm: float, overlap_mm: float) -> LockedIn:
    if margin_mm:
        raise Faults(Fault("margin_mm", "The envelope has no bare margin; use the overlap."))
    if not math.isclose(block.length_mm, block.width_mm, rel_tol=1e-6):
        side = math.sqrt(block.length_mm * block.width_mm)
        raise Faults(
            Fault(
                "block_length_mm",
                "An envelope wants a square block. "
                f"The same butter as a square is {side:.0f} mm each way.",
            )
        )
    side = block.length_mm * math.sqrt(2) + 2 * overlap_mm
    dough = Size(side, side, dough_mm3 / side**2)
    # Seen along the block's edges the folded flaps cover the block exactly once, plus the overlaps.
    over = dough_mm3 / block.length_mm**2 - dough.thickness_mm
    stack = pile(
        pile(leaf(Material.DOUGH, dough.thickness_mm), leaf(Material.BUTTER, block.thickness_mm)),
        leaf(Material.DOUGH, over),
    )
    sheet = plain_sheet(block.length_mm, block.width_mm, stack)
    package = Size(block.length_mm, block.width_mm, sheet.thickness_mm)
    return LockedIn(block, dough, package, (), sheet)
