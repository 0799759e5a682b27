"""Mixing: water for a wanted dough temperature, the programme, and what to mind about the formula."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated, Literal

from lamination.dough.formula import LIQUIDS, Balance, Formula, balance, soured_pct
from lamination.dough.mixing import Bowl, Development, Liquid, Part, Water, water_for
from lamination.dough.recipe import contents_of
from lamination.dough.weighing import OLD_DOUGH
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.usual import Outside, unusual
from lamination.materials.composition import Celsius, Composition, mixture
from lamination.materials.ingredients import Ingredient
from lamination.materials.ingredients import Kind as Ingredients
from lamination.steps._package import butter_weighed
from lamination.steps.base import (
    Chapter,
    Form,
    Handling,
    Here,
    Kind,
    Lies,
    Made,
    Setting,
    Step,
    Weighs,
)
from lamination.steps.lock_in import LockIn
from lamination.steps.preferment import Preferment
from lamination.terms.advice import Fix, Note, Put, Working
from lamination.terms.limits import Fault, Faults, Range
from lamination.terms.said import c, g, kelvin, mm, named, say, span
from lamination.terms.sizes import over, under
from lamination.terms.trade import Machine, Method, Place


@dataclass(frozen=True)
class Mixing(Step):
    """The mixing day: the temperatures that meet in the bowl, the programme, and the first rest.

    ``flour_c``: of flour, sugar and salt; None: as warm as the room. ``by_hand``: kneaded, no mixer.
    ``sets``: the liquid that brings the dough to its temperature; None: the water, or milk without any.
    """

    wanted_c: Celsius = 24.0
    flour_c: Celsius | None = None
    tap_c: Celsius = 14.0
    slow_min: Annotated[float, Range(0, 60, "min")] = 4.0
    fast_min: Annotated[float, Range(0, 60, "min")] = 5.0
    development: Development = Development.THREE_QUARTERS
    by_hand: bool = False
    sets: Liquid | None = None
    do: Literal["mix"] = field(default="mix", kw_only=True)


@dataclass(frozen=True, slots=True)
class MixFigures:
    """The water (or milk) for the bowl, None where it gets none of its own, and the bowl's load.

    ``liquids``: those of the bowl that could be set to bring the dough to its temperature.
    """

    water: Water | None
    bowl: Bowl
    flour_c: float
    liquids: tuple[Liquid, ...] = ()
    do: Literal["mix"] = "mix"


def friction_k(step: Mixing, kitchen: Kitchen) -> float:
    """What the programme warms the dough by, K."""
    if step.by_hand:
        return (step.slow_min + step.fast_min) * kitchen["mixer.by_hand_k_min"]
    slow, fast = kitchen["mixer.slow_k_min"], kitchen["mixer.fast_k_min"]
    return step.slow_min * slow + step.fast_min * fast


_DOUGH = Lies(Form.DOUGH)  # always the same one: what is done with it next is remembered by it


def effect(step: Mixing, lies: Lies, setting: Setting) -> Made:
    """The dough comes to be. Raises Faults where the plan has no formula."""
    recipe, kitchen = setting.recipe, setting.kitchen
    if recipe.formula is None:
        text = "Mixing needs a formula. Give the plan one, or remove this step."
        raise Faults(Fault("do", text))
    flour_c = kitchen["room.c"] if step.flour_c is None else step.flour_c
    most = kitchen["mixer.by_hand_most_g" if step.by_hand else "mixer.most_g"]
    least = 0.0 if step.by_hand else kitchen["mixer.least_g"]
    bowl = Bowl(recipe.dough.mass_g, least, most)
    water, liquids = _water(step, recipe.formula, setting, flour_c)
    figures = MixFigures(water, bowl, flour_c, liquids)
    warm = step.wanted_c if water is None or water.reached else water.dough_c
    return Made(_DOUGH, figures, Handling(mixed_c=warm))


def _water(
    step: Mixing, formula: Formula, setting: Setting, flour_c: float
) -> tuple[Water | None, tuple[Liquid, ...]]:
    """The water or the milk of the mixing day against everything else that goes into the bowl."""
    recipe, kitchen, weighed = setting.recipe, setting.kitchen, setting.weighed
    assert weighed is not None
    kinds = {what.key: what for what, _ in formula.parts}
    cold_c = kitchen["mixer.cold_c"]
    parts: list[Part] = []
    liquids: dict[Liquid, list[tuple[float, Composition]]] = {Liquid.WATER: [], Liquid.MILK: []}
    kept_c = {Liquid.WATER: step.tap_c, Liquid.MILK: cold_c}
    for line in weighed.mixing:
        if line.ingredient == OLD_DOUGH:
            composition, at = recipe.dough_composition, cold_c
            assert composition is not None
        else:
            what = kinds[line.ingredient]
            liquid = _liquid(what)
            if liquid is not None:
                liquids[liquid].append((line.exact_g, what.composition))
                continue
            cold = what.kind in (Ingredients.MILK, Ingredients.EGG, Ingredients.FAT)
            composition, at = what.composition, cold_c if cold else flour_c
        parts.append(Part(line.exact_g, composition, at))
    for (_, p), lines in zip(recipe.preferments, weighed.preferments, strict=True):
        made_of = mixture((line.exact_g, kinds[line.ingredient].composition) for line in lines)
        ripens = p.rest.ends if isinstance(p, Preferment) and p.rest else Place.BENCH
        at = kitchen["room.c"] if ripens is Place.BENCH else cold_c
        parts.append(Part(sum(line.exact_g for line in lines), made_of, at))
    masses = {liquid: sum(mass_g for mass_g, _ in held) for liquid, held in liquids.items()}
    there = [liquid for liquid, mass_g in masses.items() if mass_g > 0]
    if not there:
        return None, ()
    sets = step.sets if step.sets in there else there[0]
    parts += [
        Part(masses[other], mixture(liquids[other]), kept_c[other])
        for other in there
        if other is not sets
    ]
    water = water_for(
        step.wanted_c, masses[sets], parts, kept_c[sets], friction_k(step, kitchen),
        kitchen["mixer.hottest_c"], None if sets is Liquid.WATER else mixture(liquids[sets]),
    )  # fmt: skip
    return water, tuple(there)


def _liquid(what: Ingredient) -> Liquid | None:
    """What can be warmed or chilled before it goes in; a powder cannot."""
    if what.kind is Ingredients.WATER:
        return Liquid.WATER
    wet = what.kind is Ingredients.MILK and what.composition.water_pct > 50
    return Liquid.MILK if wet else None


_DEVELOPED = {
    Development.SHORT: "Stop while it is still rough: a stretched piece tears at once. Folding does "
    "the rest.",
    Development.THREE_QUARTERS: "Three-quarters developed: a stretched window still tears or stays "
    "cloudy. Folding will finish it.",
    Development.FULL: "Fully developed: a stretched window is clear and holds. Each roll will take "
    "longer rests.",
}


def _lumps(here: Here[Mixing]) -> LockIn | None:
    """The lock-in, where its butter is tossed in the flour already."""
    for _, step, _ in here.all_of(LockIn):
        if step.method is Method.LUMPS:
            found: LockIn = step
            return found
    return None


def instruct(here: Here[Mixing]) -> Iterator[str]:
    """What to mix, with what water, how long and how far."""
    step, made = here.step, here.figures
    yield f"Mix {g(here.recipe.dough.mass_g)} of dough" + (" by hand" if step.by_hand else "")
    water: Water | None = made.water
    if water and water.ice_g:
        yield (
            f"{g(water.water_g)} of water from the tap and {g(water.ice_g)} of ice, for a dough of "
            f"{c(step.wanted_c)}."
        )
    elif water:
        yield f"{_named(water)} at {c(water.water_c)} for a dough of {c(water.dough_c)}."
    lumps = _lumps(here)
    if lumps:
        yield (
            f"Toss {g(here.recipe.butter.mass_g)} of butter in lumps of {mm(lumps.lump_mm)} in the flour, "
            "then bring the dough together round them with the water: they stay lumps."
        )
    if step.by_hand:
        yield f"Knead it {span(step.slow_min + step.fast_min)}."
    else:
        yield f"{span(step.slow_min)} slow, {span(step.fast_min)} fast."
    yield _DEVELOPED[step.development]


# what leaves the usual: its name, and what it does below and above
_SAID = {
    "sugar_pct": ("Sugar", "It browns late and proofs fast.", "Yeast slows and the crust browns early."),
    "salt_pct": ("Salt", "The dough is slack and tastes flat.", "Yeast slows and it tastes salty."),
    "fat_pct": ("Fat in the dough", "It tears sooner and stales sooner.",
                "It is soft at the bench and its leaves part less."),
    "yeast_pct": ("Yeast", "Proof takes long.", "It wakes up between the turns and tastes of yeast."),
}  # fmt: skip
_KINDS = {
    "sugar_pct": (Ingredients.SUGAR,),
    "salt_pct": (Ingredients.SALT,),
    "fat_pct": (Ingredients.FAT, Ingredients.EGG, Ingredients.MILK),
    "yeast_pct": (Ingredients.YEAST,),
}


def mind(here: Here[Mixing]) -> Iterator[Note]:
    """Advice where the flour, the water and the yeast are decided."""
    formula = here.recipe.formula
    assert formula is not None
    found = balance(formula)
    yield from _on_balance(here, formula, found)
    yield from _on_water(here, formula)
    yield from _on_old_dough(here, formula, found)
    yield from _on_bowl(here)


def _on_bowl(here: Here[Mixing]) -> Iterator[Note]:
    bowl: Bowl = here.figures.bowl
    where = "By hand one kneads" if here.step.by_hand else "The mixer takes"
    if over(bowl.load_g, bowl.most_g):
        yield here.note(
            "bowl-much", "know", f"Mix it in {bowl.loads}",
            f"It is {g(bowl.load_g)} of dough. {where} {g(bowl.most_g)} at most.",
            plan_field="dough.mass_g",
        )  # fmt: skip
    elif under(bowl.load_g, bowl.least_g):
        yield here.note(
            "bowl-little", "know", "Little for the mixer",
            f"{g(bowl.load_g)}; below {g(bowl.least_g)} the hook does not catch it. Knead it by hand, or "
            "mix two doughs at once.",
            fixes=[here.fix("Knead it by hand", by_hand=True)],
            plan_field="dough.mass_g",
        )  # fmt: skip


def _line_of(formula: Formula, *kinds: Ingredients) -> int | None:
    """The number of the formula's line of these kinds; the first one mentioned wins."""
    for kind in kinds:
        for i, (what, _) in enumerate(formula.parts):
            if what.kind is kind:
                return i
    return None


