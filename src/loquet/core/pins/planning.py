"""The pin stage: from the solver's answer to the plan that everything else reads."""

from loquet.core.pins.model import Assignment, PinPlan
from loquet.core.pins.solving import RISK_WEIGHT_UM, PinProblem, Solved
from loquet.core.provenance import Source, Working, WorkingInput

COMPUTED = Source(kind="computed", text="CP-SAT search over the open data set's pin functions; checked again without the solver")


def plan_of(problem: PinProblem, solved: Solved) -> PinPlan:
    """The plan with spare and reserved pins and its workings."""
    rows = []
    for need in problem.needs:
        option = solved.picks[need.signal]
        function = option.function
        rows.append(
            Assignment(
                signal=need.signal, kind=need.kind, title=need.title, net=need.net, pin=option.pin, port=option.port,
                peripheral=function.peripheral if function else "gpio", function=function.signal if function else "",
                route=function.route if function else "", locked=need.signal in problem.locks,
            )
        )  # fmt: skip
    used = {row.pin for row in rows}
    ports = [pin for pin in problem.chip.pins if pin.kind == "port"]
    reserved = tuple((pin.number, "reset") for pin in ports if pin.is_reset)
    risk = sum(option.risk for option in solved.picks.values())
    free = tuple(pin.number for pin in ports if pin.number not in used and not pin.is_reset)
    length = solved.cost_um - risk * RISK_WEIGHT_UM
    return PinPlan(
        chip=problem.chip.name, package=problem.chip.package, assignments=tuple(rows), free=free, reserved=reserved,
        proven=solved.proven, risk=risk, length_um=length, workings=workings(problem, len(rows), len(free), length, solved.proven),
    )  # fmt: skip


def workings(problem: PinProblem, used: int, free: int, length_um: int, proven: bool) -> tuple[Working, ...]:
    """How the budget and the length were reached."""
    chip = WorkingInput(name="chip", value=problem.chip.name, origin=problem.chip.data_source)
    needs = WorkingInput(name="needs", value=str(used), origin="brief")
    return (
        Working(
            id="pins.used", title="Pins used", value=used, unit="pins", shown=f"{used}", formula="one pin a signal",
            inputs=(needs,), source=Source(kind="brief", text="controls, screen, buzzer, light and programming port of the brief"),
        ),
        Working(
            id="pins.free", title="Pins free", value=free, unit="pins", shown=f"{free}",
            formula="port pins - used - reset", inputs=(chip, needs), source=Source(kind="open data", text=problem.chip.data_source),
        ),
        Working(
            id="pins.length", title="Estimated track length", value=length_um / 1000, unit="mm", shown=f"{length_um / 1000:.1f} mm",
            formula="sum of |dx| + |dy| from each pin to the place its signal goes" + ("; proven shortest" if proven else ""),
            inputs=(chip, needs), source=COMPUTED,
        ),
    )  # fmt: skip
