"""What a port is asked for beyond the usual, a host or charger need not have."""

from loquet.core.brief.joining import is_source
from loquet.core.brief.regulated import CURRENT_MA, UsbPower
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Ports that ask for more than 500 mA at 5 V."""
    ports = [t for t in subject.brief.things if isinstance(t, UsbPower)]
    if not ports:
        return NotApplicable("there is no USB port that takes power")
    found, sources = [], [t for t in subject.brief.things if is_source(t)]
    for port in ports:
        if port.asks == "500 mA":
            continue
        plain, alone = port.asks in CURRENT_MA, [port] == sources
        sentence = (
            f"{port.label} counts on {port.asks} at 5 V, and nothing on this board reads whether"
            " the host offers that: a weaker one turns off."
            if plain
            else (
                f"{port.label} asks for {port.asks}: from a host that has only 5 V "
                f"{'the device gets nothing and stays off' if alone else 'it gets nothing'}."
            )
        )
        way = (
            "Put a charger that gives this into the kit and name it beside the port, or ask for"
            " 500 mA."
        )
        found.append(RULE.finding(sentence, way, (thing(port.name),)))
    return outcome(found, len(ports))


RULE = Rule(
    "port-offer",
    "power",
    "look",
    "A device that runs on one charger and not on the next is sent back.",
    Source(
        kind="standard",
        text=(
            "USB Type-C 2.1 section 4.6 and USB Power Delivery 3.1: only 5 V at the default current"
            " is certain"
        ),
    ),
    run,
)
