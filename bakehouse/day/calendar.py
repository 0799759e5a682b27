"""A timetable in open formats: rows for a spreadsheet, events for a calendar."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

from icalendar import Calendar, Event

from lamination.day import Numbered, Timetable
from lamination.terms import written_table

_HEAD = ("starts", "ends", "who", "step", "dough", "name", "machine", "together with")


def day_csv(timetable: Timetable, doughs: Sequence[Numbered]) -> str:
    """Every task in the order of the day, with its clock times."""
    names = {d.dough: d.name for d in doughs}
    rows = [
        (f"{t.starts:%Y-%m-%d %H:%M}", f"{t.ends:%Y-%m-%d %H:%M}", t.who or "", t.name, t.dough,
         names.get(t.dough, ""), t.machine.said if t.machine else "", t.together or "")
        for t in timetable.tasks
    ]  # fmt: skip
    return written_table((_HEAD, *rows), "\r\n")


def day_ics(
    timetable: Timetable, doughs: Sequence[Numbered], key: int, who: str, zone: str
) -> bytes:
    """A calendar with an event for every task, of everybody or of one."""
    names = {d.dough: d.name for d in doughs}
    made = Calendar()
    made.add("prodid", "-//Eight Turn//day//EN")
    made.add("version", "2.0")
    made.add("x-wr-calname", f"{timetable.name} {who}".strip())
    made.add("x-wr-timezone", zone)
    # times by the bakery's clock: whoever reads them elsewhere, or across a change of the clock, is told how
    local = ZoneInfo(zone)
    along: dict[tuple[str, str], list[str]] = {}
    for t in timetable.tasks:
        if t.together:
            along.setdefault((t.together, t.step), []).append(t.dough)
    for t in timetable.tasks:
        if t.together or (who and t.who != who):
            continue
        of = ", ".join([t.dough, *along.get((t.dough, t.step), [])])
        event = Event()
        event.add("uid", f"day-{key}-dough-{t.dough}-{t.step}")
        event.add("summary", f"{t.name}: dough {of}")
        event.add("description", names.get(t.dough, ""))
        event.add("dtstart", _named(t.starts, local))
        event.add("dtend", _named(t.ends, local))
        event.add("dtstamp", t.starts.astimezone(UTC))
        made.add_component(event)
    first = min((t.starts for t in timetable.tasks), default=datetime.now(UTC)).date()
    made.add_missing_timezones(
        first_date=first - timedelta(days=365), last_date=first + timedelta(days=365)
    )
    return bytes(made.to_ical())


def _named(at: datetime, zone: ZoneInfo) -> datetime:
    """By the zone's clock; in the hour that comes twice, the second time by the one that has it once."""
    local = at.astimezone(zone)
    return at.astimezone(UTC) if local.fold else local
