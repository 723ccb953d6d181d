"""Figures worked out again from what they show.

The arithmetic is Python's own; prefixes are those of the SI, preferred values those of IEC 60063.
"""

import ast
import math
import re
from collections.abc import Iterable

from loquet.core.provenance import Working
from loquet.core.quantities.preferred import E12, E24

PREFIXES = {"k": 1e3, "M": 1e6, "m": 1e-3, "µ": 1e-6, "n": 1e-9, "p": 1e-12}
PREFIXED = ("Ω", "A", "Ah", "V", "F", "Hz", "s", "W")
COUNTED = "counted"
SERIES = {"nearest E12": E12, "nearest E24": E24}


def scale(unit: str) -> float:
    """How many base units a unit is; 1 where it has no SI prefix (mm, mm² and cents stay as they
    are).
    """
    if len(unit) > 1 and unit[1:] in PREFIXED:
        return PREFIXES.get(unit[0], 1.0)
    return 0.01 if unit == "%" else 1.0


def evaluated(text: str, working: Working) -> float:
    """The value of a formula with its inputs put in."""
    names = sorted(working.inputs, key=lambda i: -len(i.name))
    values: dict[str, float] = {}
    for index, given in enumerate(names):
        pattern = rf"(?<!\w){re.escape(given.name)}(?!\w)"
        text, found = re.subn(pattern, f" v{index} ", text)
        if found:
            values[f"v{index}"] = float(given.value) * scale(given.unit)
    text = text.replace(" x ", " * ").replace("^", "**").replace("²", "**2")
    tree = ast.parse(text.strip(), mode="eval")
    return float(
        eval(compile(tree, working.id, "eval"), {"__builtins__": {}}, {**values, **FUNCTIONS})
    )


FUNCTIONS = {
    "sqrt": math.sqrt,
    "max": max,
    "min": min,
    "ceil": math.ceil,
    "floor": math.floor,
    "round": round,
}


def parted(text: str) -> tuple[str, str]:
    """The arithmetic of a formula, and the words behind its first comma that stands in no
    parentheses.
    """
    depth = 0
    for index, letter in enumerate(text):
        depth += {"(": 1, ")": -1}.get(letter, 0)
        if letter == "," and depth == 0:
            return text[:index], text[index + 1 :].strip()
    return text, ""


def faults_in(workings: Iterable[Working]) -> list[str]:
    """What is wrong with figures, worked out again."""
    wrong = []
    for working in workings:
        for given in working.inputs:
            if not given.origin.strip():
                wrong.append(f"{working.id}: {given.name} has no origin")
        if not working.source.text.strip():
            wrong.append(f"{working.id}: no source")
        formula, note = parted(working.formula)
        if formula == COUNTED:
            if not working.inputs:
                wrong.append(f"{working.id}: counted from nothing")
            continue
        try:
            value = evaluated(formula, working) / scale(working.unit)
        except (SyntaxError, NameError, ValueError, TypeError) as problem:
            wrong.append(
                f"{working.id}: '{working.formula}' {problem}"
                f" {[(i.name, i.value, i.unit) for i in working.inputs]}"
            )
            continue
        if note in SERIES:
            power = 10.0 ** math.floor(math.log10(value))
            steps = [s * power * d for s in SERIES[note] for d in (0.1, 1, 10)]
            value = min(steps, key=lambda step: abs(math.log(step / value)))
        if abs(value - working.value) > 0.002 * max(abs(working.value), 0.02):
            wrong.append(
                f"{working.id}: {working.formula} gives {value:g}, shown is {working.value:g}"
                f" {working.unit} {[(i.name, i.value, i.unit) for i in working.inputs]}"
            )
    return wrong
