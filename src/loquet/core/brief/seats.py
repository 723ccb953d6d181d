"""Where the brief itself puts parts: by role, so that later stages and the drawing agree."""

from loquet.core.brief.controls import DIRECTIONS, DirectionalPad
from loquet.core.brief.keys import pad_step, role_of
from loquet.core.brief.model import Brief
from loquet.core.geometry import Seat, turned
from loquet.core.quantities.lengths import nm_from_mm

CELL_PITCH_MM = 13.0


def fixed_seats(brief: Brief) -> dict[str, Seat]:
    """Seats by role (`button:brighter`, `screen`, `cell:1`, ...) of everything that the brief places."""
    seats = control_seats(brief)
    if brief.screen:
        seats["screen"] = at(brief.screen.x_mm, brief.screen.y_mm, brief.screen.turn_deg)
    if brief.buzzer and brief.buzzer.x_mm is not None and brief.buzzer.y_mm is not None:
        seats["buzzer"] = at(brief.buzzer.x_mm, brief.buzzer.y_mm, 0)
    if brief.light:
        seats["light"] = at(brief.light.x_mm, brief.light.y_mm, 0)
    if brief.chip.x_mm is not None and brief.chip.y_mm is not None:
        seats["chip"] = at(brief.chip.x_mm, brief.chip.y_mm, 0)
    seats["switch"] = at(
        brief.power_switch.x_mm, brief.power_switch.y_mm, brief.power_switch.turn_deg
    )
    seats["port"] = at(
        brief.programming_port.x_mm, brief.programming_port.y_mm, brief.programming_port.turn_deg
    )
    if brief.power.kind == "two-aaa-cells":
        dx, dy = turned(0, nm_from_mm(CELL_PITCH_MM) // 2, brief.power.turn_deg)
        middle = at(brief.power.x_mm, brief.power.y_mm, 0)
        seats["cell:1"] = Seat(middle.x + dx, middle.y + dy, brief.power.turn_deg, far=True)
        seats["cell:2"] = Seat(
            middle.x - dx, middle.y - dy, (brief.power.turn_deg + 180) % 360, far=True
        )
    return seats


def control_seats(brief: Brief) -> dict[str, Seat]:
    """Seats of the controls; a pad of four buttons has four."""
    seats: dict[str, Seat] = {}
    for control in brief.controls:
        middle, role = at(control.x_mm, control.y_mm, control.turn_deg), role_of(control)
        if isinstance(control, DirectionalPad) and control.form == "four buttons":
            for way in DIRECTIONS:
                dx, dy = pad_step(control, way)
                seats[f"{role}:{way}"] = Seat(middle.x + dx, middle.y + dy, control.turn_deg)
        else:
            seats[role] = middle
    return seats


def at(x_mm: float, y_mm: float, turn_deg: int) -> Seat:
    """A near-side seat from millimetres."""
    return Seat(nm_from_mm(x_mm), nm_from_mm(y_mm), turn_deg)
