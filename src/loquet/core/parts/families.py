"""Connectors by formula: a family, a pitch and a number of ways give the part with its land
pattern.

Rows of posts, two rows of posts, flat-cable connectors, plugs for wires, screw terminals, contacts
at the board's edge. What a maker buys is named in our own words: family, pitch, ways, and which
side a flat cable's contacts must face.
"""

from collections.abc import Iterator

from loquet.core.parts.in_use import STAYS, Side
from loquet.core.parts.part import Drawn, DrawnPad, Part
from loquet.core.parts.terminal import HOLDS, ONE, OTHER, Terminal, way_count, ways

POST_TEXT = "0.64 mm square posts at 2.54 mm, hole 1.0 mm: common practice, no source"
CABLE_TEXT = "Copperbeck Joints drawing CJ-F (invented): contacts 1.3 mm long, two hold-downs"
PLUG_TEXT = "Copperbeck Joints drawing CJ-W (invented)"
SCREW_TEXT = "Copperbeck Joints drawing CJ-S (invented): 1.3 mm holes at 5.08 mm"
EDGE_TEXT = "contacts of 1.6 x 7.0 mm at 2.54 mm: common practice, no source"
FINGER_TEXT = (
    "Fernhill Switch drawing FS-C8 (invented): two combs 1 and 4, fingers and gaps of 0.4 mm"
)
FINGER_MM, USUAL_PILL = 0.4, 8
EDGE_KIND = "edge contacts"
PLUG_PITCHES = {"1.0": 1.0, "1.25": 1.25, "2.0": 2.0, "2.5": 2.5}
WIRE_PLUG_MA = {"1.0": 1000, "1.25": 1000, "2.0": 2000, "2.5": 3000}
CABLE_PITCHES = {"0.5": 0.5, "1.0": 1.0}


def along(ways: int, pitch: float, index: int) -> float:
    """The place of a way in a row about its middle, in mm."""
    return round((index - (ways - 1) / 2) * pitch, 4)


def connector(
    key: str,
    kind: str,
    words: str,
    sizes: tuple[float, float],
    body: Drawn,
    text: str,
    contact_ma: float,
) -> Part:
    """A connector part; `sizes` are its height in mm and its price in cents, `contact_ma` what one
    contact carries (usual ratings, from memory).
    """
    terminals = row_of(body)
    return Part(
        id=key,
        kind=kind,
        description=words,
        body=body,
        height_mm=sizes[0],
        price_cents=sizes[1],
        reference="J",
        evidence="drawing" if "drawing" in text else "standard",
        evidence_text=text,
        hand_fitted=any(pad.drill_mm for pad in body.pads),
        terminals=terminals,
        values={"contact_ma": contact_ma, "ways": way_count(terminals), "pitch_mm": pitch_of(body)}
        | ({"flat_finish": 1} if kind == EDGE_KIND else {}),
    )


def pitch_of(body: Drawn) -> float:
    """The least distance of its first way from the next two, in mm."""
    one, *others = body.pads[:3]
    gaps = [abs(pad.x_mm - one.x_mm) for pad in others]
    return round(min(gap for gap in gaps if gap > 0), 3)


def row_of(body: Drawn) -> dict[str, Terminal]:
    """The ways of a connector; pads of another size than its first hold it down."""
    first = body.pads[0]
    even = [(p.w_mm, p.h_mm) == (first.w_mm, first.h_mm) for p in body.pads]
    held = tuple(p.number for p, alike in zip(body.pads, even, strict=True) if not alike)
    return ways(sum(even)) | ({HOLDS: Terminal(pads=held)} if held else {})


def post(number: int, x: float, y: float, pad_mm: float, drill_mm: float) -> DrawnPad:
    """A plated hole; the first one is square."""
    return DrawnPad(
        number=str(number),
        x_mm=x,
        y_mm=y,
        w_mm=pad_mm,
        h_mm=pad_mm,
        drill_mm=drill_mm,
        round=number > 1,
    )


def post_row(ways: int) -> Part:
    """One row of posts at 2.54 mm; pin 1 on the left."""
    pads = tuple(post(i + 1, along(ways, 2.54, i), 0.0, 1.7, 1.0) for i in range(ways))
    body = Drawn(
        family="drawn",
        name=f"posts 1x{ways} 2.54",
        pads=pads,
        body_mm=(round(2.54 * ways, 2), 2.54),
        first_pin_mark=True,
    )
    words = f"Row of {ways} posts, 2.54 mm"
    return connector(f"posts-{ways}", "post row", words, (8.5, 3.0 * ways), body, POST_TEXT, 3000)


