"""A panel that is asked for can be laid out, parted and made by the house."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.lookup.panelling import panel_of
from loquet.core.provenance import Outcome, Source
from loquet.core.quantities.lengths import MM


def run(subject: Subject) -> Outcome:
    """Lay the panel out, and compare it with the house and the number wanted."""
    view, choice, house = subject.view, subject.choices.panel, subject.house
    assert view is not None
    panel = panel_of(view, subject.choices, subject.library)
    if choice is None or panel is None:
        return outcome([], 0)
    about = ("release:panel", f"board:{view.board.name}")
    found = [RULE.finding(t.sentence, t.way_out, about) for t in panel.troubles]
    if choice.by not in house.panel_cents:
        offered = " or ".join(house.panel_cents)
        found.append(
            RULE.finding(
                f"{house.name} does not make panels parted by {choice.by}.",
                (
                    f"Part them by {offered}."
                    if offered
                    else "Order the boards singly, or take another house."
                ),
                about,
            )
        )
    wide, high = sorted((panel.width / MM, panel.height / MM), reverse=True)
    most, least = (sorted(size, reverse=True) for size in (house.largest_mm, house.smallest_mm))
    if wide > most[0] or high > most[1] or wide < least[0] or high < least[1]:
        found.append(
            RULE.finding(
                f"The panel of {view.board.name} is {wide:.1f} x {high:.1f} mm; {house.name} makes"
                f" {least[0]:g} x {least[1]:g} to {most[0]:g} x {most[1]:g} mm.",
                "Lay fewer or more boards on it.",
                about,
            )
        )
    number = subject.brief.quantity
    if not found and number % choice.copies:
        made = -(-number // choice.copies) * choice.copies
        found.append(
            RULE.finding(
                f"{number} devices do not fill panels of {choice.copies}: {made} boards of"
                f" {view.board.name} come.",
                "Keep the others as spares, or lay another number on a panel.",
                about,
                severity="note",
            )
        )
    return outcome(found, 1)


RULE = Rule(
    "panel-made",
    "release",
    "stop",
    "A panel that cannot be broken apart, or that the house cannot make, holds the whole order.",
    Source(
        kind="common practice",
        text=(
            "tabs on straight edges away from what cracks, copper away from score lines; limits of"
            " the chosen house"
        ),
    ),
    run,
    ("circuit", "view"),
)
