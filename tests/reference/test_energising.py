"""Networks switched on, and every example in ten states, against ngspice."""

import random
from pathlib import Path

import pytest

from loquet.core.brief import read_brief
from loquet.core.design import Design
from loquet.core.energising.answering import Answers, Given, answers
from loquet.core.energising.elements import (
    Bipolar,
    Channel,
    Converter,
    Draw,
    Element,
    Junction,
    Network,
    Resistance,
    Source,
    junction_of,
)
from loquet.core.energising.energised import energised
from loquet.core.energising.states import given_of
from loquet.core.library import Library
from loquet.core.pipeline import StageRefused, run_stage
from tests.conftest import ROOT
from tests.core.benches import switched_on
from tests.reference.spice import volts_of

NODES, STATES = 12, 10


def near(found: float, wanted: float) -> bool:
    """Within 2 %, or 20 mV."""
    return abs(found - wanted) <= max(0.02, 0.02 * abs(wanted))


def element(lot: random.Random, nodes: list[str], rails: list[str]) -> Element:
    """Some element between nodes, as they are found on boards of handheld devices."""
    a, b, c = lot.sample(nodes, 3)
    rail = lot.choice(rails)
    match lot.choice("RRRRDDDVMMNQQXXC"):
        case "R":
            return Resistance(a, b, 10 ** lot.uniform(1, 6))
        case "D":
            return Junction(a, b, junction_of(lot.uniform(0.25, 0.75), 0.01), lot.choice([1, 2]))
        case "V":
            return Junction(a, b, 1e-6, 0.12)
        case "M":
            return Channel(a, b, rail, -1, lot.uniform(0.6, 1.5), 10 ** lot.uniform(-1, 1))
        case "N":
            return Channel(a, b, "0", 1, lot.uniform(0.6, 1.5), 10 ** lot.uniform(-1, 1))
        case "Q":
            return Bipolar(a, b, lot.choice(["0", c]), 1e-14, lot.uniform(50, 300))
        case "X":
            return Draw(rail, "0", 10 ** lot.uniform(-4, -1), 3.3)
        case _:
            way = lot.choice(["linear", "buck", "boost"])
            volts = lot.uniform(5, 9) if way == "boost" else lot.uniform(1.2, 3.3)
            return Converter(
                rail,
                a,
                "0",
                rail,
                volts,
                0.9,
                lot.uniform(0.1, 1),
                0.0 if way == "linear" else 0.85,
                lot.uniform(0.2, 2),
                way == "boost",
                1e-5,
            )


def some_network(seed: int) -> Network:
    """Sources, and elements between their rails and a dozen nodes; every node has a way to
    ground.
    """
    lot = random.Random(seed)
    nodes = [f"n{i}" for i in range(NODES)]
    found = Network("0")
    rails = []
    for index in range(lot.randint(1, 3)):
        rail = f"rail {index}"
        rails.append(rail)
        volts = lot.choice([1.5, 3.0, 3.7, 4.2, 5.0, 9.0])
        found.add(Source(rail, "0", volts, lot.uniform(0.05, 1), lot.choice([0.5, 1000.0])))
    for _ in range(lot.randint(12, 30)):
        found.add(element(lot, [*nodes, *rails], rails))
    for node in nodes:
        found.add(Resistance(node, lot.choice(["0", *rails]), 10 ** lot.uniform(2, 5)))
    return found


def off_by(found: Answers, given: Given, row: int = 0) -> dict[str, tuple[float, float]] | None:
    """Nodes that stand elsewhere for ngspice, with ours and its volts; nothing where ngspice finds
    no answer at all. Where there is more than one, ngspice begun at ours has to stay.
    """
    ours = {node: float(found.volt(node)[row]) for node in found.made.at}
    least: dict[str, tuple[float, float]] | None = None
    for first in (None, ours):
        wanted = volts_of(found.made.network, given, first)
        if wanted is not None:
            off = {n: (ours[n], v) for n, v in wanted.items() if not near(ours[n], v)}
            if not off:
                return off
            least = off
    return least


def test_random_networks_stand_as_ngspice_says() -> None:
    """A few may be too stiff for ngspice on a slow machine; three hundred are not."""
    agreed = 0
    for seed in range(310):
        found = answers(some_network(seed), [Given()])
        assert found.sound.all(), f"network {seed} keeps no sums"
        off = off_by(found, Given())
        assert not off, f"network {seed}: {off}"
        agreed += off is not None
    assert agreed >= 300


EXAMPLES = sorted((ROOT / "examples").glob("*.brief.json"))


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name[:-11])
def test_every_example_stands_as_ngspice_says_in_ten_states(path: Path, library: Library) -> None:
    """Ten states spread over all that it has; one whose pins cannot be planned has no circuit."""
    design = Design(brief=read_brief(path.read_bytes(), path.name))
    try:
        design = run_stage(run_stage(design, "pins", library), "circuit", library)
    except StageRefused:
        return
    seen = energised(switched_on(design, library))
    whole = len(seen.states)
    for index in [i * whole // STATES for i in range(STATES)]:
        state = seen.states[index]
        assert off_by(seen.answers, given_of(seen.device, seen.ways, state), index) == {}, state.id
