"""The kinds of step. Each is a module here; a new one needs no line anywhere else in the core."""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module
from pkgutil import iter_modules
from typing import Any

from lamination.steps._labels import Declared, Label, contents_at
from lamination.steps._package import lying
from lamination.steps.base import Chapter, Form, Here, Kind, Lies, Made, Setting, Step
from lamination.steps.more_butter import ButterState
from lamination.steps.offcuts import Gathered
from lamination.steps.strew import Strewn

__all__ = [
    "FIGURES", "KINDS", "ButterState", "Chapter", "Declared", "Form", "Gathered", "Here", "Kind", "Label",
    "Lies", "Made", "OneOf", "Setting", "Step", "Strewn", "contents_at", "kind_of", "lying", "step_classes",
]  # fmt: skip


def _found() -> dict[str, Kind[Any]]:
    kinds: list[Kind[Any]] = []
    for module in iter_modules(__path__):
        if module.name != "base" and not module.name.startswith("_"):
            kinds.append(import_module(f"{__name__}.{module.name}").KIND)
    return {k.do: k for k in sorted(kinds, key=lambda k: k.rank)}


KINDS: dict[str, Kind[Any]] = _found()
FIGURES: dict[str, type] = {do: kind.figures for do, kind in KINDS.items() if kind.figures}


def kind_of(step: Step) -> Kind[Any]:
    """The kind of a step.

    >>> from lamination.steps.turn import Turn
    >>> from lamination.terms.trade import Fold
    >>> kind_of(Turn(Fold.LETTER, 8)).name
    'Turn'
    """
    return KINDS[step.kind_name]


def step_classes() -> dict[str, type]:
    """The dataclass of every kind of step, by its ``do``."""
    return {do: kind.of for do, kind in KINDS.items()}


class OneOf:
    """Marks a field that holds one of several dataclasses, told apart by their ``do``.

    Read by whatever makes a schema of the dataclass that holds it, as the limits are.
    """

    def __init__(self, classes: Callable[[], dict[str, type]]) -> None:
        self.classes = classes

    def __get_pydantic_core_schema__(self, source: Any, handler: Any) -> Any:
        """A tagged union, so that a fault is told of the kind that was meant."""
        return {
            "type": "tagged-union",
            "choices": {do: handler.generate_schema(of) for do, of in self.classes().items()},
            "discriminator": "do",
        }
