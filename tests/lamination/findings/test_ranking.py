"""Causes ranked: against records whose cause is known, and what a single reading does."""

import random
from collections import defaultdict
from dataclasses import replace

import pytest

from lamination.findings import BakeCause, Finding, met_after, priors, put_into, why
from lamination.findings.table import LIKELIHOODS, says_of
from lamination.plan.fixes import taken
from lamination.terms.limits import Faults
from lamination.terms.trade import Family
from tests.lamination.findings.simulated import any_cause, plan, record

B, F = BakeCause, Finding
MANY = 160


@pytest.fixture(scope="module")
def asked():
    """So many records with a cause that is known, with all readings and without any; and their rankings."""
    dice = random.Random(11)
    of = [(any_cause(dice), n) for n in range(MANY)]
    return {
        readings: [(cause, why(record(cause, n, readings))) for cause, n in of]
        for readings in (True, False)
    }


def found(asked, within):
    return sum(cause in [r.cause for r in said.causes[:within]] for cause, said in asked) / len(
        asked
    )


def test_the_true_cause_comes_first_in_most_and_among_three_in_nearly_all(asked):
    assert found(asked[True], 1) >= 0.7
    assert found(asked[True], 3) >= 0.92


def test_without_readings_it_is_less_sure_and_says_what_was_not_measured(asked):
    sure = {k: sum(s.causes[0].p for _, s in v) / MANY for k, v in asked.items()}
    assert sure[False] < sure[True] - 0.1
    assert found(asked[False], 1) < found(asked[True], 1)
    assert found(asked[False], 3) > 0.5
    assert all(any(r.undecided for r in said.causes[:3]) for _, said in asked[False])


def test_it_is_never_much_surer_than_it_is_right_and_not_much_less(asked):
    """Of what is said to be so likely, so many are: at most a tenth fewer, and a fifth more."""
    counted = defaultdict(list)
    for cause, said in asked[True] + asked[False]:
        first = said.causes[0]
        counted[min(int(first.p * 4), 3)].append((first.p, cause is first.cause))
    for pairs in counted.values():
        if len(pairs) >= 25:
            said = sum(p for p, _ in pairs) / len(pairs)
            true = sum(so for _, so in pairs) / len(pairs)
            assert -0.1 < true - said < 0.2


def test_two_causes_at_once_are_both_among_the_first_four():
    both = 0
    pairs = [(B.BUTTER_SOFT, B.UNEVEN_SHEET), (B.UNDER, B.WARM_CUT), (B.REST_SHORT, B.PROOFER_WARM)]
    for n in range(12):
        one, two = pairs[n % 3]
        first = [r.cause for r in why(record(one, n, also=two)).causes[:4]]
        both += one in first and two in first
    assert both >= 10


def test_one_reading_turns_the_balance_and_is_given_as_the_reason():
    warm = why(record(B.BUTTER_SOFT, 3)).causes[0]
    assert warm.cause is B.BUTTER_SOFT
    assert "it bends up to" in warm.supports[0].says
    assert warm.supports[0].measured
    cold = next(r for r in why(record(B.BUTTER_HARD, 3)).causes if r.cause is B.BUTTER_HARD)
    assert "it bends from" in cold.supports[0].says


@pytest.mark.parametrize("cause", [B.UNDER, B.OVER, B.REST_SHORT, B.PROOFER_WARM, B.WARM_CUT])
def test_the_change_can_be_put_into_the_plan_and_is_remembered_with_why(cause):
    of = record(cause, 3)
    said = why(of)
    assert said.causes[0].cause is cause
    fix = said.next_time.fix
    if fix is None:  # the plan has it right: it was not kept to
        assert said.next_time.says.startswith("Give it the whole")
        return
    made = put_into(plan(), plan(), fix, "1 Dec 2026: because of the fat on the tray.")
    assert made != plan()
    assert "because of the fat on the tray" in made.words
    assert (
        put_into(made, plan(), fix, "1 Dec 2026: because of the fat on the tray.").words
        == made.words
    )


def test_a_change_is_put_where_its_step_is_now_and_refused_where_that_is_gone():
    fix = why(record(B.WARM_CUT, 3)).next_time.fix
    longer = plan().with_steps(plan().steps[0], *plan().steps[1:])
    assert taken(plan(), fix) == put_into(longer, plan(), fix, "").with_steps(
        *taken(plan(), fix).steps
    )
    without = replace(plan(), steps=tuple(s for s in plan().steps if s.id != "cut" and s.do in (
        "mix", "flatten", "lock_in", "turn", "last_sheet")))  # fmt: skip
    with pytest.raises(Faults):
        put_into(without, plan(), fix, "")


def test_nothing_seen_is_no_reason_to_change_anything():
    quiet = replace(record(None, 3), seen=())
    assert why(quiet).next_time is None
    assert sum(r.p for r in why(quiet).causes) <= 1 + 1e-9


def test_what_the_house_has_found_shifts_how_often_a_cause_is_met_towards_it():
    usual = priors(Family.CROISSANT)
    said = priors(Family.CROISSANT, {B.OVEN_COOL: 20})
    assert sum(usual.values()) == pytest.approx(1)
    assert sum(said.values()) == pytest.approx(1)
    assert usual[B.OVEN_COOL] < said[B.OVEN_COOL] < 1 / 2
    assert said[B.UNDER] == pytest.approx(usual[B.UNDER] * 40 / 60)
    assert B.UNDER not in priors(Family.PUFF)


def test_the_table_says_of_every_cause_what_goes_with_it_and_each_finding_has_some():
    for cause in B:
        assert max(met_after(cause, f) for f in F) > 0.13, cause
    for finding in F:
        assert any(row.finding is finding and row.times > 2 for row in LIKELIHOODS), finding
    assert says_of(B.UNDER, []) == 0
    assert says_of(B.UNDER, [F.BURST]) > says_of(B.OVER, [F.BURST])
