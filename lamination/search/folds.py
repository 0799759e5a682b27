"""Which folds would do: every sequence of folds searched, the best for a wish shown with its reason.

Counts, sizes and rests of a sequence follow in closed form from those of the one before, so that
all 87 380 sequences of up to eight folds take a tenth of a second. Only the few best are then worked
whole, where margins, bends and waste can be seen.
"""

from __future__ import annotations

import heapq
import math
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Annotated

from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.machines import Rolled
from lamination.plan.plan import Plan
from lamination.plan.walk import walk
from lamination.plan.work import work
from lamination.plan.worked import Facts, WorkedPlan
from lamination.sheet.stacks import Material
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockInFigures
from lamination.steps.turn import Turn
from lamination.terms.limits import Checked, Faults, Range
from lamination.terms.rests import Rest
from lamination.terms.said import counted, g, mm, say, um
from lamination.terms.sizes import Size
from lamination.terms.trade import Fold, Method, Place, Worded

MOST_TURNS = 8
_LOOKED_INTO = 8  # sequences of each length that are worked whole
_BEST = 4  # and of those, how many are shown


class Wish(Worded):
    """What a baker wants more of."""

    LEAVES = "leaves", "Most leaves"
    WASTE = "waste", "Least waste"
    RESTS = "rests", "Fewest rests"
    BENCH = "bench", "Shortest sheet"


@dataclass(frozen=True)
class Search(Checked):
    """The part of the search to do: all sequences of exactly so many turns."""

    wish: Wish
    turns: Annotated[int, Range(1, MOST_TURNS, "turns")]


@dataclass(frozen=True, slots=True)
class Suggestion:
    """A sequence that meets the wish. Of two, the one with the lower ``rank`` is better."""

    turns: tuple[Turn, ...]
    facts: Facts
    reason: str
    rank: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Found:
    """How many sequences were looked at, how many of them would do, and the best few.

    ``why_none``: what stands in the way, where none would do.
    """

    searched: int
    would_do: int
    suggestions: tuple[Suggestion, ...]
    why_none: str


_REFUSED = {
    "few": "So few folds leave fewer butter layers than is usual.",
    "many": "So many folds make more butter layers than is usual.",
    "thin": "The butter layers would be thinner than is usual.",
    "thick": "The butter layers would be thicker than is usual.",
    "sheet": "The last sheet will not fit the bench: roll it thicker, or divide the dough.",
}
_NO_ROLL = "The sheets will not fit the bench: roll thicker, or divide the dough."


# Ways and counts are made by the thousand; nothing changes one, but a frozen one takes three times as long.
_ORDER = {fold: n for n, fold in enumerate(Fold)}
_LIES_APART = tuple({fold.lies: fold for fold in reversed(Fold)}.values())[::-1]


@dataclass(slots=True)
class Count:
    """Leaves of butter and of dough, and whether butter lies at the bottom and on top."""

    butter: int
    dough: int
    butter_below: bool
    butter_above: bool


def folded_count(count: Count, fold: Fold) -> Count:
    """The count after a fold, where equal materials fuse: the closed form of the cell model."""
    ways = fold.lies
    n = len(ways)
    # whether butter lies below and on top of a panel, as it lies and turned over
    ends = (
        (count.butter_below, count.butter_above),
        (count.butter_above, count.butter_below),
    )
    butter, dough = n * count.butter, n * count.dough
    for one, two in pairwise(ways):
        above, below = ends[one][1], ends[two][0]
        if above and below:
            butter -= 1
        elif not above and not below:
            dough -= 1
    return Count(butter, dough, ends[ways[0]][0], ends[ways[-1]][1])


@dataclass(slots=True)
class _Way:
    """A sequence so far: its turns, count and package (length the way it was folded)."""

    folds: tuple[Fold, ...]
    widths: tuple[float | None, ...]
    count: Count
    length: float
    width: float
    thick: float
    longest: float


