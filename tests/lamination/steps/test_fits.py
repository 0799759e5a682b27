"""Every way out really leads out, whatever the kitchen; and what fits says so."""

from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.machines import rolled_by
from lamination.plan.fixes import sound, taken
from lamination.plan.work import work
from lamination.steps.last_sheet import LastSheet
from lamination.terms.said import plain
from lamination.terms.sizes import Size
from lamination.terms.trade import Fold, Tool
from tests.plans import station, turns

sides = st.integers(300, 2600)


def at(worked, stop, ending):
    return [n for n in worked.notes if n.stop == stop and plain(n.title).endswith(ending)]


@settings(max_examples=14, deadline=None)
@given(
    st.lists(st.sampled_from(list(Fold)), min_size=2, max_size=3),
    st.floats(4, 9),
    sides,
    sides,
    st.booleans(),
)
def test_every_way_out_leads_out_on_belt_and_bench(folds, roll_to, length, width, by_sheeter):
    where = "belt" if by_sheeter else "bench"
    names = ("sheeter.belt_length_mm", "sheeter.belt_width_mm") if by_sheeter else (
        "bench.length_mm", "bench.width_mm")  # fmt: skip
    kitchen = Kitchen(dict(zip(names, (float(length), float(min(width, 2000))), strict=True)))
    plan = station(turns=turns(*folds, roll_to_mm=roll_to), cut=None, last_sheet=LastSheet(3))
    for note in sound(plan, kitchen, work(plan, kitchen)):
        if not plain(note.title).endswith(f"for the {where}"):
            continue
        assert note.tone == "mind"
        for fix in note.fixes:
            after = work(taken(plan, fix), kitchen)
            assert not at(after, note.stop, f"for the {where}"), fix.label


@given(sides, sides, sides, sides)
def test_a_sheet_lies_either_way_round(length, width, long, wide):
    sheet = Size(length, width, 4)
    turned = Size(width, length, 4)
    assert (
        sheet.lies_on(long, wide, 1)
        == turned.lies_on(long, wide, 1)
        == sheet.lies_on(wide, long, 1)
    )
    if length <= long and width <= wide:
        assert sheet.lies_on(long, wide, 1)
    if length > max(long, wide) + 1 or length * width > (long + 1) * (wide + 1):
        assert not sheet.lies_on(long, wide, 1)


def test_another_fold_before_multiplies_less():
    kitchen = Kitchen({"bench.length_mm": 1300, "bench.width_mm": 900})
    books = station(turns=turns("book", "book", "letter"), cut=None, last_sheet=LastSheet(4))
    offered = [
        fix
        for note in sound(books, kitchen, work(books, kitchen))
        for fix in note.fixes
        if any(put.field.endswith(".fold") for put in fix.puts)
    ]
    for fix in offered:
        after, before = work(taken(books, fix), kitchen), work(books, kitchen)
        assert after.layers.butter < before.layers.butter


def test_dough_is_rolled_on_the_belt_where_there_is_one():
    bench = rolled_by(None, Kitchen())
    assert (bench.where, bench.long_mm, bench.wide_mm) == ("bench", 1800, 800)
    belt = rolled_by(None, Kitchen({"sheeter.belt_width_mm": 600}))
    assert (belt.where, belt.wide_mm) == ("belt", 600)
    assert rolled_by(Tool.SHEETER, Kitchen()).absent
