"""Sessions as a calendar (iCalendar, RFC 5545): one event a session with its steps, one for each visit of others.

Times are local without a zone (RFC 5545, form 1): the hour on the wall where the job is, whatever calendar reads them.
"""

from __future__ import annotations

from datetime import UTC, datetime

from icalendar import Calendar, Event

from wobble.core.order.result import ROOMY, Planned, PlannedStep


def write_calendar(planned: Planned, job: str, name: str, stamp: datetime) -> bytes:
    """Return what is planned as an iCalendar file.

    Args:
        planned: Sessions and steps.
        job: The job's id: with it an event has the same name each time, and a calendar takes a new one for the old.
        name: What the job is called.
        stamp: When it is written, with its zone.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Wobble//Order//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    steps = {s.step.key: s for s in planned.steps}
    for session in planned.sessions:
        done = [steps[k] for k in session.steps if k in steps]
        _event(
            calendar,
            f"{job}-{session.start}@wobble",
            session.start,
            session.end,
            f"{name}: {session.name.lower()}",
            "\n".join(_line(s, session.start, session.end) for s in done),
            stamp,
        )
    for s in planned.steps:
        if s.step.others and s.stretches:
            uid = f"{job}-{s.step.key}@wobble"
            _event(
                calendar, uid, s.stretches[0].start, s.stretches[-1].end, f"{name}: {s.step.name}", s.step.why, stamp
            )
    return bytes(calendar.to_ical())


def _line(s: PlannedStep, start: str, end: str) -> str:
    mine = [x for x in s.stretches if start <= x.start < end]
    hours = f"{mine[0].start[11:]}-{mine[-1].end[11:]} " if mine else ""
    bring = f" (bring {', '.join(s.step.bring[:8])})" if s.step.bring else ""
    return f"{hours}{s.step.name}{bring}" + (f"\n   {s.step.caution}" if s.step.caution else "")


def _event(calendar: Calendar, uid: str, start: str, end: str, summary: str, text: str, stamp: datetime) -> None:
    event = Event()
    event.add("uid", uid)
    event.add("dtstamp", stamp.astimezone(UTC))
    event.add("dtstart", datetime.strptime(start, ROOMY))  # noqa: DTZ007 - the hour on the wall, on purpose
    event.add("dtend", datetime.strptime(end, ROOMY))  # noqa: DTZ007
    event.add("summary", summary)
    event.add("description", text)
    calendar.add_component(event)
