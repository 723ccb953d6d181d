"""No capacitor, transistor, gate or sounder stands at more volts than it is made for, and no guard
at fewer than open it.
"""

from collections.abc import Iterator

import numpy as np

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.switched_on import about as about_parts
from loquet.core.checks.switched_on import switched_on, when
from loquet.core.circuit import Component
from loquet.core.energising.energised import Energised
from loquet.core.energising.meant import highest_volts, meant, through_a
from loquet.core.parts import Part
from loquet.core.power import rail_of
from loquet.core.provenance import Finding, Outcome, Source
from loquet.core.quantities.preferred import nearest

FULL_SHARE, LOUD_SHARE = 0.85, 1.25
CARRIES_A = 1e-9
"""From such a current on a transistor in the way of power has to be open: also where so little
is left behind it that nothing starts. Common practice."""
PASSES_A, SLACK = 1e-3, 0.9
LOST_V, WANTED_V = 0.1, 0.2
"""More than this is not lost in one that is open; one whose gate lies as high as its source is
meant to be shut. Common practice."""


def run(subject: Subject) -> Outcome:
    """Compare every part that has a limit with the highest volts of its nets."""
    circuit, library = subject.circuit, subject.library
    assert circuit is not None
    energised = switched_on(subject)
    volts = highest_volts(energised)
    found, looked = [], 0
    for component in circuit.components:
        part = library.parts.get(component.part)
        if part is None:
            continue
        found += [*gates(energised, component, part), *sounders(subject, component, part)]
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


def gates(energised: Energised, component: Component, part: Part) -> Iterator[Finding]:
    """Gates of P-channel transistors: what carries current is open, and no gate is broken."""
    pads = {name: component.pads.get(pad, "") for pad, name in part.pin_names.items()}
    if "gate_v" not in part.values or not {"gate", "source"} <= pads.keys():
        return
    gate, source = energised.volt(pads["gate"]), energised.volt(pads["source"])
    about, rows = about_parts(energised, component.ref), meant(energised)
    name = f"{component.ref} ({component.purpose})"
    across = np.where(rows, np.abs(source - gate), 0.0)
    state = int(across.argmax())
    if across[state] > part.figure("gate_v"):
        yield RULE.finding(
            f"{when(energised, state)}: the gate of {name} takes {part.values['gate_v']:g} V, "
            f"and gets {across[state]:.2f} V.",
            "Take a transistor for more, or a source of fewer volts.",
            about,
            state=energised.states[state].id,
        )
    drain = energised.volt(pads.get("drain", ""))
    carries = rows & (through_a(energised, component.ref) > CARRIES_A)
    usual = [
        s.acts == "reset" and all(level != "least" for _, level in s.sources)
        for s in energised.states
    ]
    promised = SLACK * part.figure("opens_v")
    weak = rows & np.array(usual) & (source - gate > WANTED_V) & (source - gate < promised)
    weak &= through_a(energised, component.ref) > PASSES_A
    if weak.any():
        state = int(np.argmax(weak))
        yield RULE.finding(
            f"{when(energised, state)}: {name} is sure to open from {part.values['opens_v']:g} V "
            f"on, and gets {source[state] - gate[state]:.2f} V while current flows.",
            "Take one cell more, or a transistor that opens at fewer volts.",
            about,
            state=energised.states[state].id,
        )
        return
    half = (source - gate < part.figure("opens_v")) & (source - gate > WANTED_V)
    lost = np.where(carries & half, drain - source, 0.0)
    state = int(lost.argmax())
    if lost[state] > LOST_V:
        yield RULE.finding(
            f"{when(energised, state)}: {name} opens fully from {part.values['opens_v']:g} V on, "
            f"gets {source[state] - gate[state]:.2f} V and loses {lost[state]:.2f} V: the device "
            "dies early, or feeds itself through a warm diode.",
            "Take one cell more, or a transistor that opens at fewer volts.",
            about,
            state=energised.states[state].id,
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
