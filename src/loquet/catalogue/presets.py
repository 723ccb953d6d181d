"""Starting points for a brief, our own: a remote, a one-hand pod, a two-hand handset, a key pad, a tiny console. All of it can be changed."""

from typing import Any, NamedTuple

from loquet.core.brief import Brief
from loquet.core.brief.reading import brief_from_plain

CHIP, BIG_CHIP = "stm32l051c8t6", "stm32f072rbt6"


class Preset(NamedTuple):
    """A starting point with its words."""

    id: str
    title: str
    about: str
    brief: Brief


def button(name: str, x: float, y: float, **more: Any) -> dict[str, Any]:
    """A button as plain values."""
    return {"kind": "button", "name": name, "x_mm": x, "y_mm": y, **more}


def corners(w: float, h: float, inset: float = 4.0, screw: str = "M2") -> list[dict[str, Any]]:
    """Four fixing holes."""
    places = (
        ("south west", inset, inset),
        ("south east", w - inset, inset),
        ("north west", inset, h - inset),
        ("north east", w - inset, h - inset),
    )
    return [{"name": f"post {n}", "x_mm": x, "y_mm": y, "screw": screw} for n, x, y in places]


def base(name: str, purpose: str, w: float, h: float, chip: str) -> dict[str, Any]:
    """What every preset has."""
    return {
        "name": name,
        "purpose": purpose,
        "outline": {"kind": "rounded-rectangle", "width_mm": w, "height_mm": h, "corner_mm": 4},
        "fixing_holes": corners(w, h),
        "chip": {"part": chip},
        "quantity": 5,
        "wanted_by": "2027-06-01",
    }


def remote() -> dict[str, Any]:
    """Six buttons and a light on two cells."""
    rows = [
        button(f"key {3 * r + c + 1}", 14 + 21 * c, 12 + 24 * r) for r in range(2) for c in range(3)
    ]
    return {
        **base("New remote", "Six keys in one hand.", 70, 52, CHIP),
        "controls": rows,
        "light": {"x_mm": 54, "y_mm": 46},
        "power": {"kind": "two-aaa-cells", "x_mm": 35, "y_mm": 24},
        "power_switch": {"x_mm": 20, "y_mm": 46},
        "programming_port": {"x_mm": 38, "y_mm": 46},
    }


def pod() -> dict[str, Any]:
    """A stick and two buttons under one thumb."""
    controls = [
        {"kind": "stick", "name": "thumb stick", "x_mm": 24, "y_mm": 62, "digit": "right thumb"},
        button("near", 16, 38, digit="right thumb"),
        button("far", 34, 38, digit="right thumb"),
        button("front", 38, 80, digit="right finger", part="button-side-pushed"),
    ]
    return {
        **base("New pod", "One hand, one stick.", 50, 90, CHIP),
        "controls": controls,
        "light": {"x_mm": 25, "y_mm": 26},
        "role": "usb-controller",
        "links": [{"kind": "usb-device", "name": "usb"}],
        "chip": {"part": "stm32f042k6t6"},
        "power": {"kind": "from-host", "x_mm": 25, "y_mm": 5},
        "power_switch": {"x_mm": 13, "y_mm": 16},
        "programming_port": {"x_mm": 32, "y_mm": 16},
    }


def handset() -> dict[str, Any]:
    """Two hands: pad, four keys, two sticks, shoulders, a screen."""
    controls = [
        {"kind": "pad", "name": "left pad", "x_mm": 24, "y_mm": 44},
        button("right north", 126, 54),
        button("right south", 126, 34),
        button("right west", 114, 44),
        button("right east", 138, 44),
        button("left shoulder", 26, 66.4, digit="left finger", part="button-side-pushed"),
        button("right shoulder", 124, 66.4, digit="right finger", part="button-side-pushed"),
        button("menu", 64, 12, duty="menu"),
        button("mark", 86, 12, duty="menu"),
        {"kind": "stick", "name": "left stick", "x_mm": 44, "y_mm": 18},
        {"kind": "stick", "name": "right stick", "x_mm": 106, "y_mm": 18},
    ]
    return {
        **base("New handset", "Two hands, two sticks.", 150, 70, BIG_CHIP),
        "controls": controls,
        "role": "usb-controller",
        "links": [{"kind": "usb-device", "name": "usb"}],
        "screen": {"x_mm": 75, "y_mm": 62, "part": "screen-128x64-serial", "bus": "one-way serial"},
        "light": {"x_mm": 96, "y_mm": 34},
        "buzzer": {},
        "power": {"kind": "lithium-cell", "x_mm": 75, "y_mm": 26},
        "power_switch": {"x_mm": 50, "y_mm": 64},
        "programming_port": {"x_mm": 75, "y_mm": 5},
    }


def key_pad() -> dict[str, Any]:
    """Sixteen low keys in a matrix, typed on."""
    rows = [
        button(f"key {4 * r + c + 1}", 14 + 18 * c, 68 - 18 * r, part="button-low-key-tactile")
        for r in range(4)
        for c in range(4)
    ]
    return {
        **base("New key pad", "Sixteen keys to type on.", 82, 96, "stm32f072cbt6"),
        "controls": rows,
        "role": "usb-keyboard",
        "key_scheme": {"name": "diode matrix"},
        "chords": {"rule": "typing", "at_once": 6},
        "links": [{"kind": "usb-device", "name": "usb"}],
        "light": {"x_mm": 41, "y_mm": 81},
        "power": {"kind": "from-host", "x_mm": 41, "y_mm": 91},
        "power_switch": {"x_mm": 18, "y_mm": 87},
        "programming_port": {"x_mm": 62, "y_mm": 88},
    }


def console() -> dict[str, Any]:
    """A tiny stand-alone console with a colour screen and sound."""
    controls = [
        {"kind": "pad", "name": "left pad", "x_mm": 18, "y_mm": 24},
        button("right south", 92, 18),
        button("right east", 102, 30),
        button("menu", 50, 8, duty="menu"),
        button("on and off", 64, 8, duty="power"),
    ]
    return {
        **base("New console", "Works by itself.", 112, 56, BIG_CHIP),
        "controls": controls,
        "screen": {
            "x_mm": 56,
            "y_mm": 52,
            "part": "screen-240x240-serial",
            "bus": "one-way serial",
            "serial_mhz": 24,
        },
        "light": {"x_mm": 96, "y_mm": 44},
        "speaker": {"feed": "timer", "mute_line": True},
        "links": [{"kind": "memory-card", "name": "card"}],
        "power": {"kind": "lithium-cell", "x_mm": 56, "y_mm": 24},
        "power_switch": {"x_mm": 24, "y_mm": 51},
        "programming_port": {"x_mm": 84, "y_mm": 51},
    }


MAKERS = (
    ("remote", "Remote", "six keys and a light on two cells", remote),
    ("pod", "One-hand pod", "a stick and three keys, fed by its host", pod),
    ("handset", "Two-hand handset", "pad, four keys, two sticks, shoulders, a screen", handset),
    ("key pad", "Key pad", "sixteen low keys in a matrix, a keyboard to its host", key_pad),
    ("console", "Tiny console", "colour screen, sound, memory card, works by itself", console),
)


def presets() -> tuple[Preset, ...]:
    """All starting points, each a brief that makes sense."""
    return tuple(
        Preset(id_, title, about, brief_from_plain(make())) for id_, title, about, make in MAKERS
    )
