"""The API: one NinjaAPI, one shape of answer for everything that is wrong."""

from __future__ import annotations

import json
import logging
import sys
from collections.abc import Callable
from dataclasses import dataclass
from functools import wraps
from typing import Any

from django.db import DatabaseError
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema, Status
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.openapi.schema import OpenAPISchema
from ninja.params.models import ParamModel
from ninja.parser import Parser
from pydantic import BaseModel

from bakehouse import VERSION, troubles
from bakehouse.bounded import MOST_FAULTS, bounded, surely_bounded
from bakehouse.declared import declare_problems
from bakehouse.documents import faults_of
from bakehouse.models import Overtaken
from bakehouse.people.roles import signed_in
from lamination.terms import Fault, Faults

log = logging.getLogger("bakehouse.troubles")


class Api(NinjaAPI):
    """Keeps the core's own faults whole, where Ninja would make text of them."""

    def validation_error_from_error_contexts(self, error_contexts: list[Any]) -> ValidationError:
        errors = []
        for context in error_contexts:
            for error in context.pydantic_validation_error.errors(include_url=False):
                errors.append(error)
        return ValidationError(errors)

    def get_openapi_schema(self, **how: Any) -> OpenAPISchema:
        schema = super().get_openapi_schema(**how)
        declare_problems(schema)
        return schema


class BoundedParser(Parser):
    """Reads a body, and says at once where it is longer than anybody means."""

    def parse_body(self, request: HttpRequest) -> Any:
        data = json.loads(request.body)
        if not surely_bounded(request.body):
            bounded(data)
        return data


def _known_only(view: Callable[..., HttpResponse]) -> Callable[..., HttpResponse]:
    """What the house can do is told to those who are signed in."""

    @wraps(view)
    def looked_at(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        if not request.user.is_authenticated:
            return problem(request, 401, Fault("", "Please sign in."))
        return view(request, *args, **kwargs)

    return looked_at


api = Api(
    title="Eight Turn",
    version=VERSION,
    auth=signed_in,
    docs_url=None,
    docs_decorator=_known_only,
    parser=BoundedParser(),
    urls_namespace="eight-turn",
)


@dataclass
class Health:
    """Whether the house can read and write what it keeps; ``because``: what is the matter where it cannot."""

    ok: bool
    because: str | None = None


@api.get("/health", auth=None, response={200: Health, 503: Health}, exclude_none=True)
def health(request: HttpRequest) -> Status[Health]:
    """For whatever watches over the house: 503 where its disk is full, read-only, or cannot be read."""
    trouble = troubles.standing()
    return Status(503 if trouble else 200, Health(not trouble, trouble))


def problem(request: HttpRequest, status: int, *faults: Fault) -> HttpResponse:
    """An answer that says what is wrong."""
    found = faults[:MOST_FAULTS]
    body = {"faults": [{"field": f.field, "message": f.message} for f in found]}
    return api.create_response(request, body, status=status)


@api.exception_handler(ValidationError)
def _on_invalid(request: HttpRequest, wrong: ValidationError) -> HttpResponse:
    # Each path begins with the name of the endpoint's parameter, which the client never sees.
    return problem(request, 422, *faults_of(wrong.errors, skip=1))


@api.exception_handler(Faults)
def _on_faults(request: HttpRequest, wrong: Faults) -> HttpResponse:
    return problem(request, 422, *wrong.faults)


@api.exception_handler(AuthenticationError)
def _on_stranger(request: HttpRequest, wrong: AuthenticationError) -> HttpResponse:
    return problem(request, 401, Fault("", "Please sign in."))


@api.exception_handler(HttpError)
def _on_http_error(request: HttpRequest, wrong: HttpError) -> HttpResponse:
    if isinstance(wrong.__cause__, Faults):
        return problem(request, 422, *wrong.__cause__.faults)
    if wrong.status_code == 400 and "body" in str(wrong).lower():
        return problem(request, 400, Fault("", "The request is not JSON."))
    return problem(request, wrong.status_code, Fault("", str(wrong)))


@api.exception_handler(Overtaken)
def _on_overtaken(request: HttpRequest, wrong: Overtaken) -> HttpResponse:
    return problem(request, 409, Fault("", str(wrong)))


@api.exception_handler(Http404)
def _on_missing(request: HttpRequest, wrong: Http404) -> HttpResponse:
    return problem(request, 404, Fault("", str(wrong) or "There is nothing here."))


@api.exception_handler(DatabaseError)
def _on_trouble(request: HttpRequest, wrong: DatabaseError) -> HttpResponse:
    sentence = troubles.sentence_for(wrong)
    if sentence is None:
        raise wrong
    log.warning("%s %s: %s", request.method, request.path, wrong)
    return _try_again(request, sentence)


def _try_again(request: HttpRequest, sentence: str) -> HttpResponse:
    answer = problem(request, 503, Fault("", sentence))
    answer["Retry-After"] = "3"
    return answer


def not_understood(request: HttpRequest, exception: Exception) -> HttpResponse:
    return problem(request, 400, Fault("", "The request cannot be understood."))


def nothing_here(request: HttpRequest, exception: Exception) -> HttpResponse:
    return problem(request, 404, Fault("", "There is nothing at this address."))


def our_fault(request: HttpRequest) -> HttpResponse:
    # outside any endpoint, as where a session is kept
    if sentence := troubles.sentence_for(sys.exc_info()[1]):
        return _try_again(request, sentence)
    return problem(request, 500, Fault("", "The bakehouse made a mistake. Nothing was changed."))


# A reader or writer of JSON is built when it is first needed: building all of them takes seconds, and
# a command or a server that has just started needs a few.
bases: list[type[BaseModel]] = [Schema, *ParamModel.__subclasses__()]
for base in bases:
    base.model_config["defer_build"] = True

for room in ("people", "kitchen", "plans", "bench", "day", "cold", "store", "findings", "lessons"):
    api.add_router("", f"bakehouse.{room}.api.router")
api.add_router("", "bakehouse.kitchen.card_api.router")
api.add_router("", "bakehouse.plans.cut_api.router")
api.add_router("", "bakehouse.bench.proof_api.router")
api.add_router("", "bakehouse.day.timetable_api.router")
api.add_router("", "bakehouse.people.staff_api.router")
api.add_router("", "bakehouse.store.printer_api.router")
api.add_router("", "bakehouse.store.stock_api.router")
api.add_router("", "bakehouse.lessons.morning_api.router")
api.add_router("", "bakehouse.bin_api.router")
api.add_router("", "bakehouse.house_api.router")
