"""Advice and what it offers: notes with a code, ways out, and how a number was got.

Other code goes by ``code``, never by the wording. Titles and texts are sentences with their measures
marked (see ``said.py``).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from lamination.terms.rests import Rest

Tone = Literal["mind", "tight", "know", "good"]
TONES: dict[Tone, int] = {"mind": 0, "tight": 1, "know": 2, "good": 3}


@dataclass(frozen=True, slots=True)
class Put:
    """A value to put in the plan's ``field``."""

    field: str
    value: Rest | float | str | None


@dataclass(frozen=True, slots=True)
class Fix:
    """A way out that can be taken with one press: all its values are put in the plan at once."""

    label: str
    puts: tuple[Put, ...]


@dataclass(frozen=True, slots=True)
class Value:
    """A number a note speaks of, with its unit, by a name of its own; ``leaves``: it is the leaves'."""

    name: str
    value: float
    unit: str
    leaves: bool = False


@dataclass(frozen=True, slots=True)
class Note:
    """Advice at a step. ``mind``: look at this; ``tight``: it goes, with care; ``know``; ``good``.

    ``stop`` is the id of the step; ``field`` the path in the plan of the input the advice is about,
    if it is about one; ``fixes`` are ways out, ``values`` what the sentences say in numbers.
    """

    code: str
    stop: str
    tone: Tone
    title: str
    text: str
    field: str | None = None
    fixes: tuple[Fix, ...] = ()
    values: tuple[Value, ...] = ()

    @property
    def key(self) -> tuple[str, str]:
        """What makes it the same advice before and after a change."""
        return self.stop, self.code


@dataclass(frozen=True, slots=True)
class Working:
    """How one number was got: ``of`` names it (``lock_in.block.thickness_mm``)."""

    of: str
    text: str


def worst(a: Tone, b: Tone) -> Tone:
    """The graver of two tones."""
    return min(a, b, key=lambda t: TONES[t])
