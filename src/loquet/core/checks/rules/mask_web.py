"""Between two openings in the mask stays a web that the house can print."""

from dataclasses import replace
from functools import partial

from loquet.core.board.copper import FAR, NEAR, Copper
from loquet.core.checks.measuring import Measured, measured, too_close
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import grown
from loquet.core.plain.remembering import Remembered
from loquet.core.provenance import Outcome, Source

OPENINGS: Remembered[list[Measured]] = Remembered(8192)


def run(subject: Subject) -> Outcome:
    """Measure the openings of different nets, shaped as the mask file has them; narrow ones are a
    look, since pads without a web solder with care.
    """
    view = subject.view
    assert view is not None
    found = []
    limit, grow = view.rules.mask_web_nm, view.rules.mask_grow_nm
    for side in (NEAR, FAR):
        openings = [
            opening
            for pads in view.pads_by_part
            for opening in OPENINGS.of(
                (pads,), partial(openings_of, pads, side, grow), f"{side} {grow}"
            )
        ]
        close = list(too_close(openings, limit))
        refs = sorted(
            {
                pair.first.split()[0]
                for pair in close
                if pair.first.split()[0] == pair.second.split()[0]
            }
        )
        for ref in refs:
            gap = min(p.gap_nm for p in close if p.first.split()[0] == ref)
            found.append(
                RULE.finding(
                    f"Between the pads of {ref} the mask web would be {max(gap, 0) / 1e6:.3f} mm;"
                    f" {subject.house.name} prints {view.rules.mask_web_nm / 1e6:.3f} mm.",
                    "Solder it with paste and look for bridges, or choose a coarser package or a"
                    " house with a finer mask.",
                    (f"part:{ref}",),
                )
            )
    return outcome(found, len(view.pads))


def openings_of(pads: tuple[Copper, ...], side: str, grow_nm: int) -> list[Measured]:
    """The openings in the mask over the pads of a part on one side."""
    return [
        measured(replace(c, shape=grown(c.shape, c.bare_nm or grow_nm)))
        for c in pads
        if side in c.sides
    ]


RULE = Rule(
    "mask-web",
    "board",
    "look",
    "Without a web, solder runs from pad to pad.",
    Source(kind="house rules", text="least mask web of the chosen house"),
    run,
    ("view",),
)
