"""Cutting the last sheet: rows of pieces side by side, every mark from one datum."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from lamination.pieces.over import Corner, Outline, Oval
from lamination.pieces.products import Product, Shape
from lamination.terms.sizes import Size

_HAIR = 1e-9  # a piece that fits to within rounding fits


@dataclass(frozen=True, slots=True)
class Marks:
    """Marks along a line ``across_mm`` from the datum edge: where the blade's middle goes, mm.

    For round pieces they are where the cutter's middle goes.
    """

    across_mm: float
    along_mm: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Row:
    """One row of pieces: from and to across the sheet, its pieces and their marks on both edges.

    ``crosswise``: it runs across, so from and to are along the sheet, and its marks across.
    """

    product: int
    from_mm: float
    to_mm: float
    outlines: tuple[Outline, ...]
    marks: tuple[Marks, ...]
    crosswise: bool = False


@dataclass(frozen=True, slots=True)
class Layout:
    """Rows of pieces on a sheet, in order from the datum edge. ``piece_mm2``: by product."""

    rows: tuple[Row, ...]
    piece_mm2: tuple[float, ...]

    def pieces_of(self, product: int) -> int:
        return sum(len(r.outlines) for r in self.rows if r.product == product)

    @property
    def outlines(self) -> tuple[Outline, ...]:
        return tuple(o for row in self.rows for o in row.outlines)

    @property
    def used_mm2(self) -> float:
        return sum(len(r.outlines) * self.piece_mm2[r.product] for r in self.rows)


@dataclass(frozen=True, slots=True)
class Blank:
    """A piece as it is cut, with its shrinkage: mm along its row and across it, and its area.

    ``hole``: a ring's, as a share of its size.
    """

    shape: Shape
    along_mm: float
    across_mm: float
    mm2: float
    hole: float = 0.0


def kerf_along_base_mm(kerf_mm: float, base_mm: float, height_mm: float) -> float:
    """What a blade takes along the base in a triangle's slanted cut, mm: k·√(1 + (b/2H)²)."""
    return kerf_mm * math.sqrt(1 + (base_mm / (2 * height_mm)) ** 2)


def blank_of(product: Product, shrink_pct: float = 0.0, across: bool = False) -> Blank:
    """The piece as it has to be cut so that it is at size when it has shrunk along the roll.

    ``across``: its row runs across the sheet, so that its height lies along the roll.
    """
    more = 1 / (1 - shrink_pct / 100)
    along = product.base_mm * (1 if across else more)
    tall = product.across_mm * (more if across else 1)
    mm2 = along * tall
    hole = product.hole_mm / product.base_mm if product.shape is Shape.RING else 0.0
    if product.shape is Shape.TRIANGLE:
        mm2 /= 2
    elif product.shape.is_round:
        mm2 *= math.pi / 4 * (1 - hole**2)
    return Blank(product.shape, along, tall, mm2, hole)


def blank_in(product: Product, shrink_pct: float, across: bool) -> Blank:
    """The piece as it is cut in a layout whose rows run along the sheet, or ``across`` it."""
    return blank_of(product, shrink_pct, across or product.crosswise)


def per_row(blank: Blank, length_mm: float, kerf_mm: float) -> int:
    """How many pieces lie in one row of a length.

    n triangles, alternately up and down, and their n + 1 cuts use (n + 1)·b/2 plus n + 1 kerfs of
    the row's length; n pieces with straight sides use n·b and n + 1 kerfs; a round cutter leaves a
    kerf between its pieces only. Source: geometry.
    """
    if blank.shape is Shape.TRIANGLE:
        return max(math.floor(length_mm / _step(blank, kerf_mm) + _HAIR) - 1, 0)
    ends = kerf_mm if not blank.shape.is_round else -kerf_mm
    return max(math.floor((length_mm - ends) / (blank.along_mm + kerf_mm) + _HAIR), 0)


def lay_out(
    sheet: Size,
    products: Sequence[Product],
    kerf_mm: float = 0.0,
    trim_mm: float = 0.0,
    shrink_pct: float = 0.0,
    across: bool = False,
) -> Layout:
    """Lay rows of the products on a sheet, one product after another from the datum edge.

    ``trim_mm`` comes off all four edges first; rows lie side by side with one kerf between, and run
    along the sheet, or ``across`` it. Lengths in mm. What does not fit is left out.
    """
    length, width = sheet.length_mm - 2 * trim_mm, sheet.width_mm - 2 * trim_mm
    if across:
        length, width = width, length
    blanks = [blank_in(p, shrink_pct, across) for p in products]
    rows: list[Row] = []
    band: list[Row] = []
    before: list[Row] = []
    y = 0.0
    for n, (product, blank) in enumerate(zip(products, blanks, strict=True)):
        if product.crosswise and not across:
            left = Size(length, width - y, sheet.thickness_mm)
            if min(left.length_mm, left.width_mm) > 0:
                alone = [replace(product, crosswise=False)]
                found = lay_out(left, alone, kerf_mm, 0.0, shrink_pct, across=True).rows
                band += [_in_band(row, n, trim_mm, trim_mm + y) for row in found]
                y = width
            continue
        if product.beside and before:
            rows += _beside(n, blank, before, length, kerf_mm)
            continue
        if min(length, width - y) <= 0:
            break
        laid = before = list(_rows(n, blank, product, y, length, width, kerf_mm))
        rows += laid
        if laid:
            y = laid[-1].to_mm + kerf_mm
    placed = (*(_placed(row, trim_mm, across) for row in rows), *band)
    return Layout(placed, tuple(b.mm2 for b in blanks))


