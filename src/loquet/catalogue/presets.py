"""Starting points for a brief, our own: nothing but an outline, a remote, a one-hand pod, a
two-hand handset, a key pad, a small console.

Each of them can be made up to a board as it stands, and all of it can be changed.
"""

from typing import Any, NamedTuple

from loquet.core.brief import Brief, brief_from_plain

CHIP, BIG_CHIP = "stm32l051c8t6", "stm32f072rbt6"
Row = dict[str, Any]


class Preset(NamedTuple):
    """A starting point with its words."""

    id: str
    title: str
    about: str
    brief: Brief


def at(x: float, y: float, turn: int = 0, far: bool = False) -> Row:
    """A place."""
    return {"x_mm": x, "y_mm": y, "turn_deg": turn, "far": far}


def thing(kind: str, name: str, place: Row | None = None, **more: Any) -> Row:
    """A thing as plain values."""
    return {"kind": kind, "name": name, "place": place, **more}


def button(name: str, x: float, y: float, **more: Any) -> Row:
    """A button."""
    return thing("button", name, at(x, y), **more)


def corners(w: float, h: float, inset: float = 4.0, screw: str = "M2") -> list[Row]:
    """Four fixing holes."""
    spots = {
        "south west": (inset, inset),
        "south east": (w - inset, inset),
        "north west": (inset, h - inset),
        "north east": (w - inset, h - inset),
    }
    return [thing("hole", f"post {n}", at(x, y), screw=screw) for n, (x, y) in spots.items()]


def device(
    name: str, purpose: str, size: tuple[float, float], things: list[Row], **more: Any
) -> Row:
    """A device of one board with holes at its corners."""
    w, h = size
    outline = {"kind": "rounded-rectangle", "width_mm": w, "height_mm": h, "corner_mm": 4}
    return {
        "format": "loquet-brief-2",
        "name": name,
        "purpose": purpose,
        "boards": [{"name": "main", "outline": outline}],
        "things": [*things, *corners(w, h)],
        "quantity": 5,
        "wanted_by": "2027-06-01",
        **more,
    }


def empty() -> Row:
    """Nothing but an outline and a microcontroller."""
    things = [thing("chip", "chip", part=CHIP)]
    return device("New device", "", (70, 50), things)


def remote() -> Row:
    """Six buttons and a light on two cells."""
    keys = [
        button(f"key {3 * r + c + 1}", 14 + 21 * c, 12 + 24 * r) for r in range(2) for c in range(3)
    ]
    things = [
        *keys,
        thing("chip", "chip", part=CHIP),
        thing("light", "light", at(54, 46)),
        thing("cells", "cell", at(35, 24, far=True)),
        thing("power-switch", "switch", at(20, 46)),
        thing("programming", "port", at(38, 46)),
    ]
    return device("New remote", "Six keys in one hand.", (70, 52), things)


def pod() -> Row:
    """A stick and three buttons under one hand."""
    things = [
        thing("stick", "thumb stick", at(28, 92), digit="right thumb"),
        button("near", 18, 66, digit="right thumb"),
        button("far", 38, 66, digit="right thumb"),
        button("front", 28, 110, digit="right finger", part="button-side-pushed"),
        thing("chip", "chip", part=CHIP),
        thing("light", "light", at(28, 30)),
        thing("cells", "cell", at(28, 48, 90, far=True)),
        thing("power-switch", "switch", at(16, 12)),
        thing("programming", "port", at(38, 12)),
    ]
    return device("New pod", "One hand, one stick.", (56, 116), things)


def handset() -> Row:
    """Two hands: pad, four keys, two sticks, shoulders, a screen."""
    things = [
        thing("pad", "left pad", at(24, 44)),
        button("right north", 126, 54),
        button("right south", 126, 34),
        button("right west", 114, 44),
        button("right east", 138, 44),
        button("left shoulder", 26, 66.4, digit="left finger", part="button-side-pushed"),
        button("right shoulder", 124, 66.4, digit="right finger", part="button-side-pushed"),
        button("menu", 64, 12, duty="menu"),
        button("mark", 86, 12, duty="menu"),
        thing("stick", "left stick", at(44, 18)),
        thing("stick", "right stick", at(106, 18)),
        thing("chip", "chip", part=BIG_CHIP),
        thing("screen", "screen", at(75, 62), part="screen-128x64-serial", bus="one-way serial"),
        thing("buzzer", "buzzer"),
        thing("light", "light", at(96, 34)),
        thing("cells", "cell", at(75, 36, far=True)),
        thing("power-switch", "switch", at(50, 64)),
        thing("programming", "port", at(75, 5)),
    ]
    return device("New handset", "Two hands, two sticks.", (150, 70), things)


def key_pad() -> Row:
    """Sixteen keys in a matrix with diodes."""
    keys = [
        button(f"key {4 * r + c + 1}", 14 + 18 * c, 68 - 18 * r, part="button-soft-rubber-6x6")
        for r in range(4)
        for c in range(4)
    ]
    things = [
        *keys,
        thing("chip", "chip", part="stm32g031k8t6"),
        thing("light", "light", at(41, 84)),
        thing("cells", "cell", at(41, 41, far=True)),
        thing("power-switch", "switch", at(18, 87)),
        thing("programming", "port", at(62, 88)),
    ]
    wishes = {"key_scheme": {"name": "diode matrix"}, "chords": {"rule": "typing", "at_once": 6}}
    return device("New key pad", "Sixteen keys to type on.", (82, 96), things, **wishes)


def console() -> Row:
    """A small console with a screen and a sounder, which works by itself."""
    things = [
        thing("pad", "left pad", at(18, 26)),
        button("right south", 92, 18),
        button("right east", 102, 30),
        button("menu", 50, 8, duty="menu"),
        button("back", 64, 8, duty="menu"),
        thing("chip", "chip", part=BIG_CHIP),
        thing("screen", "screen", at(56, 52), part="screen-128x64-serial", bus="one-way serial"),
        thing("buzzer", "buzzer"),
        thing("light", "light", at(92, 44)),
        thing("cells", "cell", at(56, 24, far=True)),
        thing("power-switch", "switch", at(24, 51)),
        thing("programming", "port", at(82, 51)),
    ]
    return device("New console", "Works by itself.", (112, 56), things)


MAKERS = (
    ("empty", "Empty outline", "70 x 50 mm and a microcontroller; all else is yours", empty),
    ("remote", "Remote", "six keys and a light on two cells", remote),
    ("pod", "One-hand pod", "a stick and three keys", pod),
    ("handset", "Two-hand handset", "pad, four keys, two sticks, shoulders, a screen", handset),
    ("key pad", "Key pad", "sixteen keys in a matrix", key_pad),
    ("console", "Small console", "a screen, a sounder, works by itself", console),
)


def presets() -> tuple[Preset, ...]:
    """All starting points, each a brief that makes sense."""
    return tuple(
        Preset(id_, title, about, brief_from_plain(make())) for id_, title, about, make in MAKERS
    )
