"""Whatever is sent to any endpoint, the answer is never a server error and wrong input names itself."""

import contextlib
import copy
import json
import re
from itertools import count

import pytest
import schemathesis
from django.contrib.auth.models import Group, User
from django.core.signals import request_finished, request_started
from django.db import close_old_connections
from django.test import Client
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from bakehouse.api import api
from bakehouse.demo.made_up import MADE_UP
from bakehouse.demo.teasel_lock import PLANS
from bakehouse.documents import dump
from bakehouse.wsgi import application

# many examples of what other tests cover: tracing them would only slow them
pytestmark = pytest.mark.no_cover

schema = schemathesis.openapi.from_dict(json.loads(json.dumps(api.get_openapi_schema())))
schema.app = application


@pytest.fixture
def signed_in(db):
    """Those who may do everything, and those who may not: what each sends along; and whose turn it is."""
    sent = []
    for group in ("head", "bench"):
        user = User.objects.create_user(group, password=f"{group}-at-the-lock")
        user.groups.add(Group.objects.get(name=group))
        client = Client()
        client.get("/api/session")
        client.force_login(user)
        cookies = {name: morsel.value for name, morsel in client.cookies.items()}
        # read as it is: nothing here unpacks what is sent
        headers = {"X-CSRFToken": cookies["csrftoken"], "Accept-Encoding": "identity"}
        sent.append({"cookies": cookies, "headers": headers})
    # The application runs in this test's own transaction: it must not close its connection.
    for signal in (request_started, request_finished):
        signal.disconnect(close_old_connections)
    yield sent, count()
    for signal in (request_started, request_finished):
        signal.connect(close_old_connections)


# Whole plans are slow to make up from a schema: real ones are broken below, at the endpoint that works
# one, which stands for all, for they read it alike.
TAKES_A_PLAN = [
    "/api/work",
    "/api/plans",
    "/api/plans/other-part",
    "/api/warmth",
    "/api/amend",
    "/api/judge",
    "/api/layouts",
    "/api/section",
    "/api/suggest",
    "/api/turns",
    "/api/formula/csv",
    "/api/plans/{plan_id}",
    "/api/orders/{order_id}",
    "/api/order/work",
]


_BENCH = 4


# Signing in is left out: five wrong passwords lock the account, as they should. So is signing out.
@(
    schema.exclude(path="/api/session", method=["POST", "DELETE"])
    .exclude(path=TAKES_A_PLAN, method=["POST", "PUT"])
    .parametrize()
)
@settings(max_examples=2, suppress_health_check=list(HealthCheck))
def test_no_input_is_a_server_error(case, signed_in):
    declared = {str(status) for status in case.operation.definition.raw["responses"]}
    # whatever the bench may do the head may too: a part of it is enough from there
    everybody, turn = signed_in
    for sent in everybody if next(turn) % _BENCH == 0 else everybody[:1]:
        answer = case.call(base_url="http://localhost", **sent)
        assert answer.status_code < 500, answer.text
        assert str(answer.status_code) in declared, (case.method, case.path, answer.status_code)
        if answer.status_code >= 400 and answer.status_code != 405:
            faults = json.loads(answer.text)["faults"]
            assert faults
            assert all(f["message"].strip() for f in faults)


junk = st.one_of(
    st.none(), st.booleans(), st.integers(-9, 10**9), st.floats(), st.text(max_size=12),
    st.just([]), st.just({}), st.just([{}]), st.sampled_from(["letter", "fridge", "cut", "half"]),
)  # fmt: skip


def leaves(whole, path=()):
    """Every place of a document, and what is there."""
    yield path, whole
    parts = ()
    if isinstance(whole, dict):
        parts = whole.items()
    elif isinstance(whole, list):
        parts = enumerate(whole)
    for key, part in parts:
        yield from leaves(part, (*path, key))


def broken(document, path, value):
    """The document with something else at a place; or without it."""
    if not path:
        return value
    whole = copy.deepcopy(document)
    inside = whole
    for key in path[:-1]:
        inside = inside[key]
    if value is GONE:
        del inside[path[-1]]
    else:
        inside[path[-1]] = value
    return whole


GONE = object()
REAL = [dump(plan) for plan in (*PLANS, *MADE_UP)]
PLACES = [(n, path) for n, document in enumerate(REAL) for path, _ in leaves(document)]


@settings(max_examples=82, suppress_health_check=list(HealthCheck))
@given(st.sampled_from(PLACES), junk | st.just(GONE), st.sampled_from(PLACES), junk)
def test_no_broken_plan_is_a_server_error(signed_in_tablet, one, what, other, more):
    n, path = one
    document = broken(REAL[n], path, what if path or what is not GONE else None)
    if other[0] == n and more is not None and isinstance(document, dict):
        with contextlib.suppress(KeyError, IndexError, TypeError):
            document = broken(document, other[1], more)
    try:
        body = json.dumps(document, allow_nan=False)
    except ValueError:
        body = json.dumps(document)  # NaN and Infinity are no JSON: that is for the server to say
    answer = signed_in_tablet.post("/api/work", body, content_type="application/json")
    assert answer.status_code in (200, 400, 422), answer.content
    if answer.status_code != 200:
        faults = answer.json()["faults"]
        assert faults
        for fault in faults:
            assert re.search(r"[.!?]$", fault["message"]), fault


@pytest.fixture
def signed_in_tablet(db):
    user = User.objects.create_user("tansy", password="tansy-at-the-lock")
    user.groups.add(Group.objects.get(name="bench"))
    client = Client()
    client.force_login(user)
    return client
