"""What a dough is rolled by and where: the sheeter, the bench, and which of them a plan uses."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.kitchen.kitchen import Kitchen
from lamination.terms.sizes import Size
from lamination.terms.trade import Tool


@dataclass(frozen=True, slots=True)
class Sheeter:
    """A dough sheeter: its belt, its dial and how hard it may press, mm and shares.

    ``share_thick`` and ``share_thin``: the least share of the last gap a pass may take, above and
    below ``thick_mm``. ``spring_back``: sheet thickness over gap.
    ``dial_mm``: the gaps that the house rolls through, the widest first; none: by the shares.
    """

    belt_length_mm: float
    belt_width_mm: float
    widest_mm: float
    narrowest_mm: float
    step_mm: float
    share_thick: float
    share_thin: float
    spring_back: float
    thick_mm: float = 10.0
    dial_mm: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True)
class Rolled:
    """What a plan is rolled by in a kitchen: the tool, the machine if it is one, and its room, mm.

    ``absent``: a sheeter is wanted where there is none.
    """

    tool: Tool
    machine: Sheeter | None
    where: str
    long_mm: float
    wide_mm: float
    slack_mm: float
    absent: bool = False

    def holds(self, sheet: Size) -> bool:
        """Whether a sheet lies there, either way round."""
        return sheet.lies_on(self.long_mm, self.wide_mm, self.slack_mm)


def sheeter_of(kitchen: Kitchen) -> Sheeter | None:
    """The sheeter of a kitchen; None where the belt's width is 0."""
    if kitchen["sheeter.belt_width_mm"] <= 0:
        return None
    return Sheeter(
        kitchen["sheeter.belt_length_mm"],
        kitchen["sheeter.belt_width_mm"],
        kitchen["sheeter.widest_mm"],
        kitchen["sheeter.narrowest_mm"],
        kitchen["sheeter.step_mm"],
        kitchen["sheeter.share_thick"],
        kitchen["sheeter.share_thin"],
        kitchen["sheeter.spring_back"],
        kitchen["sheeter.thick_mm"],
        tuple(sorted(set(kitchen.dial), reverse=True)),
    )


def rolled_by(tool: Tool | None, kitchen: Kitchen) -> Rolled:
    """What a plan is rolled by: as it says, or else by the sheeter where there is one."""
    machine = sheeter_of(kitchen)
    used = tool or (Tool.SHEETER if machine else Tool.HAND)
    slack = kitchen["fit.slack_mm"]
    if machine and used is Tool.SHEETER:
        return Rolled(used, machine, "belt", machine.belt_length_mm, machine.belt_width_mm, slack)
    long, wide = kitchen["bench.length_mm"], kitchen["bench.width_mm"]
    return Rolled(used, None, "bench", long, wide, slack, absent=used is Tool.SHEETER)
