"""The layers, finish, colour, thickness of board and copper, and shipping chosen are offered by the
house.
"""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare each choice with the house's list."""
    making, choices, house, found = subject.brief.making, subject.choices, subject.house, []
    offers = (("finish", making.finish, house.finishes), ("colour", making.colour, house.colours))
    for name, chosen, offered in offers:
        if chosen not in offered:
            found.append(
                RULE.finding(
                    f"{house.name} does not offer the {name} {chosen}.",
                    f"Choose one of: {', '.join(offered)}.",
                    (f"release:{name}",),
                )
            )
    for board in subject.brief.boards:
        if board.copper_layers not in house.copper_layers:
            found.append(
                RULE.finding(
                    f"{house.name} does not make boards of {board.copper_layers} layers, as"
                    f" {board.name} is.",
                    "Choose another house, or two layers at the Brief.",
                    (f"board:{board.name}",),
                )
            )
    if making.thickness_um not in house.thickness_um:
        found.append(
            RULE.finding(
                f"{house.name} does not make boards {making.thickness_um / 1000:.1f} mm thick.",
                f"Choose one of: {', '.join(f'{t / 1000:.1f} mm' for t in house.thickness_um)}.",
                ("release:thickness",),
            )
        )
    if making.copper_um not in house.copper_um:
        found.append(
            RULE.finding(
                f"{house.name} does not make boards with copper of {making.copper_um} µm.",
                f"Choose one of: {', '.join(f'{t} µm' for t in house.copper_um)}.",
                ("release:copper",),
            )
        )
    if choices.shipping not in [s.name for s in house.shipping]:
        found.append(
            RULE.finding(
                f"{house.name} does not ship by {choices.shipping}.",
                f"Choose one of: {', '.join(s.name for s in house.shipping)}.",
                ("release:shipping",),
            )
        )
    return outcome(found, 5 + len(subject.brief.boards))


RULE = Rule(
    "house-offer",
    "release",
    "stop",
    "An order that the house does not offer comes back.",
    Source(kind="house rules", text="the chosen house's own list"),
    run,
)
