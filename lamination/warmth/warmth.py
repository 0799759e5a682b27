"""A plan's warmth in words: the day in a sentence, advice at its steps, the proof, and what if."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace

from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Window
from lamination.plan.fixes import taken
from lamination.plan.plan import Plan
from lamination.terms.advice import TONES, Fix, Note
from lamination.terms.limits import Faults
from lamination.terms.said import c, listed, span
from lamination.warmth.bodies import Today
from lamination.warmth.follow import follow
from lamination.warmth.followed import Followed, Stretch, Trace, Until, WorkClock, Works
from lamination.warmth.proof import Proof, proof_of
from lamination.warmth.ways import low, ways
from lamination.warmth.windows import Cause, RestWindow

_NOTICED_MIN = 2  # less than this nobody would notice
_MOST_FIXES = 2
_MOST_TRIES = (
    12  # each follows the whole plan anew: a dough that fails everywhere wants a cooler room
)


@dataclass(frozen=True, slots=True)
class WorkedWarmth:
    """All that follows from a plan's temperatures today.

    ``works``: yes, tight (``summary`` says what to be quick at) or no (what to change). ``warmer``:
    what two degrees more would change. ``rise_pct`` and ``ripe_h`` at the end.
    """

    room_c: float
    fridge_c: float
    freezer_c: float
    windows: tuple[RestWindow, ...]
    clocks: tuple[WorkClock, ...]
    stretches: tuple[Stretch, ...]
    trace: Trace
    butter: Window
    rise_pct: float | None
    ripe_h: float | None
    proof: Proof | None
    works: Works
    summary: str
    warmer: str
    notes: tuple[Note, ...]

    def window(self, stop: str) -> RestWindow | None:
        """The window of the rest after a step."""
        return next((w for w in self.windows if w.stop == stop), None)


def work_warmth(
    plan: Plan,
    kitchen: Kitchen,
    today: Today | None = None,
    what_if: bool = False,
    fixes: bool = True,
) -> WorkedWarmth:
    """Follow a plan through its temperatures and put into words what matters.

    ``what_if`` also works it two degrees warmer; without ``fixes`` no ways out are looked for. Raises
    Faults as :func:`~lamination.plan.walk.walk` does.
    """
    today = today or Today()
    found = follow(plan, kitchen, today)
    names = dict(zip((s.id for s in plan.steps), found.walk.names, strict=True))
    proof = proof_of(found)
    works, summary = _summary(found, proof, names)
    notes = tuple(_notes(plan, found, proof, names))
    if fixes:
        notes = tuple(_with_ways_out(plan, kitchen, today, found, notes, names))
    return WorkedWarmth(
        found.kitchen["room.c"],
        found.kitchen["fridge.c"],
        found.kitchen["freezer.c"],
        found.windows,
        found.clocks,
        found.stretches,
        found.trace,
        found.walk.recipe.window,
        found.rise_pct,
        found.ripe_h,
        proof,
        works,
        summary,
        _warmer(plan, kitchen, today, found, names) if what_if else "",
        notes,
    )


def _tightest(clocks: Iterable[WorkClock]) -> WorkClock | None:
    timed = [c for c in clocks if c.lasts_min is not None and c.takes_min > 0]
    return min(timed, key=lambda c: (c.lasts_min or 0) / c.takes_min, default=None)


def _softens(clock: WorkClock) -> str:
    lasts = clock.lasts_min or 0.0
    return (
        f"the butter softens in {span(lasts)}" if lasts >= 1 else "the butter is too soft already"
    )


def _summary(found: Followed, proof: Proof | None, names: dict[str, str]) -> tuple[Works, str]:
    here = f"At {c(found.kitchen['room.c'])}"
    hopeless = [k for k in found.clocks if k.works == "no"]
    if hopeless:
        clock = min(hopeless, key=lambda k: k.lasts_min or 0)
        return "no", (
            f"{here} this does not work as it stands: at {low(names[clock.stop])} {_softens(clock)} "
            f"and the work takes {span(clock.takes_min)}. Start with a colder dough, chill what you roll "
            "on, rest before every turn, or begin at a cooler hour."
        )
    out = [w for w in found.windows if w.verdict in ("short", "long")]
    if out:
        said = [
            f"{low(names[w.stop])} wants a "
            + ("longer rest" if w.verdict == "short" else "shorter or milder rest")
            for w in out[:2]
        ]
        more = f", and {len(out) - 2} more another" if len(out) > 2 else ""
        return "tight", f"{here} it works, and {listed(said)} after it{more}."
    quick = [k for k in found.clocks if k.works == "tight"]
    if quick:
        where = listed([low(names[k.stop]) for k in quick])
        return "tight", (
            f"{here} it works with quick hands at {where}: rest before, in the freezer first, or on a "
            "chilled bench."
        )
    tight = [w for w in found.windows if w.verdict == "tight"]
    if tight:
        return "tight", f"{here} it works; look at the rest after {low(names[tight[0].stop])}."
    if proof and proof.hot:
        return "tight", f"{here} it works, and the proof is too warm for this butter."
    clock_ = _tightest(found.clocks)
    if clock_ and clock_.lasts_min is not None:
        return "yes", (
            f"{here} it works as planned: the butter lasts {span(clock_.lasts_min)} at "
            f"{low(names[clock_.stop])}, for {span(clock_.takes_min)} of work."
        )
    if found.walk.recipe.butterless:
        return "yes", f"{here} it works as planned."
    return "yes", f"{here} it works as planned, and the butter never gets too warm on the bench."


# --- advice


def _notes(
    plan: Plan, found: Followed, proof: Proof | None, names: dict[str, str]
) -> Iterator[Note]:
    for w in found.windows:
        if w.verdict != "good":
            yield _on_window(plan, w)
    for until in found.until:
        yield from _on_until(plan, until)
    for clock in found.clocks:
        if clock.works != "yes":
            yield _on_clock(found, clock)
    room, fridge = found.kitchen["room.c"], found.kitchen["fridge.c"]
    if fridge > room:
        yield Note(
            "fridge-warm", plan.steps[0].id, "know", "The fridge is warmer than the room",
            f"It is {c(fridge)} in the fridge and {c(room)} in the room. If that is so, rest on the bench.",
        )  # fmt: skip
    if proof is not None and (plan.cut or proof.hot):
        last = [s.id for s in plan.steps if s.kind_name in ("shape", "cut")]
        if last:
            yield Note(
                "proof-hot" if proof.hot else "proof", last[-1], "mind" if proof.hot else "know",
                "Too warm for this butter" if proof.hot else "Then the proof", proof.says,
            )  # fmt: skip


_TITLES = {
    ("short", Cause.RELAXING): "Not relaxed yet",
    ("short", Cause.PROOF): "Under-proofed",
    ("long", Cause.OVER): "Over-proofed",
    ("long", Cause.FROZEN): "Frozen",
    ("long", Cause.BRITTLE): "Too cold to roll",
    ("long", Cause.SOFT): "Too warm there",
    ("long", Cause.COOLING): "Too warm there",
    ("long", Cause.RISING): "It rises between the turns",
    ("long", Cause.RIPE): "Left too long",
    ("long", Cause.DRIES): "Left too long",
}


def _on_window(plan: Plan, w: RestWindow) -> Note:
    n = plan.at(w.stop)
    path = f"steps[{n}].rest.stays[{plan.steps[n].gives}].minutes"
    if w.verdict == "tight":
        title = "Tight" if w.by not in (Cause.RIPE, Cause.RISING) else "Use it soon"
        return Note(f"rest-tight-{w.by or 'edge'}", w.stop, "tight", title, w.says, path)
    title = "Too soon" if w.verdict == "short" else "Too long"
    if w.by:
        title = _TITLES.get((w.verdict, w.by), title)
    return Note(f"rest-{w.verdict}", w.stop, "mind", title, w.says, path)


def _on_until(plan: Plan, until: Until) -> Iterator[Note]:
    """A stay that ends by the warmth of the middle, reckoned with other minutes than it takes."""
    n = plan.at(until.stop)
    rest = plan.steps[n].rest
    assert rest is not None
    stay = rest.stays[until.stay]
    path = f"steps[{n}].rest.stays[{until.stay}].minutes"
    wanted = f"{c(stay.until_c or 0.0)} in the middle {stay.there}"
    if until.there_min is None:
        yield Note(
            "until", until.stop, "mind", "It never gets there",
            f"After {span(stay.minutes)} it is {c(until.end_c)}: {wanted} is not reached. Rest it somewhere "
            "else, or ask for less.", path,
        )  # fmt: skip
    elif abs(until.there_min - stay.minutes) > max(_NOTICED_MIN, 0.1 * stay.minutes):
        there = span(max(round(until.there_min), 1))
        yield Note(
            "until", until.stop, "know", f"There after {there}",
            f"{wanted} takes {there} by the model; the plan reckons with {span(stay.minutes)}. The probe "
            "decides at the bench.", path,
        )  # fmt: skip


def _on_clock(found: Followed, clock: WorkClock) -> Note:
    lasts = span(clock.lasts_min or 0)
    room = c(found.kitchen["room.c"])
    if clock.works == "tight":
        return Note(
            "clock-tight", clock.stop, "tight",
            f"Be quick: {lasts} until the butter is too soft" if (clock.lasts_min or 0) >= 1
            else "Be quick: the butter is nearly too soft already",
            f"The work takes {span(clock.takes_min)} in a room of {room}. A chilled bench, or ten minutes "
            "more in the fridge before, gives you time.",
        )  # fmt: skip
    return Note(
        "clock", clock.stop, "mind",
        f"{lasts} until the butter is too soft" if (clock.lasts_min or 0) >= 1 else "Too soft already",
        f"The work takes {span(clock.takes_min)} in a room of {room}. Keep it colder before, work in two "
        "halves with the fridge between, or chill what you roll on.",
    )  # fmt: skip


# --- ways out: each is tried before it is offered


def _with_ways_out(
    plan: Plan,
    kitchen: Kitchen,
    today: Today,
    found: Followed,
    notes: tuple[Note, ...],
    names: dict[str, str],
) -> Iterator[Note]:
    codes = {n.key: TONES[n.tone] for n in notes}
    tries = 0
    for note in notes:
        good: list[Fix] = []
        for fix in ways(plan, found, note, names):
            if len(good) == _MOST_FIXES or tries == _MOST_TRIES:
                break
            tries += 1
            if _clears(plan, kitchen, today, note, fix, codes):
                good.append(fix)
        yield replace(note, fixes=tuple(good))


def _of(note: Note) -> str:
    """What advice is about: a rest, the clock, the proof."""
    return note.code.split("-")[0]


def _clears(
    plan: Plan,
    kitchen: Kitchen,
    today: Today,
    note: Note,
    fix: Fix,
    before: dict[tuple[str, str], int],
) -> bool:
    """Whether a way out clears what it is offered for, and raises nothing worse than there was."""
    try:
        after = work_warmth(taken(plan, fix), kitchen, today, fixes=False).notes
    except Faults:
        return False
    said = {n.stop for n in after if n.tone != "know" and _of(n) == _of(note)}
    if note.stop in said:
        return False
    return all(
        n.tone not in ("mind", "tight") or before.get(n.key, 9) <= TONES[n.tone] for n in after
    )


def _warmer(
    plan: Plan, kitchen: Kitchen, today: Today, found: Followed, names: dict[str, str]
) -> str:
    hotter = follow(plan, kitchen, replace(today, room_c=found.kitchen["room.c"] + 2))
    said = []
    now = _tightest(found.clocks)
    if now and now.lasts_min:
        then = next(k for k in hotter.clocks if k.stop == now.stop)
        if then.lasts_min is not None:
            less = round(now.lasts_min) - round(then.lasts_min)
            said.append(f"the butter lasts {span(less)} less at {low(names[now.stop])}")
    for a, b in zip(found.windows, hotter.windows, strict=True):
        if a.good_from_min is not None and b.good_from_min is not None:
            more = round(b.good_from_min) - round(a.good_from_min)
            if more >= _NOTICED_MIN:
                said.append(f"the dough needs {span(more)} more rest after {low(names[a.stop])}")
    return f"Two degrees warmer: {listed(said, 'and') or 'nothing that one would notice'}."
