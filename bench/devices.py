"""Generated devices of five sets with fixed seeds: pocket, handset, large, dense and odd (L-shaped
or notched).
"""

import random
from typing import Any

from loquet.core.brief import Brief, brief_from_plain

Plain = dict[str, Any]
SETS = ("pocket", "handset", "large", "dense", "odd")
SMALL_CHIP, CHIP = "stm32l433cct6", "stm32l433rct6"


def thing(
    kind: str, name: str, x: float | None = None, y: float | None = None, **more: Any
) -> Plain:
    """A thing as plain values; without coordinates it is left to the placer."""
    if x is None or y is None:
        return {"kind": kind, "name": name, **more}
    turn, far = more.pop("turn_deg", 0), more.pop("far", False)
    place = {"x_mm": round(x, 1), "y_mm": round(y, 1), "turn_deg": turn, "far": far}
    return {"kind": kind, "name": name, "place": place, **more}


def keys(
    rng: random.Random,
    columns: int,
    rows: int,
    left: float,
    bottom: float,
    pitch: tuple[float, float],
) -> list[Plain]:
    """A field of keys, each up to 0.3 mm off its place."""
    return [
        thing(
            "button",
            f"key {row + 1}-{column + 1}",
            left + column * pitch[0] + rng.uniform(-0.3, 0.3),
            bottom + row * pitch[1] + rng.uniform(-0.3, 0.3),
        )
        for row in range(rows)
        for column in range(columns)
    ]


def corners(width: float, height: float) -> list[Plain]:
    """Four screws."""
    spots = ((4.0, 4.0), (width - 4, 4.0), (4.0, height - 4), (width - 4, height - 4))
    return [thing("hole", f"post {i + 1}", x, y, screw="M2.5") for i, (x, y) in enumerate(spots)]


def rectangle(width: float, height: float) -> Plain:
    """A board with round corners."""
    return {"kind": "rounded-rectangle", "width_mm": width, "height_mm": height, "corner_mm": 3.0}


def brief_of(name: str, outline: Plain, things: list[Plain], **wishes: Any) -> Brief:
    """A brief of one board."""
    plain = {
        "format": "loquet-brief-2",
        "name": name,
        "boards": [{"name": "main", "outline": outline}],
        "things": things,
        "quantity": 5,
        "wanted_by": "2027-06-01",
        **wishes,
    }
    return brief_from_plain(plain)


def pocket(rng: random.Random) -> Brief:
    """A few keys on a small board, about 25 parts."""
    width, height = rng.choice((66.0, 72.0, 78.0)), rng.choice((44.0, 48.0))
    columns = rng.choice((3, 4))
    left = width / 2 - (columns - 1) * 7
    things = [
        thing("chip", "chip", part=SMALL_CHIP),
        *keys(rng, columns, 2, left, 10.0, (14.0, 10.0)),
        thing("coin-cell", "cell", width / 2, height - 12, far=True),
        thing("power-switch", "switch", width - 12.0, height - 5.0),
        thing("light", "light"),
        thing("programming", "port"),
        *corners(width, height),
    ]
    return brief_of("Pocket", rectangle(width, height), things)


def handset(rng: random.Random) -> Brief:
    """Sticks, a screen, keys in a matrix, a lithium cell and lights, about 100 parts."""
    width, height = rng.choice((158.0, 164.0, 170.0)), rng.choice((78.0, 84.0))
    middle = width / 2
    things = [
        thing("chip", "chip", part=CHIP),
        *keys(rng, 4, 4, 16.0, 34.0, (13.0, 10.0)),
        *keys(rng, 4, 4, width - 55.0, 34.0, (13.0, 10.0))[: rng.choice((12, 14))],
        thing("stick", "left stick", 34.0, 15.0),
        thing("stick", "right stick", width - 34.0, 15.0),
        thing(
            "screen",
            "screen",
            middle,
            height - 10,
            part="screen-128x64-serial",
            bus="one-way serial",
        ),
        thing("lithium-cell", "cell", middle, 30.0, far=True, charge_light=True),
        thing("usb-device", "usb", middle + 22, height - 3.65, turn_deg=180),
        thing("power-switch", "switch", middle - 22, height - 5.0),
        thing("light-chain", "lights", count=rng.choice((4, 6))),
        thing("buzzer", "buzzer"),
        thing("programming", "port", middle, 6.0),
        thing("motion", "motion"),
        *corners(width, height),
    ]
    for row in things:
        if str(row["name"]).startswith("key") and row["place"]["x_mm"] > middle:
            row["name"] = f"right {row['name']}"
    return brief_of(
        "Handset", rectangle(width, height), things, key_scheme={"name": "diode matrix"}
    )


