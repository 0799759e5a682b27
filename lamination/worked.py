"""What a worked plan holds: results only, no inputs that the plan has already."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from lamination.cutting import Outline
from lamination.laminate import Fold, Material
from lamination.lockin import Size
from lamination.plan import Rest
from lamination.practice import StopKind


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
    area that has them all.
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


@dataclass(frozen=True, slots=True)
class WorkedFinal:
    """The last sheet. ``turned``: whether the package was turned before the roll, as for a fold."""

    length_mm: float
    width_mm: float
    thickness_mm: float
    turned: bool
    section: Section

    @property
    def size(self) -> Size:
        return Size(self.length_mm, self.width_mm, self.thickness_mm)


@dataclass(frozen=True, slots=True)
class WorkedCut:
    """Pieces, the mass of each, the share of the sheet they use, and what is left over."""

    pieces: int
    piece_g: float
    strips: int
    per_strip: int
    used_pct: float
    trimmings_g: float
    outlines: tuple[Outline, ...]


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
    """Butter in the three conventions a plan without a formula can state, %."""

    of_dough_pct: float
    of_whole_pct: float


@dataclass(frozen=True, slots=True)
class Note:
    """Advice in words at a stop. ``mind``: look at this; ``know``: worth knowing; ``good``: fits.

    ``field`` is the path in the plan of the input the advice is about, if it is about one.
    """

    stop: str
    tone: Literal["mind", "know", "good"]
    title: str
    text: str
    field: str | None = None


@dataclass(frozen=True, slots=True)
class Working:
    """How one number was got: ``of`` is its path in the worked plan."""

    of: str
    text: str


@dataclass(frozen=True, slots=True)
class WorkedPlan:
    """All that follows from a plan, stop by stop."""

    name: str
    total_g: float
    butter_share: Shares
    lock_in: WorkedLockIn
    steps: tuple[WorkedTurn, ...]
    layers: Layers
    final: WorkedFinal
    cut: WorkedCut | None
    strip: tuple[Stop, ...]
    total_min: float
    notes: tuple[Note, ...]
    workings: tuple[Working, ...]
