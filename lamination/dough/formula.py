"""Formula: baker's percentages, what a preferment takes of them, and old dough fed back.

Percentages are of all flour, the flour inside preferments included. The formula is the dough as it
should be; a preferment only moves a part of it to the day before, old dough is added to it.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Annotated, Protocol

from lamination.materials.composition import Composition, mixture
from lamination.materials.ingredients import Ingredient, Kind, Shelf
from lamination.terms.limits import Checked, Fault, Length, Range, raise_if
from lamination.terms.said import named, say
from lamination.terms.sizes import over
from lamination.terms.trade import Worded

BakersPercent = Annotated[float, Range(0, 400, "%")]
_FLOUR_TOLERANCE_PCT = 0.05
_HAIR = 1e-6
LIQUIDS = (Kind.WATER, Kind.MILK)


class PrefermentKind(Worded):
    """Preferments that have starting points of their own."""

    POOLISH = "poolish", "Poolish"
    SPONGE = "sponge", "Stiff sponge"
    SOURDOUGH = "sourdough", "Sourdough"


class Prefermented(Protocol):
    """A part of the formula that is mixed earlier.

    ``flour_pct``: its share of all flour. ``hydration_pct``: its liquid on its own flour.
    ``yeast_pct``: its share of all yeast. Flour comes from the first flour of the formula, then
    the next; liquid from water first, then milk.
    """

    @property
    def kind(self) -> PrefermentKind: ...
    @property
    def flour_pct(self) -> float: ...
    @property
    def hydration_pct(self) -> float: ...
    @property
    def yeast_pct(self) -> float: ...


def soured_pct(preferments: Iterable[tuple[str, Prefermented]]) -> float:
    """How much of all flour comes in as sourdough, %."""
    return sum(p.flour_pct for _, p in preferments if p.kind is PrefermentKind.SOURDOUGH)


@dataclass(frozen=True)
class Line(Checked):
    """One ingredient, % of all flour."""

    ingredient: Annotated[str, Length(1, 40, "characters")]
    pct: BakersPercent


@dataclass(frozen=True)
class OldDough(Checked):
    """Dough of earlier days fed back, as a share of the new dough.

    ``laminated``: trimmings of the last sheet, which bring their butter; otherwise dough that was
    kept back before the lock-in.
    """

    share_pct: Annotated[float, Range(0.1, 50, "%")]
    laminated: bool = True


@dataclass(frozen=True)
class Formula(Checked):
    """What the dough is made of. ``own``: ingredients that are not in the library.

    Raises :class:`~lamination.terms.limits.Faults`: an ingredient nobody knows or one named twice, no
    flour, or flours that are not 100 % together.
    """

    lines: Annotated[tuple[Line, ...], Length(1, 30, "ingredients")]
    old_dough: OldDough | None = None
    whole_eggs: bool = False
    own: Annotated[tuple[Ingredient, ...], Length(0, 30, "ingredients")] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        raise_if(self._unknown())
        raise_if(self._flours())

    @cached_property
    def shelf(self) -> Shelf:
        return Shelf(self.own)

    @cached_property
    def parts(self) -> tuple[tuple[Ingredient, float], ...]:
        """Every ingredient with its % of all flour, in the order of the lines."""
        return tuple((self.shelf[line.ingredient], line.pct) for line in self.lines)

    @property
    def total_pct(self) -> float:
        """All ingredients, % of all flour."""
        return sum(line.pct for line in self.lines)

    def _unknown(self) -> list[Fault]:
        found, seen = [], set()
        for i, line in enumerate(self.lines):
            path = f"lines[{i}].ingredient"
            if line.ingredient not in self.shelf:
                found.append(Fault(path, self.shelf.complaint(line.ingredient)))
            elif line.ingredient in seen:
                name = self.shelf[line.ingredient].name
                found.append(
                    Fault(path, f"{named(name)} stands in the formula twice. Add it up in one.")
                )
            seen.add(line.ingredient)
        return found

    def _flours(self) -> list[Fault]:
        flours = [i for i, (what, _) in enumerate(self.parts) if what.kind is Kind.FLOUR]
        if not flours:
            return [Fault("lines", "There is no flour in this formula. Add a flour at 100 %.")]
        together = sum(self.lines[i].pct for i in flours)
        if abs(together - 100) <= _FLOUR_TOLERANCE_PCT:
            return []
        last = flours[-1]
        wanted = self.lines[last].pct + 100 - together
        if len(flours) == 1:
            text = f"The only flour is 100 %, not {say(together)} %: everything else is measured on it."
        elif wanted > 0:
            text = (
                f"The flours come to {say(together)} %, not 100. With {say(wanted)} % here they do."
            )
        else:
            text = (
                f"The flours come to {say(together)} %, not 100. Take {say(together - 100)} % away."
            )
        return [Fault(f"lines[{last}].pct", text)]

    @cached_property
    def liquid_pct(self) -> float:
        """Water and milk, % of all flour."""
        return sum(pct for what, pct in self.parts if what.kind in LIQUIDS)

    @property
    def has_yeast(self) -> bool:
        """Whether there is any yeast."""
        return any(what.kind is Kind.YEAST and pct > 0 for what, pct in self.parts)


def taken_too_much(
    formula: Formula, preferments: Sequence[Prefermented]
) -> Iterator[tuple[int, Fault]]:
    """What preferments take beyond what there is, each seeing what those before it have left.

    Gives the number of the preferment and the fault, with the name of its field.
    """
    flour, liquid, yeast = 100.0, formula.liquid_pct, 100.0
    for j, p in enumerate(preferments):
        wanted = p.flour_pct * p.hydration_pct / 100
        if over(p.flour_pct, flour):
            text = f"Only {say(flour)} % of the flour is left for it. Enter that or less."
            yield j, Fault("flour_pct", text)
        elif wanted > liquid + _HAIR:
            text = (
                f"It needs liquid of {say(wanted)} % on all flour, and {say(liquid)} % is left. Set its "
                f"hydration to {say(100 * liquid / p.flour_pct)} % or less, or its share of the flour to "
                f"{say(100 * liquid / p.hydration_pct)} % or less."
            )
            yield j, Fault("hydration_pct", text)
        if p.yeast_pct and not formula.has_yeast:
            text = "The formula has no yeast to take from. Add a yeast, or set this to 0."
            yield j, Fault("yeast_pct", text)
        elif over(p.yeast_pct, yeast):
            yield j, Fault("yeast_pct", f"Only {say(yeast)} % of the yeast is left for it.")
        flour, liquid, yeast = flour - p.flour_pct, liquid - wanted, yeast - p.yeast_pct


def preferment_names(preferments: Sequence[Prefermented]) -> tuple[str, ...]:
    """What each preferment is called; numbered where there are two of a kind."""
    kinds = [p.kind for p in preferments]
    return tuple(
        f"{kind.said} {kinds[: j + 1].count(kind)}" if kinds.count(kind) > 1 else kind.said
        for j, kind in enumerate(kinds)
    )


def composition_of(formula: Formula) -> Composition:
    """The fresh dough's composition, old dough left out."""
    return mixture((pct, what.composition) for what, pct in formula.parts)


