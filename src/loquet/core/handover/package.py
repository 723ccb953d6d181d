"""All files that come out of a pin plan."""

from loquet.core.brief import Brief
from loquet.core.handover.header import write_header
from loquet.core.handover.map_json import write_map
from loquet.core.handover.overlay import NotOnHost, write_overlay
from loquet.core.handover.report import descriptor_of, has_report, write_report_c
from loquet.core.handover.wiring_card import write_wiring_card
from loquet.core.pins import PinPlan


def handover_files(brief: Brief, plan: PinPlan) -> dict[str, bytes]:
    """Files by name: header and map always, the report for USB roles, the overlay where a host reads the keys, the wiring card."""
    files = {
        "pins.h": write_header(brief, plan),
        "pins.json": write_map(brief, plan),
        "wiring-card.pdf": write_wiring_card(brief, plan),
    }
    if has_report(brief):
        files["usb-report.bin"] = descriptor_of(brief, plan)
        files["usb-report.h"] = write_report_c(brief, plan)
    if brief.role == "host-key-reader":
        try:
            files["keys.dts"] = write_overlay(brief, plan)
        except NotOnHost as refused:
            files["keys-overlay-not-written.txt"] = f"No overlay: {refused}.\n".encode()
    return files
