"""Causes ranked: how likely each is by what was seen and by the record, with the one thing to change."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import UTC, tzinfo

from lamination.findings.evidence import Evidence, Looked, Missing, looked_at, of_cause
from lamination.findings.record import Record
from lamination.findings.table import MET, BakeCause, Finding, met_after, priors, says_of
from lamination.plan import Plan
from lamination.plan.fixes import taken
from lamination.terms.advice import Fix, Put
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import c, span
from lamination.warmth.windows import Cause

B = BakeCause
_SHOWN = 0.02  # less likely than this is not worth a line
_DECIDES = 2  # how many unmeasured things are named


@dataclass(frozen=True, slots=True)
class Ranked:
    """A cause: how likely, 0 to 1, in a word; what of the record speaks for it and against it; what was seen
    that goes with it; and what was not measured and would decide.
    """

    cause: BakeCause
    name: str
    p: float
    word: str
    goes_with: tuple[Finding, ...]
    supports: tuple[Evidence, ...]
    opposes: tuple[Evidence, ...]
    undecided: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class NextTime:
    """The one thing to change, and why; ``fix``: what it puts in the plan, if it can be put there;
    ``measure``: what to measure besides, which would decide between the likeliest.
    """

    cause: BakeCause
    says: str
    fix: Fix | None
    measure: str


@dataclass(frozen=True, slots=True)
class WhySo:
    """Why a bake may have come out so: the causes worth a line, the likeliest first."""

    causes: tuple[Ranked, ...]
    next_time: NextTime | None


def why(
    record: Record, zone: tzinfo = UTC, confirmed: Mapping[BakeCause, int] | None = None
) -> WhySo:
    """Rank the causes of what was seen.

    The log of how often a cause is met in this family, of what was seen, and of all that the record says;
    then as shares that add up to 1. Never certain: one of the causes is taken to be there. Source: the
    table of practice (:mod:`lamination.findings.table`); Bayes' rule.
    """
    looked = looked_at(record, zone)
    usual = priors(record.plan.family, confirmed)
    scores = {
        cause: math.log(share)
        + says_of(cause, record.seen)
        + sum(e.weighs for e in looked.found if e.cause is cause)
        for cause, share in usual.items()
    }
    top = max(scores.values())
    whole = sum(math.exp(s - top) for s in scores.values())
    order = sorted(scores, key=lambda cause: -scores[cause])
    ranked = tuple(
        _ranked(cause, math.exp(scores[cause] - top) / whole, record, looked)
        for n, cause in enumerate(order)
        if n < 3 or math.exp(scores[cause] - top) / whole >= _SHOWN
    )
    return WhySo(ranked, _next_time(record, looked, ranked) if record.seen else None)


def _ranked(cause: BakeCause, p: float, record: Record, looked: Looked) -> Ranked:
    mine = list(of_cause(looked.found, cause))
    goes = tuple(f for f in record.seen if met_after(cause, f) > 1.4 * MET[f])
    return Ranked(
        cause, cause.said, p, _word(p), goes,
        tuple(e for e in mine if e.weighs > 0), tuple(e for e in mine if e.weighs <= 0),
        tuple(m.says for m in looked.missing if cause in m.causes),
    )  # fmt: skip


def _word(p: float) -> str:
    if p >= 0.55:
        return "most likely"
    if p >= 0.2:
        return "possible"
    return "less likely"


def _next_time(record: Record, looked: Looked, ranked: tuple[Ranked, ...]) -> NextTime | None:
    first = ranked[0]
    measure = _would_decide(looked.missing, ranked)
    says, puts = _change(first.cause, record, looked)
    fix = Fix(says, puts) if puts else None
    return NextTime(first.cause, says, fix, measure)


def _would_decide(missing: list[Missing], ranked: tuple[Ranked, ...]) -> str:
    likely = {r.cause: r.p for r in ranked[:4]}
    by_weight = sorted(missing, key=lambda m: -sum(likely.get(c, 0.0) for c in m.causes))
    named = [m.says for m in by_weight[:_DECIDES] if any(c in likely for c in m.causes)]
    return named[0] if named else ""


_WORDS: dict[BakeCause, str] = {
    B.BUTTER_HARD: "Take the butter out earlier, and bend it before it goes in.",
    B.BUTTER_SOFT: "Take the butter out later, and chill the dough longer before it is rolled.",
    B.FEW_LEAVES: "Fold it once more, or with a book fold in place of a letter fold.",
    B.MERGED: "Fold it once less, or roll the last sheet a little thicker.",
    B.REST_SHORT: "Give it the whole rest before it is rolled again.",
    B.ROLLED_FAST: "Roll it down in more and smaller steps.",
    B.PROOFER_DRY: "Put a bowl of hot water beside the trays, or cover them.",
    B.UNEVEN_SHEET: "Measure the last sheet in five places before it is cut.",
    B.MARGIN: "Trim the closed edges off before the cut.",
    B.WASH: "Wash with a soft brush, and keep it off the cut faces.",
    B.WARM_CUT: "Chill the last sheet before it is cut.",
    B.OVEN_COOL: "Let the oven come to its heat, and look at it once the trays are in.",
    B.OVERMIXED: "Mix it less: what is rolled eight times is kneaded by that.",
    B.OLD_FLOUR: "Try a fresh bag of flour.",
    B.YEAST: "Weigh the yeast on the small scale.",
    B.SALT: "Weigh the salt on the small scale.",
}


def _change(cause: BakeCause, record: Record, looked: Looked) -> tuple[str, tuple[Put, ...]]:
    """What to change, in a sentence, and what of it can be put into the plan."""
    if cause in (B.UNDER, B.OVER):
        window = next((w for w in looked.followed.windows if w.reached_pct is not None), None)
        if window and window.best_min is not None:
            return _longer(record.plan, window.stop, window.best_min, looked)
    if cause is B.REST_SHORT:
        short = [
            w for w in looked.followed.windows
            if w.by is Cause.RELAXING and w.verdict == "short" and w.good_from_min is not None
        ]  # fmt: skip
        if short:
            worst = max(short, key=lambda w: (w.good_from_min or 0) - w.chosen_min)
            return _longer(record.plan, worst.stop, worst.good_from_min or 0.0, looked)
    if cause is B.PROOFER_WARM:
        return _cooler_proofer(record.plan, looked)
    says = _WORDS.get(cause, cause.said)
    return says, _remembered(cause, says, record.plan)


_AT: dict[BakeCause, tuple[str, ...]] = {
    B.BUTTER_HARD: ("lock_in",), B.BUTTER_SOFT: ("lock_in",), B.ROLLED_FAST: ("turn",),
    B.UNEVEN_SHEET: ("last_sheet", "final"), B.MARGIN: ("last_sheet", "final"),
    B.WARM_CUT: ("cut",), B.WASH: ("wash",), B.OVEN_COOL: ("bake",), B.OVERMIXED: ("mix",),
    B.OLD_FLOUR: ("mix",), B.YEAST: ("mix",), B.SALT: ("mix",), B.PROOFER_DRY: ("shape",),
}  # fmt: skip


def _remembered(cause: BakeCause, says: str, plan: Plan) -> tuple[Put, ...]:
    """The sentence put among the baker's own words at the step it belongs to."""
    kinds = _AT.get(cause, ())
    n = next((n for n, s in enumerate(plan.steps) if s.kind_name in kinds or s.id in kinds), None)
    if n is None:
        return ()
    words = plan.steps[n].words
    if says in words:
        return ()
    return (Put(f"steps[{n}].words", f"{words} {says}".strip()[:2_000]),)


