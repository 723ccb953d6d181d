"""No capacitor or transistor stands at more volts than it is made for."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.circuit.net_volts import highest_volts
from loquet.core.provenance import Outcome, Source

FULL_SHARE = 0.85


def run(subject: Subject) -> Outcome:
    """Compare every part that has a limit with the highest volts of its nets."""
    circuit, library = subject.circuit, subject.library
    assert circuit is not None
    volts = highest_volts(circuit, subject.brief, library.parts)
    found, looked = [], 0
    for component in circuit.components:
        part = library.parts.get(component.part)
        if part is None or "voltage" not in part.values:
            continue
        looked += 1
        limit = part.values["voltage"]
        net, high = max(
            ((n, volts.get(n, 0.0)) for n in component.pads.values()),
            key=lambda row: row[1],
            default=("", 0.0),
        )
        if high <= limit * FULL_SHARE:
            continue
        above = high > limit
        about = (f"part:{component.ref}", *((thing(component.thing),) if component.thing else ()))
        found.append(
            RULE.finding(
                f"{component.ref} ({component.purpose}) is made for {limit:g} V, and {net} comes to {high:.2f} V.",
                "Take a part for more volts."
                if above
                else "Take a part for more volts: close to its limit a ceramic capacitor has lost most of what is printed on it.",
                about,
                severity="stop" if above else "look",
            )
        )
    return outcome(found, looked)


RULE = Rule(
    "part-rating",
    "circuit",
    "stop",
    "A capacitor above its limit fails as a short; a transistor above its limit stays on.",
    Source(
        kind="part drawing", text="limits of the parts in the catalogue; sources at their highest"
    ),
    run,
    ("circuit",),
)
