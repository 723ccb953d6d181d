"""`loquet pins`: a brief file to a pin plan with schemes, budget and ways out, without a
database.
"""

from pathlib import Path
from typing import Any

from loquet.catalogue.library import bundled_library
from loquet.compiling import Unusable, read_limited
from loquet.core.brief import BriefError, read_brief
from loquet.core.design import Design
from loquet.core.handover.package import device_files
from loquet.core.parts import PartError
from loquet.core.planning.pinning import PinReport, report_pins


def plan_brief(brief_path: Path, out: Path | None) -> tuple[int, dict[str, Any]]:
    """Plan the pins of a brief; 0 with a plan, 2 where none exists.

    With `out`, the plan's files are written there. Raises Unusable.
    """
    library = bundled_library()
    try:
        brief = read_brief(read_limited(brief_path), brief_path.name)
        design = Design(brief=brief)
        names = [brain.name for brain in brief.brains] or [""]
        reports = {name: report_pins(design, library, brain=name) for name in names}
    except BriefError as error:
        raise Unusable(str(error)) from None
    except PartError as error:
        raise Unusable(str(error)) from None
    plans = {name: report.plan for name, report in reports.items() if report.plan is not None}
    if out is not None and len(plans) == len(reports):
        for name, data in device_files(brief, plans).items():
            (out / name).parent.mkdir(parents=True, exist_ok=True)
            (out / name).write_bytes(data)
    code = 0 if len(plans) == len(reports) else 2
    first, *others = (plain(report) for report in reports.values())
    return code, {**first, "others": dict(zip(names[1:], others, strict=True))}


def plain(report: PinReport) -> dict[str, Any]:
    """The report as one JSON object."""
    plan = report.plan
    return {
        "feasible": plan is not None,
        "proof": report.proof,
        "chip": plan.chip if plan else None,
        "assignment": [row.model_dump(mode="json") for row in plan.assignments] if plan else [],
        "budget": [row.model_dump(mode="json") for row in plan.budget] if plan else [],
        "risk": plan.risk if plan else None,
        "short_of": list(plan.short_of) if plan else [],
        "conflict": report.conflict.model_dump(mode="json") if report.conflict else None,
        "ways_out": [way.model_dump(mode="json") for way in report.ways_out],
        "schemes": [card.model_dump(mode="json", exclude={"workings"}) for card in report.schemes],
        "workings": [
            w.model_dump(mode="json")
            for w in (*report.workings, *(w for card in report.schemes for w in card.workings))
        ],
    }


def say_plan(report: dict[str, Any]) -> str:
    """The report in lines for a person, one brain after the other."""
    own = say_brain(report)
    others = [f"\n{name}\n{say_brain(other)}" for name, other in report.get("others", {}).items()]
    return "\n".join([own, *others])


def say_brain(report: dict[str, Any]) -> str:
    """The report of one brain."""
    lines = []
    if report["conflict"]:
        lines += [
            report["conflict"]["why"],
            *(
                f"  way out ({way['cost']:.0f}): {way['title']}; {way['gives_up']}"
                for way in report["ways_out"]
            ),
        ]
    for row in report["assignment"]:
        function = f"  {row['peripheral']}.{row['function']}" if row["function"] else ""
        lines.append(f"{row['title']:28} pin {row['pin']:>4}  {row['port']}{function}")
    for row in report["budget"]:
        lines.append(
            f"{row['kind']:28} {row['able']:>4} able, {row['used']} used, {row['left']} left"
        )
    for card in report["schemes"]:
        mark = "*" if card["recommended"] else "-" if card["fits"] and card["reads_chords"] else " "
        lines.append(
            f"{mark} {card['title']:42} {card['pins']:>3} pins  {card['price_cents']:>6.1f} cents "
            f" {card['latency_ms']:.1f} ms  {card['shape']}"
        )
    return "\n".join([*lines, f"{report['proof'].capitalize()}."])
