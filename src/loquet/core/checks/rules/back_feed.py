"""No source feeds another one."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.circuit.backfeed import back_feeds, origins_of
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Search the finished circuit from every source to every other."""
    circuit = subject.circuit
    assert circuit is not None
    origins = origins_of(circuit.components, subject.library.parts)
    if len(origins) < 2:
        return NotApplicable("there is one source")
    found = [
        RULE.finding(
            f"Current flows from {back.start.thing} into {back.end.thing}, through"
            f" {', '.join(back.through) or 'nothing at all'}.",
            "Put a diode or a power path between them.",
            (thing(back.start.thing), thing(back.end.thing)),
        )
        for back in back_feeds(circuit.components, subject.library.parts)
    ]
    return outcome(found, len(origins) * (len(origins) - 1))


RULE = Rule(
    "back-feed",
    "power",
    "stop",
    "A source that is fed backwards is charged without control, wakes what is off, or harms a"
    " host.",
    Source(
        kind="computed",
        text=(
            "search through diodes, body diodes, converters turned round, guard arrays, fuses and"
            " switches; USB Type-C 4.5.2.2: a sink gives nothing back"
        ),
    ),
    run,
    ("circuit",),
)
