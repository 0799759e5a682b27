"""A turn: rolled, trimmed, folded, turned by a quarter."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from itertools import pairwise
from typing import Annotated, Any, Literal

from lamination.dough.mixing import Development
from lamination.materials.ingredients import Kind as Ingredients
from lamination.materials.ingredients import Strength
from lamination.sheet.cells import turn as turned_by_a_quarter
from lamination.sheet.cells import uneven
from lamination.sheet.coverage import Layers, Section, layers_of, section_of
from lamination.sheet.folds import OFFSET_SEAM, Move, fold_sheet, moves
from lamination.sheet.passes import Rolling, rolling
from lamination.sheet.rolls import as_it_lies, buttered, rolled_to, size_of, squared
from lamination.steps._fits import on_room, said_of_rolling
from lamination.steps._package import butter_weighed, on_shelf
from lamination.steps._rolled import RolledStep
from lamination.steps.base import (
    Chapter,
    Form,
    Handling,
    Here,
    Kind,
    Lies,
    Made,
    Often,
    Saved,
    Setting,
    Step,
    Weighs,
)
from lamination.steps.lock_in import LockIn
from lamination.steps.mix import Mixing
from lamination.terms.advice import Note, Working
from lamination.terms.limits import Checked, Fault, Faults, Range
from lamination.terms.rests import Rest
from lamination.terms.said import counted, fold_name, g, mm, say
from lamination.terms.sizes import Edge, Side, Size, Thickness, Uneven
from lamination.terms.trade import Fold, Machine, Method, Place, Tool


@dataclass(frozen=True)
class Trim(Checked):
    """What is cut off the rolled sheet before the fold: both ends, both sides.

    ``tucked``: what comes off is laid on the middle and folded in; otherwise it is saved.
    """

    ends_mm: Edge = 0.0
    sides_mm: Edge = 0.0
    tucked: bool = False

    @property
    def any(self) -> bool:
        """Whether anything comes off."""
        return bool(self.ends_mm or self.sides_mm)


@dataclass(frozen=True)
class Turn(RolledStep):
    """One turn: roll, trim, fold. It is rolled to a thickness, to a length, or to two of its three sizes.

    ``stacked``: cut at the creases and stacked instead of folded. ``seam_pct``: where the ends of an
    offset book meet, % of the length. Faults on purpose: ``short_mm``, by which every flap falls
    short; ``uneven_pct``, by which one side of the sheet is rolled thicker than the mean. ``as_it_lies``:
    folded without a roll before, as a sheet that butter was spread on.
    """

    fold: Fold
    roll_to_mm: Thickness | None = None
    width_mm: Side | None = None
    trim: Trim | None = None
    stacked: bool = False
    seam_pct: Annotated[float, Range(10, 90, "%")] = 100 * OFFSET_SEAM
    short_mm: Annotated[float, Range(0, 200, "mm")] = 0.0
    uneven_pct: Uneven = 0.0
    length_mm: Side | None = None
    as_it_lies: bool = False
    do: Literal["turn"] = field(default="turn", kw_only=True)

    @property
    def is_rolled(self) -> bool:
        """Whether it is rolled before it is folded."""
        return not self.as_it_lies


@dataclass(frozen=True, slots=True)
class TurnFigures:
    """The sheet rolled, where it is creased, and the package it folds to.

    ``turned``: whether the package lay turned for the roll. ``butter_g``: butter of a second go that
    is laid on before the fold. ``narrowest_mm``: less wide than this no pin makes it.
    """

    fold: Fold
    rolled: Size
    folded: Size
    creases_mm: tuple[float, ...]
    butter_layers: int
    dough_layers: int
    layers: Layers
    section: Section
    trimmed_g: float
    turned: bool
    moves: tuple[Move, ...]
    rolling: Rolling
    butter_g: float
    narrowest_mm: float
    do: Literal["turn"] = "turn"


def effect(step: Turn, lies: Lies, setting: Setting) -> Made:
    """Roll, lay on what butter is still to come, trim, fold, turn. Raises Faults by the step's fields."""
    recipe = setting.recipe
    rolled = (
        rolled_to(lies.laminate, step.rolls_to) if step.is_rolled else as_it_lies(lies.laminate)
    )
    sheet = rolled.sheet
    if step.uneven_pct:
        sheet = uneven(sheet, step.uneven_pct / 100)
    bare = size_of(sheet)
    waited = lies.waiting_mm3 if lies.turns == 1 else 0.0
    second = waited + lies.ready_mm3
    if second:
        sheet = buttered(sheet, second)
    ready, saved, kept = sheet, None, 1.0
    if step.trim:
        try:
            cut = squared(sheet, step.trim.ends_mm, step.trim.sides_mm, step.trim.tucked)
        except Faults as wrong:
            raise Faults(*(f.under("trim") for f in wrong.faults)) from None
        ready = cut.sheet
        butter_g = cut.butter_mm3 * recipe.per_mm3[1]
        kept = ready.volume_mm3() / sheet.volume_mm3()
        grams = cut.dough_mm3 * recipe.per_mm3[0] + butter_g + (1 - kept) * lies.carried_g
        saved = Saved(grams, butter_g)
    panel = ready.length_mm / step.fold.multiplies
    if step.short_mm and step.short_mm >= panel / 2:
        text = f"A flap is {mm(panel)} long: short by less than {mm(panel / 2)} it still folds."
        raise Faults(Fault("short_mm", text))
    folded = fold_sheet(ready, step.fold, step.stacked, step.seam_pct / 100, step.short_mm)
    naive = lies.naive * step.fold.multiplies
    layers = layers_of(folded, naive, lies.estimate)
    inset = (sheet.length_mm - ready.length_mm) / 2
    made = moves(step.fold, ready.length_mm, step.seam_pct / 100, step.short_mm)
    panels = (
        [panel * n for n in range(1, step.fold.multiplies)]
        if step.stacked
        else sorted(m.at_mm for m in made)
    )
    figures = TurnFigures(
        fold=step.fold,
        rolled=bare,
        folded=size_of(folded),
        creases_mm=tuple(inset + at for at in panels),
        butter_layers=layers.butter,
        dough_layers=layers.dough,
        layers=layers,
        section=section_of(folded),
        trimmed_g=saved.grams if saved else 0.0,
        turned=rolled.turned,
        moves=tuple(Move(inset + m.at_mm, m.flap) for m in made),
        rolling=rolling(size_of(rolled.starts), bare, setting.rolled.machine),
        butter_g=second * recipe.per_mm3[1],
        narrowest_mm=rolled.narrowest_mm,
    )
    there = replace(
        lies,
        size=size_of(folded),
        sheet=turned_by_a_quarter(folded),
        naive=naive,
        turns=lies.turns + 1,
        waiting_mm3=0.0 if waited else lies.waiting_mm3,
        ready_mm3=0.0,
        carried=lies.keeping(kept),
    )
    over = (False,) * step.fold.multiplies if step.stacked else step.fold.lies
    handled = Handling(to_mm=bare.thickness_mm, over=over, rolls=step.is_rolled)
    return Made(there, figures, handled, saved)


