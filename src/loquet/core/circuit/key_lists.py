"""Keys that follow one another on expanders, shift registers or resistor ladders: the helpers of
one brain.
"""

from loquet.core.brief import Thing, plain_name
from loquet.core.circuit.bench import Bench, Desk
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.circuit.two_wire import bus_net
from loquet.core.parts.choosing import Wanted, pick
from loquet.core.pins.schemes.ladder import KEYS_A_LADDER, PULL_UP_OHM, ladder_windows
from loquet.core.quantities.shown import show_si

BLOCK = "buttons"
HOLD = "10 kΩ"
EXPANDER_ADDRESSES = 8


def key_lists(brain: Thing, bench: Bench) -> Fragment:
    """What reads the listed keys of a brain; raises RecipeNotPossible where a scheme cannot be
    built as asked.
    """
    desk = bench.desk(brain)
    wiring = desk.wiring
    if not wiring.listed:
        return Fragment(())
    drawer = Drawer(BLOCK, bench.parts, brain.board)
    rail = bench.logic_rail(brain).net
    down = bench.brief.button_reading == "pull-down-resistors"
    if wiring.scheme == "shift register":
        return Fragment(tuple(registers(desk, drawer, rail, down)))
    if down:
        raise RecipeNotPossible(
            "keys",
            f"keys by {wiring.scheme} close to ground, and the brief asks for pull-down resistors",
            "Let the keys pull down to ground, or take one pin each.",
        )
    if wiring.scheme == "resistor ladder":
        return Fragment(tuple(ladders(desk, drawer, rail)))
    return Fragment(tuple(expanders(desk, drawer, rail)))


def split(keys: tuple[str, ...], size: int) -> list[tuple[str, ...]]:
    """Keys in groups of a helper's lines."""
    return [keys[i : i + size] for i in range(0, len(keys), size)]


def expanders(desk: Desk, drawer: Drawer, rail: str) -> list[Component]:
    """Expanders on the two-wire bus, at addresses that follow one another; their lines have
    pull-ups inside. Their interrupt outputs pull one line.
    """
    wide = int(desk.wiring.scheme.rpartition(" ")[2])
    lines = {"lines": wide}
    part = pick(drawer.parts, Wanted("key expander", least=lines, most=lines)).id
    groups = split(desk.wiring.listed, wide)
    if len(groups) > EXPANDER_ADDRESSES:
        limit = f"{len(groups)} expanders, and one bus has addresses for {EXPANDER_ADDRESSES}"
        raise RecipeNotPossible("keys", limit, "Take expanders of 16 lines, or a matrix.")
    found: list[Component] = []
    changed = desk.net("KEYS_CHANGED")
    for index, keys in enumerate(groups):
        role = desk.role(f"key expander {index + 1}")
        nets = {f"line {i}": plain_name(key) for i, key in enumerate(keys)}
        nets |= {f"address {bit}": rail if index >> bit & 1 else GROUND for bit in range(3)}
        nets |= {"supply": rail, "ground": GROUND, "changed": changed}
        nets |= {line: bus_net(desk, line) for line in ("clock", "data")}
        words = (
            f"address 0x{int(drawer.parts[part].values['first_address']) + index:02x}",
            "Reads keys over two wires",
        )
        found += [drawer.named(role, part, words, nets), drawer.quiet(role, part, rail)]
    first = desk.role("key expander 1")
    near = Near(first, "changed")
    why = "Holds the interrupt line of the expanders high"
    found.append(drawer.resistor(f"{first} hold", HOLD, why, (rail, changed), near))
    return found


def registers(desk: Desk, drawer: Drawer, rail: str, down: bool) -> list[Component]:
    """Registers in a chain, the first one nearest to the brain; line 0 of the first comes out
    first. Lines without a key lie at ground.
    """
    part = pick(drawer.parts, Wanted("shift register", least={"lines": 8}, most={"lines": 8})).id
    groups = split(desk.wiring.listed, 8)
    found: list[Component] = []
    for index, keys in enumerate(groups):
        role = desk.role(f"key register {index + 1}")
        nets = {f"line {i}": GROUND for i in range(8)}
        nets |= {f"line {i}": plain_name(key) for i, key in enumerate(keys)}
        last = index == len(groups) - 1
        out = desk.net("KEYS_DATA") if index == 0 else desk.net(f"KEYS_CHAIN_{index}")
        nets |= {"out": out, "in": GROUND if last else desk.net(f"KEYS_CHAIN_{index + 1}")}
        nets |= {"clock": desk.net("KEYS_CLOCK"), "load": desk.net("KEYS_LOAD")}
        nets |= {"inhibit": GROUND, "ground": GROUND, "supply": rail}
        words = (drawer.parts[part].short, "Reads keys one after the other")
        found += [drawer.named(role, part, words, nets), drawer.quiet(role, part, rail)]
        if down:
            continue
        for i, key in enumerate(keys):
            near = Near(role, f"line {i}")
            words_up = f"Holds {key} high until pressed"
            ends = (rail, plain_name(key))
            found.append(drawer.resistor(f"pull-up {key}", HOLD, words_up, ends, near))
    return found


def ladders(desk: Desk, drawer: Drawer, rail: str) -> list[Component]:
    """One pull-up a ladder, and a resistor a key from the ladder's line to the key, which closes to
    ground.
    """
    found: list[Component] = []
    for index, keys in enumerate(split(desk.wiring.listed, KEYS_A_LADDER)):
        line = desk.net(f"KEYS_LADDER_{index + 1}")
        top = desk.role(f"key ladder {index + 1}")
        found.append(
            drawer.resistor(
                f"{top} pull-up",
                show_si(PULL_UP_OHM, "Ω"),
                f"Pull-up of ladder {index + 1}",
                (rail, line),
            )
        )
        for window in ladder_windows(keys)[:-1]:
            found.append(
                drawer.resistor(
                    f"ladder {window.key}",
                    show_si(window.resistor_ohm, "Ω"),
                    f"Tells {window.key} apart",
                    (line, plain_name(window.key)),
                )
            )
    return found
