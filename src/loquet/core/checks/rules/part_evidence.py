"""Sticks, triggers and screens, and parts of which nobody knows the pins, were made sure of before
they are soldered.
"""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.design import Design
from loquet.core.drawers.confirming import cards_of
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Every card that is not confirmed."""
    design = Design(brief=subject.brief, choices=subject.choices)
    cards = cards_of(design, subject.library)
    if not cards:
        return NotApplicable("no part of this device has look-alikes")
    found = [
        RULE.finding(
            f"Nobody has made sure of the pins of {card.part} ({', '.join(card.things)}):"
            f" {card.why}.",
            "Measure it with the card of the Parts station, or compare it with its drawing, and say"
            " so there.",
            tuple(thing(name) for name in card.things),
        )
        for card in cards
        if card.confirmed is None
    ]
    return outcome(found, len(cards))


RULE = Rule(
    "part-evidence",
    "parts",
    "look",
    "Supply and ground of a look-alike may be reversed, and the board is drilled and wired by"
    " hand.",
    Source(kind="common practice", text="pin orders differ between makers of look-alikes"),
    run,
)