def _on_balance(here: Here[Mixing], formula: Formula, found: Balance) -> Iterator[Note]:
    family, sour = here.recipe.family, soured_pct(here.recipe.preferments) > 0
    if family.yeasted and found.yeast_pct == 0 and not sour:
        yield here.note(
            "no-yeast", "mind", "No yeast",
            f"A {family.said} dough rises by yeast: fresh, instant or active dry.",
            plan_field="formula.lines",
        )  # fmt: skip
    for name, (what, below, above) in _SAID.items():
        value: float = getattr(found, name)
        out = unusual(family, here.kitchen, name, value)
        if out is None or (name == "yeast_pct" and (sour or not value)):
            continue
        if (
            not found.yeast_pct
        ):  # a puff browns and tastes the same way, without anything that rises
            above = above.removeprefix("Yeast slows and ").capitalize()
            below = below.replace(" and proofs fast", "")
        line = _line_of(formula, *_KINDS[name])
        as_fresh = " as fresh yeast" if name == "yeast_pct" else ""
        yield here.note(
            f"formula-{name.removesuffix('_pct')}", "mind", f"{what} {out.side} the usual",
            f"{say(value)} % on flour{as_fresh}; {family.said} is usually {say(out.low)} to "
            f"{say(out.high)} %. {below if out.side == 'below' else above}",
            fixes=_one_line(formula, line, name, out),
            plan_field="formula.lines" if line is None else f"formula.lines[{line}].pct",
        )  # fmt: skip
    yield here.note(
        "hydration", "know", f"True hydration {say(found.true_hydration_pct)} %",
        f"Water and milk alone are {say(found.nominal_hydration_pct)} %. The true figure counts the "
        "water in everything but the flour: egg, butter, milk and yeast carry theirs.",
    )  # fmt: skip


