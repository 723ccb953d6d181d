"""Every key scanned on the finished netlist: contacts, diodes and chip pins alone, without the
recipes that made it.

Contacts and joined legs conduct both ways, a diode from anode to cathode; a chip pin is nothing but
a net. Whatever the circuit was made from, a key that does not read as itself, or reads as another
one, is a fault.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from loquet.core.brief import Brief, Contact, Thing
from loquet.core.brief.shares import mark_of, marked, share_of
from loquet.core.circuit import Component
from loquet.core.circuit.model import GROUND
from loquet.core.parts import Part
from loquet.core.pins import PinPlan
from loquet.core.pins.schemes.ladder import KEYS_A_LADDER
from loquet.core.pins.wiring import KeyWiring, wiring_of
from loquet.core.power import logic_rail_of, rail_of
from loquet.core.proof.helpers import helper_inputs, ladder_keys, named_nets
from loquet.core.quantities.shown import read_si

Netlist = Mapping[tuple[str, str], str]
HELPERS = {
    "expander 8": "key expander",
    "expander 16": "key expander",
    "shift register": "shift register",
}
LADDER = "resistor ladder"


@dataclass(frozen=True)
class Switch:
    """A key on the board: its id and the nets of its two ends."""

    key: str
    ends: tuple[str, str]


@dataclass(frozen=True)
class Fabricated:
    """What lies on the boards: components, their parts, and the net of every pad as the netlist
    files have it.
    """

    components: tuple[Component, ...]
    parts: Mapping[str, Part]
    nets: Netlist

    def part_of(self, role: str) -> tuple[Component, Part] | None:
        """The component of a role, with its part."""
        found = next((c for c in self.components if c.role == role), None)
        return (found, self.parts[found.part]) if found and found.part in self.parts else None

    def always(self) -> list[tuple[str, str]]:
        """What conducts whatever is pressed, as directed pairs of nets: joined legs both ways,
        diodes one way.
        """
        found: list[tuple[str, str]] = []
        for component in self.components:
            part = self.parts.get(component.part)
            if part is None:
                continue
            for legs in part.joined:
                nets = [n for leg in legs if (n := self.nets.get((component.ref, leg)))]
                found += [(a, b) for a in nets for b in nets if a != b]
            named = {name: pad for pad, name in part.pin_names.items()}
            if part.kind == "diode" and {"anode", "cathode"} <= named.keys():
                anode = self.nets.get((component.ref, named["anode"]))
                cathode = self.nets.get((component.ref, named["cathode"]))
                if anode and cathode:
                    found.append((anode, cathode))
        return found

    def helpers(self, kind: str) -> list[dict[str, str]]:
        """The nets of every part of a kind by the names of its pins."""
        return [
            named_nets(component, part, self.nets)
            for component in self.components
            if (part := self.parts.get(component.part)) is not None and part.kind == kind
        ]

    def resistors(self) -> list[tuple[frozenset[str], float]]:
        """Every resistor with the nets of its ends and its ohms."""
        found = []
        for component in self.components:
            part, ohm = self.parts.get(component.part), read_si(component.value, "Ω")
            ends = frozenset(
                n
                for pad in (part.at_pad if part else ())
                if (n := self.nets.get((component.ref, pad)))
            )
            if part is not None and part.kind == "resistor" and ohm is not None and len(ends) == 2:
                found.append((ends, ohm))
        return found


def switches_of(brief: Brief, made: Fabricated) -> tuple[list[Switch], list[str]]:
    """Every key with the nets of its contact; sentences for keys that are on no part or whose ends
    are on no net.
    """
    found, missing = [], []
    for thing in brief.things:
        for contact in thing.contacts():
            key = thing.role(contact.piece)
            switch = switch_of(thing, contact, made)
            if switch is None:
                missing.append(f"The key {key} has an end that is on no net.")
            else:
                found.append(switch)
    return found, missing


def switch_of(thing: Thing, contact: Contact, made: Fabricated) -> Switch | None:
    """One key on its part; a terminal may have several pads, all of which are joined."""
    held = made.part_of(thing.role(contact.body))
    if held is None:
        return None
    component, part = held
    ends = []
    for end in contact.ends:
        nets = [n for pad in part.terminals[end].pads if (n := made.nets.get((component.ref, pad)))]
        if not nets:
            return None
        ends.append(nets[-1])
    return Switch(thing.role(contact.piece), (ends[0], ends[1]))


def reach(start: str, wires: Iterable[tuple[str, str]]) -> set[str]:
    """Nets that current can reach from a net."""
    onward: dict[str, list[str]] = {}
    for a, b in wires:
        onward.setdefault(a, []).append(b)
    seen, waiting = {start}, [start]
    while waiting:
        for net in onward.get(waiting.pop(), ()):
            if net not in seen:
                seen.add(net)
                waiting.append(net)
    return seen


@dataclass(frozen=True)
class Scanner:
    """How one brain reads its keys: the net of each key's pin, and of every signal of the brain;
    `mark` tells its lines apart.
    """

    wiring: KeyWiring
    pins: Mapping[str, str]
    on: Mapping[str, str]
    mark: str
    low: str
    pulls_up: bool
    rail: str = ""
    resistors: tuple[tuple[frozenset[str], float], ...] = ()

    def read(self, wires: list[tuple[str, str]]) -> set[str]:
        """The keys that read as pressed while these nets conduct."""
        found = set()
        for key, net in self.pins.items():
            seen = reach(net, wires) if self.pulls_up else reach(self.low, wires)
            if (self.low if self.pulls_up else net) in seen:
                found.add(key)
        if self.wiring.scheme == LADDER:
            ladders = range(1, -(-len(self.wiring.listed) // KEYS_A_LADDER) + 1)
            lines = [self.on.get(marked(self.mark, f"keys:ladder {i}"), "") for i in ladders]
            found |= ladder_keys(self.wiring, list(self.resistors), lines, self.rail, wires, reach)
        names = ("line", "line") if self.wiring.scheme == "charlieplexed" else ("row", "column")
        for key, row, column in self.wiring.cells:
            driven = self.on.get(marked(self.mark, f"{names[0]} {row + 1}"))
            sensed = self.on.get(marked(self.mark, f"{names[1]} {column + 1}"))
            if driven and sensed and {driven, GROUND} & (reach(sensed, wires) - {sensed}):
                found.add(key)
        return found


def scanner_of(share: Brief, plan: PinPlan, chip: str, mark: str, made: Fabricated) -> Scanner:
    """A brain's way to read, from its plan and the nets of its pins; `mark` tells apart the lines
    that every brain has.
    """
    wiring = wiring_of(share)
    on = {row.signal: made.nets.get((chip, row.pin), "") for row in plan.assignments}
    down = share.button_reading == "pull-down-resistors"
    power = {t.role(c.piece) for t in share.things for c in t.contacts() if c.duty == "power"}
    direct = [k for k in wiring.direct if not (down and k in power)]
    pins = {key: on[key] for key in direct if on.get(key)}
    if wiring.scheme in HELPERS:
        pins |= helper_inputs(wiring, made.helpers(HELPERS[wiring.scheme]), on, mark)
    return Scanner(
        wiring=wiring,
        pins=pins,
        on=on,
        mark=mark,
        low=rail_of(share).net if down else GROUND,
        pulls_up=not down,
        rail=(logic_rail_of(share, share.brain) or rail_of(share)).net,
        resistors=tuple(made.resistors()),
    )


def scan(
    brief: Brief, plans: Mapping[str, PinPlan], made: Fabricated
) -> tuple[int, tuple[str, ...]]:
    """How many keys were scanned, and a sentence for each that does not read as itself alone."""
    faults: list[str] = []
    scanned = 0
    always = made.always()
    for brain in brief.brains:
        share = share_of(brief, brain.name)
        chip = next((c.ref for c in made.components if c.role == brain.role()), "")
        mark = mark_of(brief, brain.name)
        scanner = scanner_of(share, plans[brain.name], chip, mark, made)
        switches, missing = switches_of(share, made)
        faults += missing
        for held in chords(share, switches):
            wires = always + [w for s in held for w in (s.ends, s.ends[::-1])]
            wanted = {s.key for s in held} & known(scanner)
            read = scanner.read(wires)
            if read != wanted:
                faults.append(sentence(held, wanted, read))
        scanned += len(switches)
    return scanned, tuple(faults)


def known(scanner: Scanner) -> set[str]:
    """The keys that a scanner has to read: a listed key whose helper cannot be found is not
    excused.
    """
    wiring = scanner.wiring
    return set(scanner.pins) | {key for key, _, _ in wiring.cells} | set(wiring.listed)


def chords(share: Brief, switches: list[Switch]) -> list[tuple[Switch, ...]]:
    """What is held in turn: nothing, each key alone, and every chord that the brief lists."""
    by_key = {switch.key: switch for switch in switches}
    groups = [tuple(by_key[key] for key in group if key in by_key) for group in share.chords.groups]
    return [(), *((switch,) for switch in switches), *(g for g in groups if len(g) > 1)]


def sentence(held: tuple[Switch, ...], wanted: set[str], read: set[str]) -> str:
    """What is wrong, in words."""
    pressed = " and ".join(switch.key for switch in held) or "nothing"
    lost, more = sorted(wanted - read), sorted(read - wanted)
    parts = [f"{', '.join(lost)} is not read"] if lost else []
    parts += [f"{', '.join(more)} reads as pressed"] if more else []
    return f"While {pressed} is held, {' and '.join(parts)}."
