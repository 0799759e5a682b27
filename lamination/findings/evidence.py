"""What a record itself says for and against each cause: its readings, its minutes, its grams.

Each piece of evidence says how much likelier it makes a cause, as a log; what the warmth makes of the
readings is worked by the same simulation that judges the plan.
"""

from __future__ import annotations

import math
import statistics
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from datetime import UTC, tzinfo

from lamination.findings.record import Record
from lamination.findings.table import BakeCause
from lamination.materials.ingredients import Kind
from lamination.plan import Plan
from lamination.run import Probe
from lamination.run.events import EventKind
from lamination.terms.said import c, say, span
from lamination.warmth import Cause, follow
from lamination.warmth.followed import Followed
from lamination.warmth.windows import RestWindow

B = BakeCause
MOST = 3.5  # no single reading decides more than that
_SURE, _WEAK, _AS_EVER = 2.2, 0.7, 0.4
_WARM = {Cause.SOFT: B.BUTTER_SOFT, Cause.BRITTLE: B.BUTTER_HARD, Cause.RELAXING: B.REST_SHORT}


@dataclass(frozen=True, slots=True)
class Evidence:
    """Something of the record that speaks for a cause (``weighs`` above 0) or against it.

    ``stop``: the step it is of; ``measured``: a reading or a weight, and not worked from others.
    """

    cause: BakeCause
    weighs: float
    says: str
    stop: str | None = None
    measured: bool = True


@dataclass(frozen=True, slots=True)
class Missing:
    """Something that was not measured and would decide about causes."""

    says: str
    causes: tuple[BakeCause, ...]


@dataclass
class Looked:
    """A record looked at: how its dough went, by its warmth, and how the plan would have it; what was found.

    What the plan itself has, good bakes have had as well: that speaks little for what was different.
    """

    record: Record
    went: Plan
    followed: Followed
    planned: Followed
    found: list[Evidence] = field(default_factory=list)
    missing: list[Missing] = field(default_factory=list)

    @property
    def names(self) -> dict[str, str]:
        """What each step is called."""
        return {s.key: s.name for s in self.record.worked.strip}

    def name(self, stop: str) -> str:
        """A step within a sentence."""
        name = self.names.get(stop, stop)
        return name[:1].lower() + name[1:]

    def says(
        self, cause: BakeCause, weighs: float, text: str, stop: str | None = None,
        measured: bool = True,
    ) -> None:  # fmt: skip
        """Put down a piece of evidence."""
        limited = max(-MOST, min(MOST, weighs))
        self.found.append(Evidence(cause, limited, text, stop, measured))


def looked_at(record: Record, zone: tzinfo = UTC) -> Looked:
    """All that a record says for and against every cause."""
    went = record.as_it_went()
    planned = follow(record.plan, record.kitchen)
    looked = Looked(record, went, follow(went, record.kitchen, record.today(zone)), planned)
    for look in _LOOKS:
        look(looked)
    return looked


def _butter(of: Looked) -> None:
    """The butter as it went in, against where it bends."""
    window = of.followed.walk.recipe.window
    read = [r for r in of.record.standing.readings if r.probe is Probe.BUTTER]
    if not read:
        of.missing.append(
            Missing("The butter's temperature at the lock-in", (B.BUTTER_SOFT, B.BUTTER_HARD))
        )
    for one in read:
        warm, cold = one.value_c - window.plastic_to_c, window.plastic_from_c - one.value_c
        at = of.record.worked.stop(one.stop) if one.stop else None
        where = f" at {of.name(at.key)}" if at and (at.turn or at.do == "lock_in") else ""
        if warm > 0:
            says = f"butter {c(one.value_c)}{where}; it bends up to {c(window.plastic_to_c)}"
            of.says(B.BUTTER_SOFT, 0.8 + 0.8 * warm, says, one.stop)
        elif cold > 0:
            says = f"butter {c(one.value_c)}{where}; it bends from {c(window.plastic_from_c)}"
            of.says(B.BUTTER_HARD, 0.8 + 0.8 * cold, says, one.stop)
        else:
            says = f"butter {c(one.value_c)}{where}, where it bends"
            of.says(B.BUTTER_SOFT, -1.4, says, one.stop)
            of.says(B.BUTTER_HARD, -1.8, says, one.stop)


