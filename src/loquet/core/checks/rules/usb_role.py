"""A device that is a USB controller or keyboard has a USB port."""

from loquet.core.brief.module_sockets import module_sockets
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.pins.needing import needs_of
from loquet.core.provenance import NotApplicable, Outcome, Repair, Source


def run(subject: Subject) -> Outcome:
    """Look for the link."""
    brief = subject.brief
    if brief.role not in ("usb-controller", "usb-keyboard"):
        return NotApplicable("the role has no USB report")
    reports = any(need.kind == "usb minus" for need in needs_of(brief))
    if reports or module_sockets(brief):
        return outcome([], 1)
    words = brief.role.replace("usb-", "USB ")
    add = Repair(
        label="Add a USB port",
        edit={"kind": "add-thing", "thing": {"kind": "usb-device", "name": "usb"}},
    )
    return outcome(
        [
            RULE.finding(
                f"The device is a {words} and has no USB port.",
                "Add one, or change its role.",
                ("brief:links",),
                repairs=(add,),
            )
        ],
        1,
    )


RULE = Rule(
    "usb-role",
    "brief",
    "stop",
    "Without the port there is nothing to report over.",
    Source(kind="brief", text="role and links"),
    run,
)
