"""Advice on the first stage: formula, preferments, water and bowl, slab and plaques."""

from __future__ import annotations

from collections.abc import Iterator

from lamination.dough.formula import LIQUIDS
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import Family
from lamination.kitchen.usual import FAMILY_NAMES, outside
from lamination.materials.ingredients import Kind
from lamination.plan.plan import Plan
from lamination.plan.worked import Note, WorkedFormula, WorkedPlan
from lamination.terms.limits import say

# what leaves the usual: its name, and what it does below and above
_SAID = {
    "sugar_pct": ("Sugar", "It browns late and proofs fast.", "Yeast slows and the crust browns early."),
    "salt_pct": ("Salt", "The dough is slack and tastes flat.", "Yeast slows and it tastes salty."),
    "fat_pct": ("Fat in the dough", "It tears sooner and stales sooner.",
                "It is soft at the bench and its leaves part less."),
    "yeast_pct": ("Yeast", "Proof takes long.", "It wakes up between the turns and tastes of yeast."),
}  # fmt: skip
_KINDS = {
    "sugar_pct": (Kind.SUGAR,),
    "salt_pct": (Kind.SALT,),
    "fat_pct": (Kind.FAT, Kind.EGG, Kind.MILK),
    "yeast_pct": (Kind.YEAST,),
}


def on_formula(plan: Plan, kitchen: Kitchen, worked: WorkedPlan) -> Iterator[Note]:
    """Advice where the flour, the water and the yeast are decided."""
    made = worked.formula
    if plan.formula is None or made is None:
        return
    yield from _on_balance(plan, kitchen, made)
    yield from _on_water(plan, kitchen, made)
    yield from _on_preferments(plan, kitchen, made)
    yield from _on_old_dough(plan, kitchen, made)
    bowl = made.bowl
    if bowl.load_g > bowl.most_g:
        yield Note(
            "mix",
            "mind",
            "More than the mixer takes",
            f"{say(bowl.load_g)} g; the mixer takes {say(bowl.most_g)} g. Mix it in {bowl.loads}.",
            "dough.mass_g",
        )
    elif bowl.load_g < bowl.least_g:
        yield Note(
            "mix",
            "mind",
            "Little for the mixer",
            f"{say(bowl.load_g)} g; below {say(bowl.least_g)} g the hook does not catch it. Mix two "
            "doughs at once, or by hand.",
            "dough.mass_g",
        )


def _line_of(plan: Plan, *kinds: Kind) -> str:
    """The path of the formula's line of these kinds; the first one mentioned wins."""
    assert plan.formula is not None
    for kind in kinds:
        for i, (what, _) in enumerate(plan.formula.parts):
            if what.kind is kind:
                return f"formula.lines[{i}].pct"
    return "formula.lines"


def _on_balance(plan: Plan, kitchen: Kitchen, made: WorkedFormula) -> Iterator[Note]:
    yeasted = plan.family is not Family.PUFF
    if yeasted and made.balance.yeast_pct == 0:
        yield Note(
            "mix",
            "mind",
            "No yeast",
            f"A {FAMILY_NAMES[plan.family]} dough rises by yeast: fresh, instant or active dry.",
            "formula.lines",
        )
    for name, (what, below, above) in _SAID.items():
        value: float = getattr(made.balance, name)
        if name == "yeast_pct" and not value:
            continue
        out = outside(plan, kitchen, name, value)
        if out:
            yield Note(
                "mix",
                "mind",
                f"{what} {out[0]} the usual",
                f"{say(value)} % on flour{' as fresh yeast' if name == 'yeast_pct' else ''}; "
                f"{FAMILY_NAMES[plan.family]} is usually {out[1]} to {out[2]} %. "
                f"{below if out[0] == 'below' else above}",
                _line_of(plan, *_KINDS[name]),
            )
    nominal, true = made.balance.nominal_hydration_pct, made.balance.true_hydration_pct
    yield Note(
        "mix",
        "know",
        f"True hydration {say(true)} %",
        f"Water and milk alone are {say(nominal)} %. The true figure counts the water in everything "
        "but the flour: egg, butter, milk and yeast carry theirs.",
    )


def _on_water(plan: Plan, kitchen: Kitchen, made: WorkedFormula) -> Iterator[Note]:
    assert plan.formula is not None
    mixing, water = plan.formula.mixing, made.water
    if water is None:
        has = any(what.kind in LIQUIDS for what, _ in plan.formula.parts)
        yield Note(
            "mix",
            "know",
            "No water left to set the temperature",
            "The mixing day gets no water of its own"
            + (": chill or warm the milk and the flour instead." if has else "."),
        )
    elif not water.reached:
        cold = water.ice_g > 0
        yield Note(
            "mix",
            "mind",
            "Even ice is not enough" if cold else "The water would be too hot",
            f"The dough comes to {say(water.dough_c)} °C, not {say(mixing.wanted_c)} °C, "
            + (
                "with all of its water as ice. Chill the flour, mix shorter, or hold back some of "
                "the fast minutes."
                if cold
                else f"with water at {say(kitchen['mixer.hottest_c'])} °C, the hottest that spares "
                "the yeast. Let the flour come to the room first."
            ),
            "formula.mixing.wanted_c",
        )
    elif water.ice_g:
        yield Note(
            "mix",
            "know",
            f"{say(water.ice_g)} g of it as ice",
            f"The tap runs at {say(mixing.tap_c)} °C and the dough wants water of "
            f"{say(water.water_c)} °C. Weigh the ice as water; crush it, so that it is gone when "
            "mixing ends.",
        )
    if mixing.wanted_c > kitchen["mixer.dough_most_c"]:
        yield Note(
            "mix",
            "mind",
            "A warm dough",
            f"At {say(mixing.wanted_c)} °C it starts to rise before it is cold. For laminating, up "
            f"to {say(kitchen['mixer.dough_most_c'])} °C is usual.",
            "formula.mixing.wanted_c",
        )


