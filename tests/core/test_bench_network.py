"""Nodal analysis of what a meter shows: against networkx (resistance distance), handbook circuits,
and laws.
"""

import random

import networkx
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from loquet.core.build.network import (
    Battery,
    Network,
    Regulator,
    Resistance,
    Solver,
    Valve,
)
from loquet.core.circuit.nodal.solving import Element, at_rest

G = "GROUND"


def ohms(*resistances: tuple[str, str, float]) -> Solver:
    return Solver(Network(G, tuple(Resistance(*r) for r in resistances)))


def read(solver: Solver, a: str, b: str) -> float:
    return float(solver.between()[solver.at[a], solver.at[b]])


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
    solver = ohms(*((*sorted(pair), ohm) for pair, ohm in found.items()))  # type: ignore[arg-type]
    a, b = chance.sample(nodes, 2)
    wanted = networkx.resistance_distance(graph, a, b, weight="ohm", invert_weight=True)
    assert read(solver, a, b) == pytest.approx(wanted, rel=1e-3)


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


def powered(**more: object) -> dict[str, float]:
    resistances = tuple(Resistance(*r) for r in more.pop("ohms"))  # type: ignore[attr-defined]
    return Solver(Network(G, resistances, **more)).on_power()  # type: ignore[arg-type]


def test_a_divider_on_a_battery() -> None:
    """3 V behind 1 ohm over 9 ohm and 20 ohm: 0.1 A, so 2.9 V and 2.0 V; the same by the nodal
    analysis of the circuit station.
    """
    volts = powered(ohms=[("P", "M", 9.0), ("M", G, 20.0)], batteries=(Battery("P", G, 3.0, 1.0),))
    assert (volts["P"], volts["M"]) == pytest.approx((2.9, 2.0), abs=1e-3)
    rest = at_rest(
        [
            Element("source", "S", G, 3.0),
            Element("resistor", "S", "P", 1.0),
            Element("resistor", "P", "M", 9.0),
            Element("resistor", "M", G, 20.0),
        ]
    )
    assert (rest["P"], rest["M"]) == pytest.approx((volts["P"], volts["M"]), abs=1e-3)


def test_a_diode_conducts_one_way() -> None:
    """5 V over 1 k and a diode of 0.7 V and 1 ohm: 4.3 V across 1001 ohm; turned round nothing
    flows.
    """
    battery = (Battery("P", G, 5.0, 0.001),)
    forward = powered(ohms=[("P", "A", 1e3)], valves=(Valve("A", G, 0.7, 1.0),), batteries=battery)
    assert forward["A"] == pytest.approx(0.7 + 4.3 / 1001, abs=1e-3)
    back = powered(ohms=[("P", "A", 1e3)], valves=(Valve(G, "A", 0.7, 1.0),), batteries=battery)
    assert back["A"] == pytest.approx(5.0, abs=1e-2)


@pytest.mark.parametrize(
    ("cell", "load", "rail", "drawn"),
    [(5.0, 100.0, 3.3, 0.033), (1.5, 100.0, 0.0, 0.0), (5.0, 2.0, 0.6, 0.3)],
)
def test_a_linear_regulator_holds_its_rail_or_its_limit(
    cell: float, load: float, rail: float, drawn: float
) -> None:
    """3.3 V from 5 V, 0.3 A at the most: 100 ohm draw 33 mA, 2 ohm get 0.3 A and so 0.6 V; below
    its least input there is nothing.
    """
    volts = powered(
        ohms=[("R", G, load)],
        batteries=(Battery("P", G, cell, 0.1),),
        regulators=(Regulator("P", "R", G, "P", 3.3, 2.0, 0.3, ohm=0.001),),
    )
    assert volts["R"] == pytest.approx(rail, abs=0.02)
    assert (cell - volts["P"]) / 0.1 == pytest.approx(drawn, abs=0.002)


def test_a_converter_draws_power_by_its_efficiency() -> None:
    """3.3 V into 33 ohm are 0.33 W; at 0.9 from 5 V that is 73 mA; without its enable there is
    nothing.
    """
    made = Regulator("P", "R", G, "E", 3.3, 2.0, 1.0, efficiency=0.9, ohm=0.001)
    load, battery = [("R", G, 33.0), ("E", "P", 1.0)], (Battery("P", G, 5.0, 0.1),)
    volts = powered(ohms=load, batteries=battery, regulators=(made,))
    assert (5.0 - volts["P"]) / 0.1 == pytest.approx(0.33 / 0.9 / 5.0, abs=0.002)
    off = powered(ohms=[("R", G, 33.0), ("E", G, 1.0)], batteries=battery, regulators=(made,))
    assert off["R"] == pytest.approx(0.0, abs=0.01)
