"""The first stage of a plan worked: materials, weigh-out sheets, water, tubs, slab and block."""

from __future__ import annotations

from lamination.dough.block import fold_back, plaques_for
from lamination.dough.formula import LIQUIDS, Formula, Preferment, balance, fed
from lamination.dough.mixing import Bowl, Part, Water, water_for
from lamination.dough.weighing import OLD_DOUGH, Weighed, WeighLine, WeighSheet
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import DOUGH_DENSITY_KG_M3
from lamination.materials.composition import (
    Composition,
    conductivity_w_m_k,
    density_kg_m3,
    mixture,
    specific_heat_kj_kg_k,
)
from lamination.materials.ingredients import Ingredient, Kind
from lamination.plan.plan import Plan
from lamination.plan.worked import (
    Feeding,
    Physics,
    WorkedButter,
    WorkedFormula,
    WorkedPart,
    WorkedPreferment,
)
from lamination.sheet.lockin import Size
from lamination.terms.rests import Place

NAMES = {"poolish": "Poolish", "sponge": "Stiff sponge"}


def preferment_name(formula: Formula, j: int) -> str:
    """What preferment ``j`` is called; numbered where there are two of a kind."""
    kind = formula.preferments[j].kind
    same = [i for i, p in enumerate(formula.preferments) if p.kind is kind]
    number = f" {same.index(j) + 1}" if len(same) > 1 else ""
    return NAMES[kind] + number


def butter_composition(plan: Plan) -> Composition:
    """The block's composition: the butter and the flour worked into it."""
    plain = plan.butter_kind.composition
    if not plan.butter.flour_pct:
        return plain
    return mixture(((100.0, plain), (plan.butter.flour_pct, butter_flour(plan).composition)))


def butter_flour(plan: Plan) -> Ingredient:
    """The flour worked into the block: the formula's first, or a plain one."""
    if plan.formula:
        return next(what for what, _ in plan.formula.parts if what.kind is Kind.FLOUR)
    return plan.shelf["flour-medium"]


def butter_of_whole(plan: Plan) -> float:
    """The block's share of the laminate, 0 to 1."""
    return plan.butter.mass_g / (plan.butter.mass_g + plan.dough.mass_g)


def dough_composition(plan: Plan) -> Composition | None:
    """The dough as it is today, old dough included; None without a formula."""
    if plan.formula is None:
        return None
    return fed(plan.formula, butter_composition(plan), butter_of_whole(plan))[0].composition


def physics(of: Composition | None, own: float | None, gas_pct: float, kitchen: Kitchen) -> Physics:
    """A material's properties from its composition; ``own``, kg/m³, overrides the density."""
    if of is None:
        return Physics(DOUGH_DENSITY_KG_M3 if own is None else own)
    at = kitchen["dough.physics_c"]
    return Physics(
        density_kg_m3(of, at, gas_pct / 100) if own is None else own,
        of.water_pct,
        specific_heat_kj_kg_k(of, at),
        conductivity_w_m_k(of, at),
    )


def dough_physics(plan: Plan, kitchen: Kitchen) -> Physics:
    """The dough that is locked in. Source: core-model §1; the gas share is the kitchen's."""
    own = plan.dough.density_kg_m3
    return physics(dough_composition(plan), own, kitchen["dough.gas_pct"], kitchen)


def butter_physics(plan: Plan, kitchen: Kitchen) -> Physics:
    """The butter block. Source: core-model §1; melting is not in its specific heat."""
    own = plan.butter.density_kg_m3
    return physics(butter_composition(plan), own, kitchen["dough.butter_gas_pct"], kitchen)


def work_butter(plan: Plan, kitchen: Kitchen, made_of: Physics, block: Size) -> WorkedButter:
    """The block from plaques, and its conditioning."""
    own = plan.butter.plaque
    length, width, mass = (
        (own.length_mm, own.width_mm, own.mass_g)
        if own
        else (kitchen["plaque.length_mm"], kitchen["plaque.width_mm"], kitchen["plaque.mass_g"])
    )
    pure = density_kg_m3(plan.butter_kind.composition, kitchen["dough.physics_c"]) * (
        1 - kitchen["dough.butter_gas_pct"] / 100
    )
    plaque = Size(length, width, mass / pure * 1e6 / (length * width))
    butter_g = plan.butter.mass_g / (1 + plan.butter.flour_pct / 100)
    folds = plan.butter.fold_back
    return WorkedButter(
        plan.butter_kind.name,
        made_of,
        plan.butter_kind.window,
        plaques_for(butter_g, block, plaque, mass),
        fold_back(block, folds) if folds > 1 else None,
    )


def weigh_sheets(
    plan: Plan, weighed: Weighed | None, minutes: dict[str, float]
) -> tuple[WeighSheet, ...]:
    """One sheet for every stop where something is weighed, in the order of the stops' ``minutes``."""
    found = []
    if plan.formula and weighed:
        for j, lines in enumerate(weighed.preferments):
            found.append((f"preferment-{j + 1}", preferment_name(plan.formula, j), lines))
        found.append(("mix", "Mixing day", weighed.mixing))
    found.append(("lock_in", "Butter block", _butter_lines(plan)))
    allergens = {what.key: what.allergens for what, _ in plan.formula.parts} if plan.formula else {}
    sheets = []
    for stop, name, lines in found:
        keys = {a for line in lines for a in allergens.get(line.ingredient, ())}
        if stop == "lock_in":
            keys |= set(plan.butter_kind.allergens)
            keys |= set(butter_flour(plan).allergens) if plan.butter.flour_pct else set()
        if stop == "mix" and plan.formula:
            # the bowl holds what the preferments and the trimmings bring as well
            keys |= {a for what, _ in plan.formula.parts for a in what.allergens}
            old = plan.formula.old_dough
            keys |= set(plan.butter_kind.allergens) if old and old.laminated else set()
        total = round(sum(line.grams for line in lines), 1)
        sheets.append(
            WeighSheet(stop, name, minutes[stop], tuple(lines), total, tuple(sorted(keys)))
        )
    return tuple(sorted(sheets, key=lambda s: s.minute))


