"""What a switch leaves on, and sources that feed nothing, are said."""

from collections.abc import Iterator

from loquet.core.brief.joining import is_source, joined_by, switched_source
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.switched_on import switched_on, when
from loquet.core.circuit import Circuit
from loquet.core.energising.lasting import paths_of
from loquet.core.power import rails_of
from loquet.core.power.budget import parent_of
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source

DRAWN_A = 20e-6
"""What a source may give while all is off: it empties 1000 mAh in some six years. Common practice,
no source.
"""
UP_SHARE, MOST = 0.5, 2
"""A rail with such a share of its volts is up; so many paths are named. Common practice, no source.
"""


def run(subject: Subject) -> Outcome:
    """Look at every source but the one in whose way the switch stands."""
    brief, circuit = subject.brief, subject.circuit
    assert circuit is not None
    sources = [t for t in brief.things if is_source(t) and joined_by(brief, t) is None]
    drawn = list(still_drawn(subject))
    if len(sources) < 2 and not drawn:
        return NotApplicable("there is one source")
    found = list(looked_at(subject, circuit)) if len(sources) > 1 else []
    told = {about for finding in found for about in finding.about}
    found += [f for f in drawn if not told & set(f.about)]
    return outcome(found, len(sources))


def still_drawn(subject: Subject) -> Iterator[Finding]:
    """Stores that still give something while the device is switched off, and through what; rails
    that are still up.
    """
    energised, switched = switched_on(subject), switched_source(subject.brief)
    for index, state in enumerate(energised.states):
        if state.acts != "dark" or len(state.sources) != 1 or not energised.sound[index]:
            continue
        source = energised.device.things.get(state.sources[0][0])
        supply = source.source() if source is not None else None
        if source is None or supply is None or supply.stays:
            continue
        up = [
            (net, float(energised.volt(net)[index]))
            for net, made in energised.device.rails.items()
            if source is switched
            and made.rail.fed_by == source.name
            and energised.volt(net)[index] > UP_SHARE * made.rail.usual_v
        ]
        if up:
            net, volts = up[0]
            yield RULE.finding(
                f"{when(energised, index)}: {net} still has {volts:.1f} V.",
                f"Look for what leads around the switch of {source.label}.",
                (thing(source.name), f"net:{net}"),
                state=state.id,
            )
            continue
        amps = float(energised.given_a[source.name][index])
        if amps <= DRAWN_A:
            continue
        paths = paths_of(energised, source, index, 0.0, 0.0)[:MOST]
        through = ", ".join(f"{p.ref} ({p.words})" for p in paths)
        yield RULE.finding(
            f"{when(energised, index)}: {source.label} still gives {1e6 * amps:.0f} µA, most of "
            f"it through {through}.",
            "Take them behind the switch, or put a switched rail before them.",
            (thing(source.name), *(f"part:{p.ref}" for p in paths)),
            state=state.id,
        )


def looked_at(subject: Subject, circuit: Circuit) -> Iterator[Finding]:
    """Sources that feed nothing, and those that feed on while the device is off."""
    brief = subject.brief
    switch = next((t for t in brief.things if t.SWITCHES), None)
    switched = switched_source(brief)
    for rail in rails_of(brief):
        source = next((t for t in brief.things if t.name == rail.fed_by and is_source(t)), None)
        if source is None:
            continue
        fed = fed_by(subject, circuit, rail.net, source.name)
        if not fed:
            yield RULE.finding(
                f"{source.label} makes a rail of {rail.usual_v:g} V, and nothing takes it.",
                "Name it as the rail of what it is for, let it join another source, or take it"
                " out.",
                (thing(source.name),),
            )
        elif switch is not None and source is not switched:
            yield RULE.finding(
                f"While {switch.label} is off, {source.label} goes on feeding {', '.join(fed)}.",
                "Let it join the source that is switched, or put a switched rail before them.",
                (thing(switch.name), thing(source.name)),
            )


def fed_by(subject: Subject, circuit: Circuit, net: str, source: str) -> list[str]:
    """Things that hang on a rail, and rails that are made of it, in the order of the brief."""
    on = {
        c.thing
        for c in circuit.components
        if net in c.pads.values() and c.thing not in ("", source) and not c.bare
    }
    rails = rails_of(subject.brief)
    for rail in rails:
        parent = parent_of(subject.brief, rail)
        if parent is not None and parent.net == net:
            on.add(rail.fed_by)
    return [t.name for t in subject.brief.things if t.name in on]


RULE = Rule(
    "off-means-off",
    "power",
    "look",
    "A device that is half off empties its cell in a drawer.",
    Source(kind="computed", text="what hangs on each rail, and currents while all is off"),
    run,
    ("circuit",),
)
