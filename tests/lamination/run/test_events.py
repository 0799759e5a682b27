"""What can be said at the bench: each kind needs what it says, and nothing out of reach is taken."""

from datetime import UTC, datetime

import pytest

from lamination.run.events import Event, EventKind, Probe, Verdict
from lamination.terms.limits import Faults

AT = datetime(2026, 3, 7, 5, 0, tzinfo=UTC)
WHOLE = {
    EventKind.DONE: {"stop": "dough"},
    EventKind.OUT: {"stop": "dough"},
    EventKind.MOVE: {"target": "event-01", "minutes": -2},
    EventKind.UNDO: {"target": "event-01"},
    EventKind.READING: {"probe": Probe.ROOM, "value_c": 21},
    EventKind.NOTE: {"words": "Springs back"},
    EventKind.GIVE_UP: {},
    EventKind.AWAY: {},
    EventKind.BACK: {},
    EventKind.BEGUN: {"minutes": -20},
    EventKind.VERDICT: {"verdict": Verdict(lift=4)},
    EventKind.REST: {"stop": "dough", "minutes": 30},
    EventKind.WEIGHED: {"line": "mix/water", "grams": 503},
    EventKind.IN: {"stop": "bake", "tray": 1},
    EventKind.LOST: {"tray": 1},
    EventKind.PIECES: {"product": 0, "pieces_g": (60.0, 59.5)},
}
NEEDS = [(kind, name) for kind, fields in WHOLE.items() for name in fields]


def said(kind, **fields):
    return Event("event-99", AT, kind, **fields)


def test_every_kind_is_tried_here():
    assert set(WHOLE) == set(EventKind)


@pytest.mark.parametrize("kind", list(EventKind))
def test_a_whole_event_is_taken(kind):
    assert said(kind, **WHOLE[kind]).kind is kind


@pytest.mark.parametrize(("kind", "missing"), NEEDS)
def test_an_event_without_what_it_needs_names_it(kind, missing):
    fields = {name: value for name, value in WHOLE[kind].items() if name != missing}
    with pytest.raises(Faults) as refused:
        said(kind, **fields)
    assert [f.field for f in refused.value.faults] == [missing]


@pytest.mark.parametrize(
    ("kind", "change", "field"),
    [
        (EventKind.READING, {"value_c": 400}, "value_c"),
        (EventKind.WEIGHED, {"grams": -1}, "grams"),
        (EventKind.IN, {"tray": 0}, "tray"),
        (EventKind.IN, {"tray": 501}, "tray"),
        (EventKind.PIECES, {"product": 8}, "product"),
        (EventKind.PIECES, {"pieces_g": ()}, "pieces_g"),
        (EventKind.PIECES, {"pieces_g": (60.0, -4.0)}, "pieces_g[1]"),
        (EventKind.NOTE, {"words": "  "}, "words"),
    ],
)
def test_what_is_out_of_reach_is_refused_at_its_field(kind, change, field):
    with pytest.raises(Faults) as refused:
        said(kind, **{**WHOLE[kind], **change})
    assert [f.field for f in refused.value.faults] == [field]


def test_a_time_without_its_zone_is_refused():
    with pytest.raises(Faults) as refused:
        Event("event-99", datetime(2026, 3, 7, 5, 0), EventKind.GIVE_UP)
    assert refused.value.faults[0].field == "at"


@pytest.mark.parametrize(
    ("verdict", "field"),
    [
        ({"lift": 6}, "lift"),
        ({"taste": 0}, "taste"),
        ({"before_g": 0}, "before_g"),
        ({"after_g": -1}, "after_g"),
    ],
)
def test_a_verdict_stays_on_its_scales(verdict, field):
    with pytest.raises(Faults) as refused:
        Verdict(**verdict)
    assert [f.field for f in refused.value.faults] == [field]
