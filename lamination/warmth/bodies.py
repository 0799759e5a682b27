"""Bodies of a plan's dough, and what they lie on and in: air, shelf, tray, marble, board, ice."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated

import numpy as np

from lamination.dough.recipe import Recipe
from lamination.heat.body import Body, body, coil, grid
from lamination.heat.conduction import Air, Slab, conduct
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.composition import Composition
from lamination.materials.thermal import Thermal, constant, freezing_point_c, thermal_of
from lamination.terms.limits import Checked, Range
from lamination.terms.rests import Stay
from lamination.terms.sizes import Size, Warmth
from lamination.terms.trade import Chilled, Place, Surface

CELLS = 14
PLAIN_DOUGH = Composition(38.9, 7.4, 3.6, 48.6, 1.5, 6.3)  # where a plan has no formula
# W/(m·K), kg/m³, J/(kg·K): steel, marble, beech. Source: published tables of solids.
_SOLIDS = {
    Surface.TRAY: (15.0, 7_900.0, 477.0),
    Surface.MARBLE: (2.5, 2_700.0, 880.0),
    Surface.WOOD: (0.16, 650.0, 1_600.0),
}
_TOPS = {"wood": Surface.WOOD, "steel": Surface.TRAY, "marble": Surface.MARBLE}


@dataclass(frozen=True)
class Measured(Checked):
    """A dough's temperature, °C, as it was when the work at a step began, or its rest."""

    stop: str
    t_c: Warmth
    resting: bool = False


@dataclass(frozen=True)
class Today(Checked):
    """How warm it is today, °C, where it differs from the kitchen; the plan follows.

    ``starts``: what was really measured of the dough; ``butter_c``: of the butter at the lock-in.
    ``begins_h``: the hour of the day at which the plan starts; ``room_at_min``: how long after that
    the room was ``room_c``. From there the room takes the kitchen's course through the day.
    """

    room_c: Warmth | None = None
    fridge_c: Warmth | None = None
    freezer_c: Warmth | None = None
    starts: tuple[Measured, ...] = ()
    butter_c: Warmth | None = None
    begins_h: Annotated[float, Range(0, 24, "h")] | None = None
    room_at_min: Annotated[float, Range(0, 30 * 24 * 60, "min")] = 0.0

    def in_kitchen(self, kitchen: Kitchen) -> Kitchen:
        """The kitchen as warm as it is today."""
        today = {
            "room.c": self.room_c,
            "fridge.c": self.fridge_c,
            "freezer.c": self.freezer_c,
            "butter.at_lock_in_c": self.butter_c,
            "day.begins_h": self.begins_h,
        }
        return kitchen.changed({key: value for key, value in today.items() if value is not None})


def room_through_the_day(kitchen: Kitchen, minute: float, read_at_min: float = 0.0) -> float:
    """The room's temperature, °C, so many minutes after the plan's start.

    A wave of ``room.swing_k`` from its coolest to its warmest, warmest at ``room.warmest_h``, and
    ``room.c`` at the minute it was read. Source: trade practice; a day of a closed room is near a wave.
    """

    def wave(at_min: float) -> float:
        hours = kitchen["day.begins_h"] + at_min / 60 - kitchen["room.warmest_h"]
        return kitchen["room.swing_k"] / 2 * math.cos(2 * math.pi * hours / 24)

    return kitchen["room.c"] + wave(minute) - wave(read_at_min)


class Matter:
    """The dough and the butter of a recipe as they take up heat."""

    def __init__(self, recipe: Recipe, kitchen: Kitchen) -> None:
        made_of = recipe.dough_composition or PLAIN_DOUGH
        self.recipe, self.kitchen = recipe, kitchen
        self.dough: tuple[Thermal, float] = (
            thermal_of(made_of), recipe.dough_physics.density_kg_m3,
        )  # fmt: skip
        self.butter: tuple[Thermal, float] = (
            thermal_of(recipe.butter_composition, melts=True), recipe.butter_physics.density_kg_m3,
        )  # fmt: skip
        self.freezes_c = freezing_point_c(made_of)

    def lump(self, t_c: float) -> Body:
        """The dough in bulk, as thick as it counts for: see :func:`bulk_mm`."""
        mass = self.recipe.dough.mass_g
        thick = bulk_mm(self.recipe.dough_physics.volume_mm3(mass), self.kitchen)
        return body([(False, thick)], self.dough, self.butter, t_c, CELLS)

    def package(
        self, leaves: tuple[tuple[bool, float], ...], dough_c: float, butter_c: float
    ) -> Body:
        """Butter shut in dough, both at their own temperatures."""
        return body(leaves, self.dough, self.butter, (dough_c, butter_c), CELLS)

    def coil(self, across_mm: float, t_c: float) -> Body:
        """A sheet rolled up, dough and butter all through it."""
        return coil(across_mm, self.butter_of_volume, self.dough, self.butter, t_c, CELLS)

    @property
    def butter_of_volume(self) -> float:
        """The share of butter in the laminate's volume, 0 to 1."""
        share = self.recipe.butter_of_whole
        volumes = (1 - share) / self.dough[1], share / self.butter[1]
        return volumes[1] / sum(volumes)

    def piece(self, thick_mm: float, t_c: float) -> Body:
        """A shaped piece: dough and butter all through it, with some air between its turns."""
        lines = grid(thick_mm / 1000, CELLS)
        cells = np.diff(lines)
        held = cells * self.kitchen["proof.piece_kg_m3"]
        share, of_butter = self.recipe.butter_of_whole, self.butter_of_volume
        return Body(
            self.dough[0], self.butter[0], held * (1 - share), held * share,
            cells * (1 - of_butter), cells * of_butter, np.full(len(cells), float(t_c)),
        )  # fmt: skip