def _longer(plan: Plan, stop: str, minutes: float, looked: Looked) -> tuple[str, tuple[Put, ...]]:
    n = plan.at(stop)
    was = plan.steps[n].rest
    minutes = 5.0 * math.ceil(minutes / 5 - 1e-9)
    if was is None:
        return f"Rest {span(minutes)} after {looked.name(stop)}.", ()
    made = plan.steps[n].resting(minutes).rest
    says = f"Rest {span(minutes)} after {looked.name(stop)}; the plan has {span(was.minutes)}."
    if made == was:
        return (
            f"Give it the whole {span(minutes)} after {looked.name(stop)}, as the plan has it.",
            (),
        )
    return says, (Put(f"steps[{n}].rest", made),)


def _cooler_proofer(plan: Plan, looked: Looked) -> tuple[str, tuple[Put, ...]]:
    oils = looked.followed.walk.recipe.window.oils_c
    to = math.floor(oils - 3)
    says = f"Proof at no more than {c(to)}: the butter lets go at {c(oils)}."
    for n, step in enumerate(plan.steps):
        if step.proofs and step.rest:
            k = step.gives
            stays = tuple(
                replace(s, air_c=float(to)) if i == k else s for i, s in enumerate(step.rest.stays)
            )
            return says, (Put(f"steps[{n}].rest", replace(step.rest, stays=stays)),)
    return says, ()


def put_into(now: Plan, then: Plan, fix: Fix, because: str) -> Plan:
    """The plan as it is now with a change that was found at the plan of then, and why among its words.

    Steps are found by their ids. Raises Faults where the step is not there any more.
    """
    puts = []
    for put in fix.puts:
        found = _STEP.match(put.field)
        if found is None:
            raise Faults(Fault("", f"“{put.field}” is no part of a step."))
        step = then.steps[int(found[1])].id
        n = now.at(step)
        if n < 0:
            raise Faults(Fault("", "The plan has this step no more. Change it by hand."))
        puts.append(Put(f"steps[{n}]{found[2]}", put.value))
    made = taken(now, Fix(fix.label, tuple(puts)))
    words = f"{made.words}\n{because}".strip() if because not in made.words else made.words
    return replace(made, words=words[-_MOST_WORDS:])


_STEP = re.compile(r"steps\[(\d+)\](\..+)")
_MOST_WORDS = 4_000
