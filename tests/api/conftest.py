"""A house with a head, a bench hand, and one plan."""

import json
import uuid
from datetime import timedelta

import pytest
from django.contrib.auth.models import Group, User
from django.core.cache import cache
from django.test import Client
from django.utils import timezone

STATION = {
    "format": "eight-turn/plan", "version": 1, "name": "Station croissant", "family": "croissant",
    "dough": {"mass_g": 2400, "density_kg_m3": 1120},
    "butter": {"mass_g": 650, "density_kg_m3": 940},
    "lock_in": {"method": "half", "block_width_mm": 300, "block_length_mm": 230, "margin_mm": 0},
    "turns": [{"fold": "letter", "roll_to_mm": 8, "rest": {"place": "fridge", "minutes": 30}}] * 3,
    "final": {"roll_to_mm": 4, "width_mm": 400},
    "cut": {
        "products": [
            {"name": "Croissant", "shape": "triangle", "base_mm": 90, "height_mm": 280}
        ]
    },
}  # fmt: skip


class Tablet(Client):
    """A signed-in browser that talks JSON."""

    def call(self, method, path, body=None, expect=200):
        answer = self.generic(
            method, f"/api{path}", json.dumps(body) if body is not None else "", "application/json"
        )
        assert answer.status_code == expect, (answer.status_code, answer.content[:500])
        return answer.json() if answer.content else None

    def faults(self, method, path, body=None, expect=422):
        found = self.call(method, path, body, expect)["faults"]
        return {f["field"]: f["message"] for f in found}


def _tablet(name, role):
    user = User.objects.create_user(name, password=f"{name}-at-the-lock")
    user.groups.add(Group.objects.get(name=role))
    tablet = Tablet()
    tablet.force_login(user)
    return tablet


@pytest.fixture(autouse=True)
def nothing_counted():
    """What addresses are counted for begins anew: all tests come from the same one."""
    cache.clear()


@pytest.fixture
def head(db):
    return _tablet("wren", "head")


@pytest.fixture
def hand(db):
    return _tablet("tansy", "bench")


@pytest.fixture
def plan(head):
    return head.call("POST", "/plans", STATION)


def started(tablet, plan_id, hours_ago=12):
    """A run as a tablet starts it whose press waited for the network, so that much can have happened."""
    at = (timezone.now() - timedelta(hours=hours_ago)).isoformat()
    return tablet.call(
        "POST", "/runs", {"id": str(uuid.uuid4()), "plan_id": plan_id, "started_at": at}
    )
