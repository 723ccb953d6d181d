"""The states of a device: which sources are there and how, where its switch stands, what its brains
do, which key is held.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import combinations
from typing import Literal, get_args

from loquet.core.brief import Thing
from loquet.core.energising.answering import Given
from loquet.core.energising.conditions import (
    BY_DUTY,
    PARTS_HIGH,
    PARTS_LOW,
    absent,
    drives,
    feeds,
    held,
    holds,
    passes,
    pressed,
    pulls,
    switched,
)
from loquet.core.energising.device import Device
from loquet.core.energising.feeds import PORT_V

Level = Literal["least", "usual", "most", "reversed", "wrong"]
Acts = Literal["dark", "reset", "asleep", "high", "low", "runs"]
LOOSE_KINDS = ("cell holder", "18650 holder", "lead pads", "screw terminals")
TURNED_KINDS = (*LOOSE_KINDS, "header", "post row", "barrel jack")
"""Kinds of parts over which a source can come in the wrong way round: holders, wires, plugs that
nothing keys, adapters with minus inside. The plus spring of a coin holder touches the rim of its
cell, which is plus on either side; from memory.
"""
WRONG_V = 12.0, 24.0
"""Adapters whose plug fits as well: 12 V, or 24 V where 12 are the right ones; common practice."""
LEAST_PORT_V = 4.4
"""A port at its least (USB 2.0 section 7.2.2)."""
MOST_TOGETHER = 3
Mode = Literal["play", "idle", "sleep", "peak"]


@dataclass(frozen=True)
class State:
    """One state; `sources` says of those that are there how they are, `contact` is the role and the
    ends of a key that is held, `alone` the only brain that does something.
    """

    sources: tuple[tuple[str, Level], ...]
    acts: Acts
    mode: Mode = "play"
    on: bool = True
    contact: tuple[str, tuple[str, str]] | None = None
    key: str = ""
    alone: str = ""

    @property
    def id(self) -> str:
        """It as one word, for a command or an address."""
        there = "+".join(f"{name}={level}" for name, level in self.sources) or "nothing"
        rest = [self.acts, self.mode, "on" if self.on else "off"]
        rest += [f"key={self.key}"] if self.key else []
        return ",".join([there, *rest, *([f"alone={self.alone}"] if self.alone else [])])

    @property
    def calm(self) -> "State":
        """The same with no key held: where a device is before one is pressed."""
        return replace(self, contact=None, key="")

    @property
    def usual(self) -> bool:
        """Whether everything in it is as it was meant to be."""
        return all(level in ("least", "usual", "most") for _, level in self.sources)


@dataclass(frozen=True)
class Way:
    """How a source may be there: the share of its usual volts by level; whether it `stays` as long
    as it is plugged in, and is a `port` that only charges or serves and feeds no rail of its own.
    """

    name: str
    label: str
    usual_v: float
    shares: tuple[tuple[Level, float], ...]
    stays: bool = False
    port: bool = False

    @property
    def wrong_v(self) -> float:
        """The volts of the wrong adapter; raises KeyError where none fits."""
        return round(self.usual_v * self.share("wrong"), 1)

    def share(self, level: Level) -> float:
        """The share of its usual volts; raises KeyError for a level that it never has."""
        return dict(self.shares)[level]


def ways_of(device: Device) -> tuple[Way, ...]:
    """All sources of a device with the levels that they may have."""
    found = []
    for thing in device.sources:
        found.append(way_of(device, thing))
    known = {way.name for way in found}
    for row in device.made:
        name = row.feeder.name if row.feeder is not None else row.rail.name
        own = row.feeder is None or not (row.feeder.LOWER_FEED or row.feeder.PASSES)
        if own and name not in known and row.supply is None:
            known.add(name)
            usual = row.rail.usual_v
            shares: tuple[tuple[Level, float], ...] = (
                ("least", row.rail.empty_v / usual),
                ("usual", 1.0),
                ("most", row.rail.fresh_v / usual),
            )
            found.append(Way(name, name, usual, shares, stays=True))
    return tuple(found)


def way_of(device: Device, thing: Thing) -> Way:
    """How a thing may bring power."""
    supply, kinds = thing.source(), kinds_of(device, thing)
    if supply is None:
        five = thing.plug_v() / PORT_V
        levels: tuple[tuple[Level, float], ...] = (
            ("least", LEAST_PORT_V / PORT_V),
            ("usual", 1.0),
            ("most", five),
        )
        return Way(thing.name, thing.label, PORT_V, levels, stays=True, port=True)
    usual = supply.usual_v
    shares: list[tuple[Level, float]] = [
        ("least", supply.empty_v / usual),
        ("usual", 1.0),
        ("most", supply.fresh_v / usual),
    ]
    if any(kind in TURNED_KINDS for kind in kinds):
        shares.append(("reversed", -1.0))
    if "barrel jack" in kinds and usual < 0.95 * WRONG_V[1]:
        wrong = WRONG_V[0] if usual < WRONG_V[0] * 0.95 else WRONG_V[1]
        shares.append(("wrong", wrong / usual))
    return Way(thing.name, thing.label, usual, tuple(shares), stays=supply.stays)


def kinds_of(device: Device, thing: Thing) -> set[str]:
    """The kinds of the parts over which a source comes in."""
    components = (c for c in device.circuit.components if c.thing == thing.name)
    return {device.kind(c) for c in components if c.polar or device.kind(c).endswith("holder")}


class UnknownState(Exception):
    """A state that a device has not: what is wrong with it, and the way out."""

    def __init__(self, problem: str, way_out: str) -> None:
        super().__init__(f"{problem} {way_out}")
        self.problem, self.way_out = problem, way_out


def read_state(device: Device, text: str) -> State:
    """A state from its one word, such as `cell=full+usb=usual,high,play,on`; raises UnknownState
    with what may stand there.
    """
    there, *rest = [piece.strip() for piece in text.split(",")]
    ways = {way.name: [level for level, _ in way.shares] for way in ways_of(device)}
    sources: list[tuple[str, Level]] = []
    for piece in there.split("+") if there not in ("", "nothing") else ():
        name, _, word = piece.partition("=")
        level = next((row for row in ways.get(name, ()) if row == (word or "usual")), None)
        if level is None:
            known = "; ".join(f"{n}: {', '.join(levels)}" for n, levels in ways.items())
            raise UnknownState(f"'{piece}' is no source of this device.", f"It has {known}.")
        sources.append((name, level))
    found = State(tuple(sources), "high")
    for word in rest:
        found = with_word(device, found, word)
    return found


def with_word(device: Device, state: State, word: str) -> State:
    """A state with one more word of its text; raises UnknownState."""
    acts: tuple[Acts, ...] = get_args(Acts)
    modes: tuple[Mode, ...] = get_args(Mode)
    name, _, rest = word.partition("=")
    keys = {
        contact.words: (thing.role(contact.body), contact.ends)
        for thing in device.brief.things
        for contact in thing.contacts()
    }
    if word in ("on", "off"):
        return replace(state, on=word == "on")
    for act in acts:
        if word == act:
            return replace(state, acts=act)
    for mode in modes:
        if word == mode:
            return replace(state, mode=mode)
    if name == "key" and rest in keys:
        return replace(state, contact=keys[rest], key=rest)
    if name == "alone" and any(brain.name == rest for brain in device.brief.brains):
        return replace(state, alone=rest)
    raise UnknownState(
        f"'{word}' says nothing of a state.",
        f"Say one of {', '.join((*acts, *modes))}, on, off, or a key: key={next(iter(keys), '')}.",
    )


def usual_state(ways: tuple[Way, ...]) -> State:
    """The device as it is used: on its own sources, or on all where it has none."""
    own = [way for way in ways if not way.port] or list(ways)
    return State(usual(own), "high")


def states_of(device: Device) -> tuple[State, ...]:
    """All states that are looked at, each once."""
    ways = ways_of(device)
    return tuple(dict.fromkeys(all_states(device, ways)))


def all_states(device: Device, ways: tuple[Way, ...]) -> Iterator[State]:
    """States in the order in which a person would try them."""
    every = together(ways)
    for chosen in every:
        at = usual(chosen)
        yield from (State(at, acts) for acts in ("reset", "high", "low"))
        yield State(at, "high", "peak")
        yield State(at, "asleep", "sleep")
        yield from (State(at, "high", alone=brain.name) for brain in device.brief.brains)
        if any(thing.SWITCHES for thing in device.brief.things):
            yield State(at, "dark", "sleep", on=False)
    for way in ways:
        for others in ([], [w for w in ways if w is not way]):
            yield from alone_and_together(way, others)
    whole = usual([w for w in ways if not w.port] or list(ways))
    for thing in device.brief.things:
        for contact in thing.contacts():
            role = thing.role(contact.body)
            yield State(whole, "reset", contact=(role, contact.ends), key=contact.words)


def together(ways: tuple[Way, ...]) -> list[list[Way]]:
    """Which sources are there at once: none, each alone, several."""
    most = len(ways) if len(ways) <= MOST_TOGETHER else 2
    found = [list(row) for n in range(most + 1) for row in combinations(ways, n)]
    return found if list(ways) in found else [*found, list(ways)]


def usual(ways: list[Way]) -> tuple[tuple[str, Level], ...]:
    """Sources at their usual volts."""
    return tuple((way.name, "usual") for way in ways)


def alone_and_together(way: Way, others: list[Way]) -> Iterator[State]:
    """A source at each of its levels beside others."""
    for level, _ in way.shares:
        at = (*usual(others), (way.name, level))
        if level in ("least", "most"):
            yield State(at, "high", "peak")
            yield State(at, "low")
            yield State(at, "reset", "sleep")
        if level in ("reversed", "wrong"):
            yield State(at, "reset")
            yield State(at, "high")


def given_of(device: Device, ways: tuple[Way, ...], state: State) -> Given:
    """A state as the solver takes it."""
    by_name = {way.name: way for way in ways}
    on = {feeds(name) for name, _ in state.sources}
    on |= {absent(name) for name in by_name if feeds(name) not in on}
    for thing in device.brief.things:
        if thing.SWITCHES:
            on.add(switched(thing.name, state.on))
            if state.on:
                on.add(holds(thing.name))
        if thing.PASSES and state.acts in ("high", "runs"):
            on.add(passes(thing.name))
    if state.acts in ("runs", "asleep"):
        on.add(BY_DUTY)
    for brain in device.brief.brains:
        if state.acts == "low":
            on.add(pulls(brain.name))
        if state.acts in ("high", "low", "asleep") and state.alone in ("", brain.name):
            on.add(drives(brain.name, state.acts == "high"))
    if state.acts in ("high", "low") and not state.alone:
        on.add(PARTS_HIGH if state.acts == "high" else PARTS_LOW)
    if state.contact:
        on.add(held(*state.contact))
    volts = {name: by_name[name].share(level) for name, level in state.sources}
    amperes = {
        load.thing: load.currents.of("sleep" if state.acts == "dark" else state.mode) / 1000
        for load in device.loads
    }
    return Given(frozenset(on), volts, amperes)


def starting(device: Device, given: Given) -> Given:
    """The moment before, from which a device comes into a state: nothing is drawn yet, and the
    button of its latch is held. Of several answers (a latch that is off, a port that everything
    together never lets up) it is the one that a device in use is in.
    """
    latches = [t.name for t in device.brief.things if t.ASKS_FIRST]
    held_down = {pressed(n) for n in latches if holds(n) in given.on}
    nothing = dict.fromkeys((load.thing for load in device.loads), 0.0)
    return replace(given, on=given.on | held_down, amperes=nothing)
