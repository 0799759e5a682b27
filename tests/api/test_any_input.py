"""Whatever is sent to any endpoint, the answer is never a server error and wrong input names itself."""

import json

import pytest
import schemathesis
from django.contrib.auth.models import Group, User
from django.core.signals import request_finished, request_started
from django.db import close_old_connections
from django.test import Client
from hypothesis import HealthCheck, settings

from bakehouse.api import api
from bakehouse.wsgi import application

schema = schemathesis.openapi.from_dict(json.loads(json.dumps(api.get_openapi_schema())))
schema.app = application


@pytest.fixture
def signed_in(db):
    user = User.objects.create_user("wren", password="wren-at-the-lock")
    user.groups.add(Group.objects.get(name="head"))
    client = Client()
    client.get("/api/session")
    client.force_login(user)
    cookies = {name: morsel.value for name, morsel in client.cookies.items()}
    # The application runs in this test's own transaction: it must not close its connection.
    for signal in (request_started, request_finished):
        signal.disconnect(close_old_connections)
    yield {"cookies": cookies, "headers": {"X-CSRFToken": cookies["csrftoken"]}}
    for signal in (request_started, request_finished):
        signal.connect(close_old_connections)


# Whole plans are slow to make up: the endpoint that works one stands for all, for they read it alike.
TAKES_A_PLAN_TOO = [
    "/api/plans",
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


# Signing in is left out: five wrong passwords lock the account, as they should. So is signing out.
@(
    schema.exclude(path="/api/session", method=["POST", "DELETE"])
    .exclude(path=TAKES_A_PLAN_TOO, method=["POST", "PUT"])
    .parametrize()
)
@settings(max_examples=2, suppress_health_check=list(HealthCheck))
def test_no_input_is_a_server_error(case, signed_in):
    answer = case.call(base_url="http://localhost", **signed_in)
    assert answer.status_code < 500, answer.text
    if answer.status_code >= 400 and answer.status_code != 405:
        faults = json.loads(answer.text)["faults"]
        assert faults
        assert all(f["message"].strip() for f in faults)
