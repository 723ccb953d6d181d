"""No capacitor, transistor, gate or sounder stands at more volts than it is made for, and no guard
at fewer than open it.
"""

from collections.abc import Iterator, Mapping

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.circuit import Component
from loquet.core.circuit.model import GROUND
from loquet.core.circuit.net_volts import highest_volts
from loquet.core.parts import Part
from loquet.core.power import rail_of
from loquet.core.provenance import Finding, Outcome, Source
from loquet.core.quantities.preferred import nearest

FULL_SHARE, LOUD_SHARE = 0.85, 1.25


def run(subject: Subject) -> Outcome:
    """Compare every part that has a limit with the highest volts of its nets."""
    circuit, library = subject.circuit, subject.library
    assert circuit is not None
    volts = highest_volts(circuit, subject.brief, library.parts)
    found, looked = [], 0
    for component in circuit.components:
        part = library.parts.get(component.part)
        if part is None:
            continue
        found += [*gates(subject, component, part, volts), *sounders(subject, component, part)]
        if "voltage" not in part.values:
            continue
        looked += 1
        limit = part.figure("voltage")
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
                f"{component.ref} ({component.purpose}) is made for {limit:g} V, and {net} comes to"
                f" {high:.2f} V.",
                (
                    "Take a part for more volts."
                    if above
                    else (
                        "Take a part for more volts: close to its limit a ceramic capacitor has"
                        " lost most of what is printed on it."
                    )
                ),
                about,
                severity="stop" if above else "look",
            )
        )
    return outcome(found, looked)


def gates(
    subject: Subject, component: Component, part: Part, volts: Mapping[str, float]
) -> Iterator[Finding]:
    """Guards whose gate lies at ground: the source beside them opens them when it is empty, and
    does not break their gate when it is full.
    """
    names = {name: component.pads.get(pad, "") for pad, name in part.pin_names.items()}
    if "gate_v" not in part.values or names.get("gate") != GROUND:
        return
    about = (f"part:{component.ref}", *((thing(component.thing),) if component.thing else ()))
    high = max(volts.get(names["source"], 0.0), volts.get(names["drain"], 0.0))
    if high > part.figure("gate_v"):
        yield RULE.finding(
            f"The gate of {component.ref} ({component.purpose}) takes {part.values['gate_v']:g} V, "
            f"and {names['drain']} comes to {high:.2f} V.",
            "Take a transistor for more, or a source of fewer volts.",
            about,
        )
    source = subject.brief.thing(component.thing).source() if component.thing else None
    if source is not None and source.empty_v < part.figure("opens_v"):
        yield RULE.finding(
            f"{component.ref} ({component.purpose}) opens fully from {part.values['opens_v']:g} V "
            f"on, and {component.thing} falls to {source.empty_v:g} V: the device dies early, or "
            "feeds itself through a warm diode.",
            "Take one cell more.",
            about,
        )


def sounders(subject: Subject, component: Component, part: Part) -> Iterator[Finding]:
    """Sounders on a rail that is well above what they are made for."""
    rated = part.values.get("rated_v")
    if rated is None or not component.thing:
        return
    rail = rail_of(subject.brief, subject.brief.thing(component.thing))
    if rail.usual_v <= rated * LOUD_SHARE:
        return
    ohm = (rail.usual_v - rated) / (rated / part.figure("coil_ohm"))
    yield RULE.finding(
        f"{component.ref} ({component.purpose}) is made for {rated:g} V, and its rail gives "
        f"{rail.usual_v:g} V.",
        f"Put {nearest(ohm):g} Ω in its way, let the firmware keep its pulses to "
        f"{100 * (rated / rail.usual_v) ** 2:.0f} % of half a period, or feed it from a lower"
        " rail.",
        (f"part:{component.ref}", thing(component.thing)),
        severity="look",
    )


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
