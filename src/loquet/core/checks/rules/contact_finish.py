"""Bare contacts that rub or carry a carbon pill are ordered with a flat finish that does not
tarnish.
"""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import NotApplicable, Outcome, Repair, Source

FLAT = "gold"


def run(subject: Subject) -> Outcome:
    """Look for parts that are bare contacts, and at the finish that is ordered."""
    circuit = subject.circuit
    assert circuit is not None
    parts = subject.library.parts
    bare = [
        c for c in circuit.components if c.part in parts and "flat_finish" in parts[c.part].values
    ]
    if not bare:
        return NotApplicable("there are no bare contacts")
    if subject.brief.making.finish == FLAT:
        return outcome([], len(bare))
    offered = FLAT in subject.house.finishes
    making = subject.brief.making.model_copy(update={"finish": FLAT})
    edit = {"kind": "set-making", "making": making.model_dump(mode="json")}
    repairs = (Repair(label="Order gold", edit=edit),) if offered else ()
    names = ", ".join(c.ref for c in bare)
    return outcome(
        [
            RULE.finding(
                f"The board is ordered with {subject.brief.making.finish}, and {names}"
                f" {'is' if len(bare) == 1 else 'are'} bare contacts.",
                (
                    "Order gold: solder is uneven and tarnishes under carbon and in connectors."
                    if offered
                    else "Take a house that offers gold."
                ),
                tuple(f"part:{c.ref}" for c in bare),
                repairs=repairs,
            )
        ],
        len(bare),
    )


RULE = Rule(
    "contact-finish",
    "release",
    "stop",
    "Keys under carbon pills fail on an uneven or tarnished finish.",
    Source(kind="common practice", text="flat gold under carbon keys and at edges; no source"),
    run,
    ("circuit",),
)
