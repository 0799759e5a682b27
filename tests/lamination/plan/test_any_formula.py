"""Any change that is asked for leaves a plan that can be worked, and sheets that are the dough."""

import pytest
from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, rule

from bakehouse.demo.teasel_lock import KITCHEN, MARKET
from bakehouse.documents import dump, read_plan
from lamination.dough.formula import PrefermentKind
from lamination.materials.ingredients import LIBRARY, Kind
from lamination.plan.amend import amend
from lamination.plan.amendment import Amendment, Change
from lamination.plan.work import work
from lamination.terms.limits import Faults
from lamination.terms.said import plain

KEYS = [i.key for i in LIBRARY]


class ABakerWhoChangesHerMind(RuleBasedStateMachine):
    """Asks for one change after another; what is refused is refused in a sentence with a place."""

    def __init__(self):
        super().__init__()
        self.plan = MARKET

    def ask(self, change, **what):
        try:
            self.plan = amend(self.plan, Amendment(change, **what), KITCHEN)
        except Faults as refused:
            for fault in refused.faults:
                assert fault.field
                assert plain(fault.message).endswith((".", "%."))

    @rule(index=st.integers(0, 12), grams=st.floats(0, 3000))
    def sets_grams(self, index, grams):
        self.ask(Change.LINE_GRAMS, index=index, value=grams)

    @rule(index=st.integers(0, 12), key=st.sampled_from(KEYS))
    def takes_another_ingredient(self, index, key):
        self.ask(Change.LINE_INGREDIENT, index=index, ingredient=key)

    @rule(key=st.sampled_from(KEYS))
    def adds_an_ingredient(self, key):
        self.ask(Change.ADD_LINE, ingredient=key)

    @rule(kind=st.sampled_from(PrefermentKind))
    def adds_a_preferment(self, kind):
        if len(self.plan.preferments) < 3:
            self.ask(Change.ADD_PREFERMENT, preferment=kind)

    @rule(change=st.sampled_from([Change.BLOCK_FRAME, Change.BLOCK_TRAY, Change.BLOCK_AS_DOUGH]))
    def lays_the_block_out(self, change):
        before = self.plan.butter
        self.ask(change)
        assert self.plan.butter == before

    @rule(thickness=st.floats(0, 40))
    def wants_a_thickness(self, thickness):
        self.ask(Change.BLOCK_THICKNESS, value=thickness)

    @rule(grams=st.floats(200, 9000))
    def has_flour_at_hand(self, grams):
        self.ask(Change.FLOUR, value=grams)

    @invariant()
    def the_plan_is_one_and_survives_the_file(self):
        assert read_plan(dump(self.plan)) == self.plan

    @invariant()
    def flours_are_the_hundred_and_sheets_are_the_dough(self):
        flours = [pct for what, pct in self.plan.formula.parts if what.kind is Kind.FLOUR]
        assert sum(flours) == pytest.approx(100, abs=0.06)
        try:
            worked = work(self.plan, KITCHEN)
        except Faults as wrong:  # a block so laid out that a roll is not thinner than its package
            assert all("roll_to_mm" in f.field for f in wrong.faults), wrong
            return
        of_dough = {s.id for s in self.plan.steps if s.kind_name in ("preferment", "mix")}
        weighed = sum(s.total_g for s in worked.sheets if s.stop in of_dough)
        assert weighed == pytest.approx(self.plan.dough.mass_g, abs=0.25)
        butter = next(s for s in worked.sheets if s.stop == "lock_in")
        assert butter.total_g == pytest.approx(self.plan.butter.mass_g, abs=0.1)
        assert worked.formula.balance.true_hydration_pct >= 0
        for note in worked.notes:
            assert note.stop in {s.key for s in worked.strip}


TestABakerWhoChangesHerMind = ABakerWhoChangesHerMind.TestCase
TestABakerWhoChangesHerMind.settings = settings(
    max_examples=14, stateful_step_count=12, deadline=None
)
