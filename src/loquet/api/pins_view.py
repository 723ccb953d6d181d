"""What the Pins station draws: the chip as it will sit, what each pin carries, and where each
signal goes.
"""

from dataclasses import dataclass

from loquet.api.shapes import Carried, ChipPinView, PinsView
from loquet.core.design import Design
from loquet.core.freshness import stale_subjects
from loquet.core.library import Library
from loquet.core.lookup.brains import brain_of
from loquet.core.parts import ChipPin
from loquet.core.pins import Assignment, Need, PinPlan, PinProblem
from loquet.core.pins.options import options_of
from loquet.core.pins.planning import budget_workings
from loquet.core.pipeline import pin_problem

LINES = {
    "analogue": "analogue",
    "touch": "analogue",
    "converter output": "analogue",
    "timer": "pulses",
    "high drive": "drive",
    "output": "drive",
    "input": "key or input",
    "interrupt": "key or input",
    "wake-up": "key or input",
}
SERVICE = ("debug", "crystal", "slow crystal")


def line_of(need: Need) -> str:
    """How the link of a need is drawn."""
    if need.kind.startswith(SERVICE):
        return "service"
    return LINES.get(need.kind, "bus")


@dataclass(frozen=True)
class Seated:
    """Where the chip's pins lie: the problem's places, about their middle."""

    problem: PinProblem

    @property
    def middle(self) -> tuple[float, float]:
        """The middle of all pins, in nm."""
        places = list(self.problem.places.values()) or [(0, 0)]
        xs, ys = [x for x, _ in places], [y for _, y in places]
        return (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2

    def about(self, place: tuple[int, int] | None) -> tuple[float, float] | None:
        """A place in mm about the middle of the chip."""
        if place is None:
            return None
        x, y = self.middle
        return round((place[0] - x) / 1e6, 3), round((place[1] - y) / 1e6, 3)


def describe_pins(design: Design, library: Library, asked: str = "") -> PinsView:
    """Every pin with what it carries and could carry, every signal with the pins that could take
    it.
    """
    brain = brain_of(design.brief, asked).name
    problem = pin_problem(design, library, brain)
    chip, needs = problem.chip, problem.needs
    made = design.pins.get(brain)
    plan = made.value if made and made.value.chip == chip.name else None
    carried = {row.pin: row for row in plan.assignments} if plan else {}
    seated = Seated(problem)
    usable = sum(p.kind == "port" and not p.is_reset for p in chip.pins)
    return PinsView(
        brain=brain,
        brains=[thing.name for thing in design.brief.brains],
        chip=chip.name,
        package=chip.package,
        pins=[pin_view(pin, carried.get(pin.number), seated) for pin in chip.pins],
        signals=signal_views(design, plan, seated),
        proven=bool(plan and plan.proven),
        solved=plan is not None and ("pins", brain) not in stale_subjects(design),
        free=len(plan.free) if plan else usable - len(needs),
        reserved=sum(p.kind not in ("port", "unused") or p.is_reset for p in chip.pins),
        crossings=plan.crossings if plan else 0,
        workings=list(plan.workings) if plan else [],
        data_source=chip.data_source,
        budget=list(budget_workings(plan)) if plan else [],
        short_of=list(plan.short_of) if plan else [],
        placed=bool(design.placement),
    )


def pin_view(pin: ChipPin, row: Assignment | None, seated: Seated) -> ChipPinView:
    """A pin with what it carries and what else it could."""
    at = seated.about(seated.problem.places.get(pin.number)) or (0.0, 0.0)
    return ChipPinView(
        number=pin.number,
        name=pin.name,
        kind="reset" if pin.is_reset else pin.kind,
        x_mm=at[0],
        y_mm=at[1],
        signal=row.signal if row else "",
        title=row.title if row else "",
        function=f"{row.peripheral}.{row.function}" if row and row.function else "",
        locked=bool(row and row.locked),
        could=[f"{f.peripheral}.{f.signal} ({f.route})" for f in pin.functions],
    )


def signal_views(design: Design, plan: PinPlan | None, seated: Seated) -> list[Carried]:
    """Every signal with its pin, its lock, the pins that could take it, and the direction in which
    it goes.
    """
    problem = seated.problem
    found = []
    for need in problem.needs:
        row = plan.of(need.signal) if plan else None
        found.append(
            Carried(
                signal=need.signal,
                title=need.title,
                line=line_of(need),
                toward_mm=seated.about(need.target),
                pin=row.pin if row else "",
                port=row.port if row else "",
                function=(
                    f"{row.peripheral}.{row.function} {row.route}" if row and row.function else ""
                ),
                locked=need.signal in design.choices.pin_locks,
                pins=list(dict.fromkeys(o.pin for o in options_of(need, problem.chip))),
            )
        )
    return found