def large(rng: random.Random) -> Brief:
    """A desk of keys with lights and ports, about 240 parts."""
    columns, rows = rng.choice((12, 13)), 7
    width, height = 40.0 + columns * 14.0, 60.0 + rows * 13.0
    things = [
        thing("chip", "chip", part=CHIP),
        *keys(rng, columns, rows, 27.0, 14.0, (14.0, 13.0)),
        thing("usb-device", "usb", width / 2, height - 3.65, turn_deg=180, feeds=True),
        thing("light-chain", "lights", count=4),
        thing("encoder", "dial", 18.0, height - 24.0),
        thing("encoder", "second dial", 34.0, height - 24.0),
        thing(
            "screen",
            "screen",
            width / 2 - 40,
            height - 18,
            part="screen-128x64-serial",
            bus="one-way serial",
        ),
        thing("motion", "motion"),
        thing("memory-card", "card"),
        thing("buzzer", "buzzer"),
        thing("programming", "port"),
        thing("serial", "serial"),
        thing("expansion", "outside", lines=6),
        thing("usb-charge", "plug"),
        *corners(width, height),
    ]
    return brief_of(
        "Desk",
        rectangle(width, height),
        things,
        key_scheme={"name": "diode matrix"},
        role="usb-keyboard",
    )


def dense(rng: random.Random) -> Brief:
    """About 50 parts, with 60 of 100 of the board under their courtyards."""
    columns = rng.choice((5, 6))
    width, height = columns * 11.9 + 2.5, rng.choice((43.0, 45.0))
    things = [
        thing("chip", "chip", part=CHIP),
        *keys(rng, columns, 3, 7.1, 6.0, (11.9, 7.1)),
        thing("usb-device", "usb", width - 16.0, height - 3.65, turn_deg=180, feeds=True),
        thing("light-chain", "lights", count=3),
        thing("motion", "motion"),
        thing("light", "light"),
        thing("programming", "port"),
    ]
    return brief_of("Dense", rectangle(width, height), things, key_scheme={"name": "diode matrix"})


def odd(rng: random.Random) -> Brief:
    """About 40 parts on a board like an L, or with a notch."""
    width, height = rng.choice((96.0, 104.0)), rng.choice((76.0, 82.0))
    cut_x, cut_y = rng.choice((34.0, 40.0)), rng.choice((30.0, 34.0))
    if rng.random() < 0.5:
        points = [(0, 0), (width, 0), (width, height - cut_y), (width - cut_x, height - cut_y)]
        points += [(width - cut_x, height), (0, height)]
    else:
        a, b = width / 2 - cut_x / 2, width / 2 + cut_x / 2
        points = [(0, 0), (width, 0), (width, height), (b, height), (b, height - cut_y / 2)]
        points += [(a, height - cut_y / 2), (a, height), (0, height)]
    things = [
        thing("chip", "chip", part=CHIP),
        *keys(rng, 6, 2, 14.0, 10.0, (14.0, 11.0)),
        thing("stick", "stick", 16.0, height - 16.0),
        thing("usb-device", "usb", 3.65, height / 2, turn_deg=270, feeds=True),
        thing("light-chain", "lights", count=3),
        thing("encoder", "dial", width - 14.0, 33.0),
        thing("buzzer", "buzzer"),
        thing("programming", "port"),
    ]
    outline = {"kind": "polygon", "points_mm": [[x, y] for x, y in points]}
    return brief_of("Odd", outline, things)


MAKERS = {"pocket": pocket, "handset": handset, "large": large, "dense": dense, "odd": odd}


def generated(name: str, seed: int) -> Brief:
    """The device of a set with that seed; always the same."""
    return MAKERS[name](random.Random(f"{name} {seed}"))


def grown(rows: int) -> Brief:
    """A desk with that many rows of twelve keys."""
    rng = random.Random(f"grown {rows}")
    width, height = 40.0 + 12 * 14.0, 50.0 + rows * 13.0
    things = [
        thing("chip", "chip", part=CHIP),
        *keys(rng, 12, rows, 27.0, 14.0, (14.0, 13.0)),
        thing("usb-device", "usb", width / 2, height - 3.65, turn_deg=180, feeds=True),
        thing("programming", "port"),
        *corners(width, height),
    ]
    return brief_of("Desk", rectangle(width, height), things, key_scheme={"name": "diode matrix"})
