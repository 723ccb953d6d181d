"""Parts of one's own that leave figures out: what hangs on these was not checked."""

from loquet.core.checks.rule import Rule, Subject
from loquet.core.provenance import NotApplicable, Outcome, Passed, Source, Undetermined


def run(subject: Subject) -> Outcome:
    """A look for every part whose figures are not all known, with the figures by name."""
    circuit, roles = subject.circuit, subject.library.roles
    assert circuit is not None
    own = sorted({c.part for c in circuit.components} & subject.choices.shelf.keys())
    if not own:
        return NotApplicable("no part of one's own is on the boards")
    found = []
    for part_id in own:
        part = subject.choices.shelf[part_id]
        words = ", ".join(lack.words for lack in roles.lacks(part))
        refs = [c.ref for c in circuit.components if c.part == part_id]
        if words:
            found.append(
                RULE.finding(
                    f"{', '.join(refs)} ({part.short}) does not say its {words}.",
                    "Type it on the parts shelf from its data sheet, and take the change.",
                    tuple(f"part:{ref}" for ref in refs),
                    severity="look",
                )
            )
    return Undetermined(tuple(found)) if found else Passed(len(own))


RULE = Rule(
    "unsaid-figures",
    "parts",
    "look",
    "What a part does not say cannot be checked, and is no pass.",
    Source(kind="common practice", text="limits are read from the data sheet; no source"),
    run,
    ("circuit",),
)
