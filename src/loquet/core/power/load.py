"""What everything draws at once: one sum, which the tally, the guard of the cells and the widths of
tracks share.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from loquet.core.brief import Brief, Thing
from loquet.core.parts import Part
from loquet.core.parts.screen import ScreenModule
from loquet.core.power.brain_currents import brain_ma
from loquet.core.power.currents import Currents
from loquet.core.power.rails import rail_of
from loquet.core.provenance import Source, Working, WorkingInput


@dataclass(frozen=True)
class Draw:
    """What one thing draws at the most, in mA, and where that is from; and by mode, with who says
    so.
    """

    name: str
    current_ma: float
    origin: str
    by_mode: Currents
    when: str


def draws_of(
    brief: Brief, parts: Mapping[str, Part], modules: Mapping[str, ScreenModule]
) -> tuple[Draw, ...]:
    """Every thing that is known to draw something; a coil counts with its peak."""
    return tuple(
        draw
        for thing in brief.things
        if (draw := draw_of(brief, thing, parts, modules)) is not None
    )


def draw_of(
    brief: Brief, thing: Thing, parts: Mapping[str, Part], modules: Mapping[str, ScreenModule]
) -> Draw | None:
    """What one thing draws, or nothing where that is not known or none."""
    display = thing.display()
    if display and display.part in modules:
        module = modules[display.part]
        shown = parts.get(display.part)
        return drawn(thing, module.current_ma, module.evidence_text, (shown,) if shown else ())
    if thing.current_ma():
        return drawn(thing, thing.current_ma(), "brief")
    coil = parts.get(thing.part)
    if coil and "coil_ohm" in coil.values:
        peak = rail_of(brief, thing).usual_v / coil.figure("coil_ohm") * 1000
        return drawn(thing, peak, f"coil at the rail: {coil.evidence_text}")
    table = brief.table_of(thing)
    part = table.package if table is not None else thing.part
    own = (part, *(body.part for body in thing.bodies()), *thing.DRAWS)
    drawing = [
        p for name in dict.fromkeys(own) if (p := parts.get(name)) and "draws_ma" in p.values
    ]
    if drawing:
        total = sum(p.figure("draws_ma") for p in drawing)
        return drawn(thing, total, "; ".join(p.evidence_text for p in drawing), tuple(drawing))
    if thing.BRAIN:
        return drawn(thing, *brain_ma(table.name if table is not None else thing.part))
    return None


SAID = {"play": "plays_ma", "idle": "waits_ma", "sleep": "sleeps_ma"}
"""The figure of a part that says what it draws in a mode."""


def drawn(thing: Thing, most_ma: float, origin: str, parts: tuple[Part, ...] = ()) -> Draw:
    """A draw by mode: what parts say of themselves, for the rest the share of the thing's kind."""
    duty, modes = thing.DUTY, {"peak": most_ma}
    rest = most_ma - sum(part.values.get("draws_ma", 0.0) for part in parts)
    words = set()
    for mode, figure in SAID.items():
        share = float(getattr(duty, mode))
        modes[mode] = max(0.0, rest) * share
        for part in parts:
            said = part.values.get(figure)
            modes[mode] += part.values.get("draws_ma", 0.0) * share if said is None else said
            words.add("its parts say what they take when" if said is not None else duty.origin)
    when = "; ".join(sorted(words)) or duty.origin
    return Draw(thing.name, most_ma, origin, Currents(**modes), when)


def load_working(
    brief: Brief, parts: Mapping[str, Part], modules: Mapping[str, ScreenModule]
) -> Working:
    """The sum of what is known, in mA."""
    draws = draws_of(brief, parts, modules)
    total = sum(d.current_ma for d in draws)
    return Working(
        id="tally.current",
        title="Known current, all at once",
        value=total,
        unit="mA",
        shown=f"{total:.0f} mA",
        formula=" + ".join(f"[{d.name}]" for d in draws) or "0",
        inputs=tuple(
            WorkingInput(
                name=f"[{d.name}]", value=f"{d.current_ma:.6g}", unit="mA", origin=d.origin
            )
            for d in draws
        ),
        source=Source(kind="computed", text="sum of the highest currents of all things"),
    )