def _one_line(formula: Formula, line: int | None, name: str, out: Outside) -> list[Fix]:
    """The one ingredient that alone decides a figure, put at the end of the usual range."""
    if line is None or name == "fat_pct":
        return []
    what, pct = formula.parts[line]
    worth = what.as_fresh or 1.0
    others = out.value - pct * worth
    wanted = round((out.nearest - others) / worth, 2)
    if wanted <= 0 or (out.side == "above") != (wanted < pct):
        return []
    return [
        Fix(f"{named(what.name)} at {say(wanted)} %", (Put(f"formula.lines[{line}].pct", wanted),))
    ]


def _on_water(here: Here[Mixing], formula: Formula) -> Iterator[Note]:
    step, water, kitchen = here.step, here.figures.water, here.kitchen
    if water is None:
        has = any(what.kind in LIQUIDS for what, _ in formula.parts)
        yield here.note(
            "water-none", "know", "No water left to set the temperature",
            "The mixing day gets no water and no milk of its own"
            + (": chill or warm the eggs and the flour instead." if has else "."),
        )  # fmt: skip
    elif not water.reached and water.ice_g:
        yield here.note(
            "water-reach", "mind", "Even ice is not enough",
            f"The dough comes to {c(water.dough_c)}, not {c(step.wanted_c)}, with all of its water as "
            "ice. Chill the flour, mix shorter, or hold back some of the fast minutes.",
            "wanted_c", [here.fix(f"Want {c(water.dough_c)}", wanted_c=_up(water.dough_c))],
        )  # fmt: skip
    elif not water.reached and water.of is Liquid.MILK and water.needed_c < water.water_c:
        yield here.note(
            "water-reach", "mind", "Cold milk is not enough",
            f"The dough comes to {c(water.dough_c)}, not {c(step.wanted_c)}, with milk at "
            f"{c(water.water_c)}. Chill the flour, mix shorter, or set it with the water.",
            "wanted_c", [here.fix(f"Want {c(water.dough_c)}", wanted_c=_up(water.dough_c))],
        )  # fmt: skip
    elif not water.reached:
        yield here.note(
            "water-reach", "mind", f"The {water.of.said} would be too hot",
            f"The dough comes to {c(water.dough_c)}, not {c(step.wanted_c)}, with {water.of.said} at "
            f"{c(kitchen['mixer.hottest_c'])}, the hottest that spares the yeast. "
            + ("Let the flour come to the room first." if here.figures.flour_c < kitchen["room.c"] - 0.5
               else "Warm the flour, or let it be cooler: it proofs a little longer."),
            "wanted_c", [here.fix(f"Want {c(_down(water.dough_c))}", wanted_c=_down(water.dough_c))],
        )  # fmt: skip
    elif water.ice_g:
        yield here.note(
            "ice", "know", f"{g(water.ice_g)} of it as ice",
            f"The tap runs at {c(step.tap_c)} and the dough wants water of {c(water.needed_c)}. Weigh "
            "the ice as water; crush it, so that it is gone when mixing ends.",
        )  # fmt: skip
    most = kitchen["mixer.dough_most_c"]
    if over(step.wanted_c, most):
        yield here.note(
            "warm-dough", "mind", "A warm dough",
            f"At {c(step.wanted_c)} it starts to rise before it is cold. For laminating, up to "
            f"{c(most)} is usual.",
            "wanted_c", [here.fix(f"Want {c(most)}", wanted_c=most)],
        )  # fmt: skip


