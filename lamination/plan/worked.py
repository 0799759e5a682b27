"""What a worked plan holds: results only, no inputs that the plan has already."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from lamination.dough.block import FoldBack, Plaques
from lamination.dough.formula import Balance, Fed
from lamination.dough.mixing import Bowl, Water
from lamination.dough.weighing import WeighSheet
from lamination.kitchen.practice import StopKind
from lamination.materials.composition import Conductivity
from lamination.materials.ingredients import Allergen, Kind, Window
from lamination.pieces.cutting import Marks, Outline, Shape
from lamination.pieces.finish import Bake
from lamination.pieces.shaping import Card
from lamination.pieces.trays import WorkedTrays
from lamination.sheet.folds import Fold, Move
from lamination.sheet.lockin import Size
from lamination.sheet.passes import Rolling
from lamination.sheet.stacks import Material
from lamination.terms.rests import Rest


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
    """Leaves where the sheet has most of them, three ways to count, and how thick they are, µm.

    ``naive`` is the product that never fuses dough on dough. ``full_pct`` is the share of the
    area that has them all, ``bent_pct`` the share whose leaves a closed edge bent, ``bare_pct`` the
    share without any butter. ``estimate``: the leaves were never countable (lumps).
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
    bare_pct: float
    bent_pct: float
    estimate: bool


@dataclass(frozen=True, slots=True)
class WorkedLockIn:
    """Block, dough sheet and package; where the creases lie along the dough sheet."""

    block: Size
    dough_sheet: Size
    package: Size
    creases_mm: tuple[float, ...]
    block_over_dough: float
    layers: Layers
    section: Section


@dataclass(frozen=True, slots=True)
class WorkedTurn:
    """One turn: the sheet rolled, where it is creased, and the package it folds to."""

    name: str
    fold: Fold
    rolled: Size
    folded: Size
    creases_mm: tuple[float, ...]
    butter_layers: int
    dough_layers: int
    layers: Layers
    section: Section
    rest: Rest | None
    starts_min: float
    trimmed_g: float
    turned: bool
    moves: tuple[Move, ...]
    rolling: Rolling


@dataclass(frozen=True, slots=True)
class Region:
    """Places of the last sheet that are alike: their butter leaves, whether bent, share of area, %."""

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


@dataclass(frozen=True, slots=True)
class WorkedFinal:
    """The last sheet. ``turned``: whether the package was turned before the roll, as for a fold.

    ``mass_g`` is what is left of dough and butter after all trims; ``thinnest_mm`` and
    ``thickest_mm`` are its places farthest from the mean.
    """

    length_mm: float
    width_mm: float
    thickness_mm: float
    turned: bool
    section: Section
    mass_g: float
    map: CoverageMap
    thinnest_mm: float
    thickest_mm: float
    rolling: Rolling

    @property
    def size(self) -> Size:
        return Size(self.length_mm, self.width_mm, self.thickness_mm)


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

    ``piece_g`` is dough and butter, ``filled_g`` with its filling.
    """

    name: str
    shape: Shape
    card: Card
    pieces: int
    piece_g: float
    filled_g: float
    rows: int
    per_row: int
    along_mm: float
    across_mm: float
    drift: Drift | None


@dataclass(frozen=True, slots=True)
class MarkedRow:
    """A row as it is marked: its product, from and to across the rows, marks on both edges."""

    product: int
    from_mm: float
    to_mm: float
    marks: tuple[Marks, ...]


@dataclass(frozen=True, slots=True)
class WorkedCut:
    """Pieces, the mass of each, the share of the sheet they use, and what is left over.

    Of each piece: ``full_pct``, the share of its area that has all the butter leaves, and
    ``each_g``, its own mass where the sheet is uneven. ``piece_g`` is that of the first product,
    ``strips`` the rows of all, ``per_strip`` the pieces in the first.
    """

    pieces: int
    piece_g: float
    strips: int
    per_strip: int
    used_pct: float
    trimmings_g: float
    trimmings_butter_g: float
    outlines: tuple[Outline, ...]
    full_pct: tuple[float, ...]
    each_g: tuple[float, ...]
    products: tuple[CutProduct, ...]
    rows: tuple[MarkedRow, ...]


@dataclass(frozen=True, slots=True)
class Scrap:
    """What is left over at a stop and saved for the next dough, g, and the butter that is in it."""

    stop: str
    grams: float
    butter_g: float


@dataclass(frozen=True, slots=True)
class Label:
    """A product's label: its allergens, what is in it, and a filling nobody knows anything of."""

    product: str
    allergens: tuple[Allergen, ...]
    contains: tuple[str, ...]
    unknown: str | None


