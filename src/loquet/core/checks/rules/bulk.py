"""The capacitors of every rail hold it up until its converter has followed a step of current."""

from math import pi

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.circuit import Circuit
from loquet.core.circuit.model import GROUND
from loquet.core.lookup.powering import made_of
from loquet.core.parts.dielectric import BIAS, left_f
from loquet.core.power import Rail
from loquet.core.power.budget import Made
from loquet.core.provenance import NotApplicable, Outcome, Source, Working, given
from loquet.core.quantities.shown import read_si

SHARE = 0.05
CORNER_HZ = {"linear": 100e3}
SWITCHED_HZ = 50e3


def run(subject: Subject) -> Outcome:
    """Work out, for every rail that a converter makes, the capacitance that a step from waiting to
    its peak wants.
    """
    circuit = subject.circuit
    assert circuit is not None
    rows = [m for m in made_of(subject.brief, subject.library) if m.taken is not None]
    if not rows:
        return NotApplicable("no rail is made by a converter")
    found = []
    for row in rows:
        there, working = held_farad(subject, circuit, row.rail), wanted(row)
        if there < working.value * 1e-6:
            found.append(
                RULE.finding(
                    f"A step of {row.load.peak - row.load.idle:.0f} mA on {row.rail.net} wants"
                    f" {working.shown} at its converter, and {there * 1e6:.1f} µF are left there"
                    f" at {row.rail.usual_v:g} V.",
                    "Add a capacitor to the rail at the Circuit, or at the part that draws the"
                    " step.",
                    (thing(row.feeder.name),) if row.feeder else (),
                    working=working,
                )
            )
    return outcome(found, len(rows))


def held_farad(subject: Subject, circuit: Circuit, rail: Rail) -> float:
    """What hangs between a rail and ground and is left at its volts, in farad."""
    parts = subject.library.parts
    return sum(
        left_f(parts[c.part], read_si(c.value, "F") or 0.0, rail.usual_v)
        for c in circuit.components
        if c.part in parts
        and parts[c.part].kind == "capacitor"
        and set(c.pads.values()) == {rail.net, GROUND}
    )


def wanted(row: Made) -> Working:
    """The capacitance for a step that may move the rail by a twentieth."""
    assert row.taken is not None
    corner = CORNER_HZ.get(row.taken.way.name, SWITCHED_HZ)
    step, dip = row.load.peak - row.load.idle, SHARE * row.rail.usual_v
    value = step * 1e-3 / (2 * pi * corner * dip) * 1e6
    return Working(
        id=f"bulk.{row.rail.name}",
        title=f"Capacitance that {row.rail.net} wants",
        value=value,
        unit="µF",
        shown=f"{value:.1f} µF",
        formula="I / (2 x pi x f x U)",
        inputs=(
            given("I", step * 1e-3, "A", "peak less waiting"),
            given("pi", pi, "", "circle"),
            given("f", corner / 1e6, "MHz", "where the converter follows; from memory"),
            given("U", dip, "V", "a twentieth of the rail"),
        ),
        source=RULE_SOURCE,
    )


RULE_SOURCE = Source(
    kind="common practice",
    text=(
        "output capacitor for a load step, C = I / (2 pi f U); loop corner 100 kHz for linear, 50"
        f" kHz for switching ones from memory; {BIAS.text}"
    ),
)
RULE = Rule(
    "bulk",
    "power",
    "stop",
    "A spike of a card or a radio resets the chip beside it.",
    RULE_SOURCE,
    run,
    ("circuit",),
)
