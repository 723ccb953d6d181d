"""The device lives on while the plug that charges it is pulled."""

from loquet.core.checks.limits import limits_on
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.lookup.powering import lowest_of, made_of
from loquet.core.power.budget import Made
from loquet.core.power.discharge import open_v
from loquet.core.power.figures import LOW_LEFT
from loquet.core.power.plugged import plugged
from loquet.core.provenance import NotApplicable, Outcome, Source, Working, given
from loquet.core.quantities.shown import show_si

BODY_DIODE_V = 0.7
# The path opens when its gate has fallen: 100 kΩ empties the 4.7 µF of the port from 5 V to
# a volt below the cell.
OPENS_S = 0.3
ROOM_V = 0.2


def run(subject: Subject) -> Outcome:
    """The rail while the cell feeds it through the body diode of its path, against the volts at
    which anything on it stops.
    """
    brief, library = subject.brief, subject.library
    rows = [m for m in made_of(brief, library) if plugged(brief, m, library.parts) and m.load.play]
    if not rows:
        return NotApplicable("no cell takes over from a plug")
    brains, circuit = lowest_of(subject.brief, subject.library), subject.circuit
    assert circuit is not None
    limits = limits_on(circuit, subject.brief, subject.library)
    found = []
    for row in rows:
        worked = rail_while_pulled(row)
        assert row.taken is not None
        parts = [(p.least_v, p.component.ref) for p in limits if p.net == row.rail.net]
        least, what = max([(brains.get(row.rail.name, 0.0), "a brain on it"), *parts])
        if not least or worked.value >= least:
            continue
        assert row.feeder is not None
        farads = row.load.play / 1000 * OPENS_S / ROOM_V
        found.append(
            RULE.finding(
                f"When the plug is pulled with a fifth left, {row.feeder.label} feeds the device"
                f" through a diode for some {OPENS_S * 1000:.0f} ms: the rail falls to"
                f" {max(worked.value, 0):.2f} V, and {what} stops below {least:.2f} V. A capacitor"
                f" that bridges this would be {show_si(farads, 'F')}.",
                "Take a converter that steps up as well, so that the dip does not reach the rail,"
                " or a lower rail.",
                (thing(row.feeder.name),),
                working=worked,
            )
        )
    return outcome(found, len(rows))


def rail_while_pulled(row: Made) -> Working:
    """The rail in play while its path is not open yet; a converter that is below its least input
    gives nothing.
    """
    supply, taken = row.supply, row.taken
    assert supply is not None
    assert taken is not None
    inside = float(open_v(supply, LOW_LEFT))
    amps = row.input_ma("play", inside) / 1000
    before = inside - amps * supply.resistance_ohm - BODY_DIODE_V
    drop = taken.part.values.get("dropout_v", 0.0) * row.load.play / taken.part.figure("current_ma")
    linear = taken.way.name == "linear"
    value = min(taken.out_v, before - drop) if linear else taken.out_v
    if before < (taken.part.figure("input_min_v") if linear else taken.stops_v):
        value = 0.0
    return Working(
        id=f"power.{row.rail.name}.pulled",
        title=f"Rail {row.rail.name} while the plug is pulled, a fifth left",
        value=value,
        unit="V",
        shown=f"{value:.2f} V",
        formula="on x min(Vout, Vopen - I x R - Vd - Vdrop)" if linear else "on x Vout",
        inputs=(
            given("on", 0.0 if value == 0.0 else 1.0, "", "0 where the converter stops there"),
            given("Vout", taken.out_v, "V", "rail"),
            *(
                (
                    given("Vopen", inside, "V", "cell with a fifth left; model"),
                    given("I", amps, "A", "in play, at the source"),
                    given("R", supply.resistance_ohm, "Ω", supply.source.text),
                    given("Vd", BODY_DIODE_V, "V", "body diode of the path; from memory"),
                    given("Vdrop", drop, "V", taken.part.evidence_text),
                )
                if linear
                else ()
            ),
        ),
        source=Source(kind="computed", text="the path's diode carries until its gate has fallen"),
    )


RULE = Rule(
    "switch-over",
    "power",
    "look",
    "A device that resets when its charger is plugged or pulled loses what it was doing.",
    Source(
        kind="common practice",
        text="diode and transistor of a power path; body diode 0.7 V from memory",
    ),
    run,
    ("circuit",),
)
