"""A preferment: a part of the formula that is mixed earlier, and ripens."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated, Literal

from lamination.dough.formula import LIQUIDS, PrefermentKind, preferment_names
from lamination.dough.recipe import contents_of
from lamination.materials.composition import density_kg_m3, mixture
from lamination.steps.base import (
    Chapter,
    Form,
    Handling,
    Here,
    Kind,
    Lies,
    Made,
    Often,
    Setting,
    Step,
    Weighs,
)
from lamination.terms.advice import Note, Working
from lamination.terms.limits import Fault, Faults, Range
from lamination.terms.rests import Rest
from lamination.terms.said import g, say, span
from lamination.terms.trade import Place


@dataclass(frozen=True)
class Preferment(Step):
    """What it takes of the formula; the rest after it is its ripening.

    ``flour_pct``: its share of all flour. ``hydration_pct``: its liquid on its own flour.
    ``yeast_pct``: its share of all yeast.
    """

    kind: PrefermentKind
    flour_pct: Annotated[float, Range(1, 100, "%")]
    hydration_pct: Annotated[float, Range(20, 300, "%")]
    yeast_pct: Annotated[float, Range(0, 100, "%")]
    do: Literal["preferment"] = field(default="preferment", kw_only=True)


@dataclass(frozen=True, slots=True)
class PrefermentFigures:
    """Its masses, what share of all liquid it takes, and its tub."""

    name: str
    flour_g: float
    liquid_g: float
    yeast_g: float
    total_g: float
    liquid_share_pct: float
    volume_l: float
    rises_to_l: float
    tub_l: float
    do: Literal["preferment"] = "preferment"


def effect(step: Preferment, lies: Lies, setting: Setting) -> Made:
    """Its masses from the weigh-out; the dough itself is not touched. Raises Faults without a formula."""
    recipe, kitchen = setting.recipe, setting.kitchen
    formula, weighed = recipe.formula, setting.weighed
    if formula is None or weighed is None:
        text = "A preferment is a part of a formula. Give the plan a formula, or remove this step."
        raise Faults(Fault("kind", text))
    j = next(j for j, (key, _) in enumerate(recipe.preferments) if key == step.id)
    lines = weighed.preferments[j]
    kinds = {what.key: what for what, _ in formula.parts}
    of = dict.fromkeys(("flour", "liquid", "yeast"), 0.0)
    for line in lines:
        kind = kinds[line.ingredient].kind
        of["liquid" if kind in LIQUIDS else kind] += line.exact_g
    total = sum(of.values())
    made_of = mixture((line.exact_g, kinds[line.ingredient].composition) for line in lines)
    volume_l = total / density_kg_m3(made_of, kitchen["room.c"])
    rises_to = volume_l * kitchen[f"preferment.{step.kind}_rise"]
    figures = PrefermentFigures(
        name=preferment_names([p for _, p in recipe.preferments])[j],
        flour_g=of["flour"],
        liquid_g=of["liquid"],
        yeast_g=of["yeast"],
        total_g=total,
        liquid_share_pct=step.flour_pct * step.hydration_pct / formula.liquid_pct,
        volume_l=volume_l,
        rises_to_l=rises_to,
        tub_l=rises_to * kitchen["preferment.headroom"],
    )
    return Made(lies, figures, Handling(apart=True))


def instruct(here: Here[Preferment]) -> Iterator[str]:
    """What to mix, into what tub, and how one sees that it is ripe."""
    made: PrefermentFigures = here.figures
    yield f"Mix {g(made.total_g)} of {made.name.lower()}"
    yield f"Into a tub of {say(made.tub_l)} l or more: it rises to {say(made.rises_to_l)} l."
    if here.step.kind is PrefermentKind.SOURDOUGH:
        seed = made.flour_g * here.kitchen["sourdough.seed_pct"] / 100
        yield (
            f"Begin it with {g(seed)} of ripe sourdough on top of that, and keep as much back of this one "
            "for the next feed."
        )
        after = f" after about {span(here.step.rest.minutes)}" if here.step.rest else ""
        yield f"Ripe{after}: well risen, full of holes, and a spoonful floats."
    elif here.step.rest:
        yield (f"Ripe after about {span(here.step.rest.minutes)}: domed, just beginning to sink.")


def mind(here: Here[Preferment]) -> Iterator[Note]:
    """Its tub, and what stays for the mixing day."""
    made: PrefermentFigures = here.figures
    largest = here.kitchen["preferment.tub_l"]
    if made.tub_l > largest:
        yield here.note(
            "tub", "know", f"In {-int(-made.tub_l // largest)} tubs",
            f"It rises to {say(made.rises_to_l)} l; with room to spare that is {say(made.tub_l)} l, and "
            f"the largest tub here holds {say(largest)} l.",
            "flour_pct",
        )  # fmt: skip
    else:
        yield here.note(
            "tub", "good", f"A tub of {say(made.tub_l)} l",
            f"{g(made.total_g)} fills {say(made.volume_l)} l and rises to {say(made.rises_to_l)} l.",
        )  # fmt: skip
    if here.step.kind is PrefermentKind.SOURDOUGH and not here.kitchen["sourdough.proof_min"]:
        yield here.note(
            "sourdough-signs", "know", "Its proof goes by the signs",
            "How long a proof takes with your sourdough is not known here. Once you know, set it in the "
            "Kitchen (a whole proof, a fifth of the flour as sourdough); until then no minutes are judged.",
        )  # fmt: skip
    yield here.note(
        "stays", "know", "What stays for mixing day",
        f"The preferment takes {say(made.liquid_share_pct)} % of the liquid. Its weigh-out sheet says how "
        "much of each ingredient is still to be added: copy that onto the bag.",
    )  # fmt: skip


def workings(here: Here[Preferment]) -> Iterator[Working]:
    """How its tub was got."""
    made: PrefermentFigures = here.figures
    yield here.works(
        "tub_l",
        f"{g(made.total_g)} fills {say(made.volume_l)} l, rises to {say(made.rises_to_l)} l, and wants "
        f"room above that: {say(made.tub_l)} l.",
    )


def weighs(here: Here[Preferment]) -> Iterator[Weighs]:
    """Its own sheet, with what of every ingredient stays for the mixing day."""
    recipe, weighed = here.recipe, here.setting.weighed
    assert weighed is not None
    j = next(j for j, (key, _) in enumerate(recipe.preferments) if key == here.step.id)
    lines = weighed.preferments[j]
    yield Weighs(here.name, lines, contents_of(recipe.shelf[line.ingredient] for line in lines))


def _called(step: Preferment, number: int, of: int) -> str:
    return f"{step.kind.said} {number}" if of > 1 else step.kind.said


def _fresh(_: tuple[Step, ...], __: int) -> Preferment:
    return Preferment(PrefermentKind.POOLISH, 25, 100, 5, rest=Rest.at(Place.BENCH, 720))


KIND = Kind(
    of=Preferment,
    do="preferment",
    name="Preferment",
    stem="preferment",
    rank=10,
    chapter=Chapter.BEFORE,
    takes=frozenset((Form.NOTHING,)),
    leaves=None,
    effect=effect,
    figures=PrefermentFigures,
    instruct=instruct,
    mind=mind,
    workings=workings,
    weighs=weighs,
    minutes="minutes.preferment",
    often=Often.MANY,
    feels_warmth=True,
    apart=True,
    called=_called,
    fresh=_fresh,
    caution="Raw flour is not to be eaten. Keep milk and egg cold until they are used.",
)
