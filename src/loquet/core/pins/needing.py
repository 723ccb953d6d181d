"""What the brief asks of a brain: one need a signal, with the place it has to reach."""

from collections.abc import Iterable
from dataclasses import replace
from functools import lru_cache

from loquet.core.brief import Brief, Key, Thing, keys_of
from loquet.core.brief.linked import aim
from loquet.core.brief.shares import mark_of, marked, net_mark, readers_of, share_of
from loquet.core.pins.asking import Asking, Place, net_of
from loquet.core.pins.model import Need
from loquet.core.pins.needs import asker
from loquet.core.pins.wiring import KeyWiring, wiring_of

TWO_WIRE = "two-wire"
CONVERTER_CHANNELS = 4
EXPANDERS = ("expander 8", "expander 16")


@lru_cache(maxsize=64)
def needs_of(brief: Brief, brain: str = "") -> tuple[Need, ...]:
    """Needs of one brain, or of all: keys, other controls, the bus, then everything else in the
    order of the brief.
    """
    if len(brief.brains) < 2:
        return needs_with(brief, wiring_of(brief))
    names = (brain,) if brain else tuple(thing.name for thing in brief.brains)
    return tuple(need for name in names for need in own_needs(brief, name))


def own_needs(brief: Brief, brain: str) -> tuple[Need, ...]:
    """Needs of one of several brains; lines that belong to no thing carry the name of any brain but
    the first.
    """
    share = share_of(brief, brain)
    found = needs_with(share, wiring_of(share))
    mark = mark_of(brief, brain)
    return tuple(need if need.thing or not mark else apart(need, mark) for need in found)


def apart(need: Need, mark: str) -> Need:
    """A line that every brain may have, told apart by the brain's name."""
    return need.but(
        signal=marked(mark, need.signal),
        net=f"{net_mark(mark)}{need.net}",
        title=f"{mark} {need.title}",
    )


def needs_with(brief: Brief, wiring: KeyWiring) -> tuple[Need, ...]:
    """All needs of the brief with its keys wired in a given way."""
    keys = keys_seen(brief)
    found = [*key_needs(brief, wiring, keys), *control_needs(brief)]
    found += two_wire_needs(brief, wiring)
    for thing in brief.things:
        if thing.GROUP != "controls" and is_read(brief, thing):
            found += [*asked_by(brief, thing), *axis_needs(brief, thing)]
    return tuple(found)


def is_read(brief: Brief, thing: Thing) -> bool:
    """Whether the brain of a share reads a thing; a source may be there for its rail alone."""
    return not brief.brain or brief.brain.name in readers_of(brief, thing)


def asked_by(brief: Brief, thing: Thing) -> list[Need]:
    """What the kind of a thing asks, beside its keys and axes."""
    function = asker(thing)
    return function(thing, Asking(brief, thing)) if function else []


def axis_needs(brief: Brief, thing: Thing) -> list[Need]:
    """A channel for each voltage that a thing gives."""
    ask = Asking(brief, thing)
    return [
        ask.need(axis.piece, "analogue", axis.words, level_v=axis.supply_v or None)
        for axis in thing.axes()
    ]


def control_needs(brief: Brief) -> list[Need]:
    """Analogue axes, encoder turns, touch electrodes.

    With a converter or multiplexer the axes leave the chip.
    """
    controls = brief.group("controls")
    found = [need for thing in controls for need in asked_by(brief, thing)]
    axes = [need for thing in controls for need in axis_needs(brief, thing)]
    if brief.analogue_by == "multiplexer" and len(axes) > 1:
        lines = max(1, (len(axes) - 1).bit_length())
        found.append(Need("axes:common", "analogue", "AXES_COMMON", "multiplexed axes"))
        return found + [
            Need(f"axes:select {i + 1}", "output", f"AXES_SELECT_{i + 1}", f"axis select {i + 1}")
            for i in range(lines)
        ]
    return found if brief.analogue_by == "converter" else found + axes


def axes_of(brief: Brief) -> int:
    """How many analogue axes the controls have, whoever reads them."""
    return sum(len(thing.axes()) for thing in brief.group("controls"))


def keys_seen(brief: Brief) -> dict[str, Key]:
    """Keys by id, each where the brain's board sees it: those of another board at the end of the
    link that leads there.
    """
    brain = brief.brain
    keys = {key.id: key for key in keys_of(brief)}
    if brain is None or len(brief.boards) < 2:
        return keys
    for name, key in keys.items():
        at = aim(brief, brain.board, brief.thing(key.thing), (key.x, key.y))
        if at is not None:
            keys[name] = replace(key, x=at[0], y=at[1])
    return keys