def _on_preferments(plan: Plan, kitchen: Kitchen, made: WorkedFormula) -> Iterator[Note]:
    assert plan.formula is not None
    for j, p in enumerate(made.preferments):
        if p.tub_l > kitchen["preferment.tub_l"]:
            yield Note(
                p.stop,
                "mind",
                "It climbs out of the tub",
                f"It rises to {say(p.rises_to_l)} l; with room to spare that is a tub of "
                f"{say(p.tub_l)} l, and the largest here is {say(kitchen['preferment.tub_l'])} l. "
                f"Use {-int(-p.tub_l // kitchen['preferment.tub_l'])} tubs.",
                f"formula.preferments[{j}].flour_pct",
            )
        else:
            yield Note(
                p.stop,
                "good",
                f"A tub of {say(p.tub_l)} l",
                f"{say(p.total_g)} g fills {say(p.volume_l)} l and rises to {say(p.rises_to_l)} l.",
            )
        yield Note(
            p.stop,
            "know",
            "What stays for mixing day",
            f"It takes {say(p.liquid_share_pct)} % of the liquid. The sheet says of every "
            "ingredient how much is still to be added: copy that onto the bag.",
        )


def _on_old_dough(plan: Plan, kitchen: Kitchen, made: WorkedFormula) -> Iterator[Note]:
    assert plan.formula is not None
    old, feeding = plan.formula.old_dough, made.feeding
    if old is None or feeding is None:
        return
    most = kitchen["trimmings.most_pct"]
    if old.share_pct > most:
        yield Note(
            "mix",
            "mind",
            "Much old dough",
            f"{say(old.share_pct)} % of the new dough; up to {say(most)} % is usual. It tears "
            "sooner and carries its salt and its acid with it.",
            "formula.old_dough.share_pct",
        )
    if feeding.settled.butter_share <= 0:
        return
    fat, later = made.balance.fat_pct, feeding.settled.balance
    text = (
        f"The trimmings bring {say(feeding.butter_g)} g of laminated butter: fat on flour goes from "
        f"{say(fat)} to {say(feeding.today.balance.fat_pct)} %, and settles at {say(later.fat_pct)} "
        f"% when fed back every day; true hydration from {say(made.balance.true_hydration_pct)} to "
        f"{say(later.true_hydration_pct)} %."
    )
    spread = [(what, pct) for what, pct in plan.formula.parts if what.kind is Kind.FAT and pct > 0]
    if spread:
        what, pct = spread[0]
        less = (later.fat_pct - fat) / what.composition.fat_pct * 100
        if less <= pct:
            text += (
                f" {what.name} at {say(pct - less)} % in place of {say(pct)} % keeps the balance."
            )
    yield Note("mix", "know", "Trimmings carry butter", text, "formula.old_dough.share_pct")


def on_making(plan: Plan, kitchen: Kitchen, worked: WorkedPlan) -> Iterator[Note]:
    """Advice on the slab and on the plaques a block is made of."""
    slab, sheet = worked.slab, worked.lock_in.dough_sheet
    if slab.length_mm < sheet.length_mm - 1:
        yield Note(
            "dough",
            "know",
            "Smaller than the sheet",
            f"A tray of {kitchen['tray.length_mm']:.0f} × {kitchen['tray.width_mm']:.0f} mm takes a "
            f"slab of {slab.length_mm:.0f} × {slab.width_mm:.0f} mm, {say(slab.thickness_mm)} mm "
            f"thick. Cold, it is rolled to {sheet.length_mm:.0f} × {sheet.width_mm:.0f} mm.",
        )
    else:
        yield Note(
            "dough",
            "good",
            "Chilled at its size",
            f"{slab.length_mm:.0f} × {slab.width_mm:.0f} mm lies flat on the tray and needs hardly "
            "a roll at the lock-in.",
        )
    plaques = worked.butter.plaques
    if not plaques.whole:
        own = plan.butter.plaque
        whole_g = own.mass_g if own else kitchen["plaque.mass_g"]
        share = plan.butter.mass_g / plan.dough.mass_g
        yield Note(
            "lock_in",
            "know" if own is None else "mind",
            "A plaque bigger than the block",
            f"One plaque weighs {say(whole_g)} g, the block {say(plan.butter.mass_g)} g. Cut "
            f"{plaques.part_length_mm:.0f} mm off its length and keep the rest wrapped; a dough of "
            f"{say(whole_g / share)} g would take it whole.",
            "butter.plaque.mass_g",
        )
