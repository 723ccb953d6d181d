"""Parts of one's own that leave figures out: what hangs on these was not checked."""

from collections.abc import Iterator

from loquet.core.checks.rule import Rule, Subject, thing
from loquet.core.power.brain_currents import brain_ma
from loquet.core.provenance import (
    Finding,
    NotApplicable,
    Outcome,
    Passed,
    Source,
    Undetermined,
)


def run(subject: Subject) -> Outcome:
    """A look for every part, and every brain by a pin table, whose figures are not all known."""
    circuit, roles = subject.circuit, subject.library.roles
    assert circuit is not None
    own = sorted({c.part for c in circuit.components} & subject.choices.shelf.keys())
    found = list(brains_by_table(subject))
    if not own and not found:
        return NotApplicable("no part of one's own is on the boards")
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


def brains_by_table(subject: Subject) -> Iterator[Finding]:
    """Brains by a pin table of which nobody said what they draw."""
    for brain in subject.brief.brains:
        table = subject.brief.table_of(brain)
        package = subject.library.parts.get(table.package) if table is not None else None
        if table is not None and (package is None or "draws_ma" not in package.values):
            counted, _ = brain_ma(table.name)
            yield RULE.finding(
                f"Nobody said what {table.name} ({brain.name}) draws; {counted:g} mA are counted, "
                "and a radio takes many times as much.",
                "Type the current that it draws at its package on the parts shelf.",
                (thing(brain.name),),
                severity="look",
            )


RULE = Rule(
    "unsaid-figures",
    "parts",
    "look",
    "What a part does not say cannot be checked, and is no pass.",
    Source(kind="common practice", text="limits are read from the data sheet; no source"),
    run,
    ("circuit",),
)