_FOLDING = {
    Fold.HALF: "bring the far end over to the near end.",
    Fold.LETTER: "far third in, near third over it.",
    Fold.BOOK: "both ends to the middle, then shut it.",
    Fold.OFFSET_BOOK: "both ends meet off the middle, then shut it: the seam lies away from the spine.",
}
_IN = {2: "two", 3: "three", 4: "four"}


def folding(fold: Fold) -> str:
    """How a fold is done, in a sentence."""
    return f"{fold_name(fold)}: {_FOLDING[fold]}"


def instruct(here: Here[Turn]) -> Iterator[str]:
    """What to roll to, how, what comes off, what goes on, how it is folded and marked."""
    step, made = here.step, here.figures
    if step.as_it_lies:
        yield "Fold it as it lies"
        comes = mm(made.rolled.length_mm, made.rolled.width_mm)
    elif step.roll_to_mm is None:
        yield f"Roll to {mm(made.rolled.length_mm, made.rolled.width_mm)}"
        comes = f"It comes to {mm(made.rolled.thickness_mm)}"
    else:
        yield f"Roll to {mm(made.rolled.thickness_mm)}"
        comes = mm(made.rolled.length_mm, made.rolled.width_mm)
    if step.as_it_lies:
        yield f"{comes}, {mm(made.rolled.thickness_mm)} thick, without a roll before."
    else:
        yield f"{comes}, towards the open ends.{said_of_rolling(made.rolling)}"
    if made.butter_g:
        which = "the butter" if here.before.ready_mm3 else "the other half of the butter"
        yield f"Lay {which}, {g(made.butter_g)}, all over it."
    if step.trim and step.trim.any:
        ends = f"{mm(step.trim.ends_mm)} off both ends" if step.trim.ends_mm else ""
        sides = f"{mm(step.trim.sides_mm)} off both sides" if step.trim.sides_mm else ""
        kept = "Tuck it in." if step.trim.tucked else "Save it for the next dough."
        yield f"Square it: {' and '.join(filter(None, (ends, sides)))}. {kept}"
    if step.stacked:
        fold = f"Cut it in {_IN[step.fold.multiplies]} and stack the pieces."
    else:
        fold = folding(step.fold)
    yield f"Brush off the flour. {fold}"
    number = here.made[here.n].lies.turns
    yield f"Turn it a quarter, always the same way. Press {counted(number, 'mark')}."


