"""Cutting the last sheet: pieces side by side in strips, from one datum."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum

from lamination.lockin import Size

_HAIR = 1e-9  # a piece that fits to within rounding fits


class Shape(StrEnum):
    """Shapes a sheet is cut into."""

    TRIANGLE = "triangle"
    RECTANGLE = "rectangle"


@dataclass(frozen=True, slots=True)
class Corner:
    """A corner of a piece: ``x_mm`` along the sheet, ``y_mm`` across, from one datum."""

    x_mm: float
    y_mm: float


Outline = tuple[Corner, ...]


@dataclass(frozen=True, slots=True)
class Layout:
    """Pieces on a sheet. ``outlines``: the corners of each."""

    pieces: int
    strips: int
    per_strip: int
    piece_mm2: float
    outlines: tuple[Outline, ...]


def kerf_along_base_mm(kerf_mm: float, base_mm: float, height_mm: float) -> float:
    """What a blade that eats ``kerf_mm`` takes along the base in a triangle's slanted cut, mm.

    k·√(1 + (b/2H)²). Source: geometry, core-model §9.
    """
    return kerf_mm * math.sqrt(1 + (base_mm / (2 * height_mm)) ** 2)


def layout(
    sheet: Size, shape: Shape, base_mm: float, height_mm: float, kerf_mm: float = 0.0
) -> Layout:
    """Lay as many pieces as fit on ``sheet``: strips of ``height_mm`` across, bases along.

    n triangles, alternately up and down, and their n + 1 cuts use (n + 1)·b/2 plus n + 1 kerfs of
    the strip's length; n rectangles use n·b and n + 1 kerfs. Strips lie side by side with one kerf
    between. Arguments in mm. Nothing fits: a layout of no pieces. Source: core-model §9.
    """
    strips = math.floor((sheet.width_mm + kerf_mm) / (height_mm + kerf_mm) + _HAIR)
    if shape is Shape.TRIANGLE:
        step = base_mm / 2 + kerf_along_base_mm(kerf_mm, base_mm, height_mm)
        per_strip = math.floor(sheet.length_mm / step + _HAIR) - 1
    else:
        step = base_mm + kerf_mm
        per_strip = math.floor((sheet.length_mm - kerf_mm) / step + _HAIR)
    strips, per_strip = max(strips, 0), max(per_strip, 0)
    first = step - base_mm / 2 if shape is Shape.TRIANGLE else kerf_mm
    outlines = tuple(
        _outline(shape, first + n * step, row * (height_mm + kerf_mm), base_mm, height_mm, n)
        for row in range(strips)
        for n in range(per_strip)
    )
    area = base_mm * height_mm / (2 if shape is Shape.TRIANGLE else 1)
    return Layout(strips * per_strip, strips, per_strip, area, outlines)


def _outline(shape: Shape, x: float, y: float, base: float, height: float, n: int) -> Outline:
    if shape is Shape.RECTANGLE:
        return tuple(
            Corner(x + dx, y + dy) for dx, dy in ((0, 0), (base, 0), (base, height), (0, height))
        )
    foot, tip = (y + height, y) if n % 2 == 0 else (y, y + height)
    return (Corner(x, foot), Corner(x + base, foot), Corner(x + base / 2, tip))