@dataclass(frozen=True, slots=True)
class WorkedFinish:
    """From the tray to the shelf: trays and loads, minutes of one load, the wash, the labels.

    ``other_oven``: the same bake in the other kind of oven.
    """

    trays: WorkedTrays
    bake_min: float
    loads: int
    wash: str
    wash_says: str
    other_oven: Bake
    humidity_pct: float
    signs: tuple[str, ...]
    labels: tuple[Label, ...]


@dataclass(frozen=True, slots=True)
class Stop:
    """A stop on the strip, in order: when its work starts, how long it takes, and its rest after.

    ``starts_min`` counts from the start of the first stop. ``does`` says what to do, in order, the
    first sentence being the one to read from two metres. ``lies`` is the dough when it is done.
    """

    key: str
    kind: StopKind
    name: str
    starts_min: float
    bench_min: float
    rest: Rest | None
    lies: Size | None
    butter_layers: int
    leaves: int
    does: tuple[str, ...]
    caution: str


@dataclass(frozen=True, slots=True)
class Shares:
    """Butter in the three conventions, %; of flour only where a formula says how much there is."""

    of_flour_pct: float | None
    of_dough_pct: float
    of_whole_pct: float


@dataclass(frozen=True, slots=True)
class Physics:
    """A material at the temperature the kitchen states: kg/m³, kJ/(kg·K), W/(m·K); water share, %.

    Without a composition only the density is known.
    """

    density_kg_m3: float
    water_pct: float | None = None
    specific_heat_kj_kg_k: float | None = None
    conductivity: Conductivity | None = None


@dataclass(frozen=True, slots=True)
class WorkedPart:
    """An ingredient of one dough: % of all flour and g, all preferments included."""

    ingredient: str
    name: str
    kind: Kind
    pct: float
    grams: float


@dataclass(frozen=True, slots=True)
class WorkedPreferment:
    """A preferment of one dough: its masses, what share of all liquid it takes, and its tub."""

    stop: str
    name: str
    flour_g: float
    liquid_g: float
    yeast_g: float
    total_g: float
    liquid_share_pct: float
    volume_l: float
    rises_to_l: float
    tub_l: float


@dataclass(frozen=True, slots=True)
class Feeding:
    """Old dough fed back: g in one dough, and the balance as written, today, and settled."""

    grams: float
    butter_g: float
    today: Fed
    settled: Fed


@dataclass(frozen=True, slots=True)
class WorkedFormula:
    """All that follows from a formula for one dough. ``water`` is None where the bowl gets none."""

    flour_g: float
    total_pct: float
    parts: tuple[WorkedPart, ...]
    balance: Balance
    preferments: tuple[WorkedPreferment, ...]
    feeding: Feeding | None
    water: Water | None
    bowl: Bowl
    rounding: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class WorkedButter:
    """The butter block: what it is, how it is made of plaques, how it is made pliable."""

    name: str
    physics: Physics
    window: Window | None
    plaques: Plaques
    fold_back: FoldBack | None


@dataclass(frozen=True, slots=True)
class Put:
    """A value to put in the plan's ``field``."""

    field: str
    value: float | str | Rest


@dataclass(frozen=True, slots=True)
class Fix:
    """A way out that can be taken with one press: all its values are put in the plan at once."""

    label: str
    puts: tuple[Put, ...]


@dataclass(frozen=True, slots=True)
class Note:
    """Advice in words at a stop. ``mind``: look at this; ``know``: worth knowing; ``good``: fits.

    ``field`` is the path in the plan of the input the advice is about, if it is about one; ``fixes``
    are ways out.
    """

    stop: str
    tone: Literal["mind", "know", "good"]
    title: str
    text: str
    field: str | None = None
    fixes: tuple[Fix, ...] = ()


@dataclass(frozen=True, slots=True)
class Working:
    """How one number was got: ``of`` is its path in the worked plan."""

    of: str
    text: str


@dataclass(frozen=True, slots=True)
class Facts:
    """What plans are compared by. ``waste_g``: trims that are saved, and what the cut leaves."""

    butter_layers: int
    leaves: int
    butter_um: float
    dough_um: float
    full_pct: float
    bent_pct: float
    waste_g: float
    turns: int
    rests: int
    bench_min: float
    total_min: float
    longest_mm: float
    pieces: int | None
    piece_g: float | None


@dataclass(frozen=True, slots=True)
class WorkedPlan:
    """All that follows from a plan, stop by stop."""

    name: str
    total_g: float
    butter_share: Shares
    formula: WorkedFormula | None
    sheets: tuple[WeighSheet, ...]
    dough: Physics
    slab: Size
    butter: WorkedButter
    lock_in: WorkedLockIn
    steps: tuple[WorkedTurn, ...]
    layers: Layers
    final: WorkedFinal
    cut: WorkedCut | None
    finish: WorkedFinish | None
    scrap: tuple[Scrap, ...]
    strip: tuple[Stop, ...]
    total_min: float
    notes: tuple[Note, ...]
    workings: tuple[Working, ...]
    facts: Facts
