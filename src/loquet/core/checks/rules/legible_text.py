"""The screen is fine enough for the text it must show."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.pins.buses import legible_text, text_working
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare rows and columns that can be read with the wanted ones."""
    screen = subject.brief.screen
    if screen is None or screen.part not in subject.library.screens:
        return NotApplicable("there is no screen")
    if screen.wanted_rows is None and screen.wanted_columns is None:
        return NotApplicable("nobody has said what text the screen must show")
    wanted_rows, wanted_columns = screen.wanted_rows or 1, screen.wanted_columns or 1
    module = subject.library.screens[screen.part]
    rows, columns, _ = legible_text(module)
    if rows >= wanted_rows and columns >= wanted_columns:
        return outcome([], 1)
    sentence = f"The screen shows {rows} rows of {columns} legible characters, and {wanted_rows} rows of {wanted_columns} are wanted."
    return outcome(
        [
            RULE.finding(
                sentence,
                "Take a larger or finer screen, or show less at once.",
                ("screen",),
                working=text_working(screen, module),
            )
        ],
        1,
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
