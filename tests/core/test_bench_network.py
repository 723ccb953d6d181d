"""What a meter shows with the power off: against networkx (resistance distance) and handbook
circuits.
"""

import random

import networkx
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from loquet.core.build.meter import Meter
from loquet.core.energising.elements import Network, Resistance

G = "GROUND"


def ohms(*resistances: tuple[str, str, float]) -> Meter:
    return Meter(Network(G, [Resistance(*r) for r in resistances]))


def read(meter: Meter, a: str, b: str) -> float:
    return float(meter.between()[meter.at[a], meter.at[b]])


@settings(max_examples=40, deadline=None)
@given(st.integers(0, 10**6))
def test_a_meter_reads_the_resistance_distance(seed: int) -> None:
    """Reference: networkx.resistance_distance (Klein and Randic 1993), on random connected
    networks.
    """
    chance = random.Random(seed)
    nodes = [G, *(f"N{i}" for i in range(chance.randint(3, 9)))]
    edges = [(nodes[i], nodes[chance.randrange(i)]) for i in range(1, len(nodes))]
    edges += [tuple(chance.sample(nodes, 2)) for _ in range(chance.randint(0, 8))]
    graph = networkx.Graph()
    found: dict[frozenset[str], float] = {}
    for a, b in edges:
        found[frozenset((a, b))] = 10 ** chance.uniform(0, 5)
    for pair, ohm in found.items():
        graph.add_edge(*pair, ohm=ohm)
    meter = ohms(*((*sorted(pair), ohm) for pair, ohm in found.items()))  # type: ignore[arg-type]
    a, b = chance.sample(nodes, 2)
    wanted = networkx.resistance_distance(graph, a, b, weight="ohm", invert_weight=True)
    assert read(meter, a, b) == pytest.approx(wanted, rel=1e-3)


def test_series_parallel_and_a_bridge() -> None:
    """1 k and 2 k in series 3 k, beside 6 k 2 k; a balanced bridge of 1 k with 5 k across reads 1 k
    (handbook).
    """
    assert read(ohms(("A", "B", 1e3), ("B", G, 2e3), ("A", G, 6e3)), "A", G) == pytest.approx(
        2000, rel=1e-4
    )
    bridge = ohms(("A", "B", 1e3), ("A", "C", 1e3), ("B", G, 1e3), ("C", G, 1e3), ("B", "C", 5e3))
    assert read(bridge, "A", G) == pytest.approx(1000, rel=1e-4)
    assert read(ohms(("A", "B", 1.0), ("C", G, 1.0)), "A", G) > 1e8


def test_what_a_condition_asks_for_conducts_only_then() -> None:
    network = Network(G, [Resistance("A", G, 1e3), Resistance("A", G, 1e3, when="metered")])
    assert read(Meter(network), "A", G) == pytest.approx(1000, rel=1e-4)
    assert read(Meter(network, frozenset({"metered"})), "A", G) == pytest.approx(500, rel=1e-4)
