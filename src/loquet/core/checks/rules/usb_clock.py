"""A chip whose USB wants a crystal has one."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.pins.needing import needs_of
from loquet.core.provenance import NotApplicable, Outcome, Repair, Source, Undetermined


def run(subject: Subject) -> Outcome:
    """Look at the brain that carries the pair."""
    chip, share = subject.chip, subject.share
    assert chip is not None
    assert share is not None
    kinds = {need.kind for need in needs_of(share)}
    brain = share.brain
    if "usb minus" not in kinds or brain is None or brain.READY_MADE:
        return NotApplicable("this brain carries no USB of its own")
    if "crystal in" in kinds or chip.usb_clock == "inside":
        return outcome([], 1)
    add = Repair(
        label="Add a crystal",
        edit={
            "kind": "add-thing",
            "thing": {"kind": "crystal", "name": "fast", "board": brain.board},
        },
    )
    known = chip.usb_clock == "crystal"
    finding = RULE.finding(
        f"The USB of {chip.name} {'wants' if known else 'may want'} a crystal, and there is none.",
        "Add a crystal, or take a chip whose USB runs without one.",
        (thing(brain.name),),
        severity="stop" if known else "look",
        repairs=(add,) if brain is subject.brief.brain or len(subject.brief.brains) < 2 else (),
    )
    return outcome([finding], 1) if known else Undetermined((finding,))


RULE = Rule(
    "usb-clock",
    "pins",
    "stop",
    "Full speed asks for 0.25 %; a free-running oscillator inside has one per cent and more.",
    Source(kind="standard", text="USB 2.0 section 7.1.11; families from memory of data sheets"),
    run,
    ("share", "chip"),
)