def post_rows(ways: int) -> Part:
    """Two rows of posts at 2.54 mm; odd numbers in the upper row, each even one below its odd
    one.
    """
    half = ways // 2
    pads = tuple(
        post(2 * i + 1 + row, along(half, 2.54, i), 1.27 - 2.54 * row, 1.7, 1.0)
        for i in range(half)
        for row in (0, 1)
    )
    body = Drawn(
        family="drawn",
        name=f"posts 2x{half} 2.54",
        pads=pads,
        body_mm=(round(2.54 * half, 2), 5.08),
        first_pin_mark=True,
    )
    words = f"Two rows of posts, {ways} in all, 2.54 mm"
    return connector(
        f"posts-two-{ways}", "post rows", words, (8.5, 3.0 * ways), body, POST_TEXT, 3000
    )


def flat_cable(pitch: str, ways: int, contact: Side) -> Part:
    """A flat-cable connector; the cable goes in from below in the picture, contacts at the top of
    the body; `contact` is the side of the cable that they touch.
    """
    step = CABLE_PITCHES[pitch]
    pads = tuple(
        DrawnPad(
            number=str(i + 1),
            x_mm=along(ways, step, i),
            y_mm=2.35,
            w_mm=round(step * 0.6, 3),
            h_mm=1.3,
        )
        for i in range(ways)
    )
    hold = round((ways - 1) / 2 * step + 2.1, 3)
    held = tuple(
        DrawnPad(number=str(ways + 1 + i), x_mm=x, y_mm=-0.6, w_mm=1.8, h_mm=2.2)
        for i, x in enumerate((-hold, hold))
    )
    body = Drawn(
        family="drawn",
        name=f"flat cable {pitch} x {ways} {contact}",
        pads=pads + held,
        body_mm=(round((ways - 1) * step + 6.0, 2), 5.6),
        first_pin_mark=True,
    )
    words = f"Flat-cable connector, {ways} ways, {pitch} mm, touches the cable's {contact} side"
    sizes = (2.0, 18.0 + 0.9 * ways)
    key = f"flat-cable-{pitch}-{ways}-{contact}"
    part = connector(key, "flat-cable connector", words, sizes, body, CABLE_TEXT, 500)
    return part.model_copy(update={"contact": contact})


def wire_plug(pitch: str, ways: int) -> Part:
    """The board half of a plug for wires: posts through the board at 2.0 and 2.5 mm, a surface part
    with hold-downs below that.
    """
    step = PLUG_PITCHES[pitch]
    if step >= 2:
        pads = tuple(post(i + 1, along(ways, step, i), 0.0, 1.5, 0.85) for i in range(ways))
        size, middle = (round(step * (ways - 1) + 4.9, 2), 5.5), (0.0, -0.55)
    else:
        pads = tuple(
            DrawnPad(
                number=str(i + 1), x_mm=along(ways, step, i), y_mm=1.8, w_mm=step * 0.6, h_mm=1.6
            )
            for i in range(ways)
        )
        hold = round((ways - 1) / 2 * step + 1.7, 3)
        pads += tuple(
            DrawnPad(number=str(ways + 1 + i), x_mm=x, y_mm=-1.2, w_mm=1.2, h_mm=1.8)
            for i, x in enumerate((-hold, hold))
        )
        size, middle = (round(step * (ways - 1) + 4.0, 2), 4.25), (0.0, 0.0)
    body = Drawn(
        family="drawn",
        name=f"wire plug {pitch} x {ways}",
        pads=pads,
        body_mm=size,
        body_middle_mm=middle,
        first_pin_mark=True,
    )
    words = f"Plug for {ways} wires, board half with pins, {pitch} mm, keyed"
    key, sizes = f"wire-plug-{pitch}-{ways}", (6.0, 6.0 + 2.0 * ways)
    return connector(key, "wire plug", words, sizes, body, PLUG_TEXT, WIRE_PLUG_MA[pitch])


