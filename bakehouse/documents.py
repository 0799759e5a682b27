"""Documents from outside: read as the core's dataclasses, or faults that name every wrong field.

The core knows nothing of JSON; pydantic reads its dataclasses as they are. This is the one place
where validation errors become sentences, for the API and the command line alike.
"""

from __future__ import annotations

import gzip
import hashlib
import json
import re
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Any, TypeVar

from django.http import HttpRequest, HttpResponse
from pydantic import BeforeValidator, TypeAdapter, ValidationError

from bakehouse.bounded import bounded
from lamination.kitchen import Kitchen, renamed
from lamination.plan import FORMAT, VERSION, Plan, migrated
from lamination.steps import KINDS
from lamination.terms import Fault, Faults, join_path, plain

T = TypeVar("T")


@dataclass
class Problem:
    """What the API answers when something is wrong: one fault per field, or one without a field."""

    faults: list[Fault]


_SENTENCES = {
    "missing": "This is missing.",
    "unexpected_keyword_argument": "There is no field of this name here.",
    "float_parsing": "This is not a number.",
    "float_type": "This is not a number.",
    "int_parsing": "This is not a whole number.",
    "int_type": "This is not a whole number.",
    "int_from_float": "This is not a whole number.",
    "string_type": "This should be text.",
    "tuple_type": "This should be a list.",
    "dict_type": "This should be a group of fields.",
    "dataclass_type": "This should be a group of fields.",
    "json_invalid": "This is not JSON.",
}


_adapters: dict[type, TypeAdapter[Any]] = {}


def adapter(of: type[T]) -> TypeAdapter[T]:
    """The reader and writer of a dataclass as JSON; making one is slow, so each is kept."""
    if of not in _adapters:
        _adapters[of] = TypeAdapter(of)
    return _adapters[of]


def written(of: type[T], value: T) -> HttpResponse:
    """An answer already written: what follows every key and slider need not be read back first."""
    return HttpResponse(
        adapter(of).dump_json(value), content_type="application/json; charset=utf-8"
    )


class Constant:
    """An answer that is the same for everybody: written once, and kept as it goes over the wire."""

    def __init__(self, body: bytes) -> None:
        self._plain, self._packed = body, gzip.compress(body, mtime=0)
        self._tag = f'"{hashlib.sha256(body).hexdigest()[:32]}"'

    @classmethod
    def of(cls, kind: Any, value: Any) -> Constant:
        """``value``, of any type that the API answers with."""
        return cls(TypeAdapter(kind).dump_json(value))

    def answer(self, request: HttpRequest) -> HttpResponse:
        """In the way that the browser unpacks; nothing but that it is the same, where it has it."""
        packed = "gzip" in request.headers.get("Accept-Encoding", "")
        answer = HttpResponse(
            self._packed if packed else self._plain,
            content_type="application/json; charset=utf-8",
        )
        if packed:
            answer["Content-Encoding"] = "gzip"
        answer["ETag"], answer["Vary"] = self._tag, "Accept-Encoding"
        return answer


def path_of(loc: Iterable[int | str]) -> str:
    """A field's path as a person writes it: ``("turns", 0, "fold")`` is ``turns[0].fold``."""
    path = ""
    for part in loc:
        path = join_path(path, f"[{part}]" if isinstance(part, int) else part)
    return path


def _without_kinds(loc: Iterable[int | str]) -> list[int | str]:
    kept: list[int | str] = []
    for part in loc:
        kind = isinstance(part, str) and part in KINDS
        if not (kind and kept[-2:-1] == ["steps"] and isinstance(kept[-1], int)):
            kept.append(part)
    return kept


def faults_of(errors: Iterable[Any], skip: int = 0) -> tuple[Fault, ...]:
    """Validation errors as faults; ``skip`` leading parts of each path belong to the request.

    The kind of a step stands in the path that the reader gives; it is no field, and is left out.
    """
    found: list[Fault] = []
    for error in errors:
        path = path_of(_without_kinds(error["loc"][skip:]))
        cause = error.get("ctx", {}).get("error")
        if isinstance(cause, Faults):
            found += [f.under(path) for f in cause.faults]
        elif error["type"] in ("enum", "literal_error"):
            found.append(Fault(path, f"This should be one of {error['ctx']['expected']}."))
        elif error["type"] in ("union_tag_invalid", "union_tag_not_found"):
            found.append(Fault(f"{path}.do", "There is no such kind of step."))
        else:
            found.append(Fault(path, _SENTENCES.get(error["type"], f"{error['msg']}.")))
    return tuple(dict.fromkeys(found))


