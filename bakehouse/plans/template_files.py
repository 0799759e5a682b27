"""Templates as files: SVG in millimetres, and PDF in tiles of A4 with registration marks."""

from __future__ import annotations

import io
from xml.sax.saxutils import escape

from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from lamination.files import PAGE_MM, SCALE_CHECK_MM, Drawing, Tile, tiles

_MARGIN_MM, _REGISTER_MM = 12.0, 4.0
_HAIRLINE_MM, _CUT_MM = 0.15, 0.35


def as_svg(drawing: Drawing) -> str:
    """The whole drawing at true size, with its scale check below it."""
    width = max(drawing.width_mm, SCALE_CHECK_MM) + 20
    height = drawing.height_mm + 34
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.3f}mm" height="{height:.3f}mm" '
        f'viewBox="-10 -10 {width:.3f} {height:.3f}" font-family="sans-serif" font-size="4">',
        f"<title>{escape(drawing.title)}</title>",
    ]
    for stroke in drawing.strokes:
        d = (
            "M"
            + "L".join(f"{x:.3f},{y:.3f}" for x, y in stroke.points)
            + ("Z" if stroke.closed else "")
        )
        thick = _CUT_MM if stroke.cut else _HAIRLINE_MM
        dashed = "" if stroke.cut else ' stroke-dasharray="3 2"'
        parts.append(f'<path d="{d}" fill="none" stroke="black" stroke-width="{thick}"{dashed}/>')
    parts += [
        f'<text x="{w.x_mm:.3f}" y="{w.y_mm:.3f}" text-anchor="middle">{escape(w.text)}</text>'
        for w in drawing.words
    ]
    foot = drawing.height_mm + 12
    parts.append(
        f'<path d="M0,{foot - 2:.3f}v4M0,{foot:.3f}h{SCALE_CHECK_MM:g}m0,-2v4" fill="none" '
        'stroke="black" stroke-width="0.3"/>'
        f'<text x="0" y="{foot + 7:.3f}">{_scale_words()}</text></svg>'
    )
    return "\n".join(parts)


def as_pdf(drawing: Drawing, compress: bool = True) -> bytes:
    """The drawing in pages of A4 at true size; every page says where it belongs."""
    out = io.BytesIO()
    size = (PAGE_MM[0] * mm, PAGE_MM[1] * mm)
    canvas = Canvas(out, pagesize=size, pageCompression=int(compress), invariant=1)
    canvas.setTitle(drawing.title)
    pages = tiles(drawing)
    for page in pages:
        _page(canvas, drawing, page, len(pages))
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _page(canvas: Canvas, drawing: Drawing, tile: Tile, pages: int) -> None:
    # PDF counts from the foot of the page upwards
    left, top = _MARGIN_MM, PAGE_MM[1] - _MARGIN_MM

    def at(x_mm: float, y_mm: float) -> tuple[float, float]:
        return (left + x_mm - tile.x_mm) * mm, (top - (y_mm - tile.y_mm)) * mm

    canvas.saveState()
    window = canvas.beginPath()
    window.rect(left * mm, (top - tile.height_mm) * mm, tile.width_mm * mm, tile.height_mm * mm)
    canvas.clipPath(window, stroke=0, fill=0)
    for stroke in drawing.strokes:
        canvas.setLineWidth((_CUT_MM if stroke.cut else _HAIRLINE_MM) * mm)
        if stroke.cut:
            canvas.setDash()
        else:
            canvas.setDash(3 * mm, 2 * mm)
        path = canvas.beginPath()
        path.moveTo(*at(*stroke.points[0]))
        for point in stroke.points[1:]:
            path.lineTo(*at(*point))
        if stroke.closed:
            path.close()
        canvas.drawPath(path)
    canvas.setFont("Helvetica", 9)
    for words in drawing.words:
        canvas.drawCentredString(*at(words.x_mm, words.y_mm), words.text)
    canvas.restoreState()
    canvas.setLineWidth(_HAIRLINE_MM * mm)
    # where a page ends and the next begins: laid mark on mark, two pages are one drawing
    along, across = tile.marks_mm
    for x in (left + m - tile.x_mm for m in along):
        for y in (top - (m - tile.y_mm) for m in across):
            canvas.line((x - _REGISTER_MM) * mm, y * mm, (x + _REGISTER_MM) * mm, y * mm)
            canvas.line(x * mm, (y - _REGISTER_MM) * mm, x * mm, (y + _REGISTER_MM) * mm)
    foot = _MARGIN_MM + 6
    canvas.setLineWidth(0.3 * mm)
    canvas.line(left * mm, foot * mm, (left + SCALE_CHECK_MM) * mm, foot * mm)
    for x in (left, left + SCALE_CHECK_MM):
        canvas.line(x * mm, (foot - 2) * mm, x * mm, (foot + 2) * mm)
    canvas.setFont("Helvetica", 8)
    canvas.drawString(left * mm, (foot - 6) * mm, _scale_words())
    place = f"column {tile.column + 1}, row {tile.row + 1}" if pages > 1 else ""
    canvas.drawRightString(
        (left + tile.width_mm) * mm, (foot - 6) * mm, f"{drawing.title}  {place}"
    )


def _scale_words() -> str:
    return f"This line is {SCALE_CHECK_MM:g} mm long: print at 100 %, and measure it first."
