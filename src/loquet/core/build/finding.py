"""The fault finder: from a symptom to the cause, by the test that tells most for what it costs, one
at a time.
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, log

from loquet.core.build.faults import Fault
from loquet.core.build.measuring import COST, Faulty, Probe, Symptom, probes_of
from loquet.core.energising.device import Device

SURE = 0.9
WRONG = 0.002
"""How likely a reading is that a fault does not explain; common practice, no source."""
SPREAD_LOG, SPREAD_V, SPREAD_F = 0.12, 0.06, 0.2
"""Readings of ohms and farads spread by these shares, with the tolerances of parts, volts by so
many volts; common practice, no source.
"""
LEAST_OHM, LEAST_F = 0.5, 1e-10
MOST_LOOKED_AT = 160
SEEN, MISSED = 0.95, 0.02


@dataclass(frozen=True)
class Cause:
    """A cause with how likely it is now, and the faults that it stands for, the likeliest first."""

    name: str
    share: float
    faults: tuple[Fault, ...]


@dataclass(frozen=True)
class Made:
    """A test that was made, with its reading."""

    probe: Probe
    reading: float


class Suspects:
    """Everything that may be wrong with a device, and every test, prepared once for any number of
    hunts.
    """

    def __init__(self, desk: Device, faults: Sequence[Fault]) -> None:
        self.desk = desk
        self.faulty = [Faulty(desk, fault) for fault in faults]
        self.probes = probes_of(desk, list(faults))


class Finder:
    """Everything that may be wrong, and how likely each of it is after what was read."""

    def __init__(self, suspects: "Suspects", symptom: Symptom) -> None:
        self.made = list[Made]()
        self.probes, held = suspects.probes, suspects.faulty
        weights = [one.fault.weight * fits(one.symptom(), symptom) for one in held]
        order = sorted(range(len(held)), key=lambda i: -weights[i])
        most = weights[order[0]] if order else 0.0
        kept = [i for i in order if weights[i] > most * 1e-3]
        self.held = [held[i] for i in kept]
        self.weights = normal([weights[i] for i in kept])

    def tell(self, probe: Probe, reading: float) -> None:
        """Take a reading into account."""
        self.made.append(Made(probe, reading))
        self.weights = normal(
            [
                w * likely(probe, one.reading(probe), reading)
                for w, one in zip(self.weights, self.held, strict=True)
            ]
        )

    def causes(self) -> list[Cause]:
        """All causes, the likeliest first."""
        shares: dict[str, float] = defaultdict(float)
        faults: dict[str, list[tuple[float, Fault]]] = defaultdict(list)
        for weight, one in zip(self.weights, self.held, strict=True):
            shares[one.fault.cause] += weight
            faults[one.fault.cause].append((weight, one.fault))
        return [
            Cause(
                name,
                shares[name],
                tuple(f for _, f in sorted(faults[name], key=lambda row: -row[0])),
            )
            for name in sorted(shares, key=lambda n: (-shares[n], n))
        ]

    def sure(self) -> bool:
        """Whether one cause stands out far enough."""
        found = self.causes()
        return bool(found) and found[0].share >= SURE

    def best(self) -> Probe | None:
        """The test that tells most about the cause for what it costs; nothing where none tells
        anything.
        """
        rows = self.ranked()
        return rows[0][1] if rows else None

    def ranked(self) -> list[tuple[float, Probe]]:
        """Tests not made yet by what they tell a unit of cost, in nats, the best first."""
        order = sorted(range(len(self.held)), key=lambda i: -self.weights[i])[:MOST_LOOKED_AT]
        weights = normal([self.weights[i] for i in order])
        held = [self.held[i] for i in order]
        names = [one.fault.cause for one in held]
        done = {made.probe for made in self.made}
        rows = []
        for probe in self.probes:
            if probe in done or not near(probe, held):
                continue
            gain = told(probe, held, weights, names)
            if gain > 1e-3:
                rows.append((gain / COST[probe.sort], probe))
        return sorted(rows, key=lambda row: (-row[0], row[1].words))


def near(probe: Probe, held: Sequence[Faulty]) -> bool:
    """Whether a test can have to do with what may be wrong: looks at places where nothing may be
    are left out.
    """
    if probe.sort != "look":
        return True
    if probe.other[0]:
        pair = {probe.one, probe.other}
        return any(set(one.fault.leads) == pair for one in held if one.fault.sort == "bridge")
    return any(one.fault.ref == probe.one[0] for one in held)


def told(
    probe: Probe, held: Sequence[Faulty], weights: Sequence[float], names: Sequence[str]
) -> float:
    """How much less is unknown of the cause after a test, on average, in nats."""
    groups: dict[int, dict[str, float]] = defaultdict(lambda: defaultdict(float))
    whole: dict[str, float] = defaultdict(float)
    for one, weight, name in zip(held, weights, names, strict=True):
        groups[label(probe, one.reading(probe))][name] += weight
        whole[name] += weight
    after = 0.0
    for group in groups.values():
        share = sum(group.values())
        after += share * entropy([w / share for w in group.values()])
    return entropy(list(whole.values())) - after


def label(probe: Probe, reading: float) -> int:
    """Readings that a person would take for the same have the same label."""
    if probe.sort == "ohm":
        return round(log(max(reading, LEAST_OHM)) / (2.5 * SPREAD_LOG))
    if probe.sort == "look":
        return round(reading)
    if probe.sort == "farad":
        return round(log(max(reading, LEAST_F)) / (2.5 * SPREAD_F))
    return round(reading / (2.5 * SPREAD_V))


def likely(probe: Probe, expected: float, reading: float) -> float:
    """How likely a reading is where another one is expected."""
    if probe.sort == "look":
        if expected:
            return SEEN if reading in (1, expected) else 1 - SEEN
        return 1 - MISSED if not reading else MISSED
    if probe.sort == "farad":
        off = (log(max(reading, LEAST_F)) - log(max(expected, LEAST_F))) / SPREAD_F
    elif probe.sort == "ohm":
        off = (log(max(reading, LEAST_OHM)) - log(max(expected, LEAST_OHM))) / SPREAD_LOG
    else:
        off = (reading - expected) / SPREAD_V
    return exp(-min(off * off / 2, 60.0)) + WRONG


def fits(mine: Symptom, seen: Symptom) -> float:
    """How well a fault explains what is seen first."""
    if mine.dead != seen.dead:
        return WRONG
    match = 1.0 if mine.hot == seen.hot else 0.1
    match *= 1.0 if not seen.manner or mine.manner == seen.manner else 0.1
    if seen.dead or mine.broken == seen.broken:
        return match
    if mine.broken & seen.broken:
        return 0.2 * match
    return WRONG * match


def normal(weights: Sequence[float]) -> list[float]:
    """Weights that add up to one."""
    whole = sum(weights)
    return [w / whole for w in weights] if whole > 0 else list(weights)


def entropy(shares: Sequence[float]) -> float:
    """Of shares that add up to one, in nats."""
    return -sum(s * log(s) for s in shares if s > 0)
