"""`loquet on`: a brief file to its device switched on, without a database."""

from pathlib import Path
from typing import Any

from loquet.catalogue.library import bundled_library
from loquet.compiling import Unusable
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design, slice_of
from loquet.core.energising.loading import loads_at
from loquet.core.energising.states import State, UnknownState, read_state
from loquet.core.energising.wording import words_of
from loquet.core.lookup.switched_on import energised_of, planned_of, seen_in
from loquet.core.parts import PartError
from loquet.core.pipeline import StageRefused, run_stage
from loquet.core.reviewing import review
from loquet.reports.plans import Report, brief_at

MOST_LOADED = 12


def report_on(path: Path, wanted: str = "") -> tuple[int, Report]:
    """All states of a brief's device with what is wrong in them, and one of them in full: the one
    that is `wanted`, else the first stop's or that with everything on.

    0 nothing stands against it, 2 a stop does. Raises Unusable.
    """
    library, brief = bundled_library(), brief_at(path)
    try:
        design = run_stage(run_stage(Design(brief=brief), "pins", library), "circuit", library)
    except (PartError, StageRefused, RecipeNotPossible) as error:
        raise Unusable(str(error)) from None
    circuit, brains = slice_of(design.circuit), planned_of(design, library)
    whole = energised_of(brief, circuit, library, brains)
    findings = [f for f in review(design, library) if f.state]
    try:
        first = read_state(
            whole.device, wanted or (findings[0].state if findings else fullest(whole.states))
        )
    except UnknownState as error:
        raise Unusable(str(error)) from None
    seen = seen_in(whole, first)
    sound = bool(seen.sound[0])
    shown = circuit.nets if sound else ()
    given = seen.given_a if sound else {}
    report: dict[str, Any] = {
        "states": [
            {"id": state.id, "words": words_of(state, whole.ways), "sound": bool(kept)}
            for state, kept in zip(whole.states, whole.sound, strict=True)
        ],
        "findings": [f.model_dump(mode="json", exclude={"working"}) for f in findings],
        "state": {
            "id": first.id,
            "words": words_of(first, whole.ways),
            "sound": sound,
            "volts": {net.name: round(float(seen.volt(net.name)[0]), 4) for net in shown},
            "sources_ma": {n: round(1000 * float(a[0]), 4) for n, a in given.items()},
            "loads": [load.model_dump() for load in loads_at(seen, 0)] if sound else [],
        },
    }
    code = 2 if any(f.severity == "stop" for f in findings) else 0
    return code, report


def fullest(states: tuple[State, ...]) -> str:
    """The state with the most sources and everything on."""
    return max(states, key=lambda s: (s.mode == "peak", s.usual, len(s.sources))).id


def say_on(report: Report) -> str:
    """It in lines for a person."""
    lines = [f"{len(report['states'])} states."]
    lines += [f"{f['severity']:5} {f['sentence']} {f['way_out']}" for f in report["findings"]]
    state = report["state"]
    lines.append(f"{state['words']} ({state['id']}):")
    if not state["sound"]:
        return "\n".join([*lines, "  No answer was found that keeps its own sums."])
    lines += [f"  {name} gives {ma:.3g} mA" for name, ma in state["sources_ma"].items()]
    lines += [f"  {net:28} {volts:7.3f} V" for net, volts in sorted(state["volts"].items())]
    lines += [
        f"  {row['ref']:6} {row['words']}: {row['amount']:.3g} of {row['limit']:.3g} {row['unit']},"
        f" {100 * row['share']:.0f} %"
        for row in state["loads"][:MOST_LOADED]
    ]
    return "\n".join(lines)
