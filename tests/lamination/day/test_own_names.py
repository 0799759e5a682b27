"""A dough keeps its number for as long as it lives, whatever becomes of the order about it."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta

from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.day import Held, Order, Ordered, Shift, Wanted, day_of
from lamination.kitchen.kitchen import Kitchen
from tests.plans import station

KITCHEN, ZONE = Kitchen(), "Europe/London"
READY = datetime(2027, 3, 20, 6, tzinfo=UTC)
PLANS = {n: replace(station(), name=f"Plan {n}") for n in (1, 2, 3)}
HANDS = (Shift("all", READY - timedelta(hours=30), READY + timedelta(hours=8), 2),)


def line(id, plan, pieces=40, hours=0):
    wanted = Wanted(f"Plan {plan}", pieces, 60)
    return Ordered(plan, (wanted,), ready_at=READY + timedelta(hours=hours), id=id)


def numbered(lines, known=(), begun=()):
    order = Order("Day", tuple(lines), hands=HANDS)
    return day_of(order, PLANS, KITCHEN, ZONE, known, begun)[1]


def test_a_dough_wanted_earlier_takes_nobody_s_number():
    croissant, danish = line("a", 1), line("b", 2, hours=1)
    before = numbered([croissant, danish])
    assert [(n.dough, n.line) for n in before] == [("1", "a"), ("2", "b")]
    puff = line("c", 3, hours=-2)
    after = numbered([croissant, danish, puff], before, ["1", "2"])
    assert {n.line: n.dough for n in after} == {"a": "1", "b": "2", "c": "3"}
    assert [n.line for n in after] == ["c", "a", "b"]


def test_one_whose_hour_passes_another_s_and_one_whose_place_is_another_stay_who_they_are():
    before = numbered([line("a", 1), line("b", 2, hours=1)])
    after = numbered([line("b", 2, hours=-1), line("a", 1)], before)
    assert {n.line: n.dough for n in after} == {n.line: n.dough for n in before}


def test_of_fewer_doughs_those_that_are_begun_stay():
    before = numbered([line("a", 1, pieces=130)])
    assert len(before) == 3
    after = numbered([line("a", 1, pieces=45)], before, ["3"])
    assert [n.dough for n in after] == ["3"]


def test_the_number_of_what_was_begun_and_taken_off_is_nobody_s():
    before = numbered([line("a", 1), line("b", 2)])
    after = numbered([line("a", 1), line("c", 3)], before, ["1", "2"])
    assert {n.line: n.dough for n in after} == {"a": "1", "c": "3"}
    again = numbered([line("a", 1), line("c", 3), line("d", 2)], after, ["1", "2"])
    assert {n.line: n.dough for n in again} == {"a": "1", "c": "3", "d": "4"}


def test_lines_without_names_get_them_and_doubles_are_told_apart():
    bare = Ordered(1, (Wanted("Plan 1", 40, 60),))
    order = Order("Day", (bare, replace(bare, id="line-1"), replace(bare, id="line-1")))
    ids = [d.id for d in order.doughs]
    assert len(set(ids)) == 3
    assert Order("Day", order.doughs) == order


def test_a_fixed_step_of_a_dough_that_is_gone_is_nobody_s():
    before = numbered([line("a", 1), line("b", 2)])
    held = (Held("2", "lock_in", READY - timedelta(hours=9)),)
    order = Order("Day", (line("a", 1), line("c", 2)), hands=HANDS, held=held)
    day, after = day_of(order, PLANS, KITCHEN, ZONE, before)
    assert {n.line: n.dough for n in after} == {"a": "1", "c": "3"}
    assert day.held == ()


edits = st.lists(
    st.tuples(
        st.sampled_from(["hour", "pieces", "off", "on", "place"]),
        st.integers(0, 9),
        st.integers(-4, 4),
    ),
    max_size=8,
)


@settings(max_examples=60, deadline=None)
@given(edits, st.sets(st.sampled_from(["1", "2", "3", "4"])))
def test_whatever_is_changed_of_a_begun_day_every_dough_is_its_own(changes, begun):
    lines = [line("a", 1, pieces=90), line("b", 2, hours=1), line("c", 3, hours=2)]
    now = numbered(lines)
    begun &= {n.dough for n in now}
    was = {n.dough: (n.line, n.plan_id) for n in now}
    for n, (kind, at, by) in enumerate(changes):
        i = at % len(lines)
        if kind == "hour":
            lines[i] = replace(lines[i], ready_at=lines[i].ready_at + timedelta(hours=by))
        elif kind == "pieces":
            wanted = lines[i].products[0]
            more = replace(wanted, pieces=max(10, wanted.pieces + 20 * by))
            lines[i] = replace(lines[i], products=(more,))
        elif kind == "off" and len(lines) > 1:
            lines.pop(i)
        elif kind == "on" and len(lines) < 6:
            lines.insert(i, line(f"new-{n}", 1 + at % 3, hours=by))
        elif kind == "place":
            lines.insert(0, lines.pop(i))
        now = numbered(lines, now, begun)
        assert len({one.dough for one in now}) == len(now)
        # one that is gone, and was never begun, leaves its number to others
        was = {d: of for d, of in was.items() if d in begun or d in {one.dough for one in now}}
        for one in now:
            # a number is never of another line, nor of another plan, than it ever was
            assert was.setdefault(one.dough, (one.line, one.plan_id)) == (one.line, one.plan_id)
        there = {one.line for one in now}
        kept = {d for d in begun if was[d][0] in there}
        of = {d: sum(was[b][0] == was[d][0] for b in kept) for d in kept}
        for d in kept:
            # as many as are left of its line: those that are begun before any other
            left = [one.dough for one in now if one.line == was[d][0]]
            assert d in left or len(left) < of[d] or set(left) <= begun