def _rests(of: Looked) -> None:
    """Every rest against its marks."""
    done = {d.stop for d in of.record.standing.deeds if d.kind is EventKind.OUT}
    short = soft = hard = 0
    usual = {w.stop: (w.verdict, w.by) for w in of.planned.windows}
    for window in of.followed.windows:
        if window.stop not in done or window.reached_pct is not None:
            continue
        cause = _WARM.get(window.by) if window.by else None
        if window.verdict in ("short", "long") and cause:
            says = f"{span(window.chosen_min)} after {of.name(window.stop)}: {_off(window)}"
            as_ever = usual.get(window.stop) == (window.verdict, window.by)
            weighs = _AS_EVER if as_ever else _SURE + _far(window)
            of.says(cause, weighs, says, window.stop, cause is B.REST_SHORT)
        short += cause is B.REST_SHORT and window.verdict == "short"
        soft += cause is B.BUTTER_SOFT and window.verdict != "good"
        hard += cause is B.BUTTER_HARD and window.verdict != "good"
    if not done:
        of.missing.append(Missing("When each rest was over", (B.REST_SHORT,)))
    elif not short:
        of.says(B.REST_SHORT, -1.6, "no rest was too short for the dough to relax")
    clocks = [k for k in of.followed.clocks if k.lasts_min is not None]
    bad = [k for k in clocks if k.works == "no"]
    as_planned = {k.stop for k in of.planned.clocks if k.works == "no"}
    for clock in bad[:2]:
        says = (
            f"{span(clock.takes_min)} of work at {of.name(clock.stop)}, and the butter bears "
            f"{span(clock.lasts_min or 0)}"
        )
        weighs = _AS_EVER / 2 if clock.stop in as_planned else 1.5
        of.says(B.BUTTER_SOFT, weighs, says, clock.stop, False)
    if not bad and not soft:
        of.says(B.BUTTER_SOFT, -_WEAK, "by the heat it took up, the butter kept", None, False)
    if not hard:
        of.says(B.BUTTER_HARD, -_WEAK, "no rest made the butter brittle", None, False)


def _off(window: RestWindow) -> str:
    if window.verdict == "short":
        good = window.good_from_min
        return f"good from {span(good)}" if good is not None else "never good there"
    return f"good until {span(window.good_until_min or 0)}"


def _far(window: RestWindow) -> float:
    """How far beyond its mark a rest was, as a share of the mark, up to one."""
    mark = window.good_from_min if window.verdict == "short" else window.good_until_min
    if not mark:
        return 0.5
    return min(abs(window.chosen_min - mark) / mark, 1.0)


def _proof(of: Looked) -> None:
    """How far it was proofed when it went into the oven, and how warm the proofer was."""
    window = next((w for w in of.followed.windows if w.reached_pct is not None), None)
    if window is None or window.reached_pct is None:
        return
    standing = of.record.standing
    said = {(d.kind, d.stop) for d in standing.deeds}
    said |= {(d.kind, d.stop) for t in standing.trays for d in t.deeds}
    if (EventKind.OUT, window.stop) not in said:
        of.missing.append(Missing("When the pieces went into the oven", (B.UNDER, B.OVER)))
        return
    says = f"{say(window.reached_pct)} % of a whole proof, by its warmth"
    if window.by is Cause.PROOF and window.verdict in ("short", "tight"):
        of.says(
            B.UNDER, _SURE + _far(window) if window.verdict == "short" else _WEAK, says, window.stop
        )
        of.says(B.OVER, -_SURE, says, window.stop)
    elif window.by is Cause.OVER and window.verdict in ("long", "tight"):
        of.says(
            B.OVER, _SURE + _far(window) if window.verdict == "long" else _WEAK, says, window.stop
        )
        of.says(B.UNDER, -_SURE, says, window.stop)
    else:
        of.says(B.UNDER, -1.6, says, window.stop)
        of.says(B.OVER, -1.6, says, window.stop)


def _proofer(of: Looked) -> None:
    """How warm the proofer was, where somebody looked."""
    oils = of.followed.walk.recipe.window.oils_c
    trays = {s.key for s in of.record.worked.strip if s.trays}
    read = [r for r in of.record.standing.readings if r.stop in trays and r.probe is Probe.DOUGH]
    for one in read:
        warm = one.value_c - (oils - 1.0)
        says = f"{c(one.value_c)} while it proofed; the butter lets go at {c(oils)}"
        of.says(B.PROOFER_WARM, 1.0 + warm if warm > 0 else -_SURE, says, one.stop)
    if not read:
        of.missing.append(Missing("The proofer's temperature", (B.PROOFER_WARM, B.UNDER, B.OVER)))
    of.missing.append(Missing("The proofer's humidity", (B.PROOFER_DRY,)))
    of.missing.append(Missing("The oven's temperature as the pieces went in", (B.OVEN_COOL,)))


def _weights(of: Looked) -> None:
    """How even the pieces were on the scale."""
    grams = [g for p in of.record.standing.pieces for g in p.grams]
    if len(grams) < 4:
        of.missing.append(Missing("The weights of the pieces along the sheet", (B.UNEVEN_SHEET,)))
        return
    spread = 100 * statistics.stdev(grams) / statistics.fmean(grams)
    says = f"pieces differ by {say(spread)} %"
    if spread > 2.5:
        of.says(B.UNEVEN_SHEET, 0.6 + 0.6 * (spread - 2.5), says)
    else:
        of.says(B.UNEVEN_SHEET, -1.6, says)


