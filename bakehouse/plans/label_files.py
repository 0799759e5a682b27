"""A finished product's label at true size: one as SVG, sheets of them as PDF.

What a label must say, and how large, is for local law and the house to decide: this lays out what is known.
"""

from __future__ import annotations

import io
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from xml.sax.saxutils import escape

from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from lamination.files import PAGE_MM
from lamination.kitchen import Kitchen, LabelPart, Sign
from lamination.steps import Declared, Label
from lamination.terms import Fault, Faults, plain

_PLAIN, _BOLD = "Helvetica", "Helvetica-Bold"
_EDGE_MM = 2.5
_PT_MM = 25.4 / 72
_LEAST_PT = 5.0
MOST_LABELS = 3_000


@dataclass(frozen=True)
class Finished:
    """What stands on a label: the product and what is in it, the house, and the day it was made."""

    label: Label
    sign: Sign
    made_at: datetime

    def best_before(self) -> datetime | None:
        """By the house's own row, and never beyond a preparation in it."""
        keeps = self.label.keeps_h
        return self.made_at + timedelta(hours=keeps) if keeps is not None else None


@dataclass(frozen=True)
class _Word:
    x_mm: float
    y_mm: float
    pt: float
    bold: bool
    text: str


def _declared(one: Declared) -> list[tuple[str, bool]]:
    """An ingredient, what is in it in brackets; bold where it brings an allergen."""
    inside = f" ({', '.join(one.of)})" if one.of else ""
    return [(plain(f"{one.name}{inside}"), bool(one.allergens))]


def _paragraphs(of: Finished) -> Iterator[tuple[float, list[tuple[str, bool]]]]:
    """What it says, part by part: its size against the usual, and words with whether they are bold."""
    label, sign, shows = of.label, of.sign, of.sign.shows
    yield 1.7, [(plain(label.product), True)]
    if LabelPart.INGREDIENTS in shows:
        runs: list[tuple[str, bool]] = [("Ingredients: ", False)]
        for n, one in enumerate(label.declared):
            runs += [(", ", False)] if n else []
            runs += _declared(one)
        yield 1.0, [*runs, (".", False)]
    yield 1.1, [(plain(label.says), True)]
    told = [f"{label.baked_g:.0f} g"] if label.baked_g and LabelPart.WEIGHT in shows else []
    dates = [f"Made {of.made_at:%a %d %b %Y}"] if LabelPart.MADE in shows else []
    if (best := of.best_before()) and LabelPart.BEST in shows:
        dates.append(f"{'best' if dates else 'Best'} before {best:%a %d %b, %H:%M}")
    told += [", ".join(dates)] if dates else []
    if told:
        yield 1.0, [(" · ".join(told), False)]
    if sign.storage and LabelPart.STORAGE in shows:
        yield 1.0, [(sign.storage, False)]
    house = ", ".join(filter(None, (sign.name, sign.address)))
    if house and LabelPart.HOUSE in shows:
        yield 1.0, [(house, False)]


def _laid(of: Finished, width_mm: float, height_mm: float) -> list[_Word]:
    """The words of a label, as large as they fit. Raises Faults where they do not at any size."""
    for tenths in range(90, int(_LEAST_PT * 10) - 1, -2):
        words, y = _at(of, tenths / 10, width_mm)
        if y <= height_mm - _EDGE_MM:
            return words
    text = (
        f"All of this does not fit a label of {width_mm:g} × {height_mm:g} mm in letters of "
        f"{_LEAST_PT:g} points. Choose a larger one in the Kitchen."
    )
    raise Faults(Fault("label.height_mm", text))


def _at(of: Finished, pt: float, width_mm: float) -> tuple[list[_Word], float]:
    words: list[_Word] = []
    y = _EDGE_MM
    for size, runs in _paragraphs(of):
        this = pt * size
        high = this * _PT_MM * 1.2
        y += high
        x = _EDGE_MM
        for text, bold in runs:
            for piece in _pieces(text):
                wide = stringWidth(piece, _BOLD if bold else _PLAIN, this) * _PT_MM
                if x + wide > width_mm - _EDGE_MM and x > _EDGE_MM:
                    x, y = _EDGE_MM, y + high
                    piece = piece.lstrip()
                    wide = stringWidth(piece, _BOLD if bold else _PLAIN, this) * _PT_MM
                words.append(_Word(x, y, this, bold, piece))
                x += wide
        y += high * 0.25
    return words, y


def _pieces(text: str) -> Iterator[str]:
    """Words, each with the space before it."""
    start = 0
    for n, sign in enumerate(text):
        if sign == " " and n > start:
            yield text[start:n]
            start = n
    if start < len(text):
        yield text[start:]


def label_svg(of: Finished, kitchen: Kitchen) -> str:
    """One label at true size."""
    width, height = kitchen["label.width_mm"], kitchen["label.height_mm"]
    words = "\n".join(
        f'<text x="{w.x_mm:.3f}" y="{w.y_mm:.3f}" font-size="{w.pt * _PT_MM:.3f}"'
        f'{" font-weight=" + chr(34) + "bold" + chr(34) if w.bold else ""} xml:space="preserve">'
        f"{escape(w.text)}</text>"
        for w in _laid(of, width, height)
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:g}mm" height="{height:g}mm" '
        f'viewBox="0 0 {width:g} {height:g}" font-family="Helvetica, Arial, sans-serif">'
        f"<title>{escape(plain(of.label.product))}</title>\n{words}\n</svg>"
    )


def labels_pdf(labels: Sequence[tuple[Finished, int]], kitchen: Kitchen) -> bytes:
    """Sheets of A4 with so many of each label, one after another, as the kitchen's label sheets are."""
    if not 1 <= sum(copies for _, copies in labels) <= MOST_LABELS:
        raise Faults(Fault("copies", f"From 1 to {MOST_LABELS} labels at once."))
    width, height = kitchen["label.width_mm"], kitchen["label.height_mm"]
    across, down = int(kitchen["label.across"]), int(kitchen["label.down"])
    left, top, gap = kitchen["label.left_mm"], kitchen["label.top_mm"], kitchen["label.gap_mm"]
    if left + across * width + (across - 1) * gap > PAGE_MM[0] + 0.5:
        raise Faults(Fault("label.across", "So many of these labels are wider than a page of A4."))
    if top + down * height > PAGE_MM[1] + 0.5:
        raise Faults(Fault("label.down", "So many of these labels are longer than a page of A4."))
    laid = [(_laid(of, width, height), copies) for of, copies in labels]
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(PAGE_MM[0] * mm, PAGE_MM[1] * mm), invariant=1)
    canvas.setTitle(", ".join(plain(of.label.product) for of, _ in labels))
    for n, words in enumerate(words for words, copies in laid for _ in range(copies)):
        place = n % (across * down)
        if n and place == 0:
            canvas.showPage()
        x = left + (place % across) * (width + gap)
        y = PAGE_MM[1] - top - (place // across) * height
        for w in words:
            canvas.setFont(_BOLD if w.bold else _PLAIN, w.pt)
            canvas.drawString((x + w.x_mm) * mm, (y - w.y_mm) * mm, w.text)
    canvas.showPage()
    canvas.save()
    return out.getvalue()