def bulk_mm(volume_mm3: float, kitchen: Kitchen) -> float:
    """How thick a slab would be that takes up heat as a dough in bulk does, mm.

    A lump stands as high as a share of the cube root of its volume, on a square; where that is wider
    than the tub, the dough fills the tub. A slab takes heat through two faces, a lump through six: the
    slab that counts for it has twice its volume over its surface. Source: geometry.

    >>> from lamination.kitchen.kitchen import Kitchen
    >>> round(bulk_mm(1.8e6, Kitchen()))
    39
    """
    high = kitchen["tub.lump_high"] * volume_mm3 ** (1 / 3)
    tub = kitchen["tub.length_mm"], kitchen["tub.width_mm"]
    sides = (math.sqrt(volume_mm3 / high),) * 2
    if sides[0] * sides[1] > tub[0] * tub[1]:
        sides, high = tub, volume_mm3 / (tub[0] * tub[1])
    return Size(sides[0], sides[1], high).even_mm


class Around:
    """What lies under and over a dough: on the bench, or in a place."""

    def __init__(self, kitchen: Kitchen, read_at_min: float = 0.0) -> None:
        self.kitchen, self.read_at_min = kitchen, read_at_min

    def room_c(self, minute: float) -> float:
        """The room at a minute of the plan."""
        return room_through_the_day(self.kitchen, minute, self.read_at_min)

    def bench(
        self, minute: float, on: Surface = Surface.USUAL, chilled: Chilled = Chilled.NOT,
        wrap: bool = False, room_c: float | None = None,
    ) -> tuple[Slab, Air]:  # fmt: skip
        """The bench top (or what was put on it) and the air, at a minute of the plan."""
        kitchen, room = self.kitchen, self.room_c(minute) if room_c is None else room_c
        top = _TOPS[kitchen.choice("bench.top")] if on is Surface.USUAL else on
        over = Air(room, self._wrapped(kitchen["bench.film"]) if wrap else kitchen["bench.film"])
        under = Air(room, kitchen["bench.film"])
        return self._slab(top, self._starts(top, room, room, chilled), under, wrap), over

    def lies(
        self, stay: Stay, minute: float, air_c: float | None = None, covered: bool = True
    ) -> tuple[Air | Slab, Air]:
        """Under and over a dough at a stay, on what it lies on, iced or not.

        ``air_c``: how warm it is there, where it is set for this stay; ``covered``: wrapped, in a tub.
        """
        kitchen, place = self.kitchen, stay.place
        at = self.air_c(place, minute) if air_c is None else air_c
        below: Air | Slab
        if place is Place.BENCH:
            below, over = self.bench(minute, stay.on, stay.chilled, covered, at)
        else:
            film = kitchen[f"{place}.film"]
            below = over = Air(at, self._wrapped(film) if covered else film)
            if stay.on is not Surface.USUAL:
                starts = (at,) if stay.chilled is Chilled.FRIDGE else (self.room_c(minute),)
                below = self._slab(stay.on, starts, Air(at, film), covered)
        if stay.iced:
            over = Air(min(kitchen["ice.c"], at), self._wrapped(kitchen["contact.ice"]))
        return below, over

    def round_a_piece(self, place: Place, at_c: float, covered: bool = False) -> Air:
        """The air round a piece on its tray, so warm."""
        film = self.kitchen[f"{place}.film"]
        return Air(at_c, self._wrapped(film) if covered else film)

    def air_c(self, place: Place, minute: float) -> float:
        """How warm it is in a place as the kitchen has it, at a minute of the plan."""
        if place is Place.BENCH:
            return self.room_c(minute)
        if place is Place.PROOFER:
            return self.kitchen.proofer_c(self.room_c(minute))
        return self.kitchen[f"{place}.c"]

    def _slab(self, of: Surface, t_c: tuple[float, ...], under: Air, wrap: bool) -> Slab:
        k, rho, c = _SOLIDS[of]
        thick = self.kitchen[f"{of}.mm"] / 1000
        contact = self.kitchen[f"contact.{of}"]
        return Slab(
            thick, k, thick * rho * c, t_c, self._wrapped(contact) if wrap else contact, under
        )

    def _starts(
        self, of: Surface, room: float, under_c: float, chilled: Chilled
    ) -> tuple[float, ...]:
        """How warm it is to begin with, from below upwards."""
        kitchen = self.kitchen
        if chilled is Chilled.FRIDGE:
            return (kitchen["fridge.c"],)
        if chilled is Chilled.ICE:
            return _iced(of, room, under_c, kitchen)
        return (room,)

    def _wrapped(self, film: float) -> float:
        """A film coefficient with the wrap in series, W/(m²·K)."""
        return 1 / (1 / film + 1 / self.kitchen["wrap.film"])


def _iced(of: Surface, room: float, under_c: float, kitchen: Kitchen) -> tuple[float, ...]:
    """A slab after a bag of ice has lain on it."""
    k, rho, c = _SOLIDS[of]
    table = constant(k, c)
    slab = body([(False, kitchen[f"{of}.mm"])], (table, rho), (table, rho), room, 6)
    ice = Air(kitchen["ice.c"], kitchen["contact.ice"])
    under = Air(under_c, kitchen["bench.film"])
    end = conduct(slab, under, ice, kitchen["ice.on_top_min"]).end
    return tuple(float(t) for t in end.t_c)
