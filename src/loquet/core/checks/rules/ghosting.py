"""No chord that the device needs makes a key appear that nobody presses."""

from loquet.core.brief import keys_of
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.pins.chords import together_of
from loquet.core.pins.ghosting import least_diodes, least_direct
from loquet.core.pins.schemes.comparing import faults_in_chords
from loquet.core.pins.wiring import wiring_of
from loquet.core.provenance import NotApplicable, Outcome, Repair, Source


def run(subject: Subject) -> Outcome:
    """Look for one ghost way among the chords, and offer the least cures."""
    wiring, together = wiring_of(subject.brief), together_of(subject.brief)
    if wiring.scheme in ("one pin each", "shift register", "expander 8", "expander 16"):
        return NotApplicable("every key is read on its own")
    found = faults_in_chords(wiring, together)
    if not found:
        return outcome([], len(wiring.cells))
    titles = {key.id: key.title.removeprefix("button ") for key in keys_of(subject.brief)}
    ghost = found[0]
    held = ", ".join(titles[k] for k in ghost.path)
    ladder = wiring.scheme == "resistor ladder"
    label = "A matrix with a diode at every key" if ladder else "Diodes at every key"
    way = (
        "A ladder tells one key at a time: take a matrix with diodes, or pins of their own."
        if ladder
        else "Add diodes, or read chorded keys on pins of their own."
    )
    repairs = [Repair(label=label, edit={"kind": "set-scheme", "scheme": "diode matrix"})]
    if wiring.scheme == "bare matrix":
        diodes, direct = (
            (*wiring.diodes, *least_diodes(wiring, together)),
            (*wiring.direct, *least_direct(wiring, together)),
        )
        scheme = subject.brief.key_scheme.model_dump(mode="json")
        repairs.insert(
            0,
            Repair(
                label=f"Diodes at {len(diodes)} keys",
                edit={"kind": "set-scheme", "scheme": {**scheme, "diodes": diodes}},
            ),
        )
        repairs.append(
            Repair(
                label=f"Pins of their own for {len(direct)} keys",
                edit={"kind": "set-scheme", "scheme": {**scheme, "direct": direct}},
            )
        )
    sentence = (
        f"While {held} are held, {titles[ghost.key]} reads as pressed too ({len(found)} such ways"
        " among the chords)."
    )
    return outcome(
        [
            RULE.finding(
                sentence,
                way,
                tuple(ghost.path),
                repairs=tuple(repairs),
            )
        ],
        1,
    )


RULE = Rule(
    "ghosting",
    "pins",
    "stop",
    "Three keys in a rectangle of a matrix without diodes make a fourth appear.",
    Source(
        kind="computed",
        text="ways through pressed keys of the matrix, against the chords of the brief",
    ),
    run,
    ("share",),
)