def mind(here: Here[Turn]) -> Iterator[Note]:
    """Whether it lies there, whether it rests before the next, and what was tucked in."""
    made = here.figures
    yield from on_room(here, made.rolled, made.narrowest_mm, made.turned)
    yield from on_shelf(here, made.folded)
    yield from _on_rests(here)


def _in_a_row(here: Here[Turn]) -> int:
    """How many turns lie back to back up to this one."""
    count = 1
    for before in reversed(here.steps[: here.n]):
        if not isinstance(before, Turn) or before.rests:
            break
        count += 1
    return count


def _in_a_row_from(here: Here[Turn]) -> int:
    """How many turns lie back to back with this one, those that follow it included."""
    count = _in_a_row(here)
    for step, after in pairwise(here.steps[here.n :]):
        if not isinstance(after, Turn) or step.rests:
            break
        count += 1
    return count


def _on_rests(here: Here[Turn]) -> Iterator[Note]:
    allowed = int(here.kitchen["turns_back_to_back"])
    more = here.n + 1 < len(here.steps) and isinstance(here.steps[here.n + 1], Turn)
    if here.step.rests or not more or _in_a_row(here) != allowed or here.before.estimate:
        return
    rest = Rest.at(Place.FRIDGE, 5.0 * math.ceil(relaxing(here) / 5))
    fix = here.fix("Rest it in the fridge", rest=rest)
    if _in_a_row_from(here) == allowed + 1 and here.setting.rolled.tool is Tool.SHEETER:
        yield here.note(
            "no-rest", "tight", f"{counted(allowed + 1, 'turn')} without a rest",
            "By sheeter that goes from a dough at 2 to 4 °C: be quick at the last of them, and stop if it "
            "pulls back.",
            "rest", [fix],
        )  # fmt: skip
        return
    yield here.note(
        "no-rest", "mind", f"{counted(allowed, 'turn')} without a rest",
        "The dough will spring back and may tear. Rest it before the next turn; 30 to 60 min in the "
        "fridge is usual.",
        "rest", [fix],
    )  # fmt: skip


def relaxing(here: Here[Turn]) -> float:
    """Minutes the gluten wants after a turn: by fold, place in the sequence, flour and mixing.

    Source: trade practice.
    """
    minutes = after_fold(here)
    if _in_a_row(here) > 1:
        minutes = max(minutes, here.kitchen["relax.two_min"] * by_flour(here))
    return minutes


def after_fold(here: Here[Any]) -> float:
    """Minutes the gluten wants after one fold. Source: trade practice."""
    row = "relax.book_min" if here.step.fold.is_book else "relax.letter_min"
    return here.kitchen[row] * by_flour(here)


