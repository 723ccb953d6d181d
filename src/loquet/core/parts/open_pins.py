"""Pins of parts that may stay on no net, by their names, each with the reason.

A pin that is not here must be connected.
"""

MAY_STAY_OPEN = {
    "alert": "open-drain output that nobody reads",
    "changed": "open-drain output that nobody reads",
    "ready": "open-drain output that nobody reads",
    "status": "open-drain output that nobody reads",
    "not out": "output that nobody reads",
    "out": "output that nobody reads",
    "hold": "holds the part, joined to nothing inside",
    "frame": "holds the part, joined to nothing inside",
    "spare": "nothing is joined to it in this use",
    "break": "contact that opens when a plug is in",
    "tip contact": "contact that opens when a plug is in",
    "end": "the other end of a changeover switch that is used as a make contact",
    "from card": "output that nobody reads",
    "detect": "contact that nobody reads",
    "mark": "a dot for a camera",
}
USB_DATA = {"plus": "charge only", "minus": "charge only"}
LINE = "line "
LINE_REASON = "line of an expander: an input with its pull-up on"


def why_open(part_kind: str, name: str) -> str:
    """Why a pin of that name may stay open on a part of that kind; empty where it must not."""
    if part_kind == "USB-C socket" and name in USB_DATA:
        return USB_DATA[name]
    if part_kind == "key expander" and name.startswith(LINE):
        return LINE_REASON
    return MAY_STAY_OPEN.get(name, "")
