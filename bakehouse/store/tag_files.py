"""Tags: what stands on a block, at true size, with a code that opens it on any tablet of the house."""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from xml.sax.saxutils import escape

import segno
from django.utils import timezone
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from lamination.files import PAGE_MM
from lamination.kitchen import Kitchen
from lamination.store import Block, StoreStanding, what_it_is
from lamination.terms import Fault, Faults, plain

_PLAIN, _BOLD = "Helvetica", "Helvetica-Bold"
_EDGE_MM = 3.0
_LEAST_PT = 6.0
_DOT_MM = 1.7
MOST_TAGS = 200


@dataclass(frozen=True)
class Tag:
    """What stands on a tag: its mark, the block, where it stands, and the address its code holds."""

    mark: str
    block: Block
    now: StoreStanding
    address: str

    def lines(self) -> list[tuple[float, bool, str]]:
        """Size against the usual, bold, and the words, a line each."""
        block, now = self.block, self.now
        best = timezone.localtime(now.best_before)
        made = timezone.localtime(block.since)
        lines = [(1.8, True, block.name), (1.1, False, what_it_is(block, now))]
        if block.next_step:
            lines.append((1.3, True, f"Next: {block.next_step.lower()}"))
        lines += [
            (
                1.0,
                False,
                f"{now.grams:,.0f} g · put away {made:%a %d %b, %H:%M}".replace(",", " ", 1),
            ),
            (1.2, True, f"Use by {best:%a %d %b, %H:%M}"),
            (0.9, False, plain(block.contains)),
        ]
        return lines


