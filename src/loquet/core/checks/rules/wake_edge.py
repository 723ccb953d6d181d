"""A button that wakes the chip makes the edge on which the chip wakes."""

from loquet.core.brief import keys_of
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import NotApplicable, Outcome, Source

RISING = ("stm32f0", "stm32f1", "stm32f2", "stm32f3", "stm32f4", "stm32l0", "stm32l1")


def run(subject: Subject) -> Outcome:
    """A key that closes to ground falls when it is pressed; families whose wake-up pins take a
    rising edge see only its release.
    """
    chip = subject.chip
    assert chip is not None
    power = [key for key in keys_of(subject.brief) if key.duty == "power"]
    if not power:
        return NotApplicable("no button wakes the chip")
    if not chip.name.startswith(RISING):
        return outcome([], len(power))
    return outcome(
        [
            RULE.finding(
                f"{key.title} closes to ground, and the wake-up pins of {chip.name} take a rising"
                " edge: it wakes when the key is let go, and only where something holds the pin"
                " high in sleep.",
                "Sleep lightly and wake by an interrupt, or take a chip whose wake-up pins know"
                " both edges.",
                (thing(key.thing),),
            )
            for key in power
        ],
        len(power),
    )


RULE = Rule(
    "wake-edge",
    "pins",
    "look",
    "A device that cannot be woken is taken for dead.",
    Source(
        kind="from memory",
        text="reference manuals: wake-up pins of F0 to F4, L0 and L1 take a rising edge",
    ),
    run,
    ("chip",),
)
