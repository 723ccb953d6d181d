"""What the brief asks of the chip: one need a signal, with the place it has to reach."""

import re
from collections.abc import Iterable
from functools import lru_cache

from loquet.core.brief import (
    Brief,
    Encoder,
    Key,
    LightChain,
    LightMatrix,
    Potentiometer,
    Screen,
    Sensor,
    Stick,
    TouchPad,
    Trigger,
    keys_of,
)
from loquet.core.brief.keys import role_of
from loquet.core.brief.links import Link
from loquet.core.brief.outputs import Headphones, Speaker
from loquet.core.brief.seats import fixed_seats
from loquet.core.geometry import Seat
from loquet.core.pins.model import Need
from loquet.core.pins.wiring import KeyWiring, wiring_of
from loquet.core.quantities.lengths import nm_from_mm

HEADER_PITCH_MM = 2.54
TWO_WIRE = "two-wire"
FIVE_VOLT = 5.0
SERIAL_SCREEN = ("clock", "data", "reset", "data or command", "select", "backlight")
CONVERTER_CHANNELS = 4
Place = tuple[int, int]


def net_of(signal: str) -> str:
    """`button:all dark` as `BUTTON_ALL_DARK`."""
    return re.sub(r"[^A-Z0-9]+", "_", signal.upper()).strip("_")


def net_of_button(name: str) -> str:
    """The net of a button by its name."""
    return net_of(f"button:{name}")


@lru_cache(maxsize=64)
def needs_of(brief: Brief) -> tuple[Need, ...]:
    """All needs in the order of the brief: keys, other controls, screen, sound, lights, links, sensors, power, clocks, debug port."""
    return needs_with(brief, wiring_of(brief))


def needs_with(brief: Brief, wiring: KeyWiring) -> tuple[Need, ...]:
    """All needs of the brief with its keys wired in a given way."""
    seats = fixed_seats(brief)
    keys = {key.id: key for key in keys_of(brief)}
    found = [*key_needs(brief, wiring, keys), *control_needs(brief, seats)]
    found += two_wire_needs(brief, wiring, seats)
    if brief.screen:
        found += screen_needs(brief.screen, seats["screen"])
    found += sound_needs(brief, seats)
    found += light_needs(brief, seats)
    for link in brief.links:
        found += link_needs(link)
    found += [n for s in brief.sensors for n in sensor_needs(s)]
    found += power_and_clock_needs(brief)
    if brief.role != "host-key-reader":
        found.append(
            Need(
                "debug:data",
                "debug data",
                "DEBUG_DATA",
                "programming data",
                way(seats["port"], 5, 3),
            )
        )
        found.append(
            Need(
                "debug:clock",
                "debug clock",
                "DEBUG_CLOCK",
                "programming clock",
                way(seats["port"], 5, 1),
            )
        )
    return tuple(found)


def key_needs(brief: Brief, wiring: KeyWiring, keys: dict[str, Key]) -> list[Need]:
    """Keys with a pin each, and the lines of the scheme."""
    found = [key_need(keys[key]) for key in wiring.direct]
    match wiring.scheme:
        case "diode matrix" | "bare matrix" | "mixed" if wiring.cells:
            for row in range(wiring.rows):
                found.append(
                    line_need(
                        "row", row, "output", (keys[k] for k, r, _ in wiring.cells if r == row)
                    )
                )
            for column in range(wiring.columns):
                found.append(
                    line_need(
                        "column",
                        column,
                        "input",
                        (keys[k] for k, _, c in wiring.cells if c == column),
                        reads=True,
                    )
                )
        case "charlieplexed":
            for line in range(wiring.rows if wiring.cells else 0):
                found.append(
                    line_need(
                        "line",
                        line,
                        "input",
                        (keys[k] for k, r, c in wiring.cells if line in (r, c)),
                        reads=True,
                    )
                )
        case "shift register" if wiring.listed:
            centre = middle(keys[k] for k in wiring.listed)
            found += [
                Need("keys:clock", "output", "KEYS_CLOCK", "key register clock", centre),
                Need("keys:load", "output", "KEYS_LOAD", "key register load", centre),
                Need("keys:data", "input", "KEYS_DATA", "key register data", centre),
            ]
        case "resistor ladder" if wiring.listed:
            centre = middle(keys[k] for k in wiring.listed)
            found += [
                Need(
                    f"keys:ladder {i + 1}",
                    "analogue",
                    f"KEYS_LADDER_{i + 1}",
                    f"key ladder {i + 1}",
                    centre,
                )
                for i in range(ladders_for(len(wiring.listed)))
            ]
        case "expander 8" | "expander 16" if wiring.listed:
            found.append(
                Need(
                    "keys:changed",
                    "interrupt",
                    "KEYS_CHANGED",
                    "key expander interrupt",
                    middle(keys[k] for k in wiring.listed),
                )
            )
    return found