def _in_band(row: Row, product: int, x_mm: float, y_mm: float) -> Row:
    """A row that runs across the band left over, where that lies on the sheet."""

    def moved(outline: Outline) -> Outline:
        if isinstance(outline, Oval):
            return replace(outline, x_mm=outline.x_mm + x_mm, y_mm=outline.y_mm + y_mm)
        return tuple(Corner(c.x_mm + x_mm, c.y_mm + y_mm) for c in outline)

    marks = tuple(
        Marks(m.across_mm + x_mm, tuple(at + y_mm for at in m.along_mm)) for m in row.marks
    )
    outlines = tuple(moved(o) for o in row.outlines)
    return Row(product, row.from_mm + x_mm, row.to_mm + x_mm, outlines, marks, crosswise=True)


def _ends_at(outline: Outline) -> float:
    if isinstance(outline, Oval):
        return outline.x_mm + outline.half_along_mm
    return max(c.x_mm for c in outline)


def _beside(n: int, blank: Blank, before: list[Row], length: float, kerf: float) -> Iterator[Row]:
    """Pieces at the ends of the rows of the product before, as many on each other as those are high.

    Rows that reach into each other's gaps have one end together, that of the longest.
    """
    reach = any(b.from_mm < a.to_mm + kerf - _HAIR for a, b in pairwise(before))
    for rows in [before] if reach else [[row] for row in before]:
        start, high = rows[0].from_mm, rows[-1].to_mm - rows[0].from_mm
        levels = math.floor((high + kerf) / (blank.across_mm + kerf) + _HAIR)
        end = max(_ends_at(o) for row in rows for o in row.outlines)
        # a cutter has none of its own kerf before its first piece: that of the row it stands beside
        many = per_row(blank, length - end - (kerf if blank.shape.is_round else 0), kerf)
        for level in range(levels if many else 0):
            yield _at_end(n, blank, start + level * (blank.across_mm + kerf), end, many, kerf)


def _at_end(n: int, blank: Blank, top: float, end: float, many: int, kerf: float) -> Row:
    far = top + blank.across_mm
    if blank.shape.is_round:
        first = end + kerf + blank.along_mm / 2
        at = tuple(first + i * _step(blank, kerf) for i in range(many))
        middle = top + blank.across_mm / 2
        return Row(n, top, far, tuple(_round(blank, x, middle) for x in at), (Marks(middle, at),))
    outlines = tuple(
        tuple(Corner(c.x_mm + end, c.y_mm) for c in corners)
        for corners in (_outline(blank, top, i, kerf) for i in range(many))
        if not isinstance(corners, Oval)
    )
    marks = tuple(
        Marks(m.across_mm, tuple(x + end for x in m.along_mm))
        for m in _marks(blank, top, many, kerf)
    )
    return Row(n, top, far, outlines, marks)


@dataclass(frozen=True, slots=True)
class Nested:
    """Round pieces in each other's gaps: ``many`` and ``between`` them, by turns, in rows closer together.

    ``across_mm``: of one piece, its kerf included; ``nearer_mm``: from row to row.
    """

    many: int
    between: int
    across_mm: float
    nearer_mm: float

    def pieces(self, rows: int) -> int:
        """How many pieces so many rows hold."""
        return (rows + 1) // 2 * self.many + rows // 2 * self.between

    def takes_mm(self, rows: int) -> float:
        """How wide so many rows lie, a kerf after them included, mm."""
        return self.across_mm + (rows - 1) * self.nearer_mm if rows else 0.0

    def fits(self, width_mm: float) -> int:
        """How many rows lie in a width, a kerf after them included."""
        return max(math.floor((width_mm - self.across_mm) / self.nearer_mm + 1 + _HAIR), 0)


def nested(blank: Blank, length_mm: float, kerf_mm: float) -> Nested:
    """How a round piece's rows lie in each other's gaps. Source: geometry of touching circles."""
    pitch = blank.across_mm + kerf_mm
    return Nested(
        per_row(blank, length_mm, kerf_mm),
        per_row(blank, length_mm - _step(blank, kerf_mm) / 2, kerf_mm),
        pitch,
        pitch * math.sqrt(3) / 2,
    )


