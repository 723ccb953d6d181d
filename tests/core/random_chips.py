"""Small random chips and needs, and a search that tries everything: what the solver is held
against.
"""

import random
from collections.abc import Iterator
from dataclasses import dataclass

from loquet.core.parts import AlternateFunction, Chip, ChipPin
from loquet.core.pins import Need, PinProblem
from loquet.core.pins.options import Option

Score = tuple[int, int, int, int]


def random_chip(chance: random.Random, pins: int) -> Chip:
    """A chip of a few pins over two ports, some with a remapped timer, a boot pin, debug pins and a
    reset.
    """
    found = []
    for index in range(pins):
        port = f"P{chance.choice('AB')}{chance.randrange(4)}"
        functions = (
            [AlternateFunction(peripheral="adc1", signal=f"in{index}", route="fixed")]
            if chance.random() < 0.5
            else []
        )
        for driver, signals in (
            ("i2c", ("scl", "sda")),
            ("spi", ("sck", "mosi")),
            ("i2s", ("ck", "sd")),
            ("usart", ("tx", "rx")),
        ):
            for signal in signals:
                if chance.random() < 0.3:
                    functions.append(
                        AlternateFunction(
                            peripheral=f"{driver}{chance.randrange(1, 3)}",
                            signal=signal,
                            route="AF1",
                        )
                    )
        if chance.random() < 0.6:
            route = chance.choice(["AF2", "remap 0", "remap 1"])
            functions.append(
                AlternateFunction(
                    peripheral=f"tim{chance.randrange(1, 3)}",
                    signal=f"ch{chance.randrange(1, 4)}",
                    route=route,
                )
            )
        boot = chance.random() < 0.1
        found.append(
            ChipPin(
                number=str(index + 1),
                name=port,
                kind="port",
                ports=(port,),
                functions=tuple(functions),
                is_boot=boot,
            )
        )
    found.append(ChipPin(number=str(pins + 1), name="VDD", kind="supply"))
    return Chip(
        name=f"random {chance.random()}",
        family="random",
        package="QFN",
        pins=tuple(found),
        data_source="random",
    )


def random_needs(chance: random.Random) -> tuple[Need, ...]:
    """A few needs; buses come in pairs."""

    def place() -> tuple[int, int] | None:
        return (
            None
            if chance.random() < 0.2
            else (
                chance.randrange(0, 40_000_000, 500_000),
                chance.randrange(0, 40_000_000, 500_000),
            )
        )

    needs: list[Need] = []
    for index in range(chance.randrange(2, 5)):
        kind = chance.choice(["input", "output", "analogue", "timer", "timer", "interrupt"])
        needs.append(
            Need(
                f"n{index}",
                kind,
                f"N{index}",
                f"need {index}",
                place(),
                rate=chance.choice("ab"),
                reads=kind == "input",
            )
        )  # type: ignore[arg-type]
    for bus, kinds in (
        ("wires", ("two-wire clock", "two-wire data")),
        ("screen", ("serial clock", "serial out")),
        ("sound", ("sound clock", "sound data")),
    ):
        if chance.random() < 0.35 and len(needs) < 6:
            needs += [Need(f"{bus} {k}", k, k.upper(), k, place(), bus) for k in kinds]
    return tuple(needs)


def random_problem(seed: int) -> PinProblem:
    """The problem of a seed."""
    chance = random.Random(seed)
    chip = random_chip(chance, chance.randrange(5, 9))
    places = {
        pin.number: (
            20_000_000 + chance.randrange(-3_000_000, 3_000_000, 250_000),
            chance.randrange(0, 6_000_000, 250_000),
        )
        for pin in chip.pins
    }
    needs = random_needs(chance)
    locks = {needs[0].signal: str(chance.randrange(1, 6))} if chance.random() < 0.15 else {}
    return PinProblem(needs, chip, places, locks)


@dataclass
class Everything:
    """All plans of a problem, found by trying; the rules are written down here a second time."""

    problem: PinProblem

    def plans(self) -> Iterator[dict[str, Option]]:
        """Every plan that breaks no rule."""
        yield from self.grow({}, list(self.problem.needs))

    def grow(self, picks: dict[str, Option], left: list[Need]) -> Iterator[dict[str, Option]]:
        if not left:
            yield picks
            return
        need = left[0]
        for option in self.problem.options()[need.signal]:
            grown = {**picks, need.signal: option}
            if self.allowed(grown):
                yield from self.grow(grown, left[1:])

    def allowed(self, picks: dict[str, Option]) -> bool:
        needs = {n.signal: n for n in self.problem.needs}
        rows = [(needs[s], o) for s, o in picks.items()]
        for i, (a, x) in enumerate(rows):
            for b, y in rows[i + 1 :]:
                if x.pin == y.pin or (x.channel and x.channel == y.channel):
                    return False
                if a.bus and b.bus and a.bus == b.bus and x.group != y.group:
                    return False
                if a.bus and b.bus and a.bus != b.bus and x.hardware == y.hardware:
                    return False
                if a.kind == b.kind == "timer" and x.hardware == y.hardware and a.rate != b.rate:
                    return False
                if x.remap and y.remap and x.remap[0] == y.remap[0] and x.remap[1] != y.remap[1]:
                    return False
        return True

    def score(self, picks: dict[str, Option]) -> Score:
        chip, needs = self.problem.chip, self.problem.needs
        used = {o.pin for o in picks.values()}
        blocks = {picks[n.signal].hardware for n in needs if n.bus}
        free = [p for p in chip.pins if p.kind == "port" and p.number not in used]
        short = max(0, 2 - len(free)) + max(
            0, 2 - sum(any(f.peripheral.startswith("adc") for f in p.functions) for p in free)
        )
        for driver, first, second in (("usart", "tx", "rx"), ("i2c", "scl", "sda")):
            short += not any(
                f.peripheral == g.peripheral
                and f.peripheral.startswith(driver)
                and f.signal == first
                and g.signal == second
                and f.peripheral not in blocks
                for p in free
                for q in free
                if p is not q
                for f in p.functions
                for g in q.functions
            )
        steps = 0
        for n in needs:
            if n.target is not None:
                x, y = self.problem.places[picks[n.signal].pin]
                steps += round(((x - n.target[0]) ** 2 + (y - n.target[1]) ** 2) ** 0.5 / 500_000)
        ports = len({picks[n.signal].port[1] for n in needs if n.reads})
        return sum(o.risk for o in picks.values()), short, steps, ports

    def best(self) -> Score | None:
        """The least score, or None where there is no plan."""
        return min((self.score(p) for p in self.plans()), default=None)

    def possible(self) -> bool:
        """Whether there is any plan."""
        return next(self.plans(), None) is not None
