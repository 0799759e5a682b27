"""How long the list of runs takes with many of them, as a ratio to a few. Its own database, thrown away."""

import time
import uuid
from datetime import timedelta

from django.contrib.auth.models import Group, User
from django.db import connection
from django.test import Client
from django.test.utils import setup_databases, teardown_databases
from django.utils import timezone

from bakehouse.bench.models import Run
from bakehouse.demo.teasel_lock import PLANS
from bakehouse.documents import dump

FEW, MANY = 20, 600
ROUNDS = 5


def _listed(tablet: Client) -> float:
    """The quickest of some looks at the list, ms."""
    found = []
    for _ in range(ROUNDS + 1):
        began = time.perf_counter()
        answer = tablet.get("/api/runs")
        assert answer.status_code == 200, answer.content
        found.append(1000 * (time.perf_counter() - began))
    return min(found[1:])


def against_few() -> None:
    """The list of many runs beside the list of a few."""
    kept = setup_databases(verbosity=0, interactive=False)
    try:
        head = User.objects.create_user("wren")
        head.groups.add(Group.objects.get(name="head"))
        tablet = Client(HTTP_HOST="localhost")
        tablet.force_login(head)
        plans = [
            tablet.post("/api/plans", dump(plan), content_type="application/json").json()["id"]
            for plan in PLANS
        ]
        for n in range(FEW):
            body = {"id": str(uuid.uuid4()), "plan_id": plans[n % len(plans)]}
            tablet.post("/api/runs", body, content_type="application/json")
        few = _listed(tablet)
        like = list(Run.objects.all())
        more = []
        for n in range(MANY - FEW):
            run = like[n % FEW]
            run.pk = uuid.uuid4()
            run.started_at = timezone.now() - timedelta(hours=n)
            more.append(
                Run(**{f.attname: getattr(run, f.attname) for f in Run._meta.concrete_fields})
            )
        Run.objects.bulk_create(more)
        many = _listed(tablet)
        print(f"\nlist of {MANY} runs takes {many / few:4.2f} × the list of {FEW}")
    finally:
        teardown_databases(kept, verbosity=0)
        connection.close()
