"""A baker's own shaping card: steps in words, each drawn from simple parts, and the size it comes to."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from lamination.terms.limits import Checked, Fault, Faults, Length, Range
from lamination.terms.trade import Worded

Percent = Annotated[float, Range(0, 100, "%")]
Made = Annotated[float, Range(2, 1_000, "mm")] | None


class Part(Worded):
    """What a line of a drawing is."""

    FOLD = "fold", "fold"
    CUT = "cut", "cut"
    ARROW = "arrow", "move"


@dataclass(frozen=True)
class CardLine(Checked):
    """A line of a step's drawing: from and to, % of the piece's length and height from its near corner."""

    step: Annotated[int, Range(0, 7)]
    part: Part
    from_x: Percent
    from_y: Percent
    to_x: Percent
    to_y: Percent


@dataclass(frozen=True)
class CardPicture(Checked):
    """A picture taken of a step, by the name it is kept under in the house."""

    step: Annotated[int, Range(0, 7)]
    picture: Annotated[str, Length(1, 40, "characters")]


@dataclass(frozen=True)
class OwnCard(Checked):
    """How a baker shapes a piece: steps in words, their drawings and pictures, where wash seals, its size.

    Without sizes it is as large as it was cut. Raises Faults for a drawing or picture of a step there is
    not.
    """

    key: Annotated[str, Length(1, 40, "characters")]
    name: Annotated[str, Length(1, 60, "characters")]
    steps: Annotated[
        tuple[Annotated[str, Length(1, 200, "characters")], ...], Length(1, 8, "steps")
    ]
    lines: Annotated[tuple[CardLine, ...], Length(0, 60, "lines")] = ()
    seal: Annotated[str, Length(0, 200, "characters")] = ""
    length_mm: Made = None
    width_mm: Made = None
    thickness_mm: Made = None
    pictures: Annotated[tuple[CardPicture, ...], Length(0, 8, "pictures")] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        of_steps = [("line", n, line.step) for n, line in enumerate(self.lines)]
        of_steps += [("picture", n, shown.step) for n, shown in enumerate(self.pictures)]
        for what, n, step in of_steps:
            if step >= len(self.steps):
                text = f"This {what} belongs to a step the card has not."
                raise Faults(Fault(f"{what}s[{n}].step", text))
