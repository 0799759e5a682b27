"""Templates at true size: a stencil of one piece, or the marks of the whole sheet, in tiles to print."""

from __future__ import annotations

import math
from dataclasses import dataclass

from lamination.pieces.cutting import Blank, blank_in
from lamination.pieces.over import Oval
from lamination.pieces.products import Product, Shape
from lamination.plan.plan import Plan
from lamination.plan.worked import WorkedPlan
from lamination.steps.cut import CutFigures
from lamination.steps.roll_up import RollUpFigures
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import say
from lamination.terms.trade import Worded

SCALE_CHECK_MM = 100.0  # a line of this length is printed on every page
PAGE_MM = (210.0, 297.0)  # A4
_MARGIN_MM, _OVERLAP_MM = 12.0, 10.0
_FOOT_MM = 16.0  # for the scale check and the words
_ROUND = 240  # points of a circle: within a fiftieth of a mm on a disc of 200
_MOST_PAGES = 120


class TemplateOf(Worded):
    """What a template is of."""

    PIECE = "piece", "one piece"
    SHEET = "sheet", "the whole sheet"


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line through points, mm from the drawing's corner; ``cut``: along it is cut, else a help."""

    points: tuple[tuple[float, float], ...]
    closed: bool
    cut: bool


@dataclass(frozen=True, slots=True)
class Words:
    """Words at a point, mm."""

    x_mm: float
    y_mm: float
    text: str


@dataclass(frozen=True, slots=True)
class Drawing:
    """A drawing at true size, mm; y grows downwards from the datum edge."""

    title: str
    width_mm: float
    height_mm: float
    strokes: tuple[Stroke, ...]
    words: tuple[Words, ...]


@dataclass(frozen=True, slots=True)
class Tile:
    """One page of a drawing: the part of it from ``x_mm``, ``y_mm`` on, and which row and column."""

    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    column: int
    row: int

    @property
    def marks_mm(self) -> tuple[tuple[float, float], tuple[float, float]]:
        """Where its registration marks lie in the drawing, along and across, mm.

        Where this page ends and the next begins: so marks of neighbours lie on each other.
        """
        along = self.x_mm, self.x_mm + self.width_mm - _OVERLAP_MM
        return along, (self.y_mm, self.y_mm + self.height_mm - _OVERLAP_MM)


def template_of(plan: Plan, worked: WorkedPlan, of: TemplateOf, product: int = 0) -> Drawing:
    """The template of a plan's cut: one piece with its notch or hole, or every mark of the sheet.

    Sizes are those to cut at, shrinkage allowed for; of a sheet that lies double the panel under the
    knife, of a coil the coil from its side. Raises Faults where the plan cuts no such product.
    """
    if plan.cut is None or worked.cut is None or product >= len(plan.cut.products):
        raise Faults(Fault("product", "This plan cuts no such product."))
    if of is TemplateOf.PIECE:
        chosen = plan.cut.products[product]
        coil = _coiled(worked)
        if coil:
            return _slice(chosen.name, worked.cut.products[product].across_mm, coil.diameter_mm)
        return _piece(chosen, blank_in(chosen, plan.cut.shrink_pct, plan.cut.across))
    coil = _coiled(worked)
    return _coil(plan, worked.cut, coil) if coil else _sheet(plan, worked)


def _coiled(worked: WorkedPlan) -> RollUpFigures | None:
    return next(iter(worked.made(RollUpFigures)), None)


def _slice(name: str, thick_mm: float, through_mm: float) -> Drawing:
    corners = _corners(0, 0, thick_mm, through_mm)
    text = f"{name}, a slice of {say(thick_mm)} mm of a coil {say(through_mm)} mm through"
    return Drawing(text, thick_mm, through_mm, (Stroke(corners, True, True),), ())


def _coil(plan: Plan, cut: CutFigures, coil: RollUpFigures) -> Drawing:
    """The coil from its side, with every slice; from the end that is trimmed straight."""
    through = coil.diameter_mm
    strokes = [Stroke(_corners(0, 0, coil.length_mm, through), True, False)]
    strokes += [
        Stroke(_corners(r.from_mm, 0, r.to_mm - r.from_mm, through), True, True) for r in cut.rows
    ]
    title = (
        f"{plan.name}: {cut.pieces} slices of a coil {coil.length_mm:.0f} mm long and "
        f"{through:.0f} mm through"
    )
    return Drawing(title, coil.length_mm, through, tuple(strokes), ())


def _corners(x: float, y: float, wide: float, high: float) -> tuple[tuple[float, float], ...]:
    return ((x, y), (x + wide, y), (x + wide, y + high), (x, y + high))