def screw_terminals(ways: int) -> Part:
    """Screw terminals at 5.08 mm; wires go in from below in the picture."""
    pads = tuple(post(i + 1, along(ways, 5.08, i), 0.0, 2.6, 1.3) for i in range(ways))
    body = Drawn(
        family="drawn",
        name=f"screw terminals {ways} 5.08",
        pads=pads,
        body_mm=(round(5.08 * ways, 2), 8.0),
        first_pin_mark=True,
    )
    words = f"Screw terminals, {ways} ways, 5.08 mm"
    key, sizes = f"terminals-{ways}", (10.0, 14.0 * ways)
    return connector(key, "screw terminals", words, sizes, body, SCREW_TEXT, 10_000)


def edge_row(ways: int) -> Part:
    """Bare contacts at the board's own edge, which is below in the picture; 1 on the left."""
    pads = tuple(
        DrawnPad(
            number=str(i + 1), x_mm=along(ways, 2.54, i), y_mm=0.0, w_mm=1.6, h_mm=7.0, paste=False
        )
        for i in range(ways)
    )
    body = Drawn(
        family="drawn",
        name=f"edge contacts {ways} 2.54",
        pads=pads,
        body_mm=(round(2.54 * ways, 2), 8.0),
    )
    words = f"Bare contacts at the edge, {ways} ways, 2.54 mm; want a flat gold finish"
    return connector(f"edge-{ways}", EDGE_KIND, words, (0.0, 0.0), body, EDGE_TEXT, 1000)


def contact_fingers(diameter_mm: int) -> Part:
    """Two combs of bare contact fingers under a round carbon pill: fingers 0.4 mm wide with 0.4 mm
    between them, in turn on a bar above (contact 1) and a bar below (contact 4).

    A finger ends where the pill ends, or a gap before the other bar. Finger and gap of 0.4 mm:
    common practice for pills of 5 mm and more, no source.
    """
    half, step = diameter_mm / 2, 2 * FINGER_MM
    count = int(diameter_mm // step)
    pads = []
    for index, bar in enumerate(("1", "4")):
        up = 1 if index == 0 else -1
        y = up * round(half + FINGER_MM / 2, 3)
        pads.append(finger(bar, 0.0, y, diameter_mm, FINGER_MM))
    for index in range(count):
        x = round((index - (count - 1) / 2) * step, 3)
        number, up = ("1", 1) if index % 2 == 0 else ("4", -1)
        reach = min(half - FINGER_MM, (half**2 - x**2) ** 0.5)
        low, high = sorted((-up * reach, up * (half + FINGER_MM)))
        pads.append(finger(number, x, round((low + high) / 2, 3), FINGER_MM, round(high - low, 3)))
    body = Drawn(
        family="drawn",
        name=f"carbon fingers {diameter_mm}",
        pads=tuple(pads),
        body_mm=(diameter_mm, diameter_mm + 2 * FINGER_MM),
        touched_mm=diameter_mm,
    )
    return Part(
        id=(
            "button-carbon-fingers"
            if diameter_mm == USUAL_PILL
            else f"button-carbon-fingers-{diameter_mm}"
        ),
        kind="button",
        description=(
            f"Bare contact fingers on the board for a carbon pill, {diameter_mm} mm; wants a flat"
            " gold finish"
        ),
        body=body,
        height_mm=0.0,
        price_cents=0.0,
        reference="S",
        evidence="drawing",
        evidence_text=FINGER_TEXT,
        terminals={
            ONE: Terminal(pads=("1",), does="end"),
            OTHER: Terminal(pads=("4",), does="end"),
        },
        values={"contact_ohm": 150, "flat_finish": 1},
        in_use=STAYS,
        with_it=(f"carbon pill {diameter_mm} mm in its rubber dome",),
    )


def finger(number: str, x: float, y: float, w: float, h: float) -> DrawnPad:
    """A bare bar of copper."""
    return DrawnPad(number=number, x_mm=x, y_mm=y, w_mm=w, h_mm=h, paste=False)


def formula_parts() -> Iterator[Part]:
    """Every size of every family that a thing of the brief can ask for."""
    yield from (post_row(ways) for ways in range(2, 43))
    yield from (post_rows(ways) for ways in range(4, 62, 2))
    for pitch in CABLE_PITCHES:
        for many in range(3, 43):
            yield flat_cable(pitch, many, "top")
            yield flat_cable(pitch, many, "bottom")
    yield from (wire_plug(pitch, ways) for pitch in PLUG_PITCHES for ways in range(2, 9))
    yield from (screw_terminals(ways) for ways in range(2, 14))
    yield from (edge_row(ways) for ways in range(3, 43))
    yield from (contact_fingers(diameter) for diameter in (5, 6, 8, 10, 12))