def _leaves(of: Looked) -> None:
    """Whether the plan's leaves are many and thick enough, where all of them are."""
    layers, plan = of.record.worked.layers, of.record.plan
    kitchen = of.record.kitchen
    few = kitchen.of_family(plan.family, "butter_layers.low")
    thin = kitchen.of_family(plan.family, "butter_um.low")
    says = f"{layers.butter} butter layers of {layers.butter_um:.0f} µm by the plan"
    of.says(B.FEW_LEAVES, 1.2 if layers.butter < few else -1.2, says)
    of.says(B.MERGED, 1.5 if layers.butter_um < thin else -_WEAK, says)
    if layers.full_pct < 80:
        of.says(B.MARGIN, 1.0, f"{say(layers.full_pct)} % of the sheet has all its leaves")


def _cut(of: Looked) -> None:
    """How warm the sheet was under the knife."""
    to = of.followed.walk.recipe.window.plastic_to_c
    before = {"cut"}
    read = [r for r in of.record.standing.readings if r.stop in before and r.probe is Probe.DOUGH]
    for one in read:
        warm = one.value_c - to
        says = f"the sheet was at {c(one.value_c)} under the knife"
        of.says(B.WARM_CUT, 0.8 + 0.8 * warm if warm > 0 else -_SURE, says, one.stop)
    if not read:
        of.missing.append(Missing("The sheet's temperature at the cut", (B.WARM_CUT,)))


def _rolled(of: Looked) -> None:
    """Work that took much less than usual: it was hurried."""
    bench = {s.key: s.bench_min for s in of.record.worked.strip}
    took = {s.id: s.bench_min for s in of.went.steps}
    turns = [s.key for s in of.record.worked.strip if s.turn or s.do == "last_sheet"]
    done = {d.stop for d in of.record.standing.deeds if d.kind is EventKind.DONE}
    hurried = [
        k for k in turns
        if k in done and (took.get(k) or bench[k]) < 0.5 * bench[k] and bench[k] >= 3
    ]  # fmt: skip
    for stop in hurried[:2]:
        says = f"{span(took[stop] or 0)} at {of.name(stop)}, where {span(bench[stop])} are usual"
        of.says(B.ROLLED_FAST, 1.6, says, stop)
    if done and not hurried:
        of.says(B.ROLLED_FAST, -0.9, "no roll was quicker than usual")


def _mixed(of: Looked) -> None:
    """How long it was mixed, against the plan."""
    done = {d.stop for d in of.record.standing.deeds if d.kind is EventKind.DONE}
    took = {s.id: s.bench_min for s in of.went.steps}
    for stop in of.record.worked.strip:
        minutes = took.get(stop.key)
        if stop.do != "mix" or stop.key not in done or minutes is None or stop.bench_min <= 0:
            continue
        times = minutes / stop.bench_min
        says = f"{span(minutes)} at {of.name(stop.key)}; the plan has {span(stop.bench_min)}"
        of.says(B.OVERMIXED, 1.2 + times - 1.3 if times > 1.3 else -0.9, says, stop.key)


def _weighed(of: Looked) -> None:
    """Yeast and salt as they stood on the scales."""
    lines = {line.key: line for s in of.record.worked.sheets for line in s.lines}
    kinds, shelf = {Kind.YEAST: B.YEAST, Kind.SALT: B.SALT}, of.followed.walk.recipe.shelf
    seen: set[BakeCause] = set()
    for one in of.record.standing.weighed:
        line = lines.get(one.line)
        known = line is not None and line.ingredient in shelf
        cause = kinds.get(shelf[line.ingredient].kind) if line and known else None
        if line is None or cause is None or line.grams <= 0:
            continue
        seen.add(cause)
        off = abs(math.log(max(one.grams, 0.01) / line.grams))
        says = f"{line.name}: {say(one.grams)} g in place of {say(line.grams)} g"
        if off > 0.12:
            of.says(cause, 0.8 + 4 * off, says)
        else:
            of.says(cause, -1.6, f"{line.name}: {say(one.grams)} g, as it should be")
    lacking = tuple(b for b in kinds.values() if b not in seen)
    if lacking and of.record.plan.formula:
        of.missing.append(Missing("What yeast and salt really weighed", lacking))


_LOOKS: tuple[Callable[[Looked], None], ...] = (
    _butter, _rests, _proof, _proofer, _weights, _leaves, _cut, _rolled, _mixed, _weighed,
)  # fmt: skip


def of_cause(found: list[Evidence], cause: BakeCause) -> Iterator[Evidence]:
    """The evidence about one cause, what weighs most first."""
    yield from sorted((e for e in found if e.cause is cause), key=lambda e: -abs(e.weighs))