def _step(blank: Blank, kerf_mm: float) -> float:
    if blank.shape is Shape.TRIANGLE:
        slanted = kerf_along_base_mm(kerf_mm, blank.along_mm, blank.across_mm)
        return blank.along_mm / 2 + slanted
    return blank.along_mm + kerf_mm


def _rows(
    n: int, blank: Blank, product: Product, y: float, length: float, width: float, kerf: float
) -> Iterator[Row]:
    """The rows of one product from ``y`` on: so many, or as many as fit."""
    wanted = product.rows
    many, pitch = per_row(blank, length, kerf), blank.across_mm + kerf
    room = math.floor((width - y + kerf) / pitch + _HAIR)
    count = min(wanted or room, room)
    if not blank.shape.is_round:
        for r in range(count if many else 0):
            top = y + r * pitch
            outlines = tuple(_outline(blank, top, i, kerf) for i in range(many))
            yield Row(n, top, top + blank.across_mm, outlines, _marks(blank, top, many, kerf))
        return
    # Round pieces: square by square, or each row in the gaps of the one before.
    step = _step(blank, kerf)
    closer = nested(blank, length, kerf)
    fits = closer.fits(width - y + kerf) if room else 0
    rows = min(wanted or fits, fits)
    gives = closer.pieces(rows)
    nests = gives > count * many or (gives == count * many and rows > 1)
    if product.nested is not None:
        nests = product.nested
    for r in range(rows if nests else count):
        top = y + r * (closer.nearer_mm if nests else pitch)
        shifted = nests and r % 2 == 1
        first = blank.along_mm / 2 + (step / 2 if shifted else 0.0)
        at = tuple(first + i * step for i in range(closer.between if shifted else many))
        middle = top + blank.across_mm / 2
        outlines = tuple(_round(blank, x, middle) for x in at)
        if outlines:
            yield Row(n, top, top + blank.across_mm, outlines, (Marks(middle, at),))


def _outline(blank: Blank, y: float, i: int, kerf: float) -> Outline:
    base, height, step = blank.along_mm, blank.across_mm, _step(blank, kerf)
    if blank.shape is not Shape.TRIANGLE:
        x = kerf + i * step
        sides = ((0, 0), (base, 0), (base, height), (0, height))
        return tuple(Corner(x + dx, y + dy) for dx, dy in sides)
    x = step - base / 2 + i * step
    foot, tip = (y + height, y) if i % 2 == 0 else (y, y + height)
    return (Corner(x, foot), Corner(x + base, foot), Corner(x + base / 2, tip))


def _round(blank: Blank, x: float, y: float) -> Oval:
    return Oval(x, y, blank.along_mm / 2, blank.across_mm / 2, blank.hole)


def _marks(blank: Blank, y: float, many: int, kerf: float) -> tuple[Marks, Marks]:
    """Marks on both edges of a row for its n + 1 cuts; triangles' alternate, two by two at the tips."""
    step, far = _step(blank, kerf), y + blank.across_mm
    middles = [step / 2 + i * step for i in range(many + 1)]
    if blank.shape is not Shape.TRIANGLE:
        straight = tuple(kerf / 2 + i * step for i in range(many + 1))
        return Marks(y, straight), Marks(far, straight)
    quarter = blank.along_mm / 4
    # the first triangle stands on the far edge, so its left cut leans towards the near edge's right
    near = tuple(m + quarter * (1 if i % 2 == 0 else -1) for i, m in enumerate(middles))
    foot = tuple(m - quarter * (1 if i % 2 == 0 else -1) for i, m in enumerate(middles))
    return Marks(y, near), Marks(far, foot)


def _placed(row: Row, trim: float, across: bool) -> Row:
    """A row as it lies on the whole sheet."""
    outlines = tuple(_moved(outline, trim, across) for outline in row.outlines)
    marks = tuple(Marks(m.across_mm + trim, tuple(a + trim for a in m.along_mm)) for m in row.marks)
    return Row(row.product, row.from_mm + trim, row.to_mm + trim, outlines, marks)


def _moved(outline: Outline, trim: float, across: bool) -> Outline:
    if not trim and not across:
        return outline
    if isinstance(outline, Oval):
        x, y = outline.x_mm + trim, outline.y_mm + trim
        along, high = outline.half_along_mm, outline.half_across_mm
        return Oval(*((y, x, high, along) if across else (x, y, along, high)), outline.hole)
    return tuple(
        Corner(c.y_mm + trim, c.x_mm + trim) if across else Corner(c.x_mm + trim, c.y_mm + trim)
        for c in outline
    )
