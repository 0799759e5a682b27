"""What comes of marks: the pieces cut along them, and marks made one cut from the last."""

from __future__ import annotations

import math

from lamination.pieces.cutting import Marks


def cut_from(row_marks: tuple[Marks, Marks], kerf_mm: float) -> tuple[float, ...]:
    """The areas of the pieces that come of cutting along marks on both edges of a row, mm².

    Simulated: every cut takes half a kerf from either side; where two cuts meet before the edge the
    piece ends at their crossing.
    """
    near, far = row_marks
    height = far.across_mm - near.across_mm
    areas = []
    for i in range(len(near.along_mm) - 1):
        lines = [(near.along_mm[j], far.along_mm[j]) for j in (i, i + 1)]
        eats = [kerf_mm / 2 * math.sqrt(1 + ((b - a) / height) ** 2) for a, b in lines]
        top = lines[1][0] - lines[0][0] - eats[0] - eats[1]
        foot = lines[1][1] - lines[0][1] - eats[0] - eats[1]
        narrow, wide = sorted((top, foot))
        if wide <= 0:
            areas.append(0.0)
        elif narrow >= 0:
            areas.append(height * (narrow + wide) / 2)
        else:
            areas.append(height * wide / (wide - narrow) * wide / 2)
    return tuple(areas)


def chained(row_marks: tuple[Marks, Marks], kerf_mm: float) -> tuple[Marks, Marks]:
    """The same row marked one cut from the last, as if the blade took nothing: where the marks go.

    Each mark is a piece's own width from the one before, so the kerfs are missing, one more at each.
    """
    near, far = row_marks
    height = far.across_mm - near.across_mm
    lost, at_near, at_far = 0.0, [], []
    for a, b in zip(near.along_mm, far.along_mm, strict=True):
        at_near.append(a - lost)
        at_far.append(b - lost)
        lost += kerf_mm * math.sqrt(1 + ((b - a) / height) ** 2)
    return Marks(near.across_mm, tuple(at_near)), Marks(far.across_mm, tuple(at_far))
