"""How long a source lasts with every path that draws from it, and which paths those are."""

from collections.abc import Mapping
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from loquet.core.brief import Supply, Thing
from loquet.core.energising.device import Device
from loquet.core.energising.elements import Source, nodes_of
from loquet.core.energising.energised import Energised, settled
from loquet.core.energising.feeds import CONVERTERS
from loquet.core.energising.meant import through_a
from loquet.core.energising.network import network_of
from loquet.core.energising.states import (
    Acts,
    Level,
    Mode,
    State,
    given_of,
    ways_of,
)
from loquet.core.power.discharge import open_v, self_discharge_ma, usable_share
from loquet.core.power.lasting import Lasting, Path

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
POINTS, FINE = 41, 21
"""At so many shares of what is left the device is solved; between them the current is straight."""
STEPS = 2000
ACTS: dict[str, Acts] = {"play": "runs", "idle": "runs", "sleep": "asleep"}
MODES: dict[str, Mode] = {"play": "play", "idle": "idle", "sleep": "sleep"}
PASSING = (*CONVERTERS, "charger", "fuse", "inductor", "slide switch", "ideal diode")
HELD_SHARE = 0.95
"""A rail that a converter makes is held while it has such a share of its volts."""
LEAST_SHARE = 0.01
"""A path with less than such a share is not named by itself."""


def lasting(
    device: Device, thing: Thing, supply: Supply, mode: str, lowest_v: Mapping[str, float]
) -> Lasting:
    """A source alone, from full until a brain or a rail stops: dt = C dq / I(V(q)), with the
    current of the whole network at every point. `supply` may be the thing's own as it is in the
    cold.
    """
    left = np.linspace(1.0, 0.0, POINTS)
    seen = emptied(device, thing, supply, left, mode)
    volts, holds = volts_of(seen, thing), running(seen, thing, supply, lowest_v)
    stops = 0.0
    if not holds.all():
        between = finer(left, holds)
        near = emptied(device, thing, supply, between, mode)
        stops = edge(between, running(near, thing, supply, lowest_v))
    lost = self_discharge_ma(supply)
    fine = np.linspace(1.0, 0.0, STEPS + 1)
    current = np.interp(-fine, -left, 1000 * seen.given_a[thing.name]) + lost
    last = int(np.searchsorted(-fine, -stops))
    mean = float(current[: max(last, 1)].mean())
    usable = usable_share(supply, mean)
    slices = 2.0 / (current[1:] + current[:-1]) * supply.capacity_mah * usable / STEPS
    hours, share = float(slices[:last].sum()), last / STEPS
    at = int(np.argmin(np.abs(left - (1 - share / 2))))
    return Lasting(
        source=thing.name,
        mode=mode,
        hours=hours,
        share=share,
        mean_ma=supply.capacity_mah * usable * share / hours if hours else mean,
        lost_ma=lost,
        stops_v=float(np.interp(share - 1.0, -left, volts)),
        usable=usable,
        paths=paths_of(seen, thing, at, hours, lost / mean),
    )


def emptied(device: Device, thing: Thing, supply: Supply, left: Floats, mode: str) -> Energised:
    """The device on one source that runs down, a state for every share that is left of it."""
    shares, own = open_v(supply, left) / supply.usual_v, thing.source()
    colder = supply.resistance_ohm / own.resistance_ohm if own and own.resistance_ohm else 1.0
    at: tuple[tuple[str, Level], ...] = ((thing.name, "usual"),)
    state = State(at, ACTS[mode], MODES[mode])
    ways, network = ways_of(device), network_of(device)
    network.sources = [
        replace(s, ohm=s.ohm * colder) if s.name == thing.name else s for s in network.sources
    ]
    given = given_of(device, ways, state)
    rows = [replace(given, volts={thing.name: float(share)}) for share in shares]
    return Energised(device, ways, (state,) * len(left), settled(device, network, rows))


def volts_of(seen: Energised, thing: Thing) -> Floats:
    """The volts at the ends of a source, cells in a row together, by state."""
    rows = (s for s in seen.answers.made.network.sources if s.name == thing.name)
    found: Floats = np.sum([seen.volt(s.plus) - seen.volt(s.minus) for s in rows], axis=0)
    return found


def held(seen: Energised, lowest_v: Mapping[str, float]) -> Bools:
    """By state, whether every rail that is there with a full source is still there: a direct one
    above what its brains ask, a made one at its volts.
    """
    found = np.ones(len(seen.states), dtype=np.bool_)
    for net, made in seen.device.rails.items():
        volts = seen.volt(net)
        if volts[0] < HELD_SHARE * made.rail.empty_v:
            continue
        asked = lowest_v.get(made.rail.name, 0.0)
        if made.taken is not None:
            asked = max(asked, HELD_SHARE * made.rail.usual_v)
        found &= volts >= asked
    return found


def running(seen: Energised, thing: Thing, supply: Supply, lowest_v: Mapping[str, float]) -> Bools:
    """By state, whether the device runs: its answer may be believed, its rails are held, and its
    source is not empty.
    """
    full = volts_of(seen, thing) >= supply.empty_v - 1e-9
    found: Bools = seen.sound & held(seen, lowest_v) & full
    return found


def finer(left: Floats, holds: Bools) -> Floats:
    """A full source, and shares between the last at which it ran and the next."""
    first = int(np.argmin(holds))
    return np.concatenate([[1.0], np.linspace(left[max(first - 1, 0)], left[first], FINE)])


def edge(left: Floats, holds: Bools) -> float:
    """What is left when the device stops: between the last point at which it ran and the next."""
    first = int(np.argmin(holds))
    return float(left[first] + left[max(first - 1, 0)]) / 2 if first else 1.0


def paths_of(
    seen: Energised, thing: Thing, at: int, hours: float, by_itself: float
) -> tuple[Path, ...]:
    """Every part with the power that it turns into heat, as a current at the source, the largest
    first; small ones together are not named. `by_itself` is the share that the source loses.
    """
    volts = float(volts_of(seen, thing)[at])
    watts: dict[str, float] = {}
    for element, amps in seen.answers.each:
        if element.ref and not isinstance(element, Source):
            across = [seen.volt(node)[at] for node in nodes_of(element)]
            watts[element.ref] = watts.get(element.ref, 0.0) + float(np.dot(amps[at], across))
    whole = sum(watts.values())
    if volts <= 0 or whole <= 0:
        return ()
    found = []
    for ref, lost in sorted(watts.items(), key=lambda row: -row[1]):
        share = lost / whole
        if share < LEAST_SHARE:
            break
        component = seen.device.by_ref[ref]
        value = f"{component.value}, " if component.value else ""
        found.append(
            Path(
                ref=ref,
                words=f"{value}{component.purpose}",
                ma=1000 * (own_a(seen, ref, at) or lost / volts),
                share=share,
                hours_without=hours / max(1 - share * (1 - by_itself), 1e-3),
            )
        )
    return tuple(found)


def own_a(seen: Energised, ref: str, at: int) -> float:
    """What a part draws itself, in A; 0 for one that passes on what others draw."""
    kind = seen.device.kind(seen.device.by_ref[ref])
    passes_on = kind in PASSING or "transistor" in kind
    return 0.0 if passes_on else float(through_a(seen, ref)[at])