def suggest(plan: Plan, search: Search, kitchen: Kitchen | None = None) -> Found:
    """Search all sequences of ``search.turns`` folds for this dough, block, last sheet and kitchen.

    A sequence would do when its butter layers are usual for the family, in number and in thickness
    in the last sheet, its rolls lie on the bench (rolled wider first where that helps) and each is
    thinner than what it starts from. Rolls and trims are those of the plan's first turn; rests stand
    as seldom as the kitchen allows.
    """
    kitchen = kitchen or Kitchen()
    plan = _by_thickness(plan, kitchen)
    pattern = plan.turns[0] if plan.turns else Turn(Fold.LETTER, 8, rest=Rest.at(Place.FRIDGE, 40))
    top = kitchen[f"{plan.family}.butter_layers.high"]
    low = kitchen[f"{plan.family}.butter_layers.low"]
    thinnest = kitchen[f"{plan.family}.butter_um.low"]
    thickest = kitchen[f"{plan.family}.butter_um.high"]
    start, butter_um, room = _start(plan, kitchen)
    would_do, refused = 0, Counter[str]()
    # Of sequences with the same folds in another order, the best order stands for all; of equals, the
    # first in the order of the folds.
    best: dict[tuple[int, ...], tuple[tuple[float, ...], list[int], _Way]] = {}
    for way in _ways(start, plan, pattern, room, search.turns, top):
        alike = 2 ** way.folds.count(Fold.BOOK)
        thin = butter_um / way.count.butter
        if not low <= way.count.butter <= top:
            refused["few" if way.count.butter < low else "many"] += alike
        elif not thinnest <= thin <= thickest:
            refused["thin" if thin < thinnest else "thick"] += alike
        elif not _last_fits(way, plan, room):
            refused["sheet"] += alike
        else:
            would_do += alike
            books = [n for n, fold in enumerate(way.folds) if fold is Fold.BOOK]
            for n in range(len(books) + 1):
                folds = list(way.folds)
                for at in books[n:]:
                    folds[at] = Fold.OFFSET_BOOK
                order = [_ORDER[f] for f in folds]
                kind = tuple(map(order.count, _ORDER.values()))
                one = replace(way, folds=tuple(folds))
                key = (_first_rank(one, search.wish), order, one)
                if kind not in best or key[:2] < best[kind][:2]:
                    best[kind] = key
    chosen = [
        way for _, _, way in heapq.nsmallest(_LOOKED_INTO, best.values(), key=lambda b: b[:2])
    ]
    looked = [
        s for s in (_look_into(way, plan, pattern, search.wish, kitchen) for way in chosen) if s
    ]
    looked.sort(key=lambda s: s.rank)
    looked = list({_books_alike(s): s for s in reversed(looked)}.values())[::-1]
    searched = len(Fold) ** search.turns
    why = _REFUSED[max(refused, key=lambda r: (r == "sheet", refused[r]))] if refused else _NO_ROLL
    return Found(searched, would_do, tuple(looked[:_BEST]), "" if looked else why)


def _by_thickness(plan: Plan, kitchen: Kitchen) -> Plan:
    """The plan with every roll that was chosen by its size chosen by the thickness that comes of it."""
    found = walk(plan, kitchen)
    steps = []
    for step, made in zip(plan.steps, found.made, strict=True):
        if isinstance(step, Turn) and step.length_mm:
            thick = made.figures.rolled.thickness_mm
            step = replace(step, roll_to_mm=round(thick, 2), length_mm=None)
        elif isinstance(step, LastSheet) and step.length_mm:
            thick = made.figures.thickness_mm
            step = replace(step, roll_to_mm=round(thick, 2), length_mm=None)
        steps.append(step)
    return replace(plan, steps=tuple(steps))


def _books_alike(found: Suggestion) -> tuple[int, ...]:
    """What makes two suggestions the same to a baker: how often each number of panels is folded."""
    return tuple(sorted(turn.fold.multiplies for turn in found.turns))


def _start(plan: Plan, kitchen: Kitchen) -> tuple[_Way, float, Rolled]:
    """The package; how much butter lies in the last sheet from bottom to top, µm; where it is rolled."""
    found = walk(plan, kitchen)
    n = next(n for n, m in enumerate(found.made) if isinstance(m.figures, LockInFigures))
    made = found.made[n]
    full = made.lies.laminate.fullest()
    count = Count(
        full.butter_leaves,
        full.dough_leaves,
        full.lowest is Material.BUTTER,
        full.highest is Material.BUTTER,
    )
    size = made.figures.package
    butter = found.recipe.butter_physics.volume_mm3(found.recipe.block_g)
    whole = size.volume_mm3 + made.lies.waiting_mm3
    start = _Way((), (), count, size.length_mm, size.width_mm, size.thickness_mm, 0.0)
    last = plan.last_sheet.roll_to_mm or 0.0
    return start, 1_000 * butter / whole * last, found.setting.rolled


def _ways(
    way: _Way, plan: Plan, pattern: Turn, room: Rolled, left: int, top: float
) -> Iterator[_Way]:
    """All ways on from here; a branch ends where nothing after it could do. A book stands for an offset
    one too: what lies where is the same.
    """
    if not left:
        yield way
        return
    if way.count.butter > top:
        return
    to = pattern.roll_to_mm
    assert to is not None  # see _by_thickness
    if to >= way.thick:
        return
    wide = way.length
    if pattern.width_mm and pattern.width_mm >= wide:
        wide = pattern.width_mm
    long = way.length * way.width * way.thick / (to * wide)
    chosen = None if wide == way.length else wide
    if long > room.long_mm and wide <= room.wide_mm:
        wide = chosen = float(math.ceil(wide * long / room.long_mm))
        long = way.length * way.width * way.thick / (to * wide)
    if not room.holds(Size(long, wide, to)):
        return
    count = way.count
    if len(way.folds) == 1 and plan.lock_in.method is Method.TWO_GO:
        count = replace(count, butter=count.butter + (not count.butter_above), butter_above=True)
    longest = max(way.longest, long, wide)
    for fold in _LIES_APART:
        n = fold.multiplies
        after = _Way(
            (*way.folds, fold),
            (*way.widths, chosen),
            folded_count(count, fold),
            long / n,
            wide,
            to * n,
            longest,
        )
        yield from _ways(after, plan, pattern, room, left - 1, top)


