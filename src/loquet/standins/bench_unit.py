"""A simulated device under test: it has one fault that can be set, and answers the line protocol of
a bench unit as a real one would, meter spread included.
"""

import random
from collections.abc import Callable
from math import cos, pi, sin

from loquet.core.build.faults import GOOD, Fault
from loquet.core.build.measuring import Faulty, Probe
from loquet.core.build.protocol import symptom_line
from loquet.core.energising.device import Device

OHM_SPREAD, VOLT_SPREAD, FARAD_SPREAD = 0.02, 0.015, 0.05
FULL = 4095


class BenchUnit:
    """One simulated device; `seed` makes its meter spread the same again."""

    def __init__(self, desk: Device, fault: Fault = GOOD, seed: int = 0) -> None:
        self.desk, self.fault, self.random = desk, fault, random.Random(seed)
        self.device = Faulty(desk, fault)

    def line(self, asked: str) -> str:
        """The answer to a line."""
        word, _, rest = asked.strip().partition(" ")
        answers: dict[str, Callable[[str], str]] = {
            "ID": lambda _: f"ID simulated {self.desk.brief.name}",
            "SYMPTOM": lambda _: symptom_line(self.device.symptom()),
            "KEYS": self.keys,
            "STICK": self.stick,
        }
        try:
            if word in answers:
                return answers[word](rest)
            return self.read(word, rest)
        except (KeyError, IndexError, ValueError, StopIteration):
            return f"ERR nothing is known of {rest[:60]!r}"

    def read(self, word: str, rest: str) -> str:
        """A reading with the spread of a meter."""
        leads = [tuple(part.rpartition(".")[::2]) for part in rest.split()]
        if word == "LOOK" and len(leads) == 1:
            ref = rest.strip()
            component = next(c for c in self.desk.circuit.components if c.ref == ref)
            leads = [(ref, next(iter(component.pads)))]
        one = (str(leads[0][0]), str(leads[0][1]))
        other = (str(leads[1][0]), str(leads[1][1])) if len(leads) > 1 else ("", "")
        sort = word.lower()
        if sort not in ("ohm", "volt", "diode", "farad", "look"):
            return f"ERR {word[:20]} is no word of the protocol"
        value = self.device.measured(Probe(sort, one, other))  # type: ignore[arg-type]
        match sort:
            case "ohm":
                value *= 1 + self.random.gauss(0, OHM_SPREAD)
            case "farad":
                value *= 1 + self.random.gauss(0, FARAD_SPREAD)
            case "volt" | "diode":
                value += self.random.gauss(0, VOLT_SPREAD)
            case _:
                pass
        return f"{word} {value:.6g}"

    def keys(self, pressed: str) -> str:
        """The keys that read as pressed while one is held."""
        ids = self.key_ids()
        if pressed and pressed not in ids:
            return f"ERR there is no key {pressed[:40]!r}"
        seen = self.device.symptom()
        read = {pressed} if pressed else set()
        if seen.dead:
            read = set()
        elif seen.manner == "always" or (seen.manner == "together" and pressed in seen.broken):
            read |= seen.broken & ids
        elif seen.manner == "dead" and pressed in seen.broken:
            read -= {pressed}
        return f"KEYS {'|'.join(sorted(read))}".rstrip()

    def key_ids(self) -> set[str]:
        """All keys by their roles."""
        return {
            thing.role(contact.piece)
            for thing in self.desk.brief.things
            for contact in thing.contacts()
        }

    def stick(self, name: str) -> str:
        """At rest for a while, then twice around the rim."""
        thing = self.desk.brief.thing(name)
        if len(thing.axes()) < 2:
            return f"ERR {name[:40]} is no stick"
        seen = self.device.symptom()
        mine = name in seen.broken
        shift = 520 if mine and seen.manner == "off" else 0
        reach = 0 if seen.dead or (mine and seen.manner == "dead") else 1750
        rows = [(FULL // 2 + shift, FULL // 2, 1)] * 40
        for step in range(240):
            angle = 4 * pi * step / 240
            rows.append(
                (
                    round(FULL / 2 + shift + reach * cos(angle)),
                    round(FULL / 2 + reach * sin(angle)),
                    0,
                )
            )
        spread = [
            f"{clip(x + self.random.gauss(0, 4))},{clip(y + self.random.gauss(0, 4))},{rest}"
            for x, y, rest in rows
        ]
        return f"STICK {';'.join(spread)}"


def clip(value: float) -> int:
    """A code of the converter."""
    return min(FULL, max(0, round(value)))
