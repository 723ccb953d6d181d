"""No part is higher than the room above its side of the board."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare the height of every placed part, with what it is put into, with the room on its
    side.
    """
    view = subject.view
    assert view is not None
    board = view.board
    room = {False: board.near_room_mm, True: board.far_room_mm}
    if set(room.values()) == {None}:
        return NotApplicable("nobody has said how much room there is above the board")
    found, looked = [], 0
    for component in view.circuit.components:
        seat = view.seats.get(component.ref)
        limit = room[seat.far] if seat else None
        if seat is None or limit is None:
            continue
        looked += 1
        height = subject.library.height_mm(component)
        if height > limit:
            side = "far" if seat.far else "near"
            found.append(
                RULE.finding(
                    f"{component.ref} ({component.purpose}) is {height:.1f} mm high, and there are"
                    f" {limit:.1f} mm above the {side} side.",
                    "Take a lower part, put it on the other side, or make the shell deeper.",
                    (f"part:{component.ref}",),
                    seat.x,
                    seat.y,
                )
            )
    return outcome(found, looked)


RULE = Rule(
    "room-above",
    "board",
    "stop",
    "A part that is too high is found when the shell does not close.",
    Source(kind="part drawing", text="heights of parts; the room as it was measured"),
    run,
    ("view",),
)