@dataclass(frozen=True, slots=True)
class Balance:
    """What a formula amounts to, % of all flour.

    ``nominal_hydration_pct``: water and milk. ``true_hydration_pct``: the water in everything but
    flour. ``sugar_pct`` and ``salt_pct``: those ingredients; ``fat_pct``: the pure fat in
    everything but flour; ``yeast_pct``: as fresh yeast.
    """

    nominal_hydration_pct: float
    true_hydration_pct: float
    sugar_pct: float
    salt_pct: float
    fat_pct: float
    yeast_pct: float


def balance(formula: Formula) -> Balance:
    """The balance of the formula as it is written. Source: mass balance."""
    besides = [(what, pct) for what, pct in formula.parts if what.kind is not Kind.FLOUR]

    def of(*kinds: Kind) -> float:
        return sum(pct for what, pct in besides if what.kind in kinds)

    return Balance(
        nominal_hydration_pct=of(*LIQUIDS),
        true_hydration_pct=sum(pct * what.composition.water_pct for what, pct in besides) / 100,
        sugar_pct=of(Kind.SUGAR),
        salt_pct=of(Kind.SALT),
        fat_pct=sum(pct * what.composition.fat_pct for what, pct in besides) / 100,
        yeast_pct=sum(pct * (what.as_fresh or 0) for what, pct in besides),
    )


@dataclass(frozen=True, slots=True)
class Fed:
    """A dough that old dough was fed into: ``butter_share`` of its mass came as laminated butter."""

    butter_share: float
    balance: Balance
    composition: Composition


def fed(formula: Formula, laminated_butter: Composition, butter_of_whole: float) -> tuple[Fed, Fed]:
    """The dough with old dough in it: today, from trimmings of a fresh dough, and settled.

    ``butter_of_whole``: the share of the laminate that is butter, 0 to 1. Fed back day after day,
    of the butter share b of the trimmings and the share s fed back, what stays is
    s·b / (1 − s·(1 − b)): each day's trimmings carry a little of the day before. Old dough that was
    never laminated changes nothing. Source: mass balance.
    """
    old = formula.old_dough
    share = old.share_pct / 100 if old else 0.0
    butter = butter_of_whole if old and old.laminated else 0.0
    today = share * butter
    settled = share * butter / (1 - share * (1 - butter))
    plain, mixed = balance(formula), composition_of(formula)

    def with_butter(x: float) -> Fed:
        on_flour = x / (1 - x) * formula.total_pct
        moved = replace(
            plain,
            true_hydration_pct=plain.true_hydration_pct
            + on_flour * laminated_butter.water_pct / 100,
            fat_pct=plain.fat_pct + on_flour * laminated_butter.fat_pct / 100,
        )
        whole = mixture(((1 - x, mixed), (x, laminated_butter))) if x else mixed
        return Fed(x, moved, whole)

    return with_butter(today), with_butter(settled)
