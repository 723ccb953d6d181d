"""A port that charges a cell while the device is played is not asked for more than it gives."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.power.charging import charge_ma
from loquet.core.powering import made_of
from loquet.core.provenance import NotApplicable, Outcome, Repair, Source, Working, given

PORT_MA, PATH_V = 500.0, 4.6
STEP_MA = 10


def run(subject: Subject) -> Outcome:
    """Add the charging current of each cell to what the device draws in play through the power path."""
    ports = [t for t in subject.brief.things if t.five_volts()]
    rows = [
        m
        for m in made_of(subject.brief, subject.library)
        if m.feeder and m.supply and m.feeder.charging_ma() and m.taken
    ]
    if not ports or not rows:
        return NotApplicable("nothing is charged from a port")
    found = []
    for row in rows:
        cell = row.feeder
        assert cell is not None
        charging = charge_ma(cell, subject.library.parts["charger-linear"])
        playing = row.input_ma("play", PATH_V)
        if charging + playing <= PORT_MA:
            continue
        fitting = int((PORT_MA - playing) // STEP_MA * STEP_MA)
        edit = {"kind": "change-thing", "name": cell.name, "changes": {"charge_ma": fitting}}
        repairs = (Repair(label=f"Charge with {fitting} mA", edit=edit),) if fitting > 0 else ()
        found.append(
            RULE.finding(
                f"While {cell.label} is charged and the device is played, {ports[0].label} has to give {charging + playing:.0f} mA, and a USB port gives {PORT_MA:.0f} mA.",
                "Charge more slowly.",
                (thing(cell.name), thing(ports[0].name)),
                working=working(charging, playing),
                repairs=repairs,
            )
        )
    return outcome(found, len(rows))


def working(charging: float, playing: float) -> Working:
    """What the port has to give."""
    return Working(
        id="power.port",
        title="Port while charging and playing",
        value=charging + playing,
        unit="mA",
        shown=f"{charging + playing:.0f} mA",
        formula="Icharge + Iplay",
        inputs=(
            given("Icharge", charging, "mA", "resistor at the charger"),
            given("Iplay", playing, "mA", "in play, through the path's diode at 4.6 V"),
        ),
        source=Source(kind="standard", text="USB 2.0: 500 mA after configuration"),
    )


RULE = Rule(
    "port-budget",
    "power",
    "look",
    "A port that is asked for too much turns off, or the fuse opens.",
    Source(kind="standard", text="USB 2.0 section 7.2.1: 500 mA after configuration"),
    run,
)