def _butter_lines(plan: Plan) -> tuple[WeighLine, ...]:
    mass = plan.butter.mass_g
    flour_g = round(mass * plan.butter.flour_pct / (100 + plan.butter.flour_pct), 1)
    kind = plan.butter_kind
    butter_g = round(mass - flour_g, 1)
    lines = [WeighLine(f"lock_in/{kind.key}", kind.key, kind.name, butter_g, mass - flour_g)]
    if flour_g:
        flour = butter_flour(plan)
        lines.append(WeighLine(f"lock_in/{flour.key}", flour.key, flour.name, flour_g, flour_g))
    return tuple(lines)


def work_formula(plan: Plan, kitchen: Kitchen, weighed: Weighed) -> WorkedFormula:
    """All that follows from a plan's formula for one dough. The plan must have one."""
    formula = plan.formula
    assert formula is not None
    old = formula.old_dough
    old_g = plan.dough.mass_g * old.share_pct / 100 if old else 0.0
    per_pct = (plan.dough.mass_g - old_g) / formula.total_pct
    today, settled = fed(formula, butter_composition(plan), butter_of_whole(plan))
    feeding = (
        Feeding(old_g, today.butter_share * plan.dough.mass_g, today, settled) if old else None
    )
    # what old dough holds besides its butter is dough of the same formula, flour included
    old_flour_g = (old_g - (feeding.butter_g if feeding else 0)) * 100 / formula.total_pct
    return WorkedFormula(
        flour_g=100 * per_pct + old_flour_g,
        total_pct=formula.total_pct,
        parts=tuple(
            WorkedPart(what.key, what.name, what.kind, pct, pct * per_pct)
            for what, pct in formula.parts
        ),
        balance=balance(formula),
        preferments=tuple(
            _preferment(plan, formula, j, p, weighed.preferments[j], kitchen)
            for j, p in enumerate(formula.preferments)
        ),
        feeding=feeding,
        water=_water(plan, formula, weighed, kitchen),
        bowl=Bowl(plan.dough.mass_g, kitchen["mixer.least_g"], kitchen["mixer.most_g"]),
        rounding=weighed.rounding,
    )


def _preferment(
    plan: Plan,
    formula: Formula,
    j: int,
    chosen: Preferment,
    lines: tuple[WeighLine, ...],
    kitchen: Kitchen,
) -> WorkedPreferment:
    kinds = {what.key: what for what, _ in formula.parts}
    of = dict.fromkeys(("flour", "liquid", "yeast"), 0.0)
    for line in lines:
        kind = kinds[line.ingredient].kind
        of["liquid" if kind in LIQUIDS else kind] += line.exact_g
    total = sum(of.values())
    made_of = mixture((line.exact_g, kinds[line.ingredient].composition) for line in lines)
    volume_l = total / density_kg_m3(made_of, kitchen["mixer.room_c"])
    rises_to = volume_l * kitchen[f"preferment.{chosen.kind}_rise"]
    liquid_pct = sum(pct for what, pct in formula.parts if what.kind in LIQUIDS)
    return WorkedPreferment(
        stop=f"preferment-{j + 1}",
        name=preferment_name(formula, j),
        flour_g=of["flour"],
        liquid_g=of["liquid"],
        yeast_g=of["yeast"],
        total_g=total,
        liquid_share_pct=chosen.flour_pct * chosen.hydration_pct / liquid_pct,
        volume_l=volume_l,
        rises_to_l=rises_to,
        tub_l=rises_to * kitchen["preferment.headroom"],
    )


def _water(plan: Plan, formula: Formula, weighed: Weighed, kitchen: Kitchen) -> Water | None:
    """The water of the mixing day against everything else that goes into the bowl."""
    kinds = {what.key: what for what, _ in formula.parts}
    mixing = formula.mixing
    water_g, parts = 0.0, []
    for line in weighed.mixing:
        if line.ingredient == OLD_DOUGH:
            composition, at = dough_composition(plan), kitchen["mixer.cold_c"]
            assert composition is not None
        else:
            what = kinds[line.ingredient]
            if what.kind is Kind.WATER:
                water_g += line.exact_g
                continue
            cold = what.kind in (Kind.MILK, Kind.EGG, Kind.FAT)
            composition, at = what.composition, kitchen["mixer.cold_c"] if cold else mixing.flour_c
        parts.append(Part(line.exact_g, composition, at))
    for p, lines in zip(formula.preferments, weighed.preferments, strict=True):
        made_of = mixture((line.exact_g, kinds[line.ingredient].composition) for line in lines)
        warm = p.rest.place is Place.BENCH
        at = kitchen["mixer.room_c"] if warm else kitchen["mixer.cold_c"]
        parts.append(Part(sum(line.exact_g for line in lines), made_of, at))
    if water_g <= 0:
        return None
    friction = (
        mixing.slow_min * kitchen["mixer.slow_k_min"]
        + mixing.fast_min * kitchen["mixer.fast_k_min"]
    )
    return water_for(
        mixing.wanted_c, water_g, parts, mixing.tap_c, friction, kitchen["mixer.hottest_c"]
    )
