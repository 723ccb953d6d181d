"""Writing the pin map as a C header: the one table that firmware, wiring and button test share."""

import re

from loquet.core.brief import Brief
from loquet.core.pins import PinPlan


def write_header(brief: Brief, plan: PinPlan) -> bytes:
    """Macros for port letter, bit and function of every signal, and the buttons in the brief's own order."""
    guard = macro(brief.name) + "_PINS_H"
    lines = [
        f"/* Pin map of {brief.name}, chip {plan.chip} in {plan.package}. Written by Loquet; change the pin plan, not this file. */",
        f"#ifndef {guard}", f"#define {guard}", "",
    ]  # fmt: skip
    for row in plan.assignments:
        name = macro(row.signal)
        letter, bit = row.port[1], row.port[2:]
        lines.append(f"/* {row.title}: package pin {row.pin}, net {row.net} */")
        lines.append(f"#define {name}_PORT '{letter}'")
        lines.append(f"#define {name}_BIT {bit}")
        if row.function:
            lines.append(f'#define {name}_FUNCTION "{row.peripheral}.{row.function} {row.route}"')
    buttons = [row for row in plan.assignments if row.kind == "input"]
    level = 1 if brief.button_reading == "pull-down-resistors" else 0
    lines += ["", f"#define BUTTON_COUNT {len(buttons)}", f"#define BUTTON_PRESSED_LEVEL {level}", f"#define BUTTON_NEEDS_PULL_UP {1 - level}", ""]
    lines.append("/* X(name, port letter, bit), in the order of the brief */")
    lines.append("#define BUTTON_TABLE(X) \\")
    rows = [f"    X({macro(row.signal.split(':', 1)[1])}, '{row.port[1]}', {row.port[2:]})" for row in buttons]
    lines.append(" \\\n".join(rows))
    return "\n".join([*lines, "", f"#endif /* {guard} */", ""]).encode("ascii")


def macro(text: str) -> str:
    """A name that the C preprocessor takes."""
    return re.sub(r"[^A-Z0-9]+", "_", text.upper()).strip("_")