def by_flour(here: Here[Any]) -> float:
    """How much longer a dough relaxes than one of plain flour, mixed three-quarters."""
    formula, kitchen = here.recipe.formula, here.kitchen
    if formula is None:
        return 1.0
    flours = [(what, pct) for what, pct in formula.parts if what.kind is Ingredients.FLOUR]
    factor = {Strength.WEAK: kitchen["relax.weak"], Strength.STRONG: kitchen["relax.strong"]}
    whole = sum(pct for _, pct in flours) or 1.0
    strength = sum(
        pct * (factor.get(what.strength, 1.0) if what.strength else 1.0) for what, pct in flours
    )
    mixed = {Development.SHORT: kitchen["relax.short"], Development.FULL: kitchen["relax.full"]}
    mixings = [s.development for _, s, _ in here.all_of(Mixing)]
    return strength / whole * (mixed.get(mixings[0], 1.0) if mixings else 1.0)


def workings(here: Here[Turn]) -> Iterator[Working]:
    """How the sheet's length and its count were got."""
    made, before = here.figures, here.before
    assert before.size is not None
    length = before.size.width_mm
    if not made.turned:
        length = before.size.length_mm
    if here.step.as_it_lies:
        text = f"{mm(made.rolled.length_mm)}, as it lies: it is folded without a roll."
        yield here.works("rolled.length_mm", text)
    else:
        yield _rolled_so(here, length)
    yield _counted_so(here)


def _rolled_so(here: Here[Turn], length: float) -> Working:
    made, before = here.figures, here.before
    assert before.size is not None
    thick = before.size.thickness_mm
    return here.works(
        "rolled.length_mm",
        f"Rolled from {mm(thick)} to {mm(made.rolled.thickness_mm)} the package of {mm(length)} grows "
        f"{say(made.rolled.length_mm / length)} times as long: {mm(made.rolled.length_mm)}. No dough is "
        "lost.",
    )


def _counted_so(here: Here[Turn]) -> Working:
    made, count = here.figures, here.before.leaves()[0]
    second = " and the butter of this go" if made.butter_g else ""
    return here.works(
        "butter_layers",
        f"{count}{second} × {made.fold.multiplies} = {made.butter_layers} butter layers; the dough faces "
        f"that meet fuse, so the dough leaves are {made.dough_layers}.",
    )


def weighs(here: Here[Turn]) -> Iterator[Weighs]:
    """The butter of a second go; what a step of its own calls for is weighed there."""
    waited = here.before.waiting_mm3 if here.before.turns == 1 else 0.0
    if waited:
        share = waited * here.recipe.per_mm3[1] / here.recipe.butter.mass_g
        yield replace(butter_weighed(here.recipe, here.step.id, share), name="Butter, second half")


def _fresh(steps: tuple[Step, ...], at: int) -> Turn:
    """A turn like the one before it, or else like any there is."""
    turns = [s for s in steps[:at] if isinstance(s, Turn)][::-1] + [
        s for s in steps if isinstance(s, Turn)
    ]
    if turns:
        return replace(turns[0], id="", words="")
    return Turn(Fold.LETTER, 8, rest=Rest.at(Place.FRIDGE, 30))


def two_goes(here: Here[Any]) -> bool:
    """Whether butter of a second go never comes to be laid on."""
    locks = [s for _, s, _ in here.all_of(LockIn)]
    return bool(locks) and locks[0].method is Method.TWO_GO and here.before.waiting_mm3 > 0


KIND = Kind(
    of=Turn,
    do="turn",
    name="Turn",
    stem="turn",
    rank=50,
    chapter=Chapter.TURNS,
    takes=frozenset((Form.PACKAGE,)),
    leaves=Form.PACKAGE,
    effect=effect,
    figures=TurnFigures,
    instruct=instruct,
    mind=mind,
    workings=workings,
    weighs=weighs,
    minutes="minutes.turn",
    machine=lambda step: Machine.SHEETER if step.is_rolled else None,
    relaxing=relaxing,
    often=Often.MANY,
    counts_as_turn=True,
    fresh=_fresh,
    caution="At a sheeter: guards down, no loose sleeves, follow the maker's manual.",
)
