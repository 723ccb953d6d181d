"""The screen's bus is fast enough for what is wanted of it."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.pins.buses import frame_rate
from loquet.core.provenance import NotApplicable, Outcome, Repair, Source


def run(subject: Subject) -> Outcome:
    """Compare the rate of whole frames with the wanted one."""
    screen = subject.brief.screen
    if screen is None or screen.part not in subject.library.screens:
        return NotApplicable("there is no screen")
    if screen.wanted_rate_hz is None:
        return NotApplicable("nobody has said how often the screen must be written")
    module = subject.library.screens[screen.part]
    rate = frame_rate(screen, module)
    if rate.value >= screen.wanted_rate_hz:
        return outcome([], 1)
    repairs: tuple[Repair, ...] = ()
    if screen.bus == "one-way serial" and screen.serial_mhz < 40:
        repairs = (
            Repair(
                label="Run the bus at 40 MHz", edit={"kind": "set-screen-wish", "serial_mhz": 40}
            ),
        )
    elif screen.bus == "two-wire":
        faster = [
            s.id
            for s in subject.library.screens.values()
            if s.bus == "one-way serial" and s.bits_per_pixel == module.bits_per_pixel
        ]
        repairs = tuple(
            Repair(
                label=f"Take {name}",
                edit={"kind": "set-screen", "part": name, "bus": "one-way serial"},
            )
            for name in faster[:1]
        )
    sentence = f"The screen can be written {rate.value:.1f} times a second over its bus, and {screen.wanted_rate_hz:g} are wanted."
    return outcome(
        [
            RULE.finding(
                sentence,
                "Take a faster bus, a smaller screen, or write only what changed.",
                ("screen",),
                working=rate,
                repairs=repairs,
            )
        ],
        1,
    )


RULE = Rule(
    "frame-rate",
    "pins",
    "look",
    "A slow bus makes a disappointing screen; better known before it is bought.",
    Source(kind="computed", text="bits on the wire, protocol overhead included"),
    run,
)
