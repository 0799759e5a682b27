"""The cut: rows of pieces from one datum, what each weighs, and what is left over."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from lamination.dough.recipe import Recipe
from lamination.pieces.cutting import Blank, Layout, Marks, Row, blank_in, lay_out
from lamination.pieces.marking import chained, cut_from
from lamination.pieces.over import Outline, means_over
from lamination.pieces.products import MOST_PRODUCTS, Product, Shape
from lamination.pieces.shaping import Card, Slit, slits_of
from lamination.sheet.cells import Sheet
from lamination.sheet.rolls import size_of
from lamination.steps._package import lying
from lamination.steps._things import FILL_AND_TOP, fill_and_top, weighed_all
from lamination.steps.base import (
    Chapter,
    Form,
    Handling,
    Here,
    Kind,
    Lies,
    Made,
    Saved,
    Setting,
    Step,
    Weighs,
)
from lamination.terms.advice import Note, Working
from lamination.terms.limits import Length, Range
from lamination.terms.said import counted, g, mm, named, say
from lamination.terms.sizes import Size


@dataclass(frozen=True)
class Cut(Step):
    """What the last sheet is cut into: rows of one product after another, from the datum edge.

    ``kerf_mm`` is what the blade takes at each cut, ``trim_mm`` what comes off every edge first.
    ``shrink_pct``: how much a piece shrinks along the roll once it is cut. ``across``: rows run
    across the sheet. ``grid``: it is pressed before it is cut.
    """

    products: Annotated[tuple[Product, ...], Length(1, MOST_PRODUCTS, "products")]
    kerf_mm: Annotated[float, Range(0, 10, "mm")] = 0.0
    trim_mm: Annotated[float, Range(0, 100, "mm")] = 0.0
    shrink_pct: Annotated[float, Range(0, 40, "%")] = 0.0
    across: bool = False
    grid: bool = False
    do: Literal["cut"] = field(default="cut", kw_only=True)


@dataclass(frozen=True, slots=True)
class Drift:
    """What comes of marking each cut from the last: how far the last mark is short, mm, and how much
    lighter each piece is, g.
    """

    last_mm: float
    lighter_g: float


@dataclass(frozen=True, slots=True)
class CutProduct:
    """One product of the cut; ``along_mm`` and ``across_mm`` are its size as it is to be cut.

    ``slits`` are cut into each when it is shaped. ``pieces`` are products, of ``strands`` cut pieces
    each: ``cut`` is what comes under the knife.
    ``piece_g`` is dough and butter, ``filled_g`` with filling and toppings.
    """

    name: str
    shape: Shape
    card: Card
    pieces: int
    cut: int
    piece_g: float
    filled_g: float
    rows: int
    per_row: int
    along_mm: float
    across_mm: float
    drift: Drift | None
    slits: tuple[Slit, ...]


@dataclass(frozen=True, slots=True)
class MarkedRow:
    """A row as it is marked: its product, from and to across the rows, marks on both edges.

    ``crosswise``: it runs across, where the others run along.
    """

    product: int
    pieces: int
    from_mm: float
    to_mm: float
    marks: tuple[Marks, ...]
    crosswise: bool


@dataclass(frozen=True, slots=True)
class CutFigures:
    """Pieces, the mass of each, the share of the sheet they use, and what is left over.

    ``sheet_g``: all that lies under the knife. ``loose``: cut pieces that make no whole product, such as
    a strand too few for a plait; they are left over.

    Where the sheet lies double, ``layers`` lie on each other: ``outlines`` are those of one. Of
    everything cut, the lowest layer first: ``full_pct``, the share of its area that has all the
    butter leaves, and ``each_g``, its own mass where the sheet is uneven. ``piece_g`` is that
    of the first product, ``strips`` the rows of all, ``per_strip`` the pieces in the first.
    ``spare_mm``: width no row uses. ``poor_pct``: a piece with less is poor.
    """

    sheet_g: float
    loose: int
    pieces: int
    piece_g: float
    strips: int
    per_strip: int
    used_pct: float
    trimmings_g: float
    trimmings_butter_g: float
    spare_mm: float
    poor_pct: float
    layers: int
    outlines: tuple[Outline, ...]
    full_pct: tuple[float, ...]
    each_g: tuple[float, ...]
    products: tuple[CutProduct, ...]
    rows: tuple[MarkedRow, ...]
    do: Literal["cut"] = "cut"


def effect(step: Cut, lies: Lies, setting: Setting) -> Made:
    """Lay the products on the sheet. What is left over is booked with the butter that is in it."""
    step = sliced(step, lies)
    sheet, recipe = lies.laminate, setting.recipe
    layers = lies.plies or (sheet,)
    size = size_of(layers[0])
    laid = lay_out(size, step.products, step.kerf_mm, step.trim_mm, step.shrink_pct, step.across)
    mass_g, butter_all = lying(lies, recipe)
    mass_g += lies.carried_g
    mm2 = [laid.piece_mm2[row.product] for row in laid.rows for _ in row.outlines]
    each, in_pieces, wholes = _weighed(sheet, layers, laid, mm2, recipe, lies.carried_g)
    mean_mm2 = mass_g / sum(s.length_mm * s.width_mm for s in layers)
    products = tuple(
        _product(step, n, laid, mean_mm2, len(layers)) for n in range(len(step.products))
    )
    first = laid.rows[0] if laid.rows else None
    used_g = sum(p.pieces * p.piece_g for p in products)
    cut_g = laid.used_mm2 * mean_mm2 * len(layers)
    # what is cut and makes no whole product carries its butter to what is left
    in_pieces *= used_g / cut_g if cut_g else 0.0
    left, left_butter = mass_g - used_g, max(butter_all - in_pieces, 0.0)
    figures = CutFigures(
        sheet_g=mass_g,
        loose=sum(
            p.cut - p.pieces * s.strands for p, s in zip(products, step.products, strict=True)
        ),
        pieces=sum(p.pieces for p in products),
        piece_g=products[0].piece_g,
        strips=len(laid.rows),
        per_strip=len(first.outlines) if first else 0,
        used_pct=100 * used_g / mass_g,
        trimmings_g=left,
        trimmings_butter_g=left_butter,
        spare_mm=_spare_mm(step, size, laid),
        poor_pct=setting.kitchen["cut.poor_pct"],
        layers=len(layers),
        outlines=laid.outlines,
        full_pct=tuple(100 * share for share in wholes),
        each_g=tuple(each),
        products=products,
        rows=tuple(
            MarkedRow(r.product, len(r.outlines), r.from_mm, r.to_mm, r.marks, r.crosswise)
            for r in laid.rows
        ),
    )
    there = replace(lies, form=Form.PIECES, of_cut=(step, figures))
    return Made(there, figures, Handling(), Saved(left, left_butter))


def sliced(step: Cut, lies: Lies) -> Cut:
    """A cut of a coil: each product is a slice of it, as high as its base, as long as the sheet was."""
    size = lies.size
    if lies.coil is None or size is None:
        return step
    long = size.length_mm - 2 * step.trim_mm
    slices = tuple(
        replace(
            p, shape=Shape.RECTANGLE, base_mm=long, height_mm=p.base_mm, notch_mm=0.0, hole_mm=0.0,
            card=p.card if p.card.of_coil else Card.SLICE, nested=None,
        )
        for p in step.products
    )  # fmt: skip
    return replace(step, products=slices, kerf_mm=0.0, shrink_pct=0.0, across=False)


def _weighed(
    sheet: Sheet,
    layers: tuple[Sheet, ...],
    laid: Layout,
    mm2: list[float],
    recipe: Recipe,
    carried_g: float,
) -> tuple[list[float], float, list[float]]:
    """Of every piece of every layer its mass, g, and the share of it that has all the leaves; and the
    butter in all of them, g.
    """
    dough, butter = recipe.per_mm3
    outlines = laid.outlines
    full = sheet.fullest().butter_leaves
    along = carried_g / sum(s.length_mm * s.width_mm for s in layers)
    each: list[float] = []
    shares: list[float] = []
    in_pieces = 0.0
    for layer in layers:
        of_butter = [layer.press * s.butter_mm * butter for s in layer.pool]
        of_dough = [layer.press * s.dough_mm * dough for s in layer.pool]
        has = [float(s.butter_leaves >= full) for s in layer.pool]
        per_mm2 = [d + b + along for d, b in zip(of_dough, of_butter, strict=True)]
        masses, butters, wholes = means_over(layer, outlines, per_mm2, of_butter, has)
        each += [m * a for m, a in zip(masses, mm2, strict=True)]
        in_pieces += sum(m * a for m, a in zip(butters, mm2, strict=True))
        shares += list(wholes)
    return each, in_pieces, shares


def _spare_mm(step: Cut, size: Size, laid: Layout) -> float:
    if step.across or not laid.rows:
        return 0.0
    if any(r.crosswise for r in laid.rows):
        return 0.0
    return size.width_mm - max(r.to_mm for r in laid.rows) - step.trim_mm


def _product(step: Cut, n: int, laid: Layout, per_mm2: float, layers: int) -> CutProduct:
    product = step.products[n]
    blank = blank_in(product, step.shrink_pct, step.across)
    mine = [r for r in laid.rows if r.product == n]
    cut = layers * sum(len(r.outlines) for r in mine)
    piece_g = blank.mm2 * per_mm2 * product.strands
    return CutProduct(
        name=product.name,
        shape=product.shape,
        card=product.card,
        pieces=cut // product.strands,
        cut=cut,
        piece_g=piece_g,
        filled_g=piece_g + product.filling_g + sum(t.grams for t in product.toppings),
        rows=len(mine),
        per_row=len(mine[0].outlines) if mine else 0,
        along_mm=blank.along_mm,
        across_mm=blank.across_mm,
        drift=_drift(mine[0], step.kerf_mm, per_mm2) if mine else None,
        slits=_slits(product, blank),
    )


def _slits(product: Product, blank: Blank) -> tuple[Slit, ...]:
    if product.own_card or product.shape not in (Shape.SQUARE, Shape.RECTANGLE):
        return ()
    return slits_of(product.card, blank.along_mm, blank.across_mm)


def _drift(row: Row, kerf_mm: float, per_mm2: float) -> Drift | None:
    """What marking each cut from the last does to a row."""
    if len(row.marks) != 2 or not kerf_mm:
        return None
    marks: tuple[Marks, Marks] = (row.marks[0], row.marks[1])
    wrong = chained(marks, kerf_mm)
    right_mm2, wrong_mm2 = cut_from(marks, kerf_mm), cut_from(wrong, kerf_mm)
    lighter = [(a - b) * per_mm2 for a, b in zip(right_mm2, wrong_mm2, strict=True)]
    return Drift(marks[0].along_mm[-1] - wrong[0].along_mm[-1], sum(lighter) / len(lighter))


def weighs(here: Here[Cut]) -> Iterator[Weighs]:
    """What goes in and on all the pieces."""
    pieces = (p.pieces for p in here.figures.products)
    put = fill_and_top(zip(here.step.products, pieces, strict=True))
    if put:
        yield weighed_all(here, FILL_AND_TOP, put)


def instruct(here: Here[Cut]) -> Iterator[str]:
    """What to cut, from which datum, and how large."""
    step, made = here.step, here.figures
    one = len(step.products) == 1
    total = sum(p.cut for p in made.products)
    before = here.before
    if before.coil:
        yield f"Slice it in {counted(total, 'piece')}"
        for product, of in zip(step.products, made.products, strict=True):
            name = "" if one else f"{named(product.name)}: "
            slices = counted(of.rows, "slice")
            yield f"{name}{slices}, {mm(of.across_mm)} each, {g(of.piece_g)}. Saw, do not press."
        return
    yield f"Cut {total} {step.products[0].shape.said.lower() if one else 'pieces'}"
    if made.layers > 1:
        yield f"{made.layers} at a time, with a sharp blade, straight down."
    if step.grid:
        yield "Press the whole grid lightly first, then cut one line after another."
    if step.trim_mm:
        yield f"Trim {mm(step.trim_mm)} off every edge first: the long one is the straight edge."
    else:
        yield "Trim to a straight edge first."
    for product, of in zip(step.products, made.products, strict=True):
        name = "" if one else f"{named(product.name)}: "
        strands = f", {product.strands} to a piece" if product.strands > 1 else ""
        yield (
            f"{name}{_sizes(product, of.along_mm, of.across_mm)}, "
            f"{g(of.piece_g / product.strands)} each{strands}; {of.per_row} along each of {of.rows}."
        )
    yield "Measure every mark from the straight edge, not from the last cut."


def _sizes(product: Product, along_mm: float, across_mm: float) -> str:
    if product.shape is Shape.DISC:
        return f"Discs {mm(along_mm)} across"
    if product.shape is Shape.RING:
        return f"Rings {mm(along_mm)} across, hole {mm(product.hole_mm)}"
    notch = f", notch {mm(product.notch_mm)}" if product.notch_mm else ""
    return f"Base {mm(along_mm)}, height {mm(across_mm)}{notch}"


def mind(here: Here[Cut]) -> Iterator[Note]:
    """Whether the pieces fit, how well the sheet is used, and the marks."""
    step, made = here.step, here.figures
    size = here.before.size
    assert size is not None
    one = len(made.products) == 1
    for n, (product, of) in enumerate(zip(step.products, made.products, strict=True)):
        if of.cut == 0:
            yield here.note(
                f"no-piece-{n}", "mind", "No piece fits" if one else f"No {named(product.name)} fits",
                f"A piece {mm(of.across_mm)} high on a sheet {mm(size.width_mm)} wide and "
                f"{mm(size.length_mm)} long. Roll it wider, cut smaller, or give it fewer rows before.",
                f"products[{n}].base_mm",
            )  # fmt: skip
        elif product.rows > of.rows:
            yield here.note(
                f"rows-{n}", "mind", f"{of.rows} of {product.rows} rows of {named(product.name)} fit",
                "The sheet is used up before. Ask for fewer rows, or roll it wider.",
                f"products[{n}].rows",
                [here.fix_at(f"{of.rows} rows", f"products[{n}].rows", of.rows)],
            )  # fmt: skip
    if not made.pieces:
        return
    if made.loose:
        yield here.note(
            "loose", "know", f"{counted(made.loose, 'strand')} left over",
            f"{counted(made.loose, 'strand')} of {sum(p.cut for p in made.products)} "
            f"{'make' if made.loose > 1 else 'makes'} no whole piece and "
            f"{'count' if made.loose > 1 else 'counts'} with the trimmings.",
        )  # fmt: skip
    yield from _on_width(here, size)
    drifts = [p.drift for p in made.products if p.drift]
    worst = max(drifts, key=lambda d: d.last_mm, default=None)
    if worst:
        yield here.note(
            "datum", "know", "Every mark from one straight edge",
            f"If each mark were measured from the last cut, the last mark would be {mm(worst.last_mm)} "
            f"short and each piece {g(worst.lighter_g)} lighter.",
        )  # fmt: skip
    title = (
        f"{counted(made.pieces, 'piece')} of {g(made.piece_g)}"
        if one
        else f"{counted(made.pieces, 'piece')} of {len(made.products)} kinds"
    )
    yield here.note(
        "pieces", "good" if made.used_pct >= here.kitchen["cut.used_well_pct"] else "know", title,
        f"{say(made.used_pct)} % of the sheet is used; {g(made.trimmings_g)} of trimmings carry "
        f"{g(made.trimmings_butter_g)} of butter with them. Save them for the next dough.",
    )  # fmt: skip


def _on_width(here: Here[Cut], size: Size) -> Iterator[Note]:
    """Width that no row uses, where it would matter."""
    made = here.figures
    least = min(p.across_mm for p in made.products)
    if made.spare_mm <= least / 4:
        return
    taken = round(size.width_mm - made.spare_mm)
    yield here.note(
        "spare-width", "know", f"{mm(made.spare_mm)} of width left over",
        f"{counted(made.strips, 'row')} {'take' if made.strips > 1 else 'takes'} {mm(taken)}. A sheet "
        f"{mm(taken)} wide is cut to the edge.",
    )  # fmt: skip


def workings(here: Here[Cut]) -> Iterator[Working]:
    """How the pieces and their weight were got."""
    made = here.figures
    first = made.products[0]
    strand = here.step.products[0].strands
    used_g = made.sheet_g - made.trimmings_g
    share = 100 * first.piece_g / strand / made.sheet_g
    yield here.works(
        "piece_g",
        f"One covers {share:.3g} % of the sheet, so it takes that share of {g(made.sheet_g)}: "
        f"{g(first.piece_g / strand)}.",
    )
    yield here.works(
        "trimmings_g",
        f"{g(made.sheet_g)} of sheet less {g(used_g)} in the pieces, with the butter that is "
        f"in what is left: {g(made.trimmings_butter_g)}.",
    )
    rows = ", ".join(f"{p.rows} × {p.per_row}" for p in made.products)
    yield here.works(
        "pieces",
        f"{rows}: rows of each, times the pieces along one. Triangles lie alternately up and down: n of "
        "them use n + 1 half bases.",
    )


def _fresh(_: tuple[Step, ...], __: int) -> Cut:
    return Cut((Product("Croissant", Shape.TRIANGLE, 90, 280, card=Card.CRESCENT),))


KIND = Kind(
    of=Cut,
    do="cut",
    name="Cut",
    stem="cut",
    rank=70,
    chapter=Chapter.CUT,
    takes=frozenset((Form.SHEET,)),
    leaves=Form.PIECES,
    effect=effect,
    figures=CutFigures,
    instruct=instruct,
    mind=mind,
    workings=workings,
    weighs=weighs,
    minutes="minutes.cut",
    fresh=_fresh,
    caution="Blades and wheels: cut away from the other hand. Keep egg and milk doughs cold and follow "
    "your local food code.",
)
