"""`loquet power` and `loquet circuit`: a brief file to its power plan or its circuit, without a
database.
"""

from pathlib import Path
from typing import Any

from loquet.catalogue.library import bundled_library
from loquet.compiling import Unusable, read_limited
from loquet.core.brief import Brief, BriefError, read_brief
from loquet.core.buying.kit import kit_of
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design, slice_of
from loquet.core.library import Library
from loquet.core.lookup.curving import curves_for
from loquet.core.lookup.powering import power_of
from loquet.core.parts import PartError
from loquet.core.pipeline import StageRefused, run_stage
from loquet.core.provenance import Finding
from loquet.core.reviewing import review

Report = dict[str, Any]


def brief_at(path: Path) -> Brief:
    """The brief of a file; raises Unusable."""
    try:
        return read_brief(read_limited(path), path.name)
    except BriefError as error:
        raise Unusable(str(error)) from None


def findings_at(design: Design, library: Library, station: str) -> list[Report]:
    """The findings of one station as plain values; raises PartError."""
    found: list[Finding] = [f for f in review(design, library) if f.station == station]
    return [f.model_dump(mode="json", exclude={"working"}) for f in found]


def report_power(path: Path) -> tuple[int, Report]:
    """The power plan of a brief: 0, or 2 where a stop stands against it. Raises Unusable."""
    library, brief = bundled_library(), brief_at(path)
    try:
        plan = power_of(brief, library)
        findings = findings_at(Design(brief=brief), library, "power")
    except PartError as error:
        raise Unusable(str(error)) from None
    code = 2 if any(f["severity"] == "stop" for f in findings) else 0
    return code, {**plan.model_dump(mode="json"), "findings": findings}


def report_circuit(path: Path) -> tuple[int, Report]:
    """The circuit of a brief with its pins planned: 0, or 2 where a stop stands against it.

    Raises Unusable where there is no circuit.
    """
    library, brief = bundled_library(), brief_at(path)
    try:
        design = run_stage(run_stage(Design(brief=brief), "pins", library), "circuit", library)
    except (PartError, StageRefused, RecipeNotPossible) as error:
        raise Unusable(str(error)) from None
    circuit = slice_of(design.circuit)
    plan = power_of(brief, library)
    findings = [*findings_at(design, library, "circuit"), *findings_at(design, library, "power")]
    code = 2 if any(f["severity"] == "stop" for f in findings) else 0
    return code, {
        "components": [c.model_dump(mode="json") for c in circuit.components],
        "nets": [n.model_dump(mode="json") for n in circuit.nets],
        "rails": [r.model_dump(mode="json") for r in plan.rails],
        "workings": [w.model_dump(mode="json") for w in circuit.workings],
        "curves": [c.model_dump(mode="json") for c in curves_for(brief, circuit, library)],
        "findings": findings,
    }


def report_kit(path: Path) -> tuple[int, Report]:
    """The kit of a brief. Raises Unusable."""
    library, brief = bundled_library(), brief_at(path)
    try:
        kit = kit_of(Design(brief=brief), library)
    except PartError as error:
        raise Unusable(str(error)) from None
    return 0, {"quantity": brief.quantity, **kit.model_dump(mode="json")}


def say_kit(report: Report) -> str:
    """The kit in lines for a person, group by group."""
    lines = [f"For {report['quantity']} devices:"]
    group = ""
    for line in sorted(report["lines"], key=lambda row: row["group"]):
        if line["group"] != group:
            group = line["group"]
            lines.append(group)
        lines.append(f"  {line['count']:4} x {line['what']} ({line['why']})")
    lines += [f"{w['title']}: {w['shown']}" for w in report["workings"]]
    return "\n".join(lines)


def say_power(report: Report) -> str:
    """The plan in lines for a person."""
    lines = []
    for source in report["sources"]:
        hours = ", ".join(f"{mode} {value:.1f} h" for mode, value in source["hours"].items())
        lasts = f"lasts {hours}" if hours else "is fed from outside"
        lines.append(
            f"{source['name']}: {source['empty_v']:.2f} to {source['fresh_v']:.2f} V, {lasts}"
        )
    for rail in report["rails"]:
        load = rail["load"]
        lines.append(
            f"rail {rail['name']}: {rail['volts']:g} V by {rail['way'].lower()}, "
            f"play {load['play']:.1f} mA, peak {load['peak']:.1f} mA"
        )
    for way in report["ways"]:
        verdict = way["reason"] or way["why_not"] or f"{way['heat_mw']:.0f} mW of heat"
        lines.append(
            f"  {'>' if way['taken'] else ' '} {way['feeder']}, {way['title'].lower()}: {verdict}"
        )
    return "\n".join(lines + said(report))


def say_circuit(report: Report) -> str:
    """The circuit in lines for a person."""
    lines = [
        f"{c['ref']:5} {c['purpose']}, {c['value']}: "
        + " ".join(f"{pad}={net}" for pad, net in c["pads"].items())
        for c in report["components"]
    ]
    lines.append(f"{len(report['components'])} components, {len(report['nets'])} nets.")
    return "\n".join(lines + said(report))


def said(report: Report) -> list[str]:
    """Findings in lines."""
    return [f"{f['severity']:5} {f['sentence']} {f['way_out']}" for f in report["findings"]]
