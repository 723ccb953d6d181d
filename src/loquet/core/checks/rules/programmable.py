"""Every brain can be given its program once it sits on the board, or somebody decided that it gets
it before.
"""

from loquet.core.brief import Brief, Thing
from loquet.core.brief.shares import readers_of
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.pins.needs.programming import ways_for
from loquet.core.provenance import Finding, NotApplicable, Outcome, Repair, Source


def run(subject: Subject) -> Outcome:
    """Look for the port of each brain."""
    brief = subject.brief
    if not brief.brains:
        return NotApplicable("the device has no brain")
    found = [lacking(brief, brain) for brain in brief.brains if not port_of(brief, brain)]
    return outcome([finding for finding in found if finding], len(brief.brains))


def port_of(brief: Brief, brain: Thing) -> Thing | None:
    """The port through which a brain is loaded."""
    return next(
        (t for t in brief.things if t.PROGRAMS and brain.name in readers_of(brief, t)), None
    )


def lacking(brief: Brief, brain: Thing) -> Finding | None:
    """What is wrong with a brain that has no port."""
    why = brain.programmed_apart()
    if why and not hasattr(brain, "programmed"):
        return None
    if why:
        note = f"{brain.label} has no programming port: {why}."
        way = "Program it first; a fault in the program means taking it off again."
        return RULE.finding(note, way, (thing(brain.name),), severity="note")
    ways = ways_for(brain.part)
    port = {
        "kind": "programming",
        "name": "port" if "port" not in {t.name for t in brief.things} else f"{brain.name} port",
        "board": brain.board,
        "brain": "" if brain is brief.brain else brain.name,
        "rail": brain.rail,
        "part": f"header-{ways}-way",
    }
    before = {"programmed": "before it is soldered"}
    return RULE.finding(
        f"Nothing gets a program into {brain.label} ({brain.part}) once it is soldered on.",
        "Add a programming port (a header, or bare pads for a clip), or decide to program it "
        "before it is soldered.",
        (thing(brain.name),),
        repairs=(
            Repair(label="Add a programming port", edit={"kind": "add-thing", "thing": port}),
            Repair(
                label="Program it before it is soldered",
                edit={"kind": "change-thing", "name": brain.name, "changes": before},
            ),
        ),
    )


RULE = Rule(
    "programmable",
    "brief",
    "stop",
    "A chip that nobody can load is a board for the bin.",
    Source(kind="common practice", text="no source"),
    run,
)