def _last_fits(way: _Way, plan: Plan, room: Rolled) -> bool:
    to = plan.last_sheet.roll_to_mm
    assert to is not None
    if to >= way.thick:
        return False
    wide = plan.last_sheet.width_mm or way.length
    return room.holds(Size(way.length * way.width * way.thick / (to * wide), wide, to))


def _first_rank(way: _Way, wish: Wish) -> tuple[float, ...]:
    """How a sequence stands before it is worked; what is worked later breaks the ties."""
    offsets = sum(f is Fold.OFFSET_BOOK for f in way.folds)
    if wide_first := sum(w is not None for w in way.widths):
        offsets += wide_first
    if wish is Wish.LEAVES:
        return (-way.count.butter, way.longest, offsets)
    if wish is Wish.BENCH:
        return (way.longest, -way.count.butter, offsets)
    return (len(way.folds), -way.count.butter, way.longest, offsets)


def _look_into(
    way: _Way, plan: Plan, pattern: Turn, wish: Wish, kitchen: Kitchen
) -> Suggestion | None:
    turns = _turns(way, pattern, kitchen)
    try:
        chosen = with_turns(plan, turns)
        worked = work(chosen, kitchen)
    except Faults:
        return None
    if any(n.code == "room" and n.tone == "mind" for n in worked.notes):
        return None
    facts = worked.facts
    rank: dict[Wish, tuple[float, ...]] = {
        Wish.LEAVES: (-facts.butter_layers, facts.turns, -round(facts.full_pct)),
        Wish.WASTE: (round(facts.waste_g), -round(facts.full_pct), facts.turns, facts.bent_pct),
        Wish.RESTS: (facts.rests, facts.turns, -facts.butter_layers),
        Wish.BENCH: (round(facts.longest_mm), facts.turns, -facts.butter_layers),
    }
    return Suggestion(turns, facts, _reason(wish, chosen, worked, kitchen), rank[wish])


def with_turns(plan: Plan, turns: tuple[Turn, ...]) -> Plan:
    """The plan with other turns in place of its own: where the first stood, or after the lock-in.

    What stood between the turns follows them; butter that wants a fold goes before the last.
    """
    butter = [s for s in plan.steps if s.holds_back_pct]
    others = [s for s in plan.steps if not isinstance(s, Turn) and not s.holds_back_pct]
    first = next((n for n, s in enumerate(plan.steps) if isinstance(s, Turn)), None)
    end = first if first is not None else plan.at(plan.lock_in.id) + 1
    at = sum(1 for s in plan.steps[:end] if not s.holds_back_pct)
    return plan.with_steps(*others[:at], *turns[:-1], *butter, *turns[-1:], *others[at:])


def _turns(way: _Way, pattern: Turn, kitchen: Kitchen) -> tuple[Turn, ...]:
    rest = pattern.rest or Rest.at(Place.FRIDGE, 40)
    in_a_row = max(1, int(kitchen["turns_back_to_back"]))
    last = len(way.folds) - 1
    return tuple(
        replace(
            pattern,
            id="",
            fold=fold,
            width_mm=way.widths[i],
            rest=rest if i == last or (i + 1) % in_a_row == 0 else None,
            short_mm=0.0,
            uneven_pct=0.0,
        )
        for i, fold in enumerate(way.folds)
    )


def _reason(wish: Wish, plan: Plan, worked: WorkedPlan, kitchen: Kitchen) -> str:
    facts, family = worked.facts, plan.family.said
    high = say(kitchen[f"{plan.family}.butter_layers.high"])
    layers = f"{facts.butter_layers} butter layers of {um(facts.butter_um)}"
    room = mm(max(walk(plan, kitchen).setting.rolled.long_mm, facts.longest_mm))
    said = {
        Wish.LEAVES: f"{layers}; {family} takes up to {high}.",
        Wish.WASTE: f"{g(facts.waste_g)} left over from one dough, and {layers}.",
        Wish.RESTS: f"{counted(facts.rests, 'rest')} in {counted(facts.turns, 'turn')}, and still "
        f"{layers}.",
        Wish.BENCH: f"The longest sheet is {mm(facts.longest_mm)} where {room} is there; {layers}.",
    }[wish]
    if facts.full_pct < 99.5:
        said += f" {say(facts.full_pct)} % of the sheet has them all."
    return said
