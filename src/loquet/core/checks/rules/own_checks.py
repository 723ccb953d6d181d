"""What went wrong once in this project does not go wrong again."""

from collections.abc import Iterator

from loquet.core.brief.own_checks import (
    HeightCheck,
    OwnCheck,
    PartOnRailCheck,
    PinOrderCheck,
    WordsCheck,
)
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.circuit import Circuit
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Hold every check of the project against circuit and boards."""
    circuit = subject.circuit
    assert circuit is not None
    checks = subject.choices.own_checks
    if not checks:
        return NotApplicable("no check was made from a fault")
    found = [finding for check in checks for finding in against(check, subject, circuit)]
    return outcome(found, len(checks))


def against(check: OwnCheck, subject: Subject, circuit: Circuit) -> Iterator[Finding]:
    """What speaks against one check."""
    match check:
        case PinOrderCheck():
            for c in circuit.components:
                net = c.pads.get(check.pad)
                if c.part == check.part and net is not None and not net.startswith(check.net):
                    yield said(
                        check,
                        f"{c.ref} pad {check.pad} is on {net}, not on {check.net}",
                        f"part:{c.ref}",
                    )
        case PartOnRailCheck():
            count = sum(
                check.net in c.pads.values() and kind_of(subject, c.part) == check.part_kind
                for c in circuit.components
            )
            if count < check.least:
                yield said(
                    check,
                    f"{check.net} has {count} of at least {check.least} ({check.part_kind})",
                    f"net:{check.net}",
                )
        case HeightCheck():
            for view in subject.views:
                for ref, seat in view.seats.items():
                    high = view.heights_mm.get(ref, 0.0)
                    if (
                        view.board.name == check.board
                        and seat.far is check.far
                        and high > check.most_mm
                    ):
                        yield said(
                            check,
                            f"{ref} is {high:.1f} mm high, more than {check.most_mm:g} mm",
                            f"part:{ref}",
                        )
        case WordsCheck():
            printed = [p.text for t in subject.brief.things if (p := t.printed()) is not None]
            if check.text not in printed:
                yield said(check, f"the legend does not say '{check.text}'", "")


def kind_of(subject: Subject, part: str) -> str:
    """The kind of a catalogue part."""
    found = subject.library.parts.get(part)
    return found.kind if found else "chip"


def said(check: OwnCheck, what: str, about: str) -> Finding:
    """A finding that names the check."""
    return RULE.finding(
        f"It went wrong once ({check.title}): {what}.",
        "Mend it, or take the check out at the Log.",
        (about,) if about else (),
    )


RULE = Rule(
    "own-checks",
    "log",
    "stop",
    "A patch of one revision that is forgotten in the next is paid for twice.",
    Source(kind="brief", text="a check of this project, made from a fault in its log"),
    run,
    ("circuit", "views"),
)
