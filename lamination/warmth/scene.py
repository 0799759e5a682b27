"""What a dough is followed in: its kitchen as warm as it is today, its matter, what makes it rise."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache

from lamination.dough.formula import balance, soured_pct
from lamination.dough.recipe import Recipe
from lamination.heat.body import Body
from lamination.heat.conduction import Air, Course, Slab, conduct, still
from lamination.heat.yeast import REFERENCE_YEAST_PCT, Leaven, clocks
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Window
from lamination.materials.thermal import Profile
from lamination.plan.walk import Walk
from lamination.terms.rests import Stay
from lamination.warmth.bodies import Around, Matter

AHEAD_MIN = 180.0  # how long a rest is followed beyond the plan, to find its marks
_SOUR_PCT = 20.0  # of the flour as sourdough, by which a house says how long its proof takes
_STEP_K = 0.5  # air that changes is followed in steps of this


def leaven_of(found: Walk, kitchen: Kitchen) -> Leaven | None:
    """What makes a plan's dough rise; None without yeast. Yeasts count by their own strength.

    Sourdough counts as the yeast that would proof as long, where the house has said how long its own
    takes; else it is not known, and nothing is judged by minutes. Source: the house's own proof.
    """
    formula = found.plan.formula
    if formula is None:
        return None
    of = balance(formula)
    sour, proof_min = soured_pct(found.plan.preferments), kitchen["sourdough.proof_min"]
    yeast = of.yeast_pct
    if sour and not proof_min:
        return None
    if sour:
        yeast += REFERENCE_YEAST_PCT * kitchen["proof.reference_min"] / proof_min * sour / _SOUR_PCT
    if yeast <= 0:
        return None
    return Leaven(
        yeast, of.sugar_pct, kitchen["proof.reference_min"],
        kitchen["proof.sugar_from_pct"], kitchen["proof.sugar_slows"],
    )  # fmt: skip


@dataclass(frozen=True, eq=False)
class Scene:
    """What a dough is followed in: its kitchen as warm as it is today, its matter, what makes it rise.

    ``room_at_min``: when, after the plan's start, the room was as warm as the kitchen says;
    ``ahead_min``: how long a rest with butter in it might become, to look for its marks.
    """

    kitchen: Kitchen
    recipe: Recipe
    leaven: Leaven | None
    room_at_min: float = 0.0
    ahead_min: float = AHEAD_MIN

    @cached_property
    def matter(self) -> Matter:
        """The dough and the butter as they take up heat."""
        return Matter(self.recipe, self.kitchen)

    @cached_property
    def around(self) -> Around:
        """What lies under and over a dough."""
        return Around(self.kitchen, self.room_at_min)

    @cached_property
    def window(self) -> Window:
        """Where the butter can be laminated."""
        return self.recipe.window

    @cached_property
    def rates(self) -> Profile:
        """The clocks of rising and of ripening, over all temperatures."""
        return clocks(self.kitchen["ripe.times_per_10_k"], self.matter.freezes_c)

    @cached_property
    def whole(self) -> float:
        """The activity of a whole proof, min; endless without yeast."""
        return self.leaven.whole_dose if self.leaven else float("inf")

    def through(
        self, of: Body, stay: Stay, open_air: bool, at: float, beyond: float = 0.0
    ) -> Course:
        """A body through a stay that begins ``at`` a minute, and ``beyond`` it as it is at its end.

        Air that changes goes in even steps. ``open_air``: a piece on its tray.
        """
        course, lasts = still(of), stay.minutes
        for share, part in _steps(stay):
            around = self._around(stay, open_air, at + lasts * share, share)
            course = course.then(conduct(course.end, *around, lasts * part))
        if beyond > 0:
            last = 1.0 if stay.to_c is not None else 0.5
            around = self._around(stay, open_air, at + lasts / 2, last)
            course = course.then(conduct(course.end, *around, beyond))
        return course

    def air_c(self, stay: Stay, minute: float, share: float = 0.0) -> float:
        """How warm it is at a stay at a minute of the plan, ``share`` of it gone, °C."""
        set_c = self._set_c(stay, minute, share)
        return self.around.air_c(stay.place, minute) if set_c is None else set_c

    def _set_c(self, stay: Stay, minute: float, share: float) -> float | None:
        if stay.to_c is None:
            return stay.air_c
        start = self.around.air_c(stay.place, minute) if stay.air_c is None else stay.air_c
        return start + (stay.to_c - start) * share

    def _around(
        self, stay: Stay, open_air: bool, minute: float, share: float
    ) -> tuple[Air | Slab, Air]:
        covered = not open_air if stay.covered is None else stay.covered
        if open_air:
            air = self.around.round_a_piece(stay.place, self.air_c(stay, minute, share), covered)
            return air, air
        return self.around.lies(stay, minute, self._set_c(stay, minute, share), covered)


def _steps(stay: Stay) -> list[tuple[float, float]]:
    """The steps in which a stay is followed: the middle of each and how long it is, as shares of it."""
    if stay.to_c is None or stay.minutes <= 0:
        return [(0.5, 1.0)]
    # where it starts from is not known here: the place's own warmth is within the range of a kitchen
    apart = abs(stay.to_c - (stay.air_c if stay.air_c is not None else stay.to_c - 20))
    many = min(max(round(apart / _STEP_K), 4), 60)
    return [((k + 0.5) / many, 1 / many) for k in range(many)]


@lru_cache(maxsize=64)
def scene_of(
    kitchen: Kitchen, recipe: Recipe, leaven: Leaven | None, room_at_min: float, ahead_min: float
) -> Scene:
    """The scene of these, the same one each time, with what was worked out of it."""
    return Scene(kitchen, recipe, leaven, room_at_min, ahead_min)
