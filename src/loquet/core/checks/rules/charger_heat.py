"""A charger carries the current that is asked of it."""

from math import inf

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.power.charging import CELL_V, PORT_V, charge_ma, held_ma
from loquet.core.power.converting import AMBIENT_C, HOTTEST_C
from loquet.core.power.plugged import charger_of
from loquet.core.provenance import NotApplicable, Outcome, Repair, Source

STEP_MA = 10


def run(subject: Subject) -> Outcome:
    """Work out how hot the charger of each cell gets at the usual volts of port and cell."""
    brief, charger = subject.brief, charger_of(subject.library.parts)
    cells = [t for t in brief.things if t.charging_ma() > 0]
    if not cells or not any(t.five_volts() for t in brief.things):
        return NotApplicable("nothing is charged from a port")
    found = []
    for cell in cells:
        asked, held = charge_ma(cell, charger), held_ma(charger)
        watts = (PORT_V - CELL_V) * asked / 1000
        junction = AMBIENT_C + watts * charger.figure("theta_k_w")
        if asked <= held and (held < inf or junction <= HOTTEST_C):
            continue
        holds = held < inf
        fitting = int(held // STEP_MA * STEP_MA) if holds else 0
        edit = {"kind": "change-thing", "name": cell.name, "changes": {"charge_ma": fitting}}
        what = (
            f"holds itself back to some {held:.0f} mA at {charger.values['holds_c']:g} °C"
            if holds
            else f"would get {junction:.0f} °C hot inside"
        )
        found.append(
            RULE.finding(
                f"{asked:.0f} mA into {cell.label} make {watts:.1f} W in its charger, which"
                f" {what}.",
                "Charge more slowly: it takes no longer.",
                (thing(cell.name),),
                severity="look" if holds else "stop",
                repairs=(Repair(label=f"Charge with {fitting} mA", edit=edit),) if holds else (),
            )
        )
    return outcome(found, len(cells))


RULE = Rule(
    "charger-heat",
    "power",
    "stop",
    "A linear charger turns what the port gives above the cell into heat, beside a cell.",
    Source(kind="standard", text="P = (Vport - Vcell) I, Tj = Ta + P RthJA (JESD51-2)"),
    run,
)
