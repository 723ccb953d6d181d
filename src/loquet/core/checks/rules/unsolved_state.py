"""Every state of the device has an answer that may be believed."""

from loquet.core.checks.rule import Rule, Subject
from loquet.core.checks.switched_on import switched_on, when
from loquet.core.provenance import Outcome, Passed, Source, Undetermined


def run(subject: Subject) -> Outcome:
    """Name the states that were not worked out: no rule says anything of them."""
    energised = switched_on(subject)
    found = tuple(
        RULE.finding(
            f"{when(energised, index)}: no answer was found that keeps its own sums, and nothing "
            "is said of this state.",
            "Look at this state on the bench, with the current of the supply limited.",
            state=state.id,
        )
        for index, (state, sound) in enumerate(zip(energised.states, energised.sound, strict=True))
        if not sound
    )
    return Undetermined(found) if found else Passed(len(energised.states))


RULE = Rule(
    "unsolved-state",
    "circuit",
    "look",
    "What was not worked out is not known to be right.",
    Source(kind="computed", text="Kirchhoff's sums of the device in every state"),
    run,
    ("circuit",),
)