def key_needs(brief: Brief, wiring: KeyWiring, keys: dict[str, Key]) -> list[Need]:
    """Keys with a pin each, and the lines of the scheme."""
    found = [key_need(keys[key]) for key in wiring.direct]
    match wiring.scheme:
        case "diode matrix" | "bare matrix" | "mixed" if wiring.cells:
            return found + matrix_lines(wiring, keys)
        case "charlieplexed" if wiring.cells:
            for line in range(wiring.rows):
                members = (keys[k] for k, r, c in wiring.cells if line in (r, c))
                found.append(line_need("line", line, members).but(reads=True))
        case "shift register" if wiring.listed:
            centre = middle(keys[k] for k in wiring.listed)
            found += [
                Need("keys:clock", "output", "KEYS_CLOCK", "key register clock", centre),
                Need("keys:load", "output", "KEYS_LOAD", "key register load", centre),
                Need("keys:data", "input", "KEYS_DATA", "key register data", centre),
            ]
        case "resistor ladder" if wiring.listed:
            centre = middle(keys[k] for k in wiring.listed)
            for i in range(ladders_for(len(wiring.listed))):
                signal = f"keys:ladder {i + 1}"
                title = f"key ladder {i + 1}"
                found.append(Need(signal, "analogue", net_of(signal), title, centre))
        case "expander 8" | "expander 16" if wiring.listed:
            centre = middle(keys[k] for k in wiring.listed)
            title = "key expander interrupt"
            found.append(Need("keys:changed", "interrupt", "KEYS_CHANGED", title, centre))
    return found


def matrix_lines(wiring: KeyWiring, keys: dict[str, Key]) -> list[Need]:
    """Rows that are driven and columns that are read."""
    rows = [
        line_need("row", row, (keys[k] for k, r, _ in wiring.cells if r == row)).but(kind="output")
        for row in range(wiring.rows)
    ]
    return rows + [
        line_need("column", column, (keys[k] for k, _, c in wiring.cells if c == column)).but(
            reads=True
        )
        for column in range(wiring.columns)
    ]


def ladders_for(count: int) -> int:
    """How many ladders so many keys need; a ladder of 1 % resistors tells eight keys apart with
    room (see `schemes.ladder`).
    """
    return -(-count // 8)


def key_need(key: Key) -> Need:
    """A key with a pin of its own; a power button must be able to wake the chip."""
    wakes = key.duty == "power"
    return Need(
        signal=key.id,
        kind="wake-up" if wakes else "input",
        net=net_of(key.id),
        title=key.title,
        target=(key.x, key.y),
        reads=not wakes,
        thing=key.thing,
        load="key",
    )


def line_need(name: str, index: int, keys: Iterable[Key]) -> Need:
    """A line of a matrix; it goes to the middle of its keys."""
    signal = f"{name} {index + 1}"
    return Need(signal, "input", net_of(signal), signal, middle(keys), load="key")


def middle(keys: Iterable[Key]) -> Place | None:
    """The middle of some keys."""
    places = [(key.x, key.y) for key in keys]
    if not places:
        return None
    return sum(x for x, _ in places) // len(places), sum(y for _, y in places) // len(places)


def on_two_wire(brief: Brief, wiring: KeyWiring) -> bool:
    """Whether anything hangs on the two-wire bus."""
    return (
        any(thing.on_bus() for thing in brief.things)
        or brief.analogue_by == "converter"
        or (wiring.scheme in EXPANDERS and bool(wiring.listed))
    )


def bus_host(brief: Brief) -> Thing | None:
    """The thing that gives the bus its name and its header: the first that shows something over
    it.
    """
    return next((t for t in brief.things if t.on_bus() and t.display()), None)


def two_wire_needs(brief: Brief, wiring: KeyWiring) -> list[Need]:
    """One bus for everything on two wires, named after the screen where one is on it."""
    if not on_two_wire(brief, wiring):
        return []
    host = bus_host(brief)
    if host is not None:
        ask = Asking(brief, host)
        clock, data = ask.way(4, 2), ask.way(4, 3)
        return [
            ask.need("clock", "two-wire clock", f"{host.name} clock", clock, bus=TWO_WIRE),
            ask.need("data", "two-wire data", f"{host.name} data", data, bus=TWO_WIRE),
        ]
    return [
        Need("bus:clock", "two-wire clock", "BUS_CLOCK", "bus clock", bus=TWO_WIRE),
        Need("bus:data", "two-wire data", "BUS_DATA", "bus data", bus=TWO_WIRE),
    ]


def bus_khz_of(brief: Brief) -> int:
    """The speed of the two-wire bus: that of the slowest thing on it."""
    return min((bus.khz for thing in brief.things if (bus := thing.on_bus())), default=400)
