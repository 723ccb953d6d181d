"""Tracks in the way of power carry its current: rails, leads of sources, coils."""

from loquet.core.board.current import track_width_mm
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.checks.switched_on import carried_by
from loquet.core.provenance import NotApplicable, Outcome, Source
from loquet.core.quantities.lengths import MM

RISE_K = 20.0


def run(subject: Subject) -> Outcome:
    """Compare the narrowest track of every such net with the width for its peak current at 20 K."""
    view = subject.view
    assert view is not None
    carried = carried_by(subject).nets
    nets = {net.name for net in view.circuit.nets}
    peaks = {net: current / 1000 for net, current in carried.items() if net in nets}
    narrow: dict[str, tuple[int, int, int]] = {}
    for track in view.routing.tracks if view.routing else ():
        if track.net in peaks:
            row = (track.width_nm, track.x1_nm, track.y1_nm)
            narrow[track.net] = min(narrow.get(track.net, row), row)
    if not narrow:
        return NotApplicable("nothing that carries a rail has tracks")
    found = []
    for net, (width, x, y) in sorted(narrow.items()):
        needed = (
            track_width_mm(peaks[net], RISE_K, subject.brief.making.copper_um)
            if peaks[net] > 0
            else 0.0
        )
        if width < needed * MM:
            found.append(
                RULE.finding(
                    f"{net} carries {peaks[net]:.2f} A at its peak over a track of {width / MM:.2f}"
                    f" mm, which warms it by more than {RISE_K:g} K; {needed:.2f} mm would do.",
                    "Draw it wider, lead it twice, pour an area for it, or order thicker copper.",
                    (f"net:{net}",),
                    x,
                    y,
                )
            )
    return outcome(found, len(narrow))


RULE = Rule(
    "track-current",
    "board",
    "look",
    "A thin track heats up and drops volts that the device misses.",
    Source(kind="standard", text="IPC-2221 section 6.2, external conductors; from memory"),
    run,
    ("view", "circuit"),
)
