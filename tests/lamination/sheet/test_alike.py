"""What is the same leaf by leaf is one stack; and at any place lies what a needle pushed through it meets."""

from itertools import groupby, pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.sheet.cells import crease, origin, place, plain_sheet, roll, turn
from lamination.sheet.folds import fold_sheet
from lamination.sheet.stacks import Material, flip, leaf, pile, scaled, thicknesses
from lamination.terms.trade import Fold

FOLDS = st.lists(st.sampled_from(list(Fold)), min_size=1, max_size=4)
LONG, WIDE = 300.0, 200.0


def laid(x, y, long, wide):
    """Dough 2 mm thick with a block of butter 1 mm thick on it, and 3 mm of dough over both."""
    sheet = place(plain_sheet(LONG, WIDE, leaf(Material.DOUGH, 2)), leaf(Material.BUTTER, 1),
                  x, y, long, wide)  # fmt: skip
    return place(sheet, leaf(Material.DOUGH, 3), 0, 0, LONG, WIDE)


def needle(x, y, long, wide):
    """What a needle meets at a place, from below, and whether it is bent; None beside the sheet."""

    def meets(at_x, at_y):
        if not (0 <= at_x <= LONG and 0 <= at_y <= WIDE):
            return None
        butter = x < at_x < x + long and y < at_y < y + wide
        return [("dough", 2.0), *([("butter", 1.0)] if butter else []), ("dough", 3.0)], False

    return meets


def creased(meets, at, flap, wide):
    def after(x, y):
        if (x > at) if flap == "high" else (x < at):
            return None
        here, over = meets(x, y), meets(2 * at - x, y)
        if here is None and over is None:
            return None
        lower, upper = here or ([], False), over or ([], False)
        return lower[0] + upper[0][::-1], lower[1] or upper[1] or abs(x - at) < wide

    return after


def rolled_and_turned(meets, start):
    return lambda x, y: meets(start + y / 3, x)


def fused(leaves):
    runs = [(of, list(run)) for of, run in groupby(leaves, key=lambda one: one[0])]
    return [of for of, _ in runs], [sum(mm for _, mm in run) for _, run in runs]


CREASES = st.lists(
    st.lists(
        st.tuples(st.floats(0.1, 0.9), st.sampled_from(["low", "high"])), min_size=1, max_size=3
    ),
    min_size=1,
    max_size=4,
)


@settings(max_examples=80, deadline=None)
@given(CREASES, st.floats(0, 40), st.floats(0, 40), st.floats(0.01, 0.99), st.floats(0.01, 0.99))
def test_at_any_place_lies_what_a_needle_meets(folds, margin, side, across, along):
    block = margin, side, LONG - 2 * margin - 7, WIDE - 2 * side
    sheet, meets = laid(*block), needle(*block)
    for creases in folds:
        for share, flap in creases:
            at = sheet.xs[0] + share * sheet.length_mm
            sheet = crease(sheet, at, flap)
            meets = creased(meets, at, flap, sheet.extent_mm()[1] / 2)
        meets = rolled_and_turned(meets, sheet.xs[0])
        sheet = turn(roll(origin(sheet), 3))
    x, y = across * sheet.length_mm, along * sheet.width_mm
    if min(abs(x - line) for line in sheet.xs) < 1e-6 or min(abs(y - b) for b in sheet.ys) < 1e-6:
        return  # on a line, where either side is right
    leaves, is_bent = meets(x, y)
    materials, thick = fused(leaves)
    stack = sheet.stack_at(x, y)
    assert (stack.lowest, stack.highest) == (materials[0], materials[-1])
    assert thicknesses(stack) == pytest.approx(thick)
    assert sheet.bent_at(x, y) is is_bent


@settings(max_examples=40, deadline=None)
@given(FOLDS, st.floats(0, 40))
def test_no_two_of_a_pool_are_alike_and_no_line_divides_nothing(folds, margin):
    sheet = laid(margin, margin, LONG - 2 * margin, WIDE - 2 * margin)
    for fold in folds:
        sheet = fold_sheet(roll(turn(sheet), 3), fold)
    leaves = [(s.lowest, *(round(t, 6) for t in thicknesses(s))) for s in sheet.pool]
    assert len(set(leaves)) == len(leaves)
    assert {cell >> 1 for column in sheet.cells for cell in column} == set(range(len(sheet.pool)))
    assert all(a != b for a, b in pairwise(sheet.cells))


STACKS = st.recursive(
    st.builds(leaf, st.sampled_from(list(Material)), st.sampled_from([1.0, 2.0, 2.5])),
    lambda inner: st.one_of(
        st.builds(pile, inner, inner, st.booleans()),
        st.builds(flip, inner),
        st.builds(scaled, inner, st.sampled_from([0.5, 2.0])),
    ),
    max_leaves=7,
)


@settings(max_examples=300, deadline=None)
@given(STACKS, STACKS)
def test_stacks_of_one_key_have_the_same_leaves_and_a_turned_one_has_them_the_other_way(one, two):
    if one.key == two.key:
        assert one.lowest is two.lowest
        assert thicknesses(one) == pytest.approx(thicknesses(two))
    assert thicknesses(flip(one)) == pytest.approx(thicknesses(one)[::-1])
    assert flip(flip(one)).key == one.key
    # however three are laid on each other, they are the same three
    assert pile(pile(one, two), one).key == pile(one, pile(two, one)).key