def _up(value: float) -> float:
    return -(-value * 2 // 1) / 2


def _down(value: float) -> float:
    return value * 2 // 1 / 2


def _on_old_dough(here: Here[Mixing], formula: Formula, found: Balance) -> Iterator[Note]:
    old, both = formula.old_dough, here.recipe.fed
    if old is None or both is None:
        return
    most = here.kitchen["trimmings.most_pct" if old.laminated else "trimmings.dough_most_pct"]
    if over(old.share_pct, most):
        yield here.note(
            "old-dough", "mind", "Much old dough",
            f"{say(old.share_pct)} % of the new dough; up to {say(most)} % is usual. The dough tears "
            "sooner, and the old dough brings in its own salt and acid.",
            fixes=[Fix(f"{say(most)} %", (Put("formula.old_dough.share_pct", most),))],
            plan_field="formula.old_dough.share_pct",
        )  # fmt: skip
    today, settled = both
    if settled.butter_share <= 0:
        return
    later = settled.balance
    text = (
        f"The trimmings bring {g(today.butter_share * here.recipe.dough.mass_g)} of laminated butter: "
        f"fat on flour goes from {say(found.fat_pct)} to {say(today.balance.fat_pct)} %, and settles at "
        f"{say(later.fat_pct)} % when fed back every day; true hydration from "
        f"{say(found.true_hydration_pct)} to {say(later.true_hydration_pct)} %."
    )
    spread = [
        (what, pct) for what, pct in formula.parts if what.kind is Ingredients.FAT and pct > 0
    ]
    if spread:
        what, pct = spread[0]
        less = (later.fat_pct - found.fat_pct) / what.composition.fat_pct * 100
        if less <= pct:
            text += f" {named(what.name)} at {say(pct - less)} % in place of {say(pct)} % keeps the balance."
    yield here.note(
        "trimmings",
        "know",
        "Trimmings carry butter",
        text,
        plan_field="formula.old_dough.share_pct",
    )


def _named(water: Water) -> str:
    return water.of.said.capitalize()


def workings(here: Here[Mixing]) -> Iterator[Working]:
    """How the water was got."""
    water: Water | None = here.figures.water
    if water is None:
        return
    step = here.step
    how = (
        f"{span(step.slow_min + step.fast_min)} by hand"
        if step.by_hand
        else f"{span(step.slow_min)} slow, {span(step.fast_min)} fast"
    )
    cold = (
        f" The tap gives {c(water.tap_c)}: melting {g(water.ice_g)} of ice takes the difference "
        "(333.6 kJ per kg)."
        if water.ice_g
        else ""
    )
    yield here.works(
        "water.water_c",
        f"Heat balance: what flour, preferment and the rest bring to the bowl, and "
        f"{kelvin(water.friction_k)} from mixing ({how}), leave {water.of.said} of "
        f"{c(water.needed_c)} for a dough of {c(step.wanted_c)}.{cold}",
    )


def weighs(here: Here[Mixing]) -> Iterator[Weighs]:
    """What the mixing day adds; the bowl holds what preferments and trimmings bring as well."""
    recipe, weighed = here.recipe, here.setting.weighed
    assert weighed is not None
    assert recipe.formula is not None
    held = [what for what, _ in recipe.formula.parts]
    if recipe.formula.old_dough and recipe.formula.old_dough.laminated:
        held.append(recipe.butter_kind)
    yield Weighs("Mixing day", weighed.mixing, contents_of(held))
    if _lumps(here):
        yield butter_weighed(recipe, f"{here.step.id}/lumps")


KIND = Kind(
    of=Mixing,
    do="mix",
    name="Mix",
    stem="mix",
    rank=20,
    chapter=Chapter.BEFORE,
    takes=frozenset((Form.NOTHING,)),
    leaves=Form.DOUGH,
    effect=effect,
    figures=MixFigures,
    instruct=instruct,
    mind=mind,
    workings=workings,
    weighs=weighs,
    minutes="minutes.mix",
    feels_warmth=True,
    machine=lambda step: None if step.by_hand else Machine.MIXER,
    fresh=lambda _, __: Mixing(),
    caution="Mixer: guard down, no loose sleeves, stop it before you reach in, keep within the maker's "
    "limits. Two people lift a heavy bowl.",
)
