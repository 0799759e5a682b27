"""Lesson files: read of any kitchen and plan that was ever kept, and the eight that ship."""

from __future__ import annotations

import json
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Annotated, Any

from pydantic import BeforeValidator, TypeAdapter

from bakehouse.documents import json_of, read
from lamination.kitchen import renamed
from lamination.lessons import DECISIONS_FORMAT, LESSON_FORMAT, Decisions, Lesson, Morning
from lamination.plan import migrated
from lamination.terms import Fault, Faults

_SHIPPED = Path(__file__).parent / "shipped"


@dataclass(frozen=True)
class Shipped:
    """A lesson that ships: its key, which is its file's name, and itself."""

    key: str
    lesson: Lesson


@cache
def shipped() -> tuple[Shipped, ...]:
    """The lessons that ship, in their order."""
    files = sorted(_SHIPPED.glob("*.json"))
    return tuple(Shipped(f.stem, read_lesson(json.loads(f.read_bytes()))) for f in files)


def _todays(data: Any) -> Any:
    """A lesson's plain values with its plan and kitchen in today's names. Raises Faults."""
    if isinstance(data, dict):
        if data.get("format", LESSON_FORMAT) != LESSON_FORMAT:
            raise Faults(Fault("format", f'A lesson says "format": "{LESSON_FORMAT}".'))
        if data.get("version", 1) != 1:
            raise Faults(Fault("version", "This Eight Turn reads version 1."))
        data = dict(data)
        if isinstance(data.get("plan"), dict):
            data["plan"] = migrated(data["plan"])
        data["kitchen"] = _kitchen_of(data)
    return data


def _kitchen_of(data: dict[str, Any]) -> Any:
    """A file's kitchen in today's names; what is none is left for the reader to refuse."""
    kitchen = data.get("kitchen", {})
    rows = kitchen.get("yours", {}) if isinstance(kitchen, dict) else None
    return renamed(kitchen) if isinstance(rows, dict) else kitchen


# A lesson as it may come in: its plan and kitchen of any version that was ever kept.
AnyLesson = Annotated[Lesson, BeforeValidator(_todays)]


def read_lesson(data: Any) -> Lesson:
    """A lesson from plain JSON values, its plan and kitchen of any version. Raises Faults."""
    return read(Lesson, _todays(data))


def _todays_morning(data: Any) -> Any:
    """A morning's plain values with every dough's plan and its kitchen in today's names."""
    data = dict(data)
    day = dict(data.get("day") or {})
    doughs = day.get("doughs")
    if isinstance(doughs, list):
        day["doughs"] = [
            {**d, "plan": migrated(d["plan"])} if isinstance(d, dict) and "plan" in d else d
            for d in doughs
        ]
    return {**data, "day": day, "kitchen": _kitchen_of(data)}


@cache
def mornings() -> dict[str, Morning]:
    """The mornings that ship, by their keys."""
    files = sorted((Path(__file__).parent / "mornings").glob("*.json"))
    return {f.stem: read(Morning, _todays_morning(json.loads(f.read_bytes()))) for f in files}


def lesson_from(content: bytes) -> Lesson:
    """A lesson file. Raises Faults."""
    return read_lesson(json_of(content, "lesson"))


def decisions_from(content: bytes) -> Decisions:
    """A file of decisions. Raises Faults."""
    data = json_of(content, "decisions")
    if data.get("format", DECISIONS_FORMAT) != DECISIONS_FORMAT:
        raise Faults(Fault("format", f'Decisions say "format": "{DECISIONS_FORMAT}".'))
    return read(Decisions, data)


def schemas() -> dict[str, Any]:
    """The JSON Schemas of both files."""
    return {
        LESSON_FORMAT: TypeAdapter(Lesson).json_schema(),
        DECISIONS_FORMAT: TypeAdapter(Decisions).json_schema(),
    }
