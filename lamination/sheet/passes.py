"""Rolling: sheeter passes from one thickness to the next, and sizes on the way by hand."""

from __future__ import annotations

import math
from dataclasses import dataclass

from lamination.kitchen.machines import Sheeter
from lamination.terms.sizes import Size

_ON_THE_DIAL = 1e-9  # a gap this close to a step is on it


@dataclass(frozen=True, slots=True)
class Rolling:
    """How one roll is done. ``gaps_mm``: the dial for each pass (none without a sheeter).

    ``flatten_to_mm``: the pin's work first, where the package is thicker than the widest gap.
    ``gives_mm``: what the last gap leaves, spring-back included. ``by_hand``: the sizes on the way,
    the wanted width first, then at thirds of the length still to go.
    """

    gaps_mm: tuple[float, ...]
    flatten_to_mm: float | None
    gives_mm: float
    by_hand: tuple[Size, ...]


def passes(from_mm: float, to_mm: float, machine: Sheeter) -> tuple[float, ...]:
    """The gaps from a package of ``from_mm`` to a sheet of ``to_mm``, each on the dial's step, mm.

    Strictly falling; each no less than the machine's share of the one before (of the package's own
    thickness at first), save where one step of the dial is more than that; the last is the target
    over the spring-back, to the nearest step. Where the house has gaps of its own, it goes through those
    that lie between. Source: trade practice.
    """
    step = machine.step_mm

    def on_dial(mm: float, up: bool) -> float:
        n = math.ceil(mm / step - _ON_THE_DIAL) if up else round(mm / step)
        return n * step

    low = on_dial(machine.narrowest_mm, up=True)
    target = max(on_dial(to_mm / machine.spring_back, up=False), low, step)
    last = min(from_mm, machine.widest_mm)
    if machine.dial_mm:
        between = [
            gap for gap in machine.dial_mm if target + _ON_THE_DIAL < gap < last - _ON_THE_DIAL
        ]
        if from_mm > machine.widest_mm > target:
            between.insert(0, machine.widest_mm)
        return tuple(round(gap, 6) for gap in (*between, target))
    found = []
    if from_mm > machine.widest_mm:
        found.append(math.floor(machine.widest_mm / step + _ON_THE_DIAL) * step)
        last = found[0]
    while last > target + _ON_THE_DIAL:
        share = machine.share_thick if last > machine.thick_mm else machine.share_thin
        gap = max(target, on_dial(last * share, up=True))
        if gap >= last - _ON_THE_DIAL:
            gap = max(target, (math.ceil(last / step - _ON_THE_DIAL) - 1) * step)
        found.append(gap)
        last = gap
    return tuple(round(gap, 6) for gap in found)


def rolling(package: Size, sheet: Size, machine: Sheeter | None) -> Rolling:
    """How ``package`` (as it lies, length along the roll) becomes ``sheet``."""
    gaps = passes(package.thickness_mm, sheet.thickness_mm, machine) if machine else ()
    thick = machine is not None and package.thickness_mm > machine.widest_mm
    return Rolling(
        gaps,
        machine.widest_mm if machine and thick else None,
        gaps[-1] * machine.spring_back if machine and gaps else sheet.thickness_mm,
        _by_hand(package, sheet),
    )


def _by_hand(package: Size, sheet: Size) -> tuple[Size, ...]:
    volume = sheet.volume_mm3
    found = []
    start = package
    if sheet.width_mm > package.width_mm * 1.001:
        wide = volume / (package.length_mm * sheet.width_mm)
        start = Size(package.length_mm, sheet.width_mm, wide)
        found.append(start)
    for third in (1 / 3, 2 / 3):
        length = start.length_mm + third * (sheet.length_mm - start.length_mm)
        found.append(Size(length, sheet.width_mm, volume / (length * sheet.width_mm)))
    return tuple(found)
