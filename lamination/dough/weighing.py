"""Weighing out: how much of what, at which stop, so that the weigh-out sheets add up to the dough.

Every ingredient is rounded to what a scale shows; a preferment's part is rounded in the same way
and the mixing day gets what remains, so nothing is added twice. What rounding leaves over is taken
up by one ingredient (the water, where there is any), which the result names.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from lamination.dough.formula import LIQUIDS, Formula, Prefermented
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Ingredient, Kind
from lamination.terms.said import g, named

OLD_DOUGH = "old-dough"
_HAIR = 1e-9


@dataclass(frozen=True, slots=True)
class WeighLine:
    """One thing to weigh, g. ``key`` is its name in the bench log.

    ``exact_g`` is the figure before rounding; ``stays_g`` (on a preferment's sheet) what of this
    ingredient is still to be added on mixing day; ``of_total_g`` (on the mixing day) what the
    formula has of it in all, where a preferment took a part.
    """

    key: str
    ingredient: str
    name: str
    grams: float
    exact_g: float
    stays_g: float | None = None
    of_total_g: float | None = None
    pieces: float | None = None


@dataclass(frozen=True, slots=True)
class WeighSheet:
    """What is weighed at one stop; ``minute`` counts from the start of the plan.

    ``unknown``: what of it nobody here knows anything of; ``declared``: both in a sentence. ``says``: of a
    preparation, when it is made and what to mind.
    """

    stop: str
    name: str
    minute: float
    lines: tuple[WeighLine, ...]
    total_g: float
    allergens: tuple[str, ...]
    unknown: tuple[str, ...] = ()
    declared: str = ""
    says: str = ""


@dataclass(frozen=True, slots=True)
class Weighed:
    """The sheets without their times, and what the rounding did in a sentence per effect."""

    preferments: tuple[tuple[WeighLine, ...], ...]
    mixing: tuple[WeighLine, ...]
    rounding: tuple[str, ...]


@dataclass(slots=True)
class _Portion:
    """An ingredient on its way: exact and rounded, in all and in each preferment, g."""

    what: Ingredient
    exact_g: float
    whole_g: float
    taken_exact_g: list[float]
    taken_g: list[float]

    @property
    def left_g(self) -> float:
        return round(self.whole_g - sum(self.taken_g), 3)


def weigh(
    formula: Formula,
    preferments: Sequence[tuple[str, Prefermented]],
    dough_g: float,
    kitchen: Kitchen,
    mix: str = "mix",
) -> Weighed:
    """What to weigh for ``dough_g`` of dough, old dough included, g.

    ``preferments`` with the ids of their steps, ``mix`` the id of the mixing: a line's key begins so.

    The sum of all lines is ``dough_g`` to a tenth of a gram, whatever the preferments. Steps come
    from the kitchen: ``scale.step_g``, and ``scale.fine_step_g`` for little things. Source: mass balance.
    """
    old_g = 0.0
    if formula.old_dough:
        old_g = _rounded(dough_g * formula.old_dough.share_pct / 100, kitchen)
    fresh_g = dough_g - old_g
    portions = _portions(formula, [p for _, p in preferments], fresh_g, kitchen)
    rounding = _take_up(formula, portions, round(dough_g, 1) - old_g)
    if any(p.left_g < 0 for p in portions):  # too little dough for this scale: weigh it finely
        for p in portions:
            p.whole_g = round(p.exact_g, 1)
            p.taken_g = [round(t, 1) for t in p.taken_exact_g]
        rounding = ["So little dough is weighed to a tenth of a gram."]
    taken = tuple(
        tuple(
            _line(step, p, p.taken_g[j], p.taken_exact_g[j], stays=p.left_g)
            for p in portions
            if p.taken_exact_g[j] > _HAIR
        )
        for j, (step, _) in enumerate(preferments)
    )
    mixing = [
        _line(mix, p, p.left_g, p.exact_g - sum(p.taken_exact_g), of=p.whole_g)
        for p in portions
        if p.left_g > _HAIR
    ]
    if old_g:
        name = "Trimmings" if formula.old_dough and formula.old_dough.laminated else "Old dough"
        mixing.append(WeighLine(f"{mix}/{OLD_DOUGH}", OLD_DOUGH, name, old_g, old_g))
    return Weighed(taken, tuple(mixing), tuple(rounding))


def _step(grams: float, kitchen: Kitchen) -> float:
    return (
        kitchen["scale.fine_step_g"]
        if grams < kitchen["scale.fine_below_g"]
        else kitchen["scale.step_g"]
    )


def _rounded(grams: float, kitchen: Kitchen) -> float:
    step = _step(grams, kitchen)
    return round(round(grams / step) * step, 3)


def _portions(
    formula: Formula, preferments: Sequence[Prefermented], fresh_g: float, kitchen: Kitchen
) -> list[_Portion]:
    per_pct = fresh_g / formula.total_pct
    found = []
    for what, pct in formula.parts:
        exact = pct * per_pct
        whole = _rounded(exact, kitchen)
        if formula.whole_eggs and what.kind is Kind.EGG and what.piece_g:
            whole = max(1, round(exact / what.piece_g)) * what.piece_g
        found.append(_Portion(what, exact, whole, [], []))
    for preferment in preferments:
        flour_pct = preferment.flour_pct
        wants = {
            "flour": flour_pct * per_pct,
            "liquid": flour_pct * preferment.hydration_pct / 100 * per_pct,
            "yeast": sum(p.exact_g for p in found if p.what.kind is Kind.YEAST)
            * preferment.yeast_pct
            / 100,
        }
        for p in _in_turn(found):
            role = _role(p.what)
            there = p.exact_g - sum(p.taken_exact_g)
            take = min(wants.get(role, 0.0), there) if role else 0.0
            if role:
                wants[role] -= take
            p.taken_exact_g.append(take)
            all_of_it = take >= there - _HAIR
            p.taken_g.append(
                max(p.left_g, 0.0)
                if all_of_it
                else min(_rounded(take, kitchen), max(p.left_g, 0.0))
            )
    return found


def _role(what: Ingredient) -> str:
    if what.kind in LIQUIDS:
        return "liquid"
    return what.kind if what.kind in (Kind.FLOUR, Kind.YEAST) else ""


def _in_turn(portions: list[_Portion]) -> list[_Portion]:
    """Water before milk; everything else as it stands in the formula."""
    return sorted(portions, key=lambda p: p.what.kind is Kind.MILK)


def _take_up(formula: Formula, portions: list[_Portion], wanted_g: float) -> list[str]:
    """Let one ingredient take up what rounding left over; say what was done."""
    said = []
    for p in portions:
        if formula.whole_eggs and p.what.kind is Kind.EGG and p.what.piece_g:
            n = round(p.whole_g / p.what.piece_g)
            said.append(
                f"{g(p.exact_g)} of {named(p.what.name.lower())} is rounded to {n} of "
                f"{g(p.what.piece_g)}."
            )
    over = round(wanted_g - sum(p.whole_g for p in portions), 1)
    if over:
        # water, if enough of it is left for the mixing day; else what there is most of
        water = [p for p in portions if p.what.kind is Kind.WATER and p.left_g + over > 0]
        taker = max(water or portions, key=lambda p: p.left_g)
        taker.whole_g = round(taker.whole_g + over, 3)
        word = "more" if over > 0 else "less"
        said.append(
            f"{g(abs(over))} {word} {named(taker.what.name.lower())}, so that the weigh-out sheets add up to "
            "the dough."
        )
    return said


def _line(
    stop: str,
    portion: _Portion,
    grams: float,
    exact_g: float,
    stays: float | None = None,
    of: float | None = None,
) -> WeighLine:
    what = portion.what
    split = of is not None and sum(portion.taken_g) > 0
    by_piece = what.kind is Kind.EGG and what.piece_g
    return WeighLine(
        key=f"{stop}/{what.key}",
        ingredient=what.key,
        name=what.name,
        grams=grams,
        exact_g=exact_g,
        stays_g=stays,
        of_total_g=of if split else None,
        pieces=round(grams / what.piece_g, 1) if by_piece and what.piece_g else None,
    )