def tags_pdf(tags: Sequence[Tag], kitchen: Kitchen, one_each: bool = False) -> bytes:
    """Sheets of A4 with tags, laid as the kitchen's label sheets are; ``one_each``: a page of a label's own
    size for each, as a label printer takes them. Raises Faults where it does not fit.
    """
    if not 1 <= len(tags) <= MOST_TAGS:
        raise Faults(Fault("copies", f"From 1 to {MOST_TAGS} tags at once."))
    width, height = kitchen["tag.width_mm"], kitchen["tag.height_mm"]
    page = (width, height) if one_each else PAGE_MM
    across = 1 if one_each else max(int((PAGE_MM[0] - 2 * _EDGE_MM) // width), 1)
    down = 1 if one_each else max(int((PAGE_MM[1] - 2 * _EDGE_MM) // height), 1)
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(page[0] * mm, page[1] * mm), invariant=1)
    canvas.setTitle(", ".join(t.mark for t in tags))
    for n, tag in enumerate(tags):
        place = n % (across * down)
        if n and place == 0:
            canvas.showPage()
        edge = 0 if one_each else _EDGE_MM
        x = edge + (place % across) * width
        y = page[1] - edge - (place // across) * height
        _drawn(canvas, tag, x, y, width, height)
    canvas.showPage()
    canvas.save()
    return out.getvalue()


class _Svg:
    """A page of SVG that is drawn on as one of reportlab's: in points, from its lower left corner."""

    def __init__(self, width: float, height: float) -> None:
        self.width, self.height = width * mm, height * mm
        self._font = f'font-size="{_LEAST_PT}"'
        self._parts: list[str] = []

    def setFont(self, name: str, size: float) -> None:  # noqa: N802 - as reportlab has it
        weight = ' font-weight="bold"' if name == _BOLD else ""
        self._font = f'font-size="{size:.2f}"{weight}'

    def drawString(self, x: float, y: float, text: str, how: str = "start") -> None:  # noqa: N802
        self._parts.append(
            f'<text x="{x:.2f}" y="{self.height - y:.2f}" text-anchor="{how}" {self._font}>'
            f"{escape(text)}</text>"
        )

    def drawCentredString(self, x: float, y: float, text: str) -> None:  # noqa: N802
        self.drawString(x, y, text, "middle")

    def circle(self, x: float, y: float, r: float, **_: int) -> None:
        self._parts.append(f'<circle cx="{x:.2f}" cy="{self.height - y:.2f}" r="{r:.2f}"/>')

    def rect(self, x: float, y: float, width: float, height: float, **_: int) -> None:
        top = self.height - y - height
        self._parts.append(
            f'<rect x="{x:.2f}" y="{top:.2f}" width="{width:.2f}" height="{height:.2f}"/>'
        )

    def text(self, title: str) -> str:
        return (
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{self.width / mm:g}mm" '
            f'height="{self.height / mm:g}mm" viewBox="0 0 {self.width:.2f} {self.height:.2f}" '
            f'font-family="Helvetica, Arial, sans-serif"><title>{escape(title)}</title>'
            f"{''.join(self._parts)}</svg>"
        )


def tag_svg(tag: Tag, kitchen: Kitchen) -> str:
    """One tag at true size. Raises Faults where it does not fit."""
    width, height = kitchen["tag.width_mm"], kitchen["tag.height_mm"]
    page = _Svg(width, height)
    _drawn(page, tag, 0, height, width, height)
    return page.text(f"{tag.mark}, {tag.block.name}")


def _drawn(canvas: Any, tag: Tag, x: float, y: float, width: float, height: float) -> None:
    code_mm = min(height * 0.6, width * 0.38)
    _code(canvas, tag.address, x + width - _EDGE_MM - code_mm, y - _EDGE_MM, code_mm)
    # the mark, as large as fits under the code: for where no camera is
    pt = min(1.5 * code_mm / max(len(tag.mark), 2), (height - code_mm - 2 * _EDGE_MM) * 1.1)
    canvas.setFont(_BOLD, pt * 72 / 25.4)
    middle = x + width - _EDGE_MM - code_mm / 2
    canvas.drawCentredString(middle * mm, (y - height + _EDGE_MM + 0.6) * mm, tag.mark)
    room_mm = width - code_mm - 3 * _EDGE_MM
    top = y - _EDGE_MM
    for pt_lines in (9.5, 9.0, 8.5, 8.0, 7.5, 7.0, 6.5, _LEAST_PT):
        laid = _laid(tag, pt_lines, room_mm)
        if sum(high for _, _, _, high in laid) + _dots_mm(tag) <= height - 2 * _EDGE_MM:
            break
    else:
        text = f"Not all of it fits a tag of {width:g} × {height:g} mm. Choose a larger one."
        raise Faults(Fault("tag.height_mm", text))
    for n, (size, bold, words, high) in enumerate(laid):
        top -= high
        canvas.setFont(_BOLD if bold else _PLAIN, size)
        canvas.drawString((x + _EDGE_MM) * mm, (top + high * 0.22) * mm, words)
        if n + 1 < len(laid) and laid[n + 1][2] == what_it_is(tag.block, tag.now):
            top -= _dots(canvas, tag, x + _EDGE_MM, top)


def _laid(tag: Tag, pt: float, room_mm: float) -> list[tuple[float, bool, str, float]]:
    laid = []
    for size, bold, text in tag.lines():
        font, this, line = _BOLD if bold else _PLAIN, pt * size, ""
        for word in text.split(" "):
            longer = f"{line} {word}".strip()
            if line and stringWidth(longer, font, this) > room_mm * mm:
                laid.append((this, bold, line, this * 25.4 / 72 * 1.18))
                line = word
            else:
                line = longer
        if line:
            laid.append((this, bold, line, this * 25.4 / 72 * 1.18))
    return laid


def _dots_mm(tag: Tag) -> float:
    return 2 * _DOT_MM + 1.0 if tag.block.turns else 0.0


def _dots(canvas: Any, tag: Tag, x: float, top: float) -> float:
    """Its turns as pressed marks, as a finger presses them into the dough."""
    for n in range(tag.block.turns):
        at = x + _DOT_MM + n * _DOT_MM * 2.6
        canvas.circle(at * mm, (top - _DOT_MM - 0.2) * mm, _DOT_MM * mm, stroke=0, fill=1)
    return _dots_mm(tag)


def _code(canvas: Any, address: str, x: float, y: float, side_mm: float) -> None:
    """The code as squares; ``y`` is its upper edge."""
    rows = list(segno.make(address, error="m", micro=False).matrix)
    cell = side_mm / len(rows)
    for i, row in enumerate(rows):
        for j, dark in enumerate(row):
            if dark:
                canvas.rect(
                    (x + j * cell) * mm, (y - (i + 1) * cell) * mm, cell * 1.02 * mm,
                    cell * 1.02 * mm, stroke=0, fill=1,
                )  # fmt: skip
