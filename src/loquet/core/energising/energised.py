"""A device in all of its states: the volts of every node, the current of every part, and where
they are worst.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from loquet.core.energising.answering import Answers, Given, answers, answers_from
from loquet.core.energising.device import Device, Spot
from loquet.core.energising.elements import Network, Source
from loquet.core.energising.network import lead_at, network_of
from loquet.core.energising.pins import Pin, pins_of
from loquet.core.energising.states import (
    State,
    Way,
    given_of,
    starting,
    states_of,
    ways_of,
)

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Energised:
    """A device with its states and their answers, row by row."""

    device: Device
    ways: tuple[Way, ...]
    states: tuple[State, ...]
    answers: Answers

    def volt(self, node: str) -> Floats:
        """The volts of a node by state, against ground."""
        return self.answers.volt(node)

    @property
    def sound(self) -> NDArray[np.bool_]:
        """By state, whether its answer may be believed."""
        return self.answers.sound

    @cached_property
    def spots(self) -> dict[str, Spot]:
        """Components on their places, by reference."""
        at = lead_at(self.device)
        return {c.ref: Spot(self.device, c, at) for c in self.device.circuit.components}

    @cached_property
    def pins(self) -> tuple[Pin, ...]:
        """Every pin that has a supply to count from."""
        return tuple(pin for spot in self.spots.values() for pin in pins_of(spot))

    @cached_property
    def given_a(self) -> dict[str, Floats]:
        """What every source gives by state, in A: less than nothing where current flows into it."""
        found: dict[str, Floats] = {}
        for element, amps in self.answers.each:
            if isinstance(element, Source):
                found.setdefault(element.name, -amps[:, 0])
        return found

    def rows(self, wanted: Sequence[bool]) -> NDArray[np.bool_]:
        """States that are wanted and whose answers may be believed."""
        return np.asarray(wanted, dtype=np.bool_) & self.sound


def energised(device: Device) -> Energised:
    """All states of a device."""
    ways, states = ways_of(device), states_of(device)
    return in_states(device, ways, states)


def in_states(device: Device, ways: tuple[Way, ...], states: tuple[State, ...]) -> Energised:
    """A device in some states: a key is pressed when it has come to the state without that key."""
    network, given = network_of(device), [given_of(device, ways, s) for s in states]
    calm = list(dict.fromkeys(state.calm for state in states))
    found = settled(device, network, [given_of(device, ways, s) for s in calm])
    before = found.take([calm.index(state.calm) for state in states], given)
    keys = [row for row, state in enumerate(states) if state.contact]
    if not keys:
        return Energised(device, ways, states, before)
    pressed = answers_from(found.made, [given[row] for row in keys], before.volts[keys])
    return Energised(device, ways, states, before.with_rows(keys, pressed))


def settled(device: Device, network: Network, given: Sequence[Given]) -> Answers:
    """The answers that a device comes to from the moment before each state."""
    first = [starting(device, each) for each in given]
    different = {same_moment(each): each for each in first}
    before = answers(network, list(different.values()))
    rows = [list(different).index(same_moment(each)) for each in first]
    return answers_from(before.made, given, before.volts[rows])


def same_moment(given: Given) -> tuple[frozenset[str], tuple[tuple[str, float], ...]]:
    """What tells one moment before from another; nothing is drawn in any."""
    return given.on, tuple(sorted(given.volts.items()))
