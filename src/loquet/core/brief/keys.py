"""The keys of a device: everything that is open or closed, in the one order that plan, header, report and button test share."""

from dataclasses import dataclass

from loquet.core.brief.controls import (
    DIRECTIONS,
    STEPS,
    Button,
    Control,
    DirectionalPad,
    Encoder,
    Stick,
    TouchPad,
    Trigger,
)
from loquet.core.brief.model import Brief
from loquet.core.geometry import turned
from loquet.core.quantities.lengths import nm_from_mm


@dataclass(frozen=True)
class Key:
    """A key: its id (`button:red`, `pad:left pad:up`), words, the role of the part that carries it, its place (nm) and who works it."""

    id: str
    title: str
    role: str
    x: int
    y: int
    digit: str
    pad: str = ""
    direction: str = ""
    duty: str = "play"
    sends: int | None = None


def keys_of(brief: Brief) -> tuple[Key, ...]:
    """All keys in the order of the brief; a power button is one of them, encoder turns are not."""
    middle_mm = middle_of_outline(brief)
    return tuple(key for control in brief.controls for key in keys_of_control(control, middle_mm))


def keys_of_control(control: Control, middle_mm: float) -> tuple[Key, ...]:
    """The keys that one control carries."""
    digit = digit_of(control, middle_mm)
    x, y = nm_from_mm(control.x_mm), nm_from_mm(control.y_mm)
    role = role_of(control)
    match control:
        case Button():
            return (
                Key(
                    role,
                    f"button {control.name}",
                    role,
                    x,
                    y,
                    digit,
                    duty=control.duty,
                    sends=control.sends,
                ),
            )
        case DirectionalPad():
            keys = []
            for way in DIRECTIONS:
                dx, dy = pad_step(control, way) if control.form == "four buttons" else (0, 0)
                part = f"{role}:{way}" if control.form == "four buttons" else role
                keys.append(
                    Key(
                        f"{role}:{way}",
                        f"{control.name} {way}",
                        part,
                        x + dx,
                        y + dy,
                        digit,
                        pad=control.name,
                        direction=way,
                    )
                )
            if control.form == "five-way part":
                keys.append(
                    Key(
                        f"{role}:press",
                        f"{control.name} press",
                        role,
                        x,
                        y,
                        digit,
                        pad=control.name,
                        direction="press",
                    )
                )
            return tuple(keys)
        case Stick() | Encoder() if control.press:
            return (Key(f"{role}:press", f"{control.name} press", role, x, y, digit),)
        case _:
            return ()


def role_of(control: Control) -> str:
    """The role of a control: kind and name."""
    return f"{control.kind}:{control.name}"


def part_kind(control: Control) -> str:
    """The kind of catalogue part that a control is."""
    match control:
        case DirectionalPad():
            return "five-way" if control.form == "five-way part" else "button"
        case Stick() | Trigger():
            return f"{control.sensing} {control.kind}"
        case TouchPad():
            return "touch electrode"
        case _:
            return control.kind


def pad_step(pad: DirectionalPad, way: str) -> tuple[int, int]:
    """Where the button of a direction lies from the middle of its pad, in nm."""
    dx, dy = STEPS[way]
    spread = nm_from_mm(pad.spread_mm)
    return turned(dx * spread, dy * spread, pad.turn_deg)


def digit_of(control: Control, middle_mm: float) -> str:
    """Who works a control: as the brief says, else the thumb of its side."""
    if control.digit != "auto":
        return control.digit
    return "left thumb" if control.x_mm < middle_mm else "right thumb"


def middle_of_outline(brief: Brief) -> float:
    """The line between left and right hand, in mm."""
    outline = brief.outline
    if outline.kind == "polygon":
        xs = [x for x, _ in outline.points_mm]
        return (min(xs) + max(xs)) / 2
    return outline.width_mm / 2
