"""Every way out really leads out, whatever the kitchen; and what fits says so."""

from dataclasses import replace

from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.fits import lies, rolling_room
from lamination.plan.plan import Final
from lamination.plan.work import work
from lamination.sheet.folds import Fold
from lamination.sheet.lockin import Size

from .plans import station, turns
from .test_ways_out import taken

sides = st.integers(300, 2600)


def at(worked, stop, ending):
    return [n for n in worked.notes if n.stop == stop and n.title.endswith(ending)]


@settings(max_examples=25, deadline=None)
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
    plan = station(turns=turns(*folds, roll_to_mm=roll_to), cut=None, final=Final(3))
    for note in work(plan, kitchen).notes:
        if not note.title.endswith(f"for the {where}"):
            continue
        assert note.tone == "mind"
        assert note.fixes
        for fix in note.fixes:
            after = work(taken(plan, fix), kitchen)
            assert not at(after, note.stop, f"for the {where}"), fix.label
            assert fix.label[1:] in note.text


@given(sides, sides, sides, sides)
def test_a_sheet_lies_either_way_round(length, width, long, wide):
    sheet = Size(length, width, 4)
    turned = Size(width, length, 4)
    assert lies(sheet, long, wide) == lies(turned, long, wide) == lies(sheet, wide, long)
    if length <= long and width <= wide:
        assert lies(sheet, long, wide)
    if length > max(long, wide) + 1 or length * width > (long + 1) * (wide + 1):
        assert not lies(sheet, long, wide)


def test_another_fold_before_is_offered_only_where_it_helps():
    kitchen = Kitchen({"bench.length_mm": 1300, "bench.width_mm": 900})
    books = station(turns=turns("book", "book", "letter"), cut=None, final=Final(4))
    worked = work(books, kitchen)
    offered = [f for n in worked.notes for f in n.fixes if f.label.startswith("Make turn")]
    for fix in offered:
        i = int(fix.puts[0].field[6:-6])
        after = work(taken(books, fix), kitchen)
        assert after.steps[i].fold.multiplies < books.turns[i].fold.multiplies
    letters = replace(books, turns=turns("half", "half", "half"))
    none = [f for n in work(letters, kitchen).notes for f in n.fixes if f.label.startswith("Make")]
    assert none == []


def test_dough_is_rolled_on_the_belt_where_there_is_one():
    assert rolling_room(Kitchen()) == (1800, 800)
    assert rolling_room(Kitchen({"sheeter.belt_width_mm": 600})) == (2400, 600)
