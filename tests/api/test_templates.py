"""Templates measure right: checked on the geometry the files themselves hold."""

import math
import re
from itertools import pairwise

import pytest

from bakehouse.plans.template_files import as_pdf, as_svg
from lamination.files.template import PAGE_MM, TemplateOf, template_of, tiles
from lamination.pieces.products import Product, Shape
from lamination.plan.work import work
from lamination.steps.cut import Cut
from lamination.terms.limits import Faults
from tests.plans import station

PT_MM = 25.4 / 72
TRIANGLE = Product("Croissant", Shape.TRIANGLE, 90, 280, notch_mm=15)


def drawn(product, of=TemplateOf.PIECE, **cut):
    plan = station(cut=Cut((product,), **cut))
    return template_of(plan, work(plan), of)


def pages_of(pdf):
    """Every page's lines as they are painted: lists of points, mm from the page's foot."""
    found = []
    for stream in re.findall(rb"stream\r?\n(.*?)endstream", pdf, re.S):
        paths, path = [], []
        for line in re.findall(
            r"(-?[\d.]+) (-?[\d.]+) ([ml])\b|\b([hSn])\b", stream.decode("latin-1")
        ):
            x, y, op, paint = line
            if op == "m":
                path = [(float(x) * PT_MM, float(y) * PT_MM)]
                paths.append(path)
            elif op == "l":
                path.append((float(x) * PT_MM, float(y) * PT_MM))
            elif paint == "h" and path:
                path.append(path[0])
        if paths:
            found.append(paths)
    return found


def lengths(path):
    return [math.dist(a, b) for a, b in pairwise(path)]


def test_a_stencil_printed_to_pdf_has_the_piece_s_own_sides():
    (page,) = pages_of(as_pdf(drawn(Product("Square", Shape.SQUARE, 120)), compress=False))
    sides = lengths(max(page, key=lambda p: (len(p), sum(lengths(p)))))
    assert sides == pytest.approx([120] * 4, abs=0.01)


def test_a_tall_stencil_is_tiled_and_still_at_true_size():
    pages = pages_of(as_pdf(drawn(TRIANGLE), compress=False))
    assert len(pages) == 2
    slanted = math.hypot(45, 280)
    for page in pages:
        triangle = max(page, key=len)
        assert sorted(lengths(triangle)) == pytest.approx([90, slanted, slanted], abs=0.01)


def test_tiles_meet_by_their_overlap():
    """The same corner lies on two pages, moved by just what the pages are apart."""
    drawing = drawn(TRIANGLE)
    first, second = tiles(drawing)
    above, below = pages_of(as_pdf(drawing, compress=False))
    up = [max(p, key=len)[0] for p in (above, below)]
    assert up[1][1] - up[0][1] == pytest.approx(second.y_mm - first.y_mm, abs=0.01)
    assert second.y_mm < first.y_mm + first.height_mm


@pytest.mark.parametrize("of", list(TemplateOf))
def test_every_page_has_its_scale_check_of_a_hundred_millimetres(of):
    for page in pages_of(as_pdf(drawn(TRIANGLE, of, kerf_mm=2, trim_mm=10), compress=False)):
        flat = [p for p in page if len(p) == 2 and p[0][1] == p[1][1]]
        assert any(lengths(p)[0] == pytest.approx(100, abs=0.01) for p in flat)


def test_every_page_has_registration_marks_at_its_corners():
    for page in pages_of(as_pdf(drawn(TRIANGLE, TemplateOf.SHEET), compress=False)):
        crosses = [p for p in page if len(p) == 2 and lengths(p)[0] == pytest.approx(8, abs=0.01)]
        assert len(crosses) == 8


def test_pages_laid_mark_on_mark_are_one_drawing():
    """Neighbours moved so that their marks meet show the sheet's corner in one and the same place."""
    drawing = drawn(TRIANGLE, TemplateOf.SHEET, kerf_mm=2, trim_mm=10)
    laid = list(zip(tiles(drawing), pages_of(as_pdf(drawing, compress=False)), strict=True))
    assert len(laid) > 4

    def crosses(page):
        """The middles of its marks: where a flat stroke of 8 mm and an upright one cross."""
        flat = [p for p in page if len(p) == 2 and p[0][1] == p[1][1]
                and lengths(p)[0] == pytest.approx(8, abs=0.01)]  # fmt: skip
        middles = [((a + b) / 2, y) for (a, y), (b, _) in flat]
        return sorted(middles)

    def corner(page):
        """The sheet's first corner, wherever on the page or beside it."""
        return max(page, key=lambda p: sum(lengths(p)))[0]

    by_place = {(t.column, t.row): page for t, page in laid}
    for (column, row), page in by_place.items():
        right, below = by_place.get((column + 1, row)), by_place.get((column, row + 1))
        here = crosses(page)
        if right:
            # its right marks on the neighbour's left ones
            off = here[-1][0] - crosses(right)[0][0]
            assert corner(right)[0] + off == pytest.approx(corner(page)[0], abs=0.01)
        if below:
            lowest, highest = min(y for _, y in here), max(y for _, y in crosses(below))
            assert corner(below)[1] + lowest - highest == pytest.approx(corner(page)[1], abs=0.01)


def test_pages_cover_the_whole_sheet():
    drawing = drawn(TRIANGLE, TemplateOf.SHEET)
    last = max(tiles(drawing), key=lambda t: (t.column, t.row))
    assert last.x_mm + last.width_mm >= drawing.width_mm
    assert last.y_mm + last.height_mm >= drawing.height_mm
    assert all(t.width_mm < PAGE_MM[0] and t.height_mm < PAGE_MM[1] for t in tiles(drawing))


def test_an_svg_is_in_millimetres_and_holds_the_piece():
    svg = as_svg(drawn(Product("Ring & co", Shape.RING, 90, hole_mm=50)))
    width, height = (float(v) for v in re.findall(r'(?:width|height)="([\d.]+)mm"', svg)[:2])
    box = [float(v) for v in re.search(r'viewBox="([^"]+)"', svg).group(1).split()]
    assert (width, height) == (box[2], box[3])
    xs = [float(x) for x in re.findall(r"[ML](-?[\d.]+),", svg.split('d="M0,')[0])]
    assert max(xs) - min(xs) == pytest.approx(90, abs=0.01)
    assert "Ring &amp; co" in svg


def test_shrinkage_is_in_the_stencil():
    drawing = drawn(Product("Square", Shape.SQUARE, 90), shrink_pct=10)
    assert (drawing.width_mm, drawing.height_mm) == (pytest.approx(100), 90)


def test_more_pages_than_anybody_glues_are_refused():
    huge = drawn(Product("Slab", Shape.RECTANGLE, 4_000, 3_000))
    with pytest.raises(Faults, match="stencil of one piece"):
        tiles(huge)


def test_templates_come_over_the_api(head, plan):
    base = f"/api/plans/{plan['id']}/template"
    pdf = head.get(f"{base}.pdf?of=piece")
    assert pdf.content.startswith(b"%PDF")
    assert "attachment" in pdf["Content-Disposition"]
    assert b"<svg" in head.get(f"{base}.svg?of=sheet").content
    assert head.get(f"{base}.dxf?of=sheet").status_code == 404
    faults = head.faults("GET", f"/plans/{plan['id']}/template.pdf?of=piece&product=5")
    assert faults == {"product": "This plan cuts no such product."}
