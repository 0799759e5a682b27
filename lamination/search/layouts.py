"""The best layout: which rows of which products a sheet is given, searched and not guessed.

Rows of a product all weigh alike and take the same width, so a layout is a count of rows for each
product, each way round, on a sheet whose rows run along it or across. The search is branch and bound
over those counts: exact, and the bound is the densest product left filling the rest of the width.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from heapq import heappush, heapreplace
from typing import Annotated

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.cutting import Nested, blank_of, lay_out, nested, per_row
from lamination.pieces.products import MOST_PRODUCTS, Product, Shape
from lamination.plan.plan import Plan
from lamination.plan.walk import walk
from lamination.sheet.rolls import size_of
from lamination.steps._package import lying
from lamination.steps.cut import Cut, sliced
from lamination.terms.limits import Checked, Fault, Faults, Length, Range
from lamination.terms.sizes import Size

_MOST_TO_FILL = 400  # pieces on a sheet whose ends are looked at
_HAIR = 1e-9
_MOST_SHEETS = 40
_TURNABLE = (Shape.RECTANGLE, Shape.STRIP)


@dataclass(frozen=True)
class AllotSearch(Checked):
    """What is wanted of each product of the plan's cut, in its order: pieces, 0 for any number.

    ``best``: how many layouts to show.
    """

    wanted: Annotated[
        tuple[Annotated[int, Range(0, 100_000)], ...], Length(1, MOST_PRODUCTS, "products")
    ]
    best: Annotated[int, Range(1, 10)] = 4


@dataclass(frozen=True, slots=True)
class Allotted:
    """A layout: the cut to put in the plan, pieces and mass of each product, what is left over.

    ``useful_pct``: the share of the sheet in pieces that are wanted. ``sheets``: how many sheets of
    this layout all that is wanted takes; None where nothing was asked for or one is left out.
    """

    cut: Cut
    pieces: tuple[int, ...]
    piece_g: tuple[float, ...]
    used_pct: float
    useful_pct: float
    trimmings_g: float
    sheets: int | None


@dataclass(frozen=True, slots=True)
class Allotments:
    """The best layouts of one sheet, and sheet after sheet until all that is wanted is cut.

    ``tried``: rows put down in the search. ``short``: whether some was still wanted at the end.
    """

    best: tuple[Allotted, ...]
    sheets: tuple[Allotted, ...]
    tried: int
    short: bool


@dataclass(frozen=True, slots=True)
class _Option:
    """Rows that may be laid: of which product, which way round, how wide, with how many pieces each.

    ``closer``: how they lie in each other's gaps; None where they lie straight.
    """

    product: int
    turned: bool
    takes_mm: float
    pieces: int
    piece_mm2: float
    closer: Nested | None = None

    @property
    def density(self) -> float:
        """No number of rows holds more area of pieces in each mm of width."""
        pitch = self.closer.nearer_mm if self.closer else self.takes_mm
        return self.pieces * self.piece_mm2 / pitch

    def fits(self, room_mm: float) -> int:
        """How many rows fit into a width."""
        if self.closer:
            return self.closer.fits(room_mm)
        return math.floor(room_mm / self.takes_mm + _HAIR)

    def enough(self, wanted: int) -> int:
        """How many rows hold so many pieces."""
        if not self.closer:
            return math.ceil(wanted / self.pieces)
        pair = self.closer.many + self.closer.between
        rows = 2 * (wanted // pair)
        while self.closer.pieces(rows) < wanted:
            rows += 1
        return rows

    def width_mm(self, rows: int) -> float:
        """What so many rows take of the width."""
        return self.closer.takes_mm(rows) if self.closer else rows * self.takes_mm

    def gives(self, rows: int) -> int:
        """The pieces in so many rows."""
        return self.closer.pieces(rows) if self.closer else rows * self.pieces


class _Search:
    """The best few counts of rows for one sheet, by the area of pieces that are wanted."""

    def __init__(self, options: list[_Option], width_mm: float, left: list[int | None], most: int):
        # the densest first, so that good layouts are found early and the bound cuts deep
        self.options = sorted(
            options, key=lambda o: (-o.density, o.product, o.turned, o.closer is None)
        )
        self.width = width_mm
        self.left = left
        self.most = most
        self.found: list[tuple[float, int, tuple[int, ...]]] = []
        self.seen: set[tuple[int, ...]] = set()
        self.tried = 0

    def run(self) -> list[tuple[float, tuple[int, ...]]]:
        self._go(0, self.width, list(self.left), 0.0, [])
        found = sorted(self.found, key=lambda f: (-f[0], sum(f[2])))
        return [(value, counts) for value, _, counts in found]

    def _floor(self) -> float:
        return self.found[0][0] if len(self.found) >= self.most else -1.0

    def _keep(self, value: float, counts: list[int]) -> None:
        whole = tuple(counts) + (0,) * (len(self.options) - len(counts))
        if not any(whole) or whole in self.seen:
            return
        self.seen.add(whole)
        entry = (value, len(self.seen), whole)
        if len(self.found) < self.most:
            heappush(self.found, entry)
        elif value > self.found[0][0] + _HAIR:
            heapreplace(self.found, entry)

    def _go(
        self, i: int, room: float, left: list[int | None], value: float, counts: list[int]
    ) -> None:
        if i == len(self.options):
            self._keep(value, counts)
            return
        option = self.options[i]
        if value + room * option.density <= self._floor() + _HAIR:
            return
        most = option.fits(room)
        wanted = left[option.product]
        if wanted is not None:
            most = min(most, option.enough(wanted))
        for rows in range(most, -1, -1):
            if rows == 1 and option.closer:
                continue  # one row has no gaps: it lies straight
            self.tried += 1
            useful = option.gives(rows)
            if wanted is not None:
                useful = min(useful, wanted)
                left[option.product] = wanted - useful
            self._go(
                i + 1,
                room - option.width_mm(rows),
                left,
                value + useful * option.piece_mm2,
                [*counts, rows],
            )
            left[option.product] = wanted


def _options(cut: Cut, length: float, across: bool) -> list[_Option]:
    found = []
    for n, product in enumerate(cut.products):
        ways = [False]
        if product.shape in _TURNABLE and product.height_mm != product.base_mm:
            ways.append(True)
        for turned in ways:
            blank = blank_of(_turned(product) if turned else product, cut.shrink_pct, across)
            pieces = per_row(blank, length, cut.kerf_mm)
            if pieces:
                takes = blank.across_mm + cut.kerf_mm
                found.append(_Option(n, turned, takes, pieces, blank.mm2))
                if blank.shape.is_round:
                    found.append(replace(found[-1], closer=nested(blank, length, cut.kerf_mm)))
    return found


def _turned(product: Product) -> Product:
    """A piece with straight sides, its height along the row."""
    assert product.height_mm is not None
    return replace(product, base_mm=product.height_mm, height_mm=product.base_mm)


def allot(plan: Plan, search: AllotSearch, kitchen: Kitchen) -> Allotments:
    """Search the layouts of a plan's products on its last sheet.

    Never worse than the best single product in the best direction, for each of those is among what
    is searched. Pieces beyond what is wanted do not count. A sheet that lies double is cut through all
    its layers at once; of a coil the slices are shared out. Raises Faults where the plan has no cut,
    or ``wanted`` is not one number for each product.
    """
    cut = plan.cut
    if cut is None:
        raise Faults(Fault("plan.cut", "This plan has no cut. Say first what is cut."))
    if len(search.wanted) != len(cut.products):
        text = f"One number for each of the {len(cut.products)} products."
        raise Faults(Fault("search.wanted", text))
    sheet = _under_the_knife(plan, cut, kitchen)
    left: list[int | None] = [n or None for n in search.wanted]
    tried, best = _best(replace(sheet, left=left), search.best)
    sheets: list[Allotted] = []
    while any(left) and len(sheets) < _MOST_SHEETS:
        more, found = _best(replace(sheet, left=[n if n else 0 for n in left]), 1)
        tried += more
        if not found or not any(found[0].pieces):
            break
        sheets.append(found[0])
        left = [max(n - p, 0) if n else n for n, p in zip(left, found[0].pieces, strict=True)]
    return Allotments(tuple(best), tuple(sheets), tried, any(left))


@dataclass(frozen=True, slots=True)
class _Sheet:
    """What a layout is worked for: the plan's cut, and as it is under the knife; the sheet, how many lie
    on each other, what a mm² of one weighs, and the products still wanted.
    """

    own: Cut
    cut: Cut
    size: Size
    layers: int
    per_mm2: float
    coil: bool
    left: list[int | None]

    def cuts(self, n: int, products: int) -> int:
        """How many cuts give so many of a product: several strands make one, several layers are cut."""
        return math.ceil(products * self.cut.products[n].strands / self.layers)

    def gives(self, n: int, cuts: int) -> int:
        """How many products so many cuts give."""
        return cuts * self.layers // self.cut.products[n].strands


def _under_the_knife(plan: Plan, cut: Cut, kitchen: Kitchen) -> _Sheet:
    found = walk(plan, kitchen)
    lies = found.made[plan.steps.index(cut) - 1].lies
    layers = lies.plies or (lies.laminate,)
    size = size_of(layers[0])
    mass_g = lying(lies, found.recipe)[0] + lies.carried_g
    per_mm2 = mass_g / (size.length_mm * size.width_mm * len(layers))
    return _Sheet(cut, sliced(cut, lies), size, len(layers), per_mm2, lies.coil is not None, [])


def _best(sheet: _Sheet, most: int) -> tuple[int, list[Allotted]]:
    """The best layouts with rows along the sheet and across it, together."""
    cut, size = sheet.cut, sheet.size
    tried, found = 0, []
    left = [n if n is None else sheet.cuts(i, n) for i, n in enumerate(sheet.left)]
    for across in (False,) if sheet.coil else (False, True):
        length, width = size.length_mm - 2 * cut.trim_mm, size.width_mm - 2 * cut.trim_mm
        if across:
            length, width = width, length
        options = _options(cut, length, across)
        if sheet.coil:
            options = [o for o in options if not o.turned]
        # one kerf less than rows: the last needs none after it
        search = _Search(options, width + cut.kerf_mm, left, most)
        for value, counts in search.run():
            found.append((value, sum(counts), search.options, counts, across))
        tried += search.tried
    found.sort(key=lambda f: (-f[0], f[1]))
    fill = _allotted if sheet.coil else _filled
    best = [
        (*fill(sheet, *_chosen(cut, options, counts), across), rows)
        for _, rows, options, counts, across in found
    ]
    best.sort(key=lambda b: (-b[1], b[2]))
    return tried, [laid for laid, _, _ in best[:most]]


def _chosen(
    cut: Cut, options: list[_Option], counts: tuple[int, ...]
) -> tuple[list[Product], list[int]]:
    """The products of a layout with their rows, and which of the cut's each one is."""
    products, whose = [], []
    for option, rows in sorted(zip(options, counts, strict=True), key=lambda o: o[0].product):
        if rows:
            product = cut.products[option.product]
            laid = _turned(product) if option.turned else product
            if product.shape.is_round:
                laid = replace(laid, nested=option.closer is not None)
            products.append(replace(laid, rows=rows, beside=False, crosswise=False))
            whose.append(option.product)
    return products, whose


