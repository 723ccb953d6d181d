"""Whatever shows text is fine enough for the text it must show."""

from loquet.core.brief import Display, Thing
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.pins.buses import legible_text, text_working
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare rows and columns that can be read with the wanted ones."""
    rows = [
        (t, d)
        for t in subject.brief.things
        if (d := t.display()) is not None
        and (d.rows or d.columns)
        and d.part in subject.library.screens
    ]
    if not rows:
        return NotApplicable("nobody has said what text a screen must show")
    found = [finding for t, d in rows if (finding := too_coarse(subject, t, d)) is not None]
    return outcome(found, len(rows))


def too_coarse(subject: Subject, shown: Thing, display: Display) -> Finding | None:
    """The finding where the text does not fit."""
    module = subject.library.screens[display.part]
    rows, columns, _ = legible_text(module)
    wanted = (display.rows or 1, display.columns or 1)
    if rows >= wanted[0] and columns >= wanted[1]:
        return None
    return RULE.finding(
        f"The {shown.label} shows {rows} rows of {columns} legible characters, "
        f"and {wanted[0]} rows of {wanted[1]} are wanted.",
        "Take a larger or finer screen, or show less at once.",
        (thing(shown.name),),
        working=text_working(display, module),
    )


RULE = Rule(
    "legible-text",
    "pins",
    "look",
    "A screen that is too coarse for its text is found out when the program is written.",
    Source(
        kind="common practice",
        text="characters of 6 x 8 pixels and 1.8 mm at arm's length; no source",
    ),
    run,
)
