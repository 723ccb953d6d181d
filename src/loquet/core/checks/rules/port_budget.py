"""A port that charges a cell while the device is played is not asked for more than it gives."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.lookup.powering import made_of
from loquet.core.power.plugged import USB, plugged, port_working
from loquet.core.provenance import NotApplicable, Outcome, Repair

STEP_MA = 10


def run(subject: Subject) -> Outcome:
    """Add the charging current of each cell to what the device draws in play through the power
    path.
    """
    brief, parts = subject.brief, subject.library.parts
    made = [(m, plugged(brief, m, parts)) for m in made_of(brief, subject.library)]
    rows = [(m, row) for m, row in made if row is not None]
    if not rows:
        return NotApplicable("nothing is charged from a port")
    found = []
    for rail, row in rows:
        cell, port = rail.feeder, brief.thing(row.port)
        assert cell is not None
        if row.port_ma <= row.limit_ma:
            continue
        fitting = int((row.limit_ma - row.play_ma) // STEP_MA * STEP_MA)
        edit = {"kind": "change-thing", "name": cell.name, "changes": {"charge_ma": fitting}}
        repairs = (Repair(label=f"Charge with {fitting} mA", edit=edit),) if fitting > 0 else ()
        found.append(
            RULE.finding(
                f"While {cell.label} is charged and the device is played, {port.label} has to give"
                f" {row.port_ma:.0f} mA, and it gives {row.limit_ma:.0f} mA.",
                "Charge more slowly.",
                (thing(cell.name), thing(port.name)),
                working=port_working(rail.rail.name, row),
                repairs=repairs,
            )
        )
    return outcome(found, len(rows))


RULE = Rule(
    "port-budget",
    "power",
    "look",
    "A port that is asked for too much turns off, or the fuse opens.",
    USB,
    run,
)