def _filled(
    sheet: _Sheet, products: list[Product], whose: list[int], across: bool
) -> tuple[Allotted, float]:
    """The layout with what it leaves filled, where that gains anything: the ends of its rows by another
    product, and the band beside them by rows that run the other way.
    """
    best, value = _allotted(sheet, products, whose, across)
    if sum(best.pieces) > _MOST_TO_FILL:
        return best, value  # so small, they leave next to nothing
    for at in range(len(products), 0, -1):
        tries = []
        for n, product in enumerate(sheet.cut.products):
            more = [*products[:at], replace(product, rows=0, beside=True), *products[at:]]
            if len(more) <= MOST_PRODUCTS:
                mine = [*whose[:at], n, *whose[at:]]
                tries.append((*_allotted(sheet, more, mine, across), more, mine))
            if at == len(products) and not across and not any(p.crosswise for p in products):
                turned = [*products, replace(product, rows=0, beside=False, crosswise=True)]
                if len(turned) <= MOST_PRODUCTS:
                    mine = [*whose, n]
                    tries.append((*_allotted(sheet, turned, mine, across), turned, mine))
        if tries and (gain := max(tries, key=lambda t: t[1]))[1] > value + _HAIR:
            best, value, products, whose = gain
    return best, value


def _allotted(
    sheet: _Sheet, products: list[Product], whose: list[int], across: bool
) -> tuple[Allotted, float]:
    """A layout worked, and the area of it that is wanted, mm²."""
    cut, size = sheet.cut, sheet.size
    layout = lay_out(size, products, cut.kerf_mm, cut.trim_mm, cut.shrink_pct, across)
    cuts = [0] * len(cut.products)
    useful_mm2 = 0.0
    for n, mine in enumerate(whose):
        many, limit = layout.pieces_of(n), sheet.left[mine]
        counted = many if limit is None else max(min(many, sheet.cuts(mine, limit) - cuts[mine]), 0)
        useful_mm2 += counted * layout.piece_mm2[n]
        cuts[mine] += many
    pieces = tuple(sheet.gives(n, many) for n, many in enumerate(cuts))
    asked = [(n, p) for n, p in zip(sheet.left, pieces, strict=True) if n]
    sheets = (
        max((math.ceil(n / p) for n, p in asked), default=None)
        if all(p for _, p in asked)
        else None
    )
    if sheet.coil:  # said as the plan says them: so long a slice of each
        own = sheet.own.products
        products = [replace(own[m], rows=p.rows) for m, p in zip(whose, products, strict=True)]
    sheet_mm2 = size.length_mm * size.width_mm
    found = Allotted(
        replace(sheet.own, products=tuple(products), across=across),
        pieces,
        tuple(
            blank_of(p, cut.shrink_pct, across).mm2 * sheet.per_mm2 * p.strands
            for p in cut.products
        ),
        100 * layout.used_mm2 / sheet_mm2,
        100 * useful_mm2 / sheet_mm2,
        (sheet_mm2 - layout.used_mm2) * sheet.per_mm2 * sheet.layers,
        sheets,
    )
    return found, useful_mm2
