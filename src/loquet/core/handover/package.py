"""All files that come out of the pin plans."""

from collections.abc import Mapping

from loquet.core.brief import Brief, Thing
from loquet.core.brief.shares import mark_of, share_of
from loquet.core.handover.header import write_header
from loquet.core.handover.map_json import write_map
from loquet.core.handover.overlay import NotOnHost, write_overlay
from loquet.core.handover.report import descriptor_of, has_report, write_report_c
from loquet.core.handover.wiring_card import write_wiring_card
from loquet.core.pins import PinPlan


def device_files(brief: Brief, plans: Mapping[str, PinPlan]) -> dict[str, bytes]:
    """The files of every brain (plans by its name); in a folder of each brain's name where there
    are several.
    """
    files: dict[str, bytes] = {}
    for brain in brief.brains:
        mark = mark_of(brief, brain.name)
        made = handover_files(share_of(brief, brain.name), plans[brain.name], mark)
        files |= {f"{folder_of(brief, brain)}{name}": data for name, data in made.items()}
    return files


def folder_of(brief: Brief, brain: Thing) -> str:
    """The folder of a brain's files; none where it is the only one."""
    return f"{brain.name.lower().replace(' ', '-')}/" if len(brief.brains) > 1 else ""


def handover_files(brief: Brief, plan: PinPlan, mark: str = "") -> dict[str, bytes]:
    """Files by name: header and map always, the report for USB roles, the overlay where a host
    reads the keys, the wiring card.

    `mark` tells apart the lines of any brain but the first (see `brief.shares`).
    """
    files = {
        "pins.h": write_header(brief, plan),
        "pins.json": write_map(brief, plan),
        "wiring-card.pdf": write_wiring_card(brief, plan, mark),
    }
    if has_report(brief):
        files["usb-report.bin"] = descriptor_of(brief, plan)
        files["usb-report.h"] = write_report_c(brief, plan)
    if brief.role == "host-key-reader":
        try:
            files["keys.dts"] = write_overlay(brief, plan, mark)
        except NotOnHost as refused:
            files["keys-overlay-not-written.txt"] = f"No overlay: {refused}.\n".encode()
    return files
