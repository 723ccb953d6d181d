"""The bus of whatever shows pictures is fast enough for what is wanted of it."""

from loquet.core.brief import Display, Thing
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.pins.buses import frame_rate
from loquet.core.provenance import Finding, NotApplicable, Outcome, Repair, Source

FAST_MHZ = 40.0


def run(subject: Subject) -> Outcome:
    """Compare the rate of whole frames with the wanted one."""
    rows = [
        (t, d)
        for t in subject.brief.things
        if (d := t.display()) is not None and d.rate_hz and d.part in subject.library.screens
    ]
    if not rows:
        return NotApplicable("nobody has said how often a screen must be written")
    found = [finding for t, d in rows if (finding := too_slow(subject, t, d)) is not None]
    return outcome(found, len(rows))


def too_slow(subject: Subject, shown: Thing, display: Display) -> Finding | None:
    """The finding where the rate is too low."""
    rate = frame_rate(display, subject.library.screens[display.part])
    if display.rate_hz is None or rate.value >= display.rate_hz:
        return None
    sentence = (
        f"The {shown.label} can be written {rate.value:.1f} times a second over its bus, "
        f"and {display.rate_hz:g} are wanted."
    )
    return RULE.finding(
        sentence,
        "Take a faster bus, a smaller screen, or write only what changed.",
        (thing(shown.name),),
        working=rate,
        repairs=repairs(subject, shown, display),
    )


def repairs(subject: Subject, shown: Thing, display: Display) -> tuple[Repair, ...]:
    """A faster clock, or the same picture on a faster bus."""
    edit = {"kind": "change-thing", "name": shown.name}
    screens = subject.library.screens
    if display.bus == "one-way serial" and display.serial_mhz < FAST_MHZ:
        changes = {"serial_mhz": FAST_MHZ}
        return (Repair(label="Run the bus at 40 MHz", edit={**edit, "changes": changes}),)
    if display.bus != "two-wire":
        return ()
    bits = screens[display.part].bits_per_pixel
    faster = [
        s.id for s in screens.values() if s.bus == "one-way serial" and s.bits_per_pixel == bits
    ]
    return tuple(
        Repair(
            label=f"Take {name}",
            edit={**edit, "changes": {"part": name, "bus": "one-way serial"}},
        )
        for name in faster[:1]
    )


RULE = Rule(
    "frame-rate",
    "pins",
    "look",
    "A slow bus makes a disappointing screen; better known before it is bought.",
    Source(kind="computed", text="bits on the wire, protocol overhead included"),
    run,
)
