"""What everything draws at once: one sum, which the tally, the guard of the cells and the widths of
tracks share.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from loquet.core.brief import Brief, Thing
from loquet.core.parts import Part
from loquet.core.parts.screen import ScreenModule
from loquet.core.power.brain_currents import brain_ma
from loquet.core.power.rails import rail_of
from loquet.core.provenance import Source, Working, WorkingInput


@dataclass(frozen=True)
class Draw:
    """What one thing draws at the most, in mA, and where that is from."""

    name: str
    current_ma: float
    origin: str


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
        return Draw(thing.name, module.current_ma, module.evidence_text)
    if thing.current_ma():
        return Draw(thing.name, thing.current_ma(), "brief")
    part = parts.get(thing.part)
    if part and "coil_ohm" in part.values:
        peak = rail_of(brief, thing).usual_v / part.figure("coil_ohm") * 1000
        return Draw(thing.name, peak, f"coil at the rail: {part.evidence_text}")
    own = (thing.part, *(body.part for body in thing.bodies()), *thing.DRAWS)
    drawing = [
        p for name in dict.fromkeys(own) if (p := parts.get(name)) and "draws_ma" in p.values
    ]
    if drawing:
        total = sum(p.figure("draws_ma") for p in drawing)
        return Draw(thing.name, total, "; ".join(p.evidence_text for p in drawing))
    if thing.BRAIN:
        return Draw(thing.name, *brain_ma(thing.part))
    return None


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