def ladders_for(count: int) -> int:
    """How many ladders so many keys need; a ladder of 1 % resistors tells eight keys apart with room (see `schemes.ladder`)."""
    return -(-count // 8)


def key_need(key: Key) -> Need:
    """A key with a pin of its own; a power button must be able to wake the chip."""
    kind = "wake-up" if key.duty == "power" else "input"
    return Need(key.id, kind, net_of(key.id), key.title, (key.x, key.y), reads=kind == "input")  # type: ignore[arg-type]


def line_need(name: str, index: int, kind: str, keys: Iterable[Key], reads: bool = False) -> Need:
    """A line of a matrix; it goes to the middle of its keys."""
    signal = f"{name} {index + 1}"
    return Need(signal, kind, net_of(signal), signal, middle(keys), reads=reads)  # type: ignore[arg-type]


def middle(keys: Iterable[Key]) -> Place | None:
    """The middle of some keys."""
    places = [(key.x, key.y) for key in keys]
    if not places:
        return None
    return sum(x for x, _ in places) // len(places), sum(y for _, y in places) // len(places)


def axes_of(brief: Brief) -> int:
    """How many analogue axes the controls have, whoever reads them."""
    return sum(
        n.kind == "analogue"
        for n in control_needs(brief.model_copy(update={"analogue_by": "chip"}), {})
    )


def control_needs(brief: Brief, seats: dict[str, Seat]) -> list[Need]:
    """Analogue axes, encoder turns, touch electrodes. With a converter or multiplexer the axes leave the chip."""
    found: list[Need] = []
    axes: list[Need] = []
    for control in brief.controls:
        role = role_of(control)
        place = (seats[role].x, seats[role].y) if role in seats else None
        match control:
            case Stick():
                level = FIVE_VOLT if control.supply == "5 V" else None
                axes += [
                    Need(
                        f"{role}:{a}",
                        "analogue",
                        net_of(f"{role}:{a}"),
                        f"{control.name} {a}",
                        place,
                        level_v=level,
                    )
                    for a in ("x", "y")
                ]
            case Trigger():
                level = FIVE_VOLT if control.supply == "5 V" else None
                axes.append(
                    Need(
                        f"{role}:pull",
                        "analogue",
                        net_of(f"{role}:pull"),
                        f"{control.name} pull",
                        place,
                        level_v=level,
                    )
                )
            case Potentiometer():
                axes.append(
                    Need(
                        f"{role}:level",
                        "analogue",
                        net_of(f"{role}:level"),
                        f"{control.name} level",
                        place,
                    )
                )
            case Encoder():
                found += [
                    Need(
                        f"{role}:{s}",
                        "input",
                        net_of(f"{role}:{s}"),
                        f"{control.name} {s}",
                        place,
                        reads=True,
                    )
                    for s in ("a", "b")
                ]
            case TouchPad():
                found.append(Need(role, "touch", net_of(role), f"touch {control.name}", place))
            case _:
                pass
    if brief.analogue_by == "multiplexer" and len(axes) > 1:
        lines = max(1, (len(axes) - 1).bit_length())
        found.append(Need("axes:common", "analogue", "AXES_COMMON", "multiplexed axes"))
        found += [
            Need(f"axes:select {i + 1}", "output", f"AXES_SELECT_{i + 1}", f"axis select {i + 1}")
            for i in range(lines)
        ]
        return found
    return found if brief.analogue_by == "converter" else found + axes


def on_two_wire(brief: Brief, wiring: KeyWiring) -> bool:
    """Whether anything hangs on the two-wire bus."""
    return (
        (brief.screen is not None and brief.screen.bus == "two-wire")
        or any(s.reading == "two-wire" for s in brief.sensors)
        or any(link.kind == "spare-port" for link in brief.links)
        or brief.analogue_by == "converter"
        or (wiring.scheme in ("expander 8", "expander 16") and bool(wiring.listed))
    )


def two_wire_needs(brief: Brief, wiring: KeyWiring, seats: dict[str, Seat]) -> list[Need]:
    """One bus for everything on two wires, named after the screen where that is on it."""
    if not on_two_wire(brief, wiring):
        return []
    if brief.screen and brief.screen.bus == "two-wire":
        clock, data = way(seats["screen"], 4, 2), way(seats["screen"], 4, 3)
        return [
            Need("screen:clock", "two-wire clock", "SCREEN_CLOCK", "screen clock", clock, TWO_WIRE),
            Need("screen:data", "two-wire data", "SCREEN_DATA", "screen data", data, TWO_WIRE),
        ]
    return [
        Need("bus:clock", "two-wire clock", "BUS_CLOCK", "bus clock", bus=TWO_WIRE),
        Need("bus:data", "two-wire data", "BUS_DATA", "bus data", bus=TWO_WIRE),
    ]


def screen_needs(screen: Screen, seat: Seat) -> list[Need]:
    """Lines of a screen beyond the two-wire bus."""
    match screen.bus:
        case "two-wire":
            return []
        case "one-way serial":
            rows = (
                ("clock", "serial clock"),
                ("data", "serial out"),
                ("reset", "output"),
                ("data or command", "output"),
                ("select", "output"),
            )
            found = [
                Need(
                    f"screen:{n}",
                    k,
                    net_of(f"screen:{n}"),
                    f"screen {n}",
                    way(seat, 8, 2 + i),
                    "screen" if k.startswith("serial") else "",
                )  # type: ignore[arg-type]
                for i, (n, k) in enumerate(rows)
            ]
            return [
                *found,
                Need(
                    "screen:backlight",
                    "timer",
                    "SCREEN_BACKLIGHT",
                    "screen backlight",
                    way(seat, 8, 7),
                    rate="dimming",
                    extra=True,
                ),
            ]
        case "parallel colour":
            lines = [f"colour {i + 1}" for i in range(screen.colour_bits)] + [
                "pixel clock",
                "line sync",
                "frame sync",
                "enable",
            ]
            ways = len(lines) + 3
            found = [
                Need(
                    f"screen:{n}",
                    "output",
                    net_of(f"screen:{n}"),
                    f"screen {n}",
                    way(seat, ways, i + 2),
                )
                for i, n in enumerate(lines)
            ]
            return [
                *found,
                Need(
                    "screen:backlight",
                    "timer",
                    "SCREEN_BACKLIGHT",
                    "screen backlight",
                    way(seat, ways, ways - 1),
                    rate="dimming",
                    extra=True,
                ),
            ]


def sound_needs(brief: Brief, seats: dict[str, Seat]) -> list[Need]:
    """Buzzer, amplifier, headphone detection."""
    found = []
    if brief.buzzer:
        seat = seats.get("buzzer")
        found.append(
            Need(
                "buzzer",
                "timer",
                "BUZZER_DRIVE",
                "buzzer",
                (seat.x, seat.y) if seat else None,
                rate="tone",
                extra=True,
            )
        )
    if brief.speaker:
        found += speaker_needs(brief.speaker)
    if brief.headphones:
        found += headphone_needs(brief.headphones)
    return found


def speaker_needs(speaker: Speaker) -> list[Need]:
    """The feed of the amplifier, its mute line and a volume control."""
    match speaker.feed:
        case "converter":
            found = [Need("speaker:feed", "converter output", "SPEAKER_FEED", "speaker feed")]
        case "timer":
            found = [Need("speaker:feed", "timer", "SPEAKER_FEED", "speaker feed", rate="sound")]
        case "sound bus":
            rows = (("clock", "sound clock"), ("word", "sound word"), ("data", "sound data"))
            found = [
                Need(f"speaker:{n}", k, net_of(f"speaker:{n}"), f"sound {n}", bus="sound")
                for n, k in rows
            ]  # type: ignore[arg-type]
    if speaker.mute_line:
        found.append(Need("speaker:mute", "output", "SPEAKER_MUTE", "speaker mute", extra=True))
    if speaker.volume:
        found.append(Need("speaker:volume", "analogue", "SPEAKER_VOLUME", "volume"))
    return found


def headphone_needs(headphones: Headphones) -> list[Need]:
    """Detection of the plug."""
    return (
        [Need("headphones:detect", "input", "HEADPHONES_DETECT", "headphone detection", extra=True)]
        if headphones.detection
        else []
    )


def light_needs(brief: Brief, seats: dict[str, Seat]) -> list[Need]:
    """Indicator, chain, matrix."""
    found = []
    if brief.light:
        found.append(
            Need(
                "light",
                "output",
                "LIGHT_DRIVE",
                "indicator light",
                (seats["light"].x, seats["light"].y),
                extra=True,
            )
        )
    if isinstance(brief.light_chain, LightChain):
        found.append(
            Need("lights:chain", "timer", "LIGHTS_CHAIN", "light chain", rate="light chain")
        )
    if isinstance(brief.light_matrix, LightMatrix):
        found += [
            Need(f"lights:row {i + 1}", "high drive", f"LIGHTS_ROW_{i + 1}", f"light row {i + 1}")
            for i in range(brief.light_matrix.rows)
        ]
        found += [
            Need(
                f"lights:column {i + 1}",
                "output",
                f"LIGHTS_COLUMN_{i + 1}",
                f"light column {i + 1}",
            )
            for i in range(brief.light_matrix.columns)
        ]
    return found


def link_needs(link: Link) -> list[Need]:
    """Lines of a port, card or connector."""
    role, name = f"link:{link.name}", link.name
    match link.kind:
        case "usb-device":
            return [
                Need(f"{role}:minus", "usb minus", "USB_MINUS", f"{name} minus", bus="usb"),
                Need(f"{role}:plus", "usb plus", "USB_PLUS", f"{name} plus", bus="usb"),
            ]
        case "serial-port" | "board-link":
            return [
                Need(
                    f"{role}:transmit",
                    "port transmit",
                    net_of(f"{role}:transmit"),
                    f"{name} transmit",
                    bus=role,
                    extra=link.kind == "serial-port",
                ),
                Need(
                    f"{role}:receive",
                    "port receive",
                    net_of(f"{role}:receive"),
                    f"{name} receive",
                    bus=role,
                    extra=link.kind == "serial-port",
                ),
            ]
        case "memory-card":
            rows = (
                ("clock", "serial clock"),
                ("to card", "serial out"),
                ("from card", "serial in"),
            )
            found = [
                Need(f"{role}:{n}", k, net_of(f"{role}:{n}"), f"{name} {n}", bus=role)
                for n, k in rows
            ]  # type: ignore[arg-type]
            found.append(
                Need(f"{role}:select", "output", net_of(f"{role}:select"), f"{name} select")
            )
            return (
                [
                    *found,
                    Need(
                        f"{role}:detect",
                        "input",
                        net_of(f"{role}:detect"),
                        f"{name} detect",
                        extra=True,
                    ),
                ]
                if link.detect
                else found
            )
        case "expansion":
            return [
                Need(f"{role}:{i + 1}", "input", net_of(f"{role}:{i + 1}"), f"{name} line {i + 1}")
                for i in range(link.lines)
            ]
        case "spare-port":
            return []


def sensor_needs(sensor: Sensor) -> list[Need]:
    """A voltage, or an interrupt line beside the two-wire bus."""
    role = f"sensor:{sensor.name}"
    if sensor.reading == "voltage":
        return [Need(role, "analogue", net_of(role), sensor.name)]
    return (
        [
            Need(
                f"{role}:interrupt",
                "interrupt",
                net_of(f"{role}:interrupt"),
                f"{sensor.name} interrupt",
                extra=True,
            )
        ]
        if sensor.interrupt
        else []
    )


def power_and_clock_needs(brief: Brief) -> list[Need]:
    """Measuring the cell, and crystals."""
    found = []
    if brief.power.kind == "lithium-cell" and brief.power.sense:
        found.append(Need("cell:sense", "analogue", "CELL_SENSE", "cell voltage"))
    if brief.crystal:
        found += [
            Need("crystal:in", "crystal in", "CRYSTAL_IN", "crystal in"),
            Need("crystal:out", "crystal out", "CRYSTAL_OUT", "crystal out"),
        ]
    if brief.clock_crystal:
        found.append(
            Need("clock crystal:in", "slow crystal in", "CLOCK_CRYSTAL_IN", "clock crystal in")
        )
        found.append(
            Need("clock crystal:out", "slow crystal out", "CLOCK_CRYSTAL_OUT", "clock crystal out")
        )
    return found


def way(seat: Seat, ways: int, index: int) -> Place:
    """The place of one post of a header, counted from 0."""
    return seat.point(round((index - (ways - 1) / 2) * nm_from_mm(HEADER_PITCH_MM)), 0)
