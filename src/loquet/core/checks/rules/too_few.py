"""Of what was bought there is enough for all boards, with spares for what dies in the bag or under
the iron.
"""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.drawers.lines import part_lines
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare what lies there with what the boards take, line by line."""
    circuit, bought = subject.circuit, subject.choices.bought
    assert circuit is not None
    if not any(row.pieces for row in bought.values()):
        return NotApplicable("nobody has said how many of anything lie there")
    quantity = subject.brief.quantity
    lines = part_lines(circuit, subject.library, quantity, bought)
    counted = [line for line in lines if line.bought and line.bought.pieces]
    found = []
    for line in counted:
        assert line.bought is not None
        pieces, taken = line.bought.pieces, line.count * quantity
        if pieces >= line.to_buy:
            continue
        words = f"{taken} for {quantity} boards" if quantity > 1 else f"{taken} for the board"
        trial = f" Try them first: {line.trial}" if line.trial else ""
        found.append(
            RULE.finding(
                f"{pieces} of {line.bought.maker_part} ({line.line}) lie there, and {line.to_buy}"
                f" are wanted: {words} and {line.spares} to spare.",
                f"Order {line.to_buy - pieces} more.{trial}",
                tuple(f"part:{ref}" for ref in line.refs),
            )
        )
    return outcome(found, len(counted))


RULE = Rule(
    "too-few",
    "parts",
    "look",
    "One part that is dead or lost stops the whole build for as long as the post takes.",
    Source(
        kind="common practice",
        text="a tenth to spare of tiny parts, a fiftieth of others, one at the least",
    ),
    run,
    ("circuit",),
)
