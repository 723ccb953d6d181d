"""What a meter should show before power and after it, worked out from the circuit."""

from loquet.core.build.faults import GOOD, Fault
from loquet.core.build.measuring import Faulty, Probe, probes_of, usual_current
from loquet.core.build.meter import OPEN_OHM
from loquet.core.circuit.model import GROUND
from loquet.core.energising.device import SOURCES, Device
from loquet.core.plain.frozen import Frozen
from loquet.core.provenance import Source, Working, given

TOLERANCE_OHM, TOLERANCE_V = 0.2, 0.05
MOST_NEIGHBOURS = 12
LIMIT_FACTOR, LEAST_LIMIT_A = 2.0, 0.05


class Expected(Frozen):
    """A reading: what is done, between what, what is expected and from where to where it may be;
    `one` and `other` are leads as `R1.2`.
    """

    sort: str
    words: str
    one: str
    other: str
    expected: float
    low: float
    high: float
    shown: str


class FirstPower(Frozen):
    """The tables of the first power: rails against ground and neighbours before power, volts after
    it, the volts to set (nothing where the device is fed by a host alone), the current limit and
    what it draws.
    """

    before: tuple[Expected, ...]
    neighbours: tuple[Expected, ...]
    after: tuple[Expected, ...]
    volts: Working | None
    limit: Working
    idle: Working


def first_power(desk: Device, faults: list[Fault]) -> FirstPower:
    """All readings of a good device."""
    good = Faulty(desk, GOOD)
    rails = {m.rail.net for m in desk.made}
    hubs: dict[str, tuple[str, str]] = {}
    for probe in probes_of(desk, faults):
        if probe.sort == "volt":
            hubs.setdefault(good.nets[probe.one], probe.one)
    ground = hubs.get(GROUND, ("", ""))
    before = tuple(
        ohm_row(good, hubs[net], ground, f"{net} to {GROUND}")
        for net in sorted(rails)
        if net in hubs and ground[0]
    )
    pairs = [f for f in faults if f.sort == "bridge"][:MOST_NEIGHBOURS]
    neighbours = tuple(ohm_row(good, f.leads[0], f.leads[1], f.words) for f in pairs)
    after = tuple(
        volt_row(good, hubs[net], net)
        for net in sorted(hubs)
        if net != GROUND and net in good.volts and is_held(desk, good, hubs[net], ground)
    )
    return FirstPower(
        before=before,
        neighbours=neighbours,
        after=after,
        volts=volts_working(desk),
        limit=limit_working(desk),
        idle=idle_working(desk),
    )


def is_held(desk: Device, good: Faulty, hub: tuple[str, str], ground: tuple[str, str]) -> bool:
    """Whether a net's volts say anything at first power: it is led somewhere by more than the pins
    of an empty chip, and does not lie between two cells, which are out.
    """
    net = good.nets[hub]
    owners = {c.ref for c in desk.circuit.components if net in c.pads.values()}
    cells = {c.ref for c in desk.circuit.components if desk.kind(c) in SOURCES}
    rails = {m.rail.net for m in desk.made}
    if len(owners) > 1 and owners <= cells:
        return False
    return net in rails or good.ohm(hub, ground) < 0.5 * OPEN_OHM


def volts_working(desk: Device) -> Working | None:
    """What the bench supply is set to in the place of the device's own source."""
    thing = desk.brief.find(desk.source)
    supply = thing.source() if thing else None
    if supply is None:
        return None
    return Working(
        id="build.volts",
        title=f"Set the bench supply, in the place of {desk.source}, to",
        value=supply.usual_v,
        unit="V",
        shown=f"{supply.usual_v:.2f} V",
        formula="Vusual",
        inputs=(given("Vusual", supply.usual_v, "V", supply.source.text),),
        source=supply.source,
    )


def ohm_row(good: Faulty, one: tuple[str, str], other: tuple[str, str], words: str) -> Expected:
    """A resistance with its limits; capacitors make it creep up at first."""
    value = good.ohm(one, other)
    is_open = value >= 0.5 * OPEN_OHM
    low = 1e6 if is_open else value * (1 - TOLERANCE_OHM)
    high = 1e12 if is_open else value * (1 + TOLERANCE_OHM)
    return Expected(
        sort="ohm",
        words=words,
        one=lead(one),
        other=lead(other),
        expected=value,
        low=low,
        high=high,
        shown="open" if is_open else ohms(value),
    )


def volt_row(good: Faulty, one: tuple[str, str], net: str) -> Expected:
    """The volts of a net."""
    value = good.volt(one)
    value = 0.0 if abs(value) < 0.005 else value  # no minus before nothing
    spread = max(TOLERANCE_V, abs(value) * TOLERANCE_V)
    return Expected(
        sort="volt",
        words=net,
        one=lead(one),
        other="",
        expected=value,
        low=value - spread,
        high=value + spread,
        shown=f"{value:.2f} V",
    )


def lead(where: tuple[str, str]) -> str:
    """A lead as it is written: `R1.2`."""
    return f"{where[0]}.{where[1]}"


def ohms(value: float) -> str:
    """A resistance for a person."""
    if value >= 1e6:
        return f"{value / 1e6:.3g} MΩ"
    return f"{value / 1e3:.3g} kΩ" if value >= 1e3 else f"{value:.3g} Ω"


def idle_working(desk: Device) -> Working:
    """The current that all rails give while the device waits."""
    waiting = [load for load in desk.loads if load.currents.idle > 0]
    value = sum(load.currents.idle for load in waiting)
    return Working(
        id="build.idle",
        title="All rails give, waiting",
        value=value,
        unit="mA",
        shown=f"{value:.1f} mA",
        formula=" + ".join(load.thing for load in waiting) or "0",
        inputs=tuple(
            given(load.thing, load.currents.idle, "mA", f"waiting, on {load.rail}")
            for load in waiting
        ),
        source=Source(kind="computed", text="currents as at Power"),
    )


def limit_working(desk: Device) -> Working:
    """Where the bench supply is limited for the first power."""
    usual = usual_current(desk)
    value = max(LIMIT_FACTOR * usual, LEAST_LIMIT_A)
    return Working(
        id="build.limit",
        title="Limit the bench supply to",
        value=value * 1000,
        unit="mA",
        shown=f"{value * 1000:.0f} mA",
        formula="max(factor x waiting, least)",
        inputs=(
            given("factor", LIMIT_FACTOR, "", "common practice, no source"),
            given("waiting", round(usual * 1000, 3), "mA", "currents at Power"),
            given("least", LEAST_LIMIT_A * 1000, "mA", "common practice, no source"),
        ),
        source=Source(
            kind="common practice", text="a bridge is found before anything burns; no source"
        ),
    )


def probe_of(words: str, sort: str) -> Probe:
    """A probe from its written leads: `R1.2 U1.3`; raises ValueError."""
    one, _, other = words.partition(" ")
    first, second = one.rpartition("."), other.rpartition(".")
    if not first[0] and sort != "look":
        raise ValueError(f"'{words}' names no lead")
    return Probe(sort, (first[0], first[2]), (second[0], second[2]))  # type: ignore[arg-type]
