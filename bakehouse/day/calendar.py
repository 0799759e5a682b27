"""A timetable in open formats: rows for a spreadsheet, events for a calendar."""

from __future__ import annotations

from collections.abc import Sequence

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
        event.add("dtstart", t.starts)
        event.add("dtend", t.ends)
        event.add("dtstamp", t.starts)
        made.add_component(event)
    return bytes(made.to_ical())
