"""A dough that was begun by one plan goes on as another's product."""

from dataclasses import replace

import pytest

from lamination.kitchen.kitchen import Kitchen
from lamination.plan import joined, work
from lamination.plan.starts import starting_finish
from lamination.steps.last_sheet import LastSheet
from lamination.terms.limits import Faults
from lamination.terms.trade import Family
from tests.plans import formula, station, turns

KITCHEN = Kitchen()
LONG = station(formula=formula(), finish=starting_finish(Family.CROISSANT))
SHEETED = station(
    formula=formula(),
    last_sheet=LastSheet(3.5, width_mm=300),
    turns=turns("book", "letter", "letter"),
)
OTHER = replace(SHEETED, name="Long twist")


def test_it_is_as_it_was_begun_up_to_there_and_as_the_other_from_where_that_has_as_many_turns():
    made, step = joined(LONG, "turn-3", OTHER, KITCHEN)
    assert made.name == "Long twist"
    n = LONG.at("turn-3")
    assert made.steps[: n + 1] == LONG.steps[: n + 1]
    assert [s.do for s in made.steps[n + 1 :]] == ["last_sheet", "cut"]
    assert made.steps[n + 1].id == step
    worked = work(made, KITCHEN)
    assert worked.stop(step).lies.thickness_mm == pytest.approx(3.5)
    assert worked.layers.butter == 27
    # what remains to be folded there is folded there
    early, _ = joined(LONG, "turn-2", OTHER, KITCHEN)
    assert [s.do for s in early.steps[LONG.at("turn-2") + 1 :]] == ["turn", "last_sheet", "cut"]
    assert len({s.id for s in early.steps}) == len(early.steps)


@pytest.mark.parametrize(
    ("after", "other"),
    [
        ("turn-3", replace(station(turns=turns("letter", "letter")), name="Two turns")),
        ("lock_in", OTHER),
        ("turn-3", replace(OTHER, family=Family.DANISH)),
    ],
)
def test_what_never_lies_so_or_is_of_another_family_does_not_become_it(after, other):
    with pytest.raises(Faults) as wrong:
        joined(LONG, after, other, KITCHEN)
    assert wrong.value.faults[0].field == "plan_id"
