"""A network written down for ngspice (Debian's package), and its volts as ngspice finds them:
with a nanofarad at every node, from nothing, until all stands still. That is another way to the
answer than ours, and one that needs no luck where converters hold their volts.

Junctions, MOS channels and transistors are ngspice's own models (diode, level 1, Gummel and Poon
without its second-order terms); converters, loads, limited sources and ideal diodes are behavioural
sources of the formulas in their docstrings, without the rounded corners that ours have.
"""

import re
import subprocess
from collections.abc import Mapping

from loquet.core.energising.answering import Given
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
    nodes_of,
)

HEAD = """a network
.options gmin=1e-12 reltol=1e-3 abstol=1e-7 vntol=1e-4 tnom=26.85 temp=26.85 method=gear
"""
SETTLED_S, STAYS_S, PATIENCE_S = 0.03, 0.002, 2


def volts_of(
    network: Network, given: Given, start: Mapping[str, float] | None = None
) -> dict[str, float] | None:
    """Volts by node where all stands still, from nothing or from the volts of a start; nothing
    where ngspice finds no way there.
    """
    names = {n for e in network.elements() for n in nodes_of(e)} - {network.ground}
    at = {network.ground: "0"} | {n: f"n{i}" for i, n in enumerate(sorted(names), 1)}
    lines = [HEAD]
    for index, element in enumerate(network.elements()):
        if element.when and element.when not in given.on:
            continue
        lines.extend(cards(element, index, at, given))
    lines += [f"Rleak{i} {node} 0 1e9" for i, node in enumerate(at.values()) if node != "0"]
    lines += [f"C{i} {node} 0 1e-9" for i, node in enumerate(at.values()) if node != "0"]
    if start:
        lines.append(
            ".ic "
            + " ".join(f"v({at[n]})={v:.9g}" for n, v in start.items() if n in at and at[n] != "0")
        )
    transient = f"tran {SETTLED_S / 50} {SETTLED_S} uic"
    if start:
        transient = f"tran {STAYS_S / 1000} {STAYS_S} 0 {STAYS_S / 1000} uic"
    shown = [f"let last_{n} = {n}[length({n})-1]\nprint last_{n}" for n in at.values() if n != "0"]
    lines += [".control", transient, *shown, ".endc", ".end"]
    try:
        run = subprocess.run(
            ["ngspice", "-b"],
            input="\n".join(lines),
            capture_output=True,
            text=True,
            timeout=PATIENCE_S,
            check=False,
        )
    except subprocess.TimeoutExpired:
        return None
    found = {
        m.group(1): float(m.group(2))
        for m in re.finditer(r"^last_(n\d+) = (\S+)$", run.stdout, re.MULTILINE)
    }
    if len(found) < len(at) - 1 or "too small" in run.stdout + run.stderr:
        return None
    return {name: 0.0 if node == "0" else found[node] for name, node in at.items()}


def cards(element: Element, index: int, at: Mapping[str, str], given: Given) -> list[str]:
    """The lines of one element."""
    n = [at[name] for name in nodes_of(element)]
    match element:
        case Resistance(ohm=ohm):
            return [f"R{index} {n[0]} {n[1]} {ohm:.9g}"]
        case Junction(saturation_a=saturation, ideality=ideality):
            return [
                f"D{index} {n[0]} {n[1]} MD{index}",
                f".model MD{index} D(IS={saturation:.9g} N={ideality:.9g})",
            ]
        case Channel(sign=sign, threshold_v=threshold, k=k):
            sort = "NMOS" if sign > 0 else "PMOS"
            return [
                f"M{index} {n[1]} {n[0]} {n[2]} {n[2]} MM{index} W=1 L=1",
                f".model MM{index} {sort}(LEVEL=1 VTO={sign * threshold:.9g} KP={k:.9g} IS=1e-290)",
            ]
        case Bipolar(saturation_a=saturation, gain=gain, reverse_gain=back):
            return [
                f"Q{index} {n[1]} {n[0]} {n[2]} MQ{index}",
                f".model MQ{index} NPN(IS={saturation:.9g} BF={gain:.9g} BR={back:.9g})",
            ]
        case Source(volts=volts, ohm=ohm, most_a=most, name=name):
            told = volts * given.volts.get(name, 1.0)
            flow = f"min(({told:.9g}-V({n[0]},{n[1]}))/{ohm:.9g},{most:.9g})"
            return [f"B{index} {n[1]} {n[0]} I={flow}"]
        case Draw(amperes=amperes, usual_v=usual, name=name):
            amps = given.amperes.get(name, amperes)
            u = f"(V({n[0]},{n[1]})/{usual:.9g})"
            flow = f"{amps * 1.0440306508910548:.9g}*{u}/sqrt({u}*{u}+0.09)"
            return [f"B{index} {n[0]} {n[1]} I={flow}"]
        case Converter():
            return converter(element, index, n)


def converter(c: Converter, index: int, n: list[str]) -> list[str]:
    """A converter: what it gives, and what it takes for that."""
    source, out, ground, enable = n
    u, o, e = (f"V({x},{ground})" for x in (source, out, enable))
    on = f"(0.25*(1+tanh(({e}-0.8)/0.04))*(1+tanh(({u}-{c.least_v:.9g})/0.04)))"
    able = "1e9" if c.steps_up else f"({u}-{o})/{c.drop_ohm:.9g}"
    gives = f"{on}*max(0,min(min(({c.volts:.9g}-{o})/0.02,{able}),{c.most_a:.9g}))"
    share = f"max(0,{o})/({c.efficiency:.9g}*max({u},0.3))" if c.efficiency else "1"
    return [
        f"B{index}o {ground} {out} I={gives}",
        f"B{index}i {source} {ground} I=({gives})*({share})+{on}*{c.quiet_a:.9g}",
    ]