# A plan as it may come in: of any version that was ever saved.
AnyPlan = Annotated[Plan, BeforeValidator(migrated)]


def read_plan(document: Any) -> Plan:
    """Read a plan kept earlier, of any version. Raises :class:`Faults`."""
    return read(Plan, migrated(document))


def read(of: type[T], data: Any) -> T:
    """Read ``data`` (plain JSON values) as a dataclass of the core. Raises :class:`Faults`."""
    try:
        return adapter(of).validate_python(data)
    except ValidationError as wrong:
        raise Faults(*faults_of(wrong.errors(include_url=False))) from None


def dump(document: Any) -> Any:
    """A dataclass of the core as plain JSON values."""
    return adapter(type(document)).dump_python(document, mode="json")


def completed(kept: Any, anew: Any) -> Any:
    """What was kept, with what a newer version says besides: fields that it has not are those of ``anew``,
    the same thing written by the newer version; fields that the newer version has no more are left out.

    Things in a list are matched by their places; one beyond the end of ``anew`` by its last.
    """
    if isinstance(kept, dict) and isinstance(anew, dict):
        return {k: completed(kept[k], v) if k in kept else v for k, v in anew.items()}
    if isinstance(kept, list) and isinstance(anew, list) and anew:
        return [completed(one, anew[min(n, len(anew) - 1)]) for n, one in enumerate(kept)]
    return kept


LARGEST_FILE = 1_000_000  # bytes; a plan or a kitchen is a few kB


def read_kitchen(document: Any) -> Kitchen:
    """Read a kitchen kept earlier, in today's names. Raises :class:`Faults`."""
    return read(Kitchen, renamed(document))


def said_plainly(value: Any) -> Any:
    """Plain JSON values with every sentence read out: metric, letter and book folds."""
    if isinstance(value, str):
        return plain(value)
    if isinstance(value, dict):
        return {key: said_plainly(part) for key, part in value.items()}
    if isinstance(value, list):
        return [said_plainly(part) for part in value]
    return value


def as_download(content: str | bytes, content_type: str, name: str, ending: str) -> HttpResponse:
    """An answer that a browser saves as a file, named after what it holds."""
    safe = re.sub(r"[^a-z0-9]+", "-", plain(name).lower()).strip("-") or "plan"
    kind = content_type if isinstance(content, bytes) else f"{content_type}; charset=utf-8"
    answer = HttpResponse(content, content_type=kind)
    answer["Content-Disposition"] = f'attachment; filename="{safe}.{ending}"'
    return answer


def json_of(content: bytes | str, what: str) -> dict[str, Any]:
    """The fields of a file of JSON. Raises :class:`Faults` where it is none that a ``what`` could be."""
    try:
        text = content.decode("utf-8-sig") if isinstance(content, bytes) else content
        data = json.loads(text)
    except UnicodeDecodeError:
        raise Faults(Fault("", f"This file is not text, so it is not a {what}.")) from None
    except json.JSONDecodeError as wrong:
        where = f"line {wrong.lineno}, column {wrong.colno}"
        raise Faults(Fault("", f"This file is not JSON: it breaks off at {where}.")) from None
    except (RecursionError, ValueError):
        raise Faults(Fault("", f"This file is not JSON that a {what} could be.")) from None
    bounded(data)
    if not isinstance(data, dict):
        raise Faults(Fault("", f"This is JSON, but not a {what}: a {what} is a group of fields."))
    return data


def read_plan_file(content: bytes | str) -> Plan:
    """Read a plan file. Raises :class:`Faults`: not JSON, not a plan, a newer version, or a field.

    Format and version are looked at first: a newer file may hold fields this one does not know.
    """
    data = json_of(content, "plan")
    if data.get("format") != FORMAT:
        raise Faults(Fault("format", f'A plan file says "format": "{FORMAT}".'))
    version = data.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise Faults(Fault("version", "A plan file says which version it is: a whole number."))
    if version > VERSION:
        raise Faults(
            Fault(
                "version",
                f"This file has version {version}; this Eight Turn reads up to version {VERSION}. "
                "Open it with a newer Eight Turn.",
            )
        )
    return read_plan(data)
