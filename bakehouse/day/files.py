"""Day files: an open format for a day that is asked for, and for the timetable that comes of it."""

from __future__ import annotations

import json
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Annotated, Any
from zoneinfo import ZoneInfo, available_timezones

from pydantic import Field

from bakehouse.documents import adapter, dump, read, read_plan, said_plainly
from lamination.day import Day, Timetable
from lamination.kitchen import Kitchen
from lamination.terms import Fault, Faults, join_path, plain

FORMAT = "eight-turn/day"
ANSWER = "eight-turn/timetable"
VERSION = 1
# The file says from and to, which the language keeps for itself.
_IN_FILES = {"starts": "from", "ends": "to"}
_LISTS = ("hands", "quiet")


@dataclass
class DayFile:
    """A day and the bakehouse it is worked in."""

    day: Day
    kitchen: Kitchen


@dataclass
class _Plain:
    """What the schema says of a file besides its day."""

    kitchen: Annotated[dict[str, float], Field(description="rows of the kitchen that differ")]


def read_day_file(content: bytes) -> DayFile:
    """Read a day file. Raises :class:`Faults` with the paths of the file."""
    try:
        data = json.loads(content.decode("utf-8-sig"))
    except (UnicodeDecodeError, ValueError, RecursionError):
        raise Faults(Fault("", "This file is not JSON.")) from None
    if not isinstance(data, dict):
        raise Faults(Fault("", "This is JSON, but not a day: a day is a group of fields."))
    if data.pop("format", None) != FORMAT:
        raise Faults(Fault("format", f'A day file says "format": "{FORMAT}".'))
    version = data.pop("version", None)
    if version != VERSION:
        raise Faults(Fault("version", f"This Eight Turn reads day files of version {VERSION}."))
    rows = data.pop("kitchen", None)
    try:
        kitchen = read(Kitchen, {"yours": {} if rows is None else rows})
    except Faults as wrong:
        paths = ((f.field.removeprefix("yours").lstrip("."), f.message) for f in wrong.faults)
        raise Faults(*(Fault(join_path("kitchen", path), text) for path, text in paths)) from None
    try:
        return DayFile(read(Day, _ours(data)), kitchen)
    except Faults as wrong:
        raise Faults(*(Fault(_theirs(f.field), f.message) for f in wrong.faults)) from None


def _ours(data: dict[str, Any]) -> dict[str, Any]:
    """The file's fields in the core's names, and its local times with their offset."""
    faults: list[Fault] = []
    data = dict(data)
    zone = data.get("zone", "UTC")
    tz = ZoneInfo(zone) if isinstance(zone, str) and zone in available_timezones() else None

    def placed(value: Any, path: str) -> Any:
        try:
            at = datetime.fromisoformat(value)
        except (TypeError, ValueError):
            return value
        if at.tzinfo is not None or tz is None:
            return value
        try:
            return in_zone(at, tz).isoformat()
        except Faults as wrong:
            faults.extend(f.under(path) for f in wrong.faults)
            return at.replace(tzinfo=tz).isoformat()

    for name in _LISTS:
        items = data.get(name)
        if isinstance(items, list):
            data[name] = [
                {
                    next((o for o, t in _IN_FILES.items() if t == key), key): (
                        placed(value, f"{name}[{i}].{key}") if key in _IN_FILES.values() else value
                    )
                    for key, value in item.items()
                }
                if isinstance(item, dict)
                else item
                for i, item in enumerate(items)
            ]
    if isinstance(data.get("doughs"), list):
        data["doughs"] = [
            _dough(item, i, placed, faults) if isinstance(item, dict) else item
            for i, item in enumerate(data["doughs"])
        ]
    for name in ("begins", "ends"):
        if name in data:
            data[name] = placed(data[name], name)
    if data.get("ends") is None and isinstance(data.get("doughs"), list):
        ready = [str(d.get("ready_at")) for d in data["doughs"] if isinstance(d, dict)]
        if ready:
            data["ends"] = max(ready, key=_moment)
    if faults:
        raise Faults(*faults)
    return data


def _moment(text: str) -> float:
    try:
        return datetime.fromisoformat(text).timestamp()
    except ValueError:
        return 0.0


def _dough(item: dict[str, Any], i: int, placed: Any, faults: list[Fault]) -> dict[str, Any]:
    item = dict(item)
    if "ready_at" in item:
        item["ready_at"] = placed(item["ready_at"], f"doughs[{i}].ready_at")
    if isinstance(item.get("plan"), dict):
        try:
            item["plan"] = dump(read_plan(item["plan"]))
        except Faults as wrong:
            faults.extend(f.under(f"doughs[{i}].plan") for f in wrong.faults)
    if isinstance(item.get("id"), int):
        item["id"] = str(item["id"])
    return item


def in_zone(at: datetime, tz: ZoneInfo) -> datetime:
    """A local time in its zone. Raises :class:`Faults` for an hour that is skipped, or comes twice."""
    first, second = at.replace(tzinfo=tz, fold=0), at.replace(tzinfo=tz, fold=1)
    back = first.astimezone(UTC).astimezone(tz).replace(tzinfo=None)
    if back != at:
        text = f"The clocks skip {at:%H:%M} that night. Choose another minute."
        raise Faults(Fault("", text))
    if first.utcoffset() != second.utcoffset():
        text = f"{at:%H:%M} comes twice that night. Write it with its offset, such as +01:00."
        raise Faults(Fault("", text))
    return first


def _theirs(path: str) -> str:
    for ours, theirs in _IN_FILES.items():
        if path.startswith(tuple(f"{name}[" for name in _LISTS)) and path.endswith(f".{ours}"):
            return path[: -len(ours)] + theirs
    return path


def timetable_file(found: Timetable) -> dict[str, Any]:
    """A timetable as an open file."""
    told = said_plainly(dump(found))
    rests = [
        {_IN_FILES.get(key, key): value for key, value in rest.items()} for rest in told["rests"]
    ]
    return {
        "format": ANSWER,
        "version": VERSION,
        "name": told["name"],
        "tasks": told["tasks"],
        "rests": rests,
        "ready": told["ready"],
        "gives": [
            plain(f"{g.says} {g.mend}".strip()) for g in found.gives
        ],
        **{
            key: told[key]
            for key in (
                "cost", "bound", "gap_pct", "late_min", "outside_min", "tight_min", "seconds", "moved",
                "duties",
            )
        },
    }  # fmt: skip


def day_schema() -> dict[str, Any]:
    """The JSON Schema of a day file, made from the core's own types."""
    schema = adapter(Day).json_schema()
    for name, definition in schema.get("$defs", {}).items():
        if name in ("Shift", "Quiet"):
            definition["properties"] = {
                _IN_FILES.get(key, key): value for key, value in definition["properties"].items()
            }
            definition["required"] = [_IN_FILES.get(key, key) for key in definition["required"]]
    rows = adapter(_Plain).json_schema()["properties"]["kitchen"]
    schema["properties"] = {
        "format": {"const": FORMAT}, "version": {"const": VERSION}, "kitchen": rows,
        **schema["properties"],
    }  # fmt: skip
    schema["required"] = ["format", "version", *(n for n in schema["required"] if n != "ends")]
    return schema
