"""The calendar backwards from the day on which the devices are wanted: what takes how long, what
must be ordered when, and how much time is left.
"""

from collections.abc import Collection, Sequence
from datetime import date, timedelta

from loquet.core.plain.frozen import Frozen

SATURDAY = 5


class Leg(Frozen):
    """Something that takes time: its words, days of work (weekends and holidays do not count), days
    on the road (all count), what has to be there before, and whether it begins with an order.
    """

    name: str
    words: str
    work_days: int
    road_days: int = 0
    after: tuple[str, ...] = ()
    ordered: bool = False
    closed_on: tuple[str, ...] = ()


class Booked(Frozen):
    """A leg in the calendar: the last day on which it can begin, when it is over if it begins then,
    the earliest it can begin and end from today on, and the days that are left.
    """

    name: str
    words: str
    ordered: bool
    latest_start: date
    latest_end: date
    earliest_start: date
    earliest_end: date
    slack_days: int


class Calendar(Frozen):
    """All legs, the day on which the devices can be there at the earliest, whether that is in time,
    and what must be ordered today.
    """

    today: date
    wanted: date
    legs: tuple[Booked, ...]
    ready: date
    in_time: bool
    order_today: tuple[str, ...]


def open_day(day: date, closed_on: Collection[str]) -> bool:
    """Whether anybody works on a day; `closed_on` are months and days as `12-25`."""
    return day.weekday() < SATURDAY and day.strftime("%m-%d") not in closed_on


def after_open_days(start: date, days: int, closed_on: Collection[str]) -> date:
    """The day on which so many days of work are over that begin the day after `start`."""
    day = start
    while days:
        day += timedelta(days=1)
        days -= open_day(day, closed_on)
    return day


def before_open_days(end: date, days: int, closed_on: Collection[str]) -> date:
    """The last day after which so many days of work are still over by `end`."""
    day = end
    while days:
        days -= open_day(day, closed_on)
        day -= timedelta(days=1)
    return day


def ends(leg: Leg, start: date) -> date:
    """When a leg is over that begins on a day."""
    return after_open_days(start, leg.work_days, leg.closed_on) + timedelta(days=leg.road_days)


def starts(leg: Leg, end: date) -> date:
    """The last day on which a leg begins to be over by a day."""
    return before_open_days(end - timedelta(days=leg.road_days), leg.work_days, leg.closed_on)


def calendar(legs: Sequence[Leg], today: date, wanted: date) -> Calendar:
    """Forwards from today for the earliest days, backwards from the day that is wanted for the
    latest ones; raises ValueError where a leg waits for one that is not before it in the list.
    """
    earliest: dict[str, tuple[date, date]] = {}
    for leg in legs:
        if any(name not in earliest for name in leg.after):
            raise ValueError(f"{leg.name} waits for something that is not there")
        begin = max([today, *(earliest[name][1] for name in leg.after)])
        earliest[leg.name] = (begin, ends(leg, begin))
    latest: dict[str, tuple[date, date]] = {}
    for leg in reversed(legs):
        after = [latest[other.name][0] for other in legs if leg.name in other.after]
        end = min([wanted, *after])
        latest[leg.name] = (starts(leg, end), end)
    booked = tuple(
        Booked(
            name=leg.name,
            words=leg.words,
            ordered=leg.ordered,
            latest_start=latest[leg.name][0],
            latest_end=latest[leg.name][1],
            earliest_start=earliest[leg.name][0],
            earliest_end=earliest[leg.name][1],
            slack_days=(latest[leg.name][0] - earliest[leg.name][0]).days,
        )
        for leg in legs
    )
    ready = max((end for _, end in earliest.values()), default=today)
    return Calendar(
        today=today,
        wanted=wanted,
        legs=booked,
        ready=ready,
        in_time=ready <= wanted,
        order_today=tuple(b.name for b in booked if b.ordered and b.latest_start <= today),
    )
