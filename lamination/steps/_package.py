"""What steps with a laminate share: its mass, butter that goes in, and a package on its shelf."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from lamination.dough.recipe import Recipe, contents_of
from lamination.dough.shopping import weigh_lines
from lamination.dough.weighing import WeighLine
from lamination.sheet.cells import Sheet
from lamination.steps.base import Here, Lies, Weighs
from lamination.terms.advice import Note
from lamination.terms.said import mm
from lamination.terms.sizes import Size
from lamination.terms.trade import Place


def masses_of(sheet: Sheet, recipe: Recipe) -> tuple[float, float]:
    """What a laminate weighs, g, and the butter of it."""
    dough, butter = recipe.per_mm3
    of_butter = sheet.volume_mm3(lambda s: s.butter_mm) * butter
    return sheet.volume_mm3(lambda s: s.dough_mm) * dough + of_butter, of_butter


def lying(lies: Lies, recipe: Recipe) -> tuple[float, float]:
    """What lies on the bench weighs, g, without what goes along with it, and the butter of it.

    Panels that lie on each other count each as it is: of a dough divided since, only theirs is there.
    """
    each = [masses_of(sheet, recipe) for sheet in lies.plies or (lies.laminate,)]
    return sum(mass for mass, _ in each), sum(butter for _, butter in each)


def butter_weighed(recipe: Recipe, step_id: str, share: float = 1.0) -> Weighs:
    """The butter that goes in at a step: a share of the block, with all that is worked into it."""
    butter, kind = recipe.butter, recipe.butter_kind
    also: dict[str, float] = {}
    for what, mass_g in butter.held:
        thing = recipe.shelf.find(what)
        key = thing.key if thing else what
        also[key] = also.get(key, 0.0) + mass_g * share
    # what is the butter or its flour once more is weighed with that
    pure, flour_g = butter.pure_g * share + also.pop(kind.key, 0.0), butter.flour_g * share
    lines = [WeighLine(f"{step_id}/{kind.key}", kind.key, kind.name, round(pure, 1), pure)]
    held = [kind]
    if flour_g:
        flour = recipe.butter_flour
        flour_g += also.pop(flour.key, 0.0)
        # butter and flour are weighed to what the two come to
        grams = round(pure + flour_g - round(pure, 1), 1)
        lines.append(WeighLine(f"{step_id}/{flour.key}", flour.key, flour.name, grams, flour_g))
        held.append(flour)
    more, inside = weigh_lines(step_id, also.items(), recipe.shelf)
    held += [recipe.shelf[key] for key in also if key in recipe.shelf]
    return Weighs("Butter block", (*lines, *more), contents_of(held, inside.unknown))


def on_shelf(here: Here[Any], package: Size) -> Iterator[Note]:
    """Whether a package lies on the shelf it rests on."""
    rest, kitchen = here.step.rest, here.kitchen
    place = (
        next((s.place for s in rest.passed if s.place is not Place.BENCH), None) if rest else None
    )
    if place is None:
        return
    long, wide = kitchen["shelf.length_mm"], kitchen["shelf.width_mm"]
    if package.lies_on(long, wide, kitchen["fit.slack_mm"]):
        return
    sides = sorted((package.length_mm, package.width_mm))
    over_mm = max(sides[1] - max(long, wide), sides[0] - min(long, wide))
    yield here.note(
        "shelf", "mind", f"{mm(over_mm)} over the shelf",
        f"{mm(package.length_mm, package.width_mm)} on a shelf of {mm(long, wide)} in the "
        f"{place.said}. Fold it once more loosely with film between, or rest it in two parts.",
        "rest",
    )  # fmt: skip
