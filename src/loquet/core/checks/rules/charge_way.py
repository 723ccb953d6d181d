"""A port that is there to charge charges something, and a cell that wants to be charged has
something that does it.
"""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look at ports that only charge, and at cells that are charged."""
    things = subject.brief.things
    cells = [t for t in things if t.charging_ma() > 0]
    ports = [t for t in things if t.ONLY_CHARGES]
    if not cells and not ports:
        return NotApplicable("nothing is charged")
    fives = [t for t in things if t.five_volts()]
    found: list[Finding] = []
    for port in ports:
        serves = port.feed() is not None or (port.five_volts() and cells)
        if serves:
            continue
        lacks = (
            "no cell of this device is charged on its boards"
            if not cells
            else "the charger takes 5 V, and this port asks for more"
        )
        found.append(
            RULE.finding(
                f"{port.label} charges nothing and feeds nothing: {lacks}.",
                "Let it feed the device, take a lithium cell, ask for 5 V, or take the port out.",
                (thing(port.name),),
            )
        )
    for cell in cells if not fives else []:
        found.append(
            RULE.finding(
                f"Nothing on these boards charges {cell.label}: no port brings 5 V.",
                "Add a charge port, or take the cell out to charge it, by its maker's limits.",
                (thing(cell.name),),
                severity="look",
            )
        )
    return outcome(found, len(cells) + len(ports))


RULE = Rule(
    "charge-way",
    "power",
    "stop",
    "A port that charges nothing is found out by the person who owns the device.",
    Source(kind="common practice", text="no source"),
    run,
)