def _piece(product: Product, blank: Blank) -> Drawing:
    w, h = blank.along_mm, blank.across_mm
    strokes: list[Stroke] = []
    if blank.shape is Shape.TRIANGLE:
        strokes.append(Stroke(((0, h), (w, h), (w / 2, 0)), True, True))
        if product.notch_mm:
            strokes.append(Stroke(((w / 2, h), (w / 2, h - product.notch_mm)), False, True))
    elif blank.shape.is_round:
        strokes.append(Stroke(_circle(w / 2, h / 2, w / 2, h / 2), True, True))
        if blank.shape is Shape.RING:
            wide = product.hole_mm / 2 * w / product.base_mm
            high = product.hole_mm / 2 * h / product.base_mm
            strokes.append(Stroke(_circle(w / 2, h / 2, wide, high), True, True))
    else:
        strokes.append(Stroke(_corners(0, 0, w, h), True, True))
    text = f"{product.name}, {say(w)} × {say(h)} mm"
    return Drawing(text, w, h, tuple(strokes), (Words(w / 2, h * 0.62, text),))


def _circle(x: float, y: float, rx: float, ry: float) -> tuple[tuple[float, float], ...]:
    turns = [2 * math.pi * i / _ROUND for i in range(_ROUND)]
    return tuple((x + rx * math.cos(a), y + ry * math.sin(a)) for a in turns)


def _sheet(plan: Plan, worked: WorkedPlan) -> Drawing:
    assert plan.cut is not None
    assert worked.cut is not None
    before = worked.strip[plan.steps.index(plan.cut) - 1]
    size = before.lies or worked.final.size
    long, wide = size.length_mm, size.width_mm
    strokes = [Stroke(_corners(0, 0, long, wide), True, False)]
    trim = plan.cut.trim_mm
    if trim:
        strokes.append(Stroke(_corners(trim, trim, long - 2 * trim, wide - 2 * trim), True, True))
    owners = [row.product for row in worked.cut.rows for _ in range(row.pieces)]
    for n, outline in zip(owners, worked.cut.outlines, strict=True):
        if isinstance(outline, Oval):
            along, across = outline.half_along_mm, outline.half_across_mm
            strokes.append(Stroke(_circle(outline.x_mm, outline.y_mm, along, across), True, True))
            if outline.hole:
                hole = outline.hole
                rim = _circle(outline.x_mm, outline.y_mm, along * hole, across * hole)
                strokes.append(Stroke(rim, True, True))
            continue
        corners = tuple((c.x_mm, c.y_mm) for c in outline)
        strokes.append(Stroke(corners, True, True))
        notch = plan.cut.products[n].notch_mm
        if len(corners) == 3 and notch:
            strokes.append(Stroke(_notch(corners, notch), False, True))
    layers = worked.cut.layers
    through = f", {layers} at a time" if layers > 1 else ""
    title = f"{plan.name}: {worked.cut.pieces} pieces on {long:.0f} × {wide:.0f} mm{through}"
    return Drawing(title, long, wide, tuple(strokes), ())


def _notch(
    corners: tuple[tuple[float, float], ...], notch_mm: float
) -> tuple[tuple[float, float], tuple[float, float]]:
    """From the middle of a triangle's base towards its tip."""
    (x0, y0), (x1, y1), (tip_x, tip_y) = corners
    foot = (x0 + x1) / 2, (y0 + y1) / 2
    long = math.hypot(tip_x - foot[0], tip_y - foot[1])
    share = notch_mm / long
    return foot, (foot[0] + (tip_x - foot[0]) * share, foot[1] + (tip_y - foot[1]) * share)


def tiles(drawing: Drawing) -> tuple[Tile, ...]:
    """A drawing on pages of A4, each overlapping the next, row by row.

    Raises Faults where it would take more pages than anybody glues together.
    """
    wide = PAGE_MM[0] - 2 * _MARGIN_MM
    high = PAGE_MM[1] - 2 * _MARGIN_MM - _FOOT_MM

    def starts(whole: float, page: float) -> list[float]:
        many = max(1, math.ceil((whole - _OVERLAP_MM) / (page - _OVERLAP_MM) - 1e-9))
        return [i * (page - _OVERLAP_MM) for i in range(many)]

    columns, rows = starts(drawing.width_mm, wide), starts(drawing.height_mm, high)
    if len(columns) * len(rows) > _MOST_PAGES:
        text = f"That would be {len(columns) * len(rows)} pages. Print the stencil of one piece instead."
        raise Faults(Fault("of", text))
    return tuple(
        Tile(x, y, wide, high, c, r) for r, y in enumerate(rows) for c, x in enumerate(columns)
    )
