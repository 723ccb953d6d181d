"""No pin of a chip is driven above its own rail by a part that lives on a higher one."""

from collections.abc import Iterator

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.circuit.model import Circuit, Component
from loquet.core.power import Rail, lines_v, rails_of
from loquet.core.provenance import Failed, NotApplicable, Outcome, Source, Undetermined

# Pins that never drive high by themselves: open drains with a pull-up, and what carries power or no signal.
QUIET = frozenset(
    {
        "clock",
        "data",
        "alert",
        "changed",
        "ready",
        "supply",
        "ground",
        "shell",
        "out",
        "in",
        "line in",
        "disable",
        "can",
        "press",
        "common",
    }
)
ALLOWED_V = 0.3


def run(subject: Subject) -> Outcome:
    """Look at every chip pin, and at the parts that drive its net from a higher rail."""
    circuit = subject.circuit
    assert circuit is not None
    volts = {rail.net: rail for rail in rails_of(subject.brief)}
    rows = list(driven_high(subject, circuit, volts))
    if not rows:
        return (
            NotApplicable("no part on a higher rail drives a chip")
            if len(volts) < 2
            else outcome([], len(volts))
        )
    wrong, unknown = [], []
    for chip, pad, driver, rail in rows:
        takes = five_volt(subject, chip, pad)
        if takes:
            continue
        net = chip.pads[pad]
        sentence = (
            f"{driver.ref} drives {net} up to {rail.usual_v:g} V, and pin {pad} of {chip.ref} "
        )
        way = "Put a divider before it, or feed the part from the chip's own rail."
        if takes is False:
            wrong.append(RULE.finding(f"{sentence}does not take that.", way, (f"net:{net}",)))
        else:
            sentence += "is not known to take that."
            unknown.append(RULE.finding(sentence, way, (f"net:{net}",), severity="look"))
    if wrong:
        return Failed((*wrong, *unknown))
    return Undetermined(tuple(unknown)) if unknown else outcome([], len(rows))


def driven_high(
    subject: Subject, circuit: Circuit, volts: dict[str, Rail]
) -> Iterator[tuple[Component, str, Component, Rail]]:
    """Chip, pad, the part that drives it, and the rail of that part, where that rail is higher than that of the chip's lines."""
    chips = [c for c in circuit.components if c.is_chip]
    for driver in circuit.components:
        part = subject.library.parts.get(driver.part)
        if driver.is_chip or part is None:
            continue
        fed = [driver.pads.get(pad, "") for pad, name in part.pin_names.items() if name == "supply"]
        rail = next((volts[net] for net in fed if net in volts), None)
        if rail is None:
            continue
        driving = {
            net for pad, net in driver.pads.items() if part.pin_names.get(pad) not in QUIET
        } - {rail.net, "GROUND"}
        for chip in chips:
            own = lines_v(subject.brief, subject.brief.thing(chip.thing))
            if rail.usual_v <= own + ALLOWED_V:
                continue
            for pad, net in chip.pads.items():
                if net in driving:
                    yield chip, pad, driver, rail


def five_volt(subject: Subject, chip: Component, pad: str) -> bool | None:
    """Whether a chip's pin takes more than its rail, as its table says; nothing where that is not known."""
    for brain in subject.brains:
        if brain.chip and brain.chip.name == chip.value:
            return brain.chip.pin(pad).five_volt
    return None


RULE = Rule(
    "levels",
    "circuit",
    "stop",
    "5 V into a pin that takes 3.3 V ends the chip.",
    Source(kind="open data", text="the data set says nothing of 5 V; a user's own table may"),
    run,
    ("circuit",),
)
