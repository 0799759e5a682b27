"""Doughs of one plan that are mixed in one go."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from lamination.day.threads import Thread
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.steps.mix import Mixing


def mixed_together(
    threads: Sequence[Thread], plans: Mapping[str, Plan], kitchen: Kitchen
) -> list[Thread]:
    """Doughs of one plan that one mixing does: as many as the mixer takes and the rest after it bears.

    What has begun already is left as it is, and so is what somebody fixed up to its mixing.
    """
    found: dict[str, Thread] = {t.dough: t for t in threads}
    alike: dict[Plan, list[Thread]] = {}
    for thread in threads:
        # what comes out of the cold store was mixed long ago
        whole = thread.jobs[0].step == plans[thread.dough].steps[0].id
        if whole and not thread.done:
            plan = replace(plans[thread.dough], name="-", words="")
            alike.setdefault(plan, []).append(thread)
    for plan, several in alike.items():
        trunk = next((n + 1 for n, s in enumerate(plan.steps) if isinstance(s, Mixing)), 0)
        several = [t for t in several if not any(j.step in t.held for j in t.jobs[:trunk])]
        if not trunk or trunk >= len(plan.steps) or not several:
            continue
        mixing = plan.steps[trunk - 1]
        assert isinstance(mixing, Mixing)
        most_g = kitchen["mixer.by_hand_most_g" if mixing.by_hand else "mixer.most_g"]
        many = max(int(most_g / plan.dough.mass_g + 1e-9), 1)
        gap, then = several[0].gaps[trunk - 1], several[0].jobs[trunk]
        if gap.good_until is not None:
            many = min(many, 1 + max(gap.good_until - gap.chosen, 0) // max(then.minutes, 1))
        for leader, *others in _at_one_time(several, trunk, many):
            for other in others:
                found[other.dough] = replace(other, trunk=trunk, leader=leader.dough)
            if others:
                found[leader.dough] = replace(leader, trunk=trunk)
    return [found[t.dough] for t in threads]


def _at_one_time(threads: Sequence[Thread], trunk: int, many: int) -> Iterator[list[Thread]]:
    """Those that are wanted so near each other that one mixing is early for none of them.

    What comes between mixing and oven may be shorter or longer by a half of its longest rest, a night.
    """
    apart = max((gap.chosen for gap in threads[0].gaps[trunk - 1 :]), default=0) // 2
    group: list[Thread] = []
    for thread in sorted(threads, key=lambda t: (t.ready, t.dough)):
        if group and (len(group) == many or thread.ready - group[0].ready > apart):
            yield group
            group = []
        group.append(thread)
    yield group
