"""Cold: a plan's warmth today, the lock-in judged, a place learned, and probes that post readings."""

from __future__ import annotations

import hashlib
import secrets
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Annotated

from django.conf import settings
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, File, Router, Status
from ninja.files import UploadedFile
from ninja.security import HttpBearer

from bakehouse.cold.models import ProbeRecord, Sample
from bakehouse.documents import AnyPlan, written
from bakehouse.kitchen.shelf import keep_rows, the_kitchen
from bakehouse.people.roles import head_only, signed_in, user_of
from lamination.terms import Checked, Fault, Faults, Length, Range
from lamination.warmth import (
    Feel,
    Fit,
    Judgement,
    PlaceReadings,
    ProbeReading,
    Today,
    WorkedWarmth,
    judge_lock_in,
    learn_place,
    learned,
    read_logger_csv,
    simulated_readings,
    work_warmth,
)

router = Router(tags=["cold"])
LARGEST_TABLE = 2_000_000  # bytes
MOST_READINGS = 5_000


class ProbeToken(HttpBearer):
    """A probe's own token, in place of a person."""

    def authenticate(self, request: HttpRequest, token: str) -> ProbeRecord | None:
        return ProbeRecord.objects.filter(token_hash=_hash(token)).first()


@dataclass
class AskWarmth:
    """A plan as it stands on the screen, and how warm it is today."""

    plan: AnyPlan
    today: Today = field(default_factory=Today)
    what_if: bool = False


@dataclass
class AskJudge:
    """A plan, and what was measured and felt at its lock-in."""

    plan: AnyPlan
    feel: Feel


@dataclass
class Learned:
    """What readings teach about a place, and the sentence that offers it."""

    fit: Fit
    says: str


@dataclass(frozen=True)
class NewProbe(Checked):
    """A probe to be known by a name."""

    name: Annotated[str, Length(1, 80, "characters")]


@dataclass
class ProbeView:
    """A probe as the kitchen shows it; ``token`` only once, when it is made."""

    id: int
    name: str
    samples: int
    last_at: datetime | None
    last_c: float | None
    token: str | None = None


@dataclass(frozen=True)
class ProbeSaid(Checked):
    """A reading as a probe sends it: when, with its time zone, and °C."""

    at: datetime
    t_c: Annotated[float, Range(-60, 80, "°C")]

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.at.utcoffset() is None:
            raise Faults(Fault("at", "The time must say its time zone."))


@dataclass(frozen=True)
class ProbeBatch(Checked):
    """Readings, sent once or many times: what is there already is passed over."""

    readings: Annotated[tuple[ProbeSaid, ...], Length(1, 1_000, "readings")]


@dataclass
class Taken:
    """How many readings were new."""

    kept: int


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


@router.post("/warmth", auth=signed_in, response=WorkedWarmth)
def warmth(request: HttpRequest, ask: Body[AskWarmth]) -> HttpResponse:
    return written(WorkedWarmth, work_warmth(ask.plan, the_kitchen(), ask.today, ask.what_if))


@router.post("/judge", auth=signed_in, response=Judgement)
def judge(request: HttpRequest, ask: Body[AskJudge]) -> Judgement:
    return judge_lock_in(ask.plan, ask.feel, the_kitchen())


@router.post("/learn", auth=signed_in, response=Learned)
def learn(request: HttpRequest, taken: Body[PlaceReadings]) -> Learned:
    fit = learn_place(taken, the_kitchen())
    return Learned(fit, learned(fit, taken.place))


@router.post("/learn/keep", auth=head_only, response=Learned)
def keep_readings(request: HttpRequest, taken: Body[PlaceReadings]) -> Learned:
    """Take a taken over into the kitchen, which then says that the value is its own."""
    kitchen = the_kitchen()
    fit = learn_place(taken, kitchen)
    keep_rows({f"{taken.place}.film": round(fit.after_w_m2k, 2)}, user_of(request))
    return Learned(fit, learned(fit, taken.place))


