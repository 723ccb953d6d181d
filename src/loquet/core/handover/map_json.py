"""The pin map as JSON: signals, keys in their one order, fields of the report."""

import json
from dataclasses import asdict

from loquet.core.brief import Brief
from loquet.core.handover.key_table import key_table
from loquet.core.handover.report import fields_of, has_report
from loquet.core.pins import PinPlan


def write_map(brief: Brief, plan: PinPlan) -> bytes:
    """The whole map; the same plan gives the same bytes."""
    content = {
        "format": "loquet-pin-map-1",
        "device": brief.name,
        "role": brief.role,
        "chip": plan.chip,
        "package": plan.package,
        "signals": [row.model_dump(mode="json", exclude={"locked"}) for row in plan.assignments],
        "keys": [row.model_dump(mode="json", exclude={"name"}) for row in key_table(brief, plan)],
        "report": [asdict(field) for field in fields_of(brief, plan)] if has_report(brief) else [],
    }
    return (json.dumps(content, indent=1, ensure_ascii=False) + "\n").encode()
