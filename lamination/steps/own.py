"""The baker's own step: a title, words, minutes, a rest. Anywhere in a plan."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated, Literal

from lamination.steps.base import Chapter, Form, Here, Kind, Lies, Made, Often, Setting, Step
from lamination.terms.limits import Length
from lamination.terms.said import named


@dataclass(frozen=True)
class OwnStep(Step):
    """What a baker does besides: its title; what to do stands in the step's own words."""

    title: Annotated[str, Length(1, 60, "characters")]
    do: Literal["own"] = field(default="own", kw_only=True)


def effect(step: OwnStep, lies: Lies, setting: Setting) -> Made:
    """What lies there stays as it is."""
    return Made(lies)


def instruct(here: Here[OwnStep]) -> Iterator[str]:
    """The title; the words follow as those of every step do."""
    yield named(here.step.title)


KIND = Kind(
    of=OwnStep,
    do="own",
    name="Own step",
    stem="own",
    rank=120,
    chapter=Chapter.TURNS,
    takes=frozenset(Form),
    leaves=None,
    effect=effect,
    instruct=instruct,
    minutes="minutes.own",
    often=Often.MANY,
    called=lambda step, _, __: step.title,
    fresh=lambda _, __: OwnStep("Own step"),
    caution="Hot, sharp, heavy or raw: take the care it asks for.",
)
