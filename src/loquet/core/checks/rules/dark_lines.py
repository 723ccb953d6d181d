"""Nothing holds a line of a part high while its supply is off."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.switched_on import about, named, switched_on, when
from loquet.core.circuit.model import GROUND
from loquet.core.energising.energised import Energised
from loquet.core.energising.levels import Over, overs
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source

PASSIVE_PADS = 3


def run(subject: Subject) -> Outcome:
    """Look for current through the pins of parts that are off, and for lines that only a firmware
    keeps low.
    """
    energised = switched_on(subject)
    found: dict[str, list[Over]] = {}
    for over in overs(energised):
        if not over.alive:
            found.setdefault(over.pin.ref, []).append(over)
    rows = [fed(energised, ref, over) for ref, over in found.items()]
    rows += by_firmware(energised, set(found))
    if not rows and not any(t.PASSES for t in subject.brief.things) and len(energised.ways) < 2:
        return NotApplicable("all is on or off together")
    return outcome(rows, len(energised.pins))


def fed(energised: Energised, ref: str, rows: list[Over]) -> Finding:
    """A part that is off and fed through its pins."""
    worst = max(rows, key=lambda over: over.amperes)
    component = energised.device.by_ref[ref]
    nets = sorted({component.pads.get(over.pin.pad, over.pin.node) for over in rows})
    by = f"{named(energised, worst.by)} {'pulls' if worst.pulled else 'drives'}"
    out = (
        "Feed what pulls it from the same rail, or leave the part on its rail: it sleeps by itself."
    )
    if not worst.pulled:
        out = "Let the firmware keep the line low, put 1 kΩ in its way, or feed both together."
    return RULE.finding(
        f"{when(energised, worst.state)}: {named(energised, ref)} is off and fed through its own "
        f"pins, {1000 * worst.amperes:.2g} mA at {', '.join(nets)}, that {by} high.",
        out,
        about(energised, ref),
        state=energised.states[worst.state].id,
    )


def by_firmware(energised: Energised, said: set[str]) -> list[Finding]:
    """Lines of a brain into parts of a switched rail: the firmware holds them low before it turns
    that off.
    """
    device = energised.device
    dark = {
        row.rail.net: row.rail.fed_by for row in device.made if row.feeder and row.feeder.PASSES
    }
    lit = set(device.rails) - dark.keys() | {GROUND}
    found = []
    for component in device.circuit.components:
        nets = component.pads.values()
        switch = next((dark[net] for net in nets if net in dark), "")
        lines = set(nets) - dark.keys() - lit
        if not switch or len(component.pads) <= PASSIVE_PADS or component.ref in said:
            continue
        driven = sorted(
            {
                n
                for n in lines
                for c in device.circuit.components
                if c.is_chip and n in c.pads.values()
            }
        )
        if driven:
            found.append(
                RULE.finding(
                    f"While {switch} is off, the firmware must hold {', '.join(driven)} of"
                    f" {component.ref} low or leave them open.",
                    "Do so before it is switched off; a line that is high feeds the part through"
                    " its input.",
                    (thing(switch), *about(energised, component.ref)[::-1]),
                    severity="note",
                )
            )
    return found


RULE = Rule(
    "dark-lines",
    "power",
    "look",
    "A part that is off but fed through its inputs is half on: it draws current, and starts in a"
    " state that nobody has seen.",
    Source(
        kind="common practice",
        text=(
            "inputs are clamped to their supply by diodes; makers' data sheets allow 0.3 V above it"
        ),
    ),
    run,
    ("circuit",),
)