@router.post("/learn/csv", auth=signed_in, response=list[ProbeReading])
def read_table(request: HttpRequest, file: File[UploadedFile]) -> list[ProbeReading]:
    """Readings from any logger's table."""
    if (file.size or 0) > LARGEST_TABLE:
        raise Faults(Fault("", "This file is too large to be a logger's table."))
    try:
        text = file.read().decode("utf-8-sig")
    except UnicodeDecodeError:
        raise Faults(Fault("", "This file is not text, so it is no table.")) from None
    return list(read_logger_csv(text))


@router.post("/learn/simulated", auth=signed_in, response=list[ProbeReading])
def simulated_probe(request: HttpRequest, taken: Body[PlaceReadings]) -> list[ProbeReading]:
    """What the demo's simulated probe says of such a rest: in a fridge of its own, with noise and faults."""
    if not settings.DEMO:
        raise Http404("A simulated probe lies in the demo only.")
    return list(simulated_readings(taken, the_kitchen()))


@router.get("/probes", auth=signed_in, response=list[ProbeView])
def list_probes(request: HttpRequest) -> list[ProbeView]:
    return [_probe(p) for p in ProbeRecord.objects.all()]


@router.post("/probes", auth=head_only, response=ProbeView)
def new_probe(request: HttpRequest, probe: Body[NewProbe]) -> ProbeView:
    """Make a probe known; its token is shown this once."""
    token = secrets.token_urlsafe(24)
    record = ProbeRecord.objects.create(name=probe.name, token_hash=_hash(token))
    return _probe(record, token)


@router.delete("/probes/{int:probe_id}", auth=head_only, response={204: None})
def forget_probe(request: HttpRequest, probe_id: int) -> Status[None]:
    ProbeRecord.objects.filter(pk=probe_id).delete()
    return Status(204, None)


@router.get("/probes/{int:probe_id}/readings", auth=signed_in, response=list[ProbeReading])
def taken(request: HttpRequest, probe_id: int, hours: int = 4) -> list[ProbeReading]:
    """The latest readings of a probe, of so many hours, minutes from the first of them; a gap of an hour
    ends them.
    """
    probe = ProbeRecord.objects.filter(pk=probe_id).first()
    if probe is None:
        raise Http404("There is no such probe.")
    kept: list[Sample] = []
    since = (probe.last_at or timezone.now()) - timedelta(hours=min(max(hours, 1), 48))
    for sample in probe.samples.filter(at__gte=since).order_by("-at")[:MOST_READINGS]:
        if kept and (kept[-1].at - sample.at).total_seconds() > 3600:
            break
        kept.append(sample)
    kept.reverse()
    return [
        ProbeReading(round((s.at - kept[0].at).total_seconds() / 60, 3), s.t_c)
        for s in kept
        if (s.at - kept[0].at).days < 7
    ]


@router.post("/probes/readings", auth=ProbeToken(), response=Taken)
def take_readings(request: HttpRequest, batch: Body[ProbeBatch]) -> Taken:
    """Readings of the probe whose token is sent: ``Authorization: Bearer <token>``."""
    probe: ProbeRecord = request.auth  # type: ignore[attr-defined]
    said = {r.at: r.t_c for r in reversed(batch.readings)}
    with transaction.atomic():
        known = probe.samples.filter(at__in=said).values_list("at", flat=True)
        new = {at: t_c for at, t_c in said.items() if at not in {*known}}
        Sample.objects.bulk_create([Sample(probe=probe, at=at, t_c=t_c) for at, t_c in new.items()])
        probe.refresh_from_db()
        probe.said(len(new))
        probe.thin(timezone.now())
    return Taken(len(new))


def _probe(record: ProbeRecord, token: str | None = None) -> ProbeView:
    return ProbeView(record.pk, record.name, record.taken, record.last_at, record.last_c, token)
