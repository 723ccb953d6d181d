"""A fast clock goes from its driver to the last reader without long branches."""

from loquet.core.board.ways import way_lengths
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source, Working, given
from loquet.core.quantities.lengths import MM

EDGE_NS, MM_A_NS, PART = 2.0, 150.0, 6.0
MOST_MM = EDGE_NS * MM_A_NS / PART
CLOCK, SLOW = "_CLOCK", ("BUS_CLOCK", "DEBUG")


def run(subject: Subject) -> Outcome:
    """Measure, for every clock with three contacts or more, how far each lies beside the longest
    way of the net.
    """
    view = subject.view
    assert view is not None
    found: list[Finding] = []
    looked = 0
    for net in view.circuit.nets:
        if len(net.pads) < 3 or not net.name.endswith(CLOCK) or net.name.startswith(SLOW):
            continue
        looked += 1
        for owner, branch in branches(way_lengths(view, net.name)).items():
            if branch > MOST_MM * MM:
                found.append(
                    RULE.finding(
                        f"{net.name} branches for {branch / MM:.0f} mm to {owner}; {MOST_MM:.0f} mm"
                        " are the most.",
                        "Lead the clock past this part on its way to the last one.",
                        (f"net:{net.name}", f"part:{owner.split()[0]}"),
                        working=limit_working(),
                    )
                )
    return outcome(found, looked) if looked else NotApplicable("no fast clock has three contacts")


def branches(lengths: dict[tuple[str, str], float]) -> dict[str, float]:
    """How far each contact hangs beside the longest way, in nm: half of what the two detours over
    it are longer.
    """
    if not lengths:
        return {}
    first, last = max(lengths, key=lambda pair: (lengths[pair], pair))
    whole = lengths[first, last]
    owners = sorted({owner for pair in lengths for owner in pair} - {first, last})
    return {
        owner: (lengths[owner, first] + lengths[owner, last] - whole) / 2
        for owner in owners
        if (owner, first) in lengths and (owner, last) in lengths
    }


def limit_working() -> Working:
    """How long a branch may be."""
    return Working(
        id="board.branch",
        title="Longest branch of a clock",
        value=MOST_MM,
        unit="mm",
        shown=f"{MOST_MM:.0f} mm",
        formula="edge x speed / 6",
        inputs=(
            given("edge", EDGE_NS, "ns", "a fast port of a microcontroller, from memory"),
            given("speed", MM_A_NS, "mm/ns", "half the speed of light, on FR4"),
        ),
        source=Source(kind="common practice", text="a sixth of the length of an edge; no source"),
    )


RULE = Rule(
    "bus-branches",
    "board",
    "look",
    "An echo from a branch can count as a second edge.",
    Source(kind="common practice", text="a sixth of the length of an edge; no source"),
    run,
    ("view",),
)
