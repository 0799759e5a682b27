"""Several people at once: one save wins and the other is told; one event is written once."""

import copy
import json
import uuid
from concurrent.futures import ThreadPoolExecutor

import pytest
from django.contrib.auth.models import Group, User
from django.db import connections
from django.utils import timezone

from bakehouse.bench.models import EventRecord, Run

from .conftest import STATION, Tablet


@pytest.fixture
def tablets(transactional_db):
    """Four tablets of four head bakers, each with its own connection to one database."""
    group, _ = Group.objects.get_or_create(name="head")
    made = []
    for name in ("wren", "tansy", "sorrel", "bram"):
        user = User.objects.create_user(name)
        user.groups.add(group)
        tablet = Tablet()
        tablet.force_login(user)
        made.append(tablet)
    return made


def all_at_once(tablets, act):
    """``act(tablet, number)`` on every tablet at the same time; what each returned."""

    def one(pair):
        try:
            return act(*pair)
        finally:
            connections.close_all()

    with ThreadPoolExecutor(len(tablets)) as pool:
        return list(pool.map(one, [(t, i) for i, t in enumerate(tablets)]))


def send(tablet, method, path, body):
    answer = tablet.generic(method, f"/api{path}", json.dumps(body),
                            "application/json")  # fmt: skip
    return answer.status_code


def test_of_four_saves_at_once_one_wins_and_three_are_told(tablets):
    plan = tablets[0].call("POST", "/plans", STATION)

    def save(tablet, number):
        body = copy.deepcopy(STATION)
        body["dough"]["mass_g"] = 2000 + number
        return send(tablet, "PUT", f"/plans/{plan['id']}", {"revision": 1, "plan": body})

    assert sorted(all_at_once(tablets, save)) == [200, 409, 409, 409]
    after = tablets[0].call("GET", f"/plans/{plan['id']}")
    assert after["revision"] == 2
    assert after["plan"]["dough"]["mass_g"] >= 2000


def test_four_tablets_sending_one_event_write_it_once(tablets):
    plan = tablets[0].call("POST", "/plans", STATION)
    run = tablets[0].call("POST", "/runs", {"id": str(uuid.uuid4()), "plan_id": plan["id"]})
    event = {"id": "the-same-event", "at": timezone.now().isoformat(), "kind": "done",
             "stop": "dough"}  # fmt: skip

    def say(tablet, number):
        return send(tablet, "POST", f"/runs/{run['id']}/events", {"events": [event]})

    assert all_at_once(tablets, say) == [200] * 4
    assert EventRecord.objects.count() == 1


def test_four_hands_pressing_done_for_one_step_do_it_once(tablets):
    plan = tablets[0].call("POST", "/plans", STATION)
    run = tablets[0].call("POST", "/runs", {"id": str(uuid.uuid4()), "plan_id": plan["id"]})

    def press(tablet, number):
        event = {"id": f"press-number-{number}", "at": timezone.now().isoformat(),
                 "kind": "done", "stop": "dough"}  # fmt: skip
        return send(tablet, "POST", f"/runs/{run['id']}/events", {"events": [event]})

    assert sorted(all_at_once(tablets, press)) == [200, 422, 422, 422]
    standing = tablets[0].call("GET", f"/runs/{run['id']}")["standing"]
    assert (len(standing["deeds"]), standing["stop"]) == (1, "lock_in")


def test_four_presses_of_one_start_are_one_run(tablets):
    plan = tablets[0].call("POST", "/plans", STATION)
    start = {"id": str(uuid.uuid4()), "plan_id": plan["id"]}
    answers = all_at_once(tablets, lambda tablet, number: send(tablet, "POST", "/runs", start))
    assert answers == [200] * 4
    assert Run.objects.count() == 1


def test_of_two_people_who_make_different_shaping_cards_both_keep_theirs(head):
    def card(key):
        return {"key": key, "name": key.title(), "steps": ["Fold it."]}

    head.call(
        "PUT", "/kitchen", {"revision": 0, "yours": {}, "ingredients": [], "cards": [card("one")]}
    )
    save = {"revision": 1, "yours": {}, "ingredients": []}
    head.call("PUT", "/kitchen", save | {"cards": [card("one"), card("two")]})
    head.call("PUT", "/kitchen", save | {"cards": [card("one"), card("three")]})
    kept = head.call("GET", "/kitchen")["cards"]
    assert {c["key"] for c in kept} == {"one", "two", "three"}
    # a screen that knows nothing of cards leaves them as they are
    head.call("PUT", "/kitchen", {"revision": 3, "yours": {"room.c": 20}, "ingredients": []})
    assert len(head.call("GET", "/kitchen")["cards"]) == 3


def test_a_wrong_card_is_answered_at_its_field(head):
    body = {
        "revision": 0,
        "yours": {},
        "ingredients": [],
        "cards": [{"key": "a", "name": "", "steps": []}],
    }
    faults = head.faults("PUT", "/kitchen", body)
    assert set(faults) == {"cards[0].name", "cards[0].steps"}
