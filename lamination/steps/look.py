"""One is cut across and looked at; what goes on the label."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Literal

from lamination.steps.base import Chapter, Form, Here, Kind, Lies, Made, Setting, Step


@dataclass(frozen=True)
class Looking(Step):
    """Cut one and look: was the whole chain worth it?"""

    do: Literal["look"] = field(default="look", kw_only=True)


def effect(step: Looking, lies: Lies, setting: Setting) -> Made:
    """Nothing moves."""
    return Made(lies)


def instruct(here: Here[Looking]) -> Iterator[str]:
    """What to see, and to say in the book."""
    yield "Cut one across and look"
    if any(s.kind_name == "fry" for s in here.steps):
        yield "Open comb, leaves you can count, light, and not greasy at the first bite."
        yield "Weigh it: water went, and a little fat came. Then say in the book how it came out."
    else:
        yield "Open comb, leaves you can count, dry and light; no fat left on the tray."
        yield "Weigh it: what it lost in the oven is water. Then say in the book how it came out."


KIND = Kind(
    of=Looking,
    do="look",
    name="Look",
    stem="look",
    rank=110,
    chapter=Chapter.OVEN,
    takes=frozenset((Form.BAKED,)),
    leaves=None,
    effect=effect,
    instruct=instruct,
    minutes="minutes.look",
    fresh=lambda _, __: Looking(),
    caution="Let it cool before it is cut. Name every allergen on the label.",
)
