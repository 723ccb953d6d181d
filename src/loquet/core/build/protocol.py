"""The line protocol between Loquet and a bench unit: one line asks, one line answers; ASCII, words
apart by one space.

`ID` answers `ID <words>`; `OHM R1.1 U1.3`, `VOLT R1.1`, `DIODE D1.2 D1.1`, `FARAD C1.1 C1.2` answer
the same word and a number (ohm, volt, farad); `LOOK R1`, or `LOOK U1.3 U1.4`, answers what a person
sees there; `SYMPTOM` answers `SYMPTOM dead hot manner function|function`; `KEYS key` presses a key
(none where there is no word after it) and answers the keys that read as pressed, `|` between them;
`STICK name` answers samples `x,y,rest` apart by `;`. What cannot be done is answered by `ERR
<words>`.
"""

from dataclasses import dataclass

from loquet.core.build.measuring import Probe, Symptom
from loquet.core.build.sticks import Sample

ASKS = {"ohm": "OHM", "volt": "VOLT", "diode": "DIODE", "farad": "FARAD", "look": "LOOK"}
LONGEST = 60_000


class ProtocolFault(Exception):
    """An answer that does not follow the protocol, or says that something could not be done."""


@dataclass(frozen=True)
class Answer:
    """The words of an answer behind its first."""

    word: str
    rest: str


def ask(probe: Probe) -> str:
    """The line that asks for a test."""
    leads = [f"{ref}.{pad}" for ref, pad in (probe.one, probe.other) if ref]
    if probe.sort == "look" and not probe.other[0]:
        leads = [probe.one[0]]
    if probe.sort == "volt":
        leads = leads[:1]
    return " ".join([ASKS[probe.sort], *leads])


def answer(line: str, word: str) -> Answer:
    """An answer to a word; raises ProtocolFault."""
    if len(line) > LONGEST or not line.isascii() or "\n" in line.rstrip("\r\n"):
        raise ProtocolFault("The bench unit answered what is no line of the protocol.")
    first, _, rest = line.strip().partition(" ")
    if first == "ERR":
        raise ProtocolFault(f"The bench unit says: {rest[:200]}")
    if first != word:
        raise ProtocolFault(f"The bench unit answered {first[:20]!r} to {word}.")
    return Answer(first, rest)


def number(line: str, word: str) -> float:
    """A reading; raises ProtocolFault."""
    rest = answer(line, word).rest
    try:
        value = float(rest)
    except ValueError:
        raise ProtocolFault(f"The bench unit answered {rest[:40]!r}, which is no number.") from None
    if value != value or abs(value) > 1e12:
        raise ProtocolFault("The bench unit answered a number out of all range.")
    return value


def symptom(line: str) -> Symptom:
    """A symptom; raises ProtocolFault."""
    rest = answer(line, "SYMPTOM").rest.split(" ", 3)
    if len(rest) < 3 or rest[2] not in ("-", "dead", "always", "together", "off"):
        raise ProtocolFault("The bench unit answered a symptom that is none.")
    broken = frozenset(rest[3].split("|")) if len(rest) > 3 and rest[3] else frozenset()
    manner = "" if rest[2] == "-" else rest[2]
    return Symptom(rest[0] == "1", rest[1] == "1", broken, manner)  # type: ignore[arg-type]


def symptom_line(seen: Symptom) -> str:
    """A symptom as an answer."""
    return (
        f"SYMPTOM {int(seen.dead)} {int(seen.hot)} {seen.manner or '-'}"
        f" {'|'.join(sorted(seen.broken))}".rstrip()
    )


def keys(line: str) -> frozenset[str]:
    """Keys that read as pressed; raises ProtocolFault."""
    rest = answer(line, "KEYS").rest
    return frozenset(rest.split("|")) if rest else frozenset()


def samples(line: str) -> tuple[Sample, ...]:
    """Samples of a stick; raises ProtocolFault."""
    rest = answer(line, "STICK").rest
    found = []
    for row in rest.split(";"):
        try:
            x, y, rest_flag = (int(v) for v in row.split(","))
        except ValueError:
            raise ProtocolFault("The bench unit answered a sample that is none.") from None
        found.append(Sample(x=x, y=y, rest=bool(rest_flag)))
    return tuple(found)
