"""What a dough is followed in: its kitchen as warm as it is today, its matter, what makes it rise."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache

from lamination.dough.formula import balance
from lamination.dough.recipe import Recipe
from lamination.heat.conduction import Air, Slab
from lamination.heat.yeast import Leaven, clocks
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Window
from lamination.materials.thermal import Profile
from lamination.plan.walk import Walk
from lamination.terms.rests import Rest
from lamination.terms.trade import Place
from lamination.warmth.bodies import Around, Matter

AHEAD_MIN = 180.0  # how long a rest is followed beyond the plan, to find its marks


def leaven_of(found: Walk, kitchen: Kitchen) -> Leaven | None:
    """What makes a plan's dough rise; None without yeast. Yeasts count by their own strength."""
    formula = found.plan.formula
    if formula is None:
        return None
    of = balance(formula)
    if of.yeast_pct <= 0:
        return None
    return Leaven(
        of.yeast_pct, of.sugar_pct, kitchen["proof.reference_min"],
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

    def lies_in(
        self, rest: Rest, place: Place, minutes: float, open_air: bool, at: float
    ) -> tuple[Air | Slab, Air]:
        """What lies under and over a dough for some minutes of a rest that begin ``at`` a minute."""
        middle = at + minutes / 2
        if open_air:
            air = self.around.open_air(place, middle, rest.air_c)
            return air, air
        return self.around.place(rest, place, middle)


@lru_cache(maxsize=64)
def scene_of(
    kitchen: Kitchen, recipe: Recipe, leaven: Leaven | None, room_at_min: float, ahead_min: float
) -> Scene:
    """The scene of these, the same one each time, with what was worked out of it."""
    return Scene(kitchen, recipe, leaven, room_at_min, ahead_min)
