"""Coverage: where in a sheet the leaves are, three ways to count them, and how thick they are."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import islice

from lamination.sheet.cells import Sheet, alike
from lamination.sheet.stacks import Material, thicknesses, walk

WHOLE_SECTION = 120  # leaves; a stack of more is drawn through a window of its middle
LOUPE = 12  # leaves in that window


@dataclass(frozen=True, slots=True)
class Section:
    """A stack as it is drawn: leaves from bottom to top, materials alternating.

    ``whole`` is false when only a window of leaves from the middle is given.
    """

    bottom: Material
    thickness_um: tuple[float, ...]
    whole: bool


@dataclass(frozen=True, slots=True)
class Layers:
    """Leaves where the folds made all of them, three ways to count, and how thick they are, µm.

    ``naive`` is the product that never fuses dough on dough. ``full_pct`` is the share of the area
    that has them all (or more), ``more_pct`` the share that has more, where trimmings were tucked in,
    and ``most`` the count there; ``bent_pct`` the share whose leaves a closed edge bent, ``bare_pct``
    the share without any butter. ``estimate``: the leaves were never countable (lumps).
    """

    butter: int
    dough: int
    total: int
    naive: int
    butter_um: float
    dough_um: float
    thinnest_butter_um: float
    thinnest_dough_um: float
    full_pct: float
    more_pct: float
    most: int
    bare_pct: float
    bent_pct: float
    estimate: bool


@dataclass(frozen=True, slots=True)
class Region:
    """Places of a sheet that are alike: their butter leaves, whether bent, share of area, %."""

    butter: int
    bent: bool
    share_pct: float


@dataclass(frozen=True, slots=True)
class CoverageMap:
    """Where the leaves are: grid lines, mm, and in ``cells[i][j]`` the number of a region."""

    xs_mm: tuple[float, ...]
    ys_mm: tuple[float, ...]
    cells: tuple[tuple[int, ...], ...]
    regions: tuple[Region, ...]


def layers_of(sheet: Sheet, naive: int, estimate: bool = False) -> Layers:
    """Count a sheet's leaves; ``naive``: the product so far, which the sheet cannot know."""
    full = sheet.fullest()
    um = 1_000 * sheet.press
    shares = sheet.coverage()
    more = sum(share for count, share in shares.items() if count > full.butter_leaves)
    return Layers(
        butter=full.butter_leaves,
        dough=full.dough_leaves,
        total=full.leaves,
        naive=naive,
        butter_um=full.butter_mm / max(full.butter_leaves, 1) * um,
        dough_um=full.dough_mm / max(full.dough_leaves, 1) * um,
        thinnest_butter_um=full.extent(Material.BUTTER).low * um if full.butter_leaves else 0.0,
        thinnest_dough_um=full.extent(Material.DOUGH).low * um,
        full_pct=100 * (shares[full.butter_leaves] + more),
        more_pct=100 * more,
        most=max(shares),
        bare_pct=100 * shares.get(0, 0.0),
        bent_pct=100 * sheet.bent_share(),
        estimate=estimate,
    )


def section_of(sheet: Sheet) -> Section:
    """The fullest stack of a sheet as it is drawn, µm."""
    full = sheet.fullest()
    whole = full.leaves <= WHOLE_SECTION
    if whole:
        found, bottom = thicknesses(full), full.lowest
    else:
        # A little more than the window, and without its first leaf, which the window may cut.
        reach = 2 * LOUPE * full.thickness / full.leaves
        middle = full.thickness / 2
        leaves = list(islice(walk(full, middle - reach / 2, middle + reach), 1, 1 + LOUPE))
        found, bottom = [n.thickness for n in leaves], leaves[0].material
    um = 1_000 * sheet.press
    # a fold makes many alike, and rounding takes its time
    rounded = {t: round(t * um, 3) for t in set(found)}
    return Section(bottom, tuple([rounded[t] for t in found]), whole)


def coverage_map(sheet: Sheet) -> CoverageMap:
    """The sheet's own grid, with stacks of one count (bent or not) as one region; lines in mm."""
    each = [(s.butter_leaves, is_bent) for s in sheet.pool for is_bent in (False, True)]
    kinds = sorted(
        {each[cell] for column in sheet.cells for cell in column}, key=lambda k: (-k[0], k[1])
    )
    number = {kind: n for n, kind in enumerate(kinds)}
    of_cell = [number.get(kind, -1) for kind in each]
    xs, ys, cells = alike(sheet, of_cell)
    shares = [0.0] * len(kinds)
    for kind, share in zip(of_cell, sheet.shares_of_cells, strict=True):
        if share:
            shares[kind] += share
    return CoverageMap(
        tuple(round(x, 2) for x in xs),
        tuple(round(y, 2) for y in ys),
        cells,
        tuple(
            Region(butter, bent, 100 * share)
            for (butter, bent), share in zip(kinds, shares, strict=True)
        ),
    )
