"""Writing the pin map as a C header: the one table that firmware, wiring and button test share."""

import re

from loquet.core.brief import Brief
from loquet.core.handover.key_table import KeyRow, key_table, macro, to_ground
from loquet.core.pins import Assignment, PinPlan
from loquet.core.pins.wiring import wiring_of

LETTERED, NUMBERED = re.compile(r"^P([A-Z])(\d+)$"), re.compile(r"^(?:P(\d)\.|GPIO)(\d+)$")


def write_header(brief: Brief, plan: PinPlan) -> bytes:
    """Macros for port letter, bit and function of every signal, and the keys in the brief's own
    order.
    """
    guard = macro(brief.name) + "_PINS_H"
    lines = [
        (
            f"/* Pin map of {brief.name}, chip {plan.chip} in {plan.package}. Written by Loquet;"
            " change the pin plan, not this file. */"
        ),
        f"#ifndef {guard}",
        f"#define {guard}",
        "",
    ]
    for row in plan.assignments:
        lines += signal_lines(row)
    lines += key_lines(brief, plan)
    return "\n".join([*lines, "", f"#endif /* {guard} */", ""]).encode("ascii")


def signal_lines(row: Assignment) -> list[str]:
    """Port and bit of one signal; a module's pad by its name."""
    name = macro(row.signal)
    lines = [f"/* {row.title}: package pin {row.pin}, net {row.net} */"]
    lettered, numbered = LETTERED.match(row.port), NUMBERED.match(row.port)
    if lettered:
        lines += [f"#define {name}_PORT '{lettered[1]}'", f"#define {name}_BIT {int(lettered[2])}"]
    elif numbered:
        lines += [
            f"#define {name}_PORT {numbered[1] or 0}",
            f"#define {name}_BIT {int(numbered[2])}",
        ]
    else:
        lines.append(f'#define {name}_PAD "{row.port}"')
    if row.function:
        lines.append(f'#define {name}_FUNCTION "{row.peripheral}.{row.function} {row.route}"')
    return lines


def key_lines(brief: Brief, plan: PinPlan) -> list[str]:
    """Counts, levels and tables of the keys: those with a pin each, and those of the scheme."""
    table, wiring = key_table(brief, plan), wiring_of(brief)
    direct = [row for row in table if row.pin and row.report != "none"]
    level = 1 if brief.button_reading == "pull-down-resistors" else 0
    lines = [
        "",
        f"#define BUTTON_COUNT {len(direct)}",
        f"#define BUTTON_PRESSED_LEVEL {level}",
        f"#define BUTTON_NEEDS_PULL_UP {1 - level}",
    ]
    lines += [f"#define KEY_COUNT {len(table)}", f'#define KEY_SCHEME "{wiring.scheme}"', ""]
    lines += [
        (
            "/* X(name, number): every key, numbered in the order of the brief, as report and "
            "button test number them */"
        )
    ]
    lines += block("KEY_NUMBERS", [f"X({key_name(row)}, {row.number})" for row in table])
    if direct:
        lines.append(
            "/* X(name, port, bit): keys with a pin of their own, in the order of the brief */"
        )
        lines += block(
            "BUTTON_TABLE", [f"X({key_name(row)}, {port_and_bit(row.port)})" for row in direct]
        )
        if level:
            lines += other_levels(brief, direct)
    if wiring.cells:
        lines += [
            f"#define KEY_ROWS {wiring.rows}",
            f"#define KEY_COLUMNS {wiring.columns}",
            "/* rows are driven low one after the other; a held key pulls its column down */",
            "#define KEY_MATRIX_PRESSED_LEVEL 0",
            "#define KEY_COLUMNS_NEED_PULL_UP 1",
            "/* X(name, row, column) */",
        ]
        lines += block(
            "KEY_MATRIX",
            [
                f"X({key_name(row)}, {row.row}, {row.column})"
                for row in table
                if row.row is not None
            ],
        )
    if wiring.listed:
        lines.append("/* X(name, line): lines of the expanders, registers or ladders, from 0 */")
        lines += block(
            "KEY_LINES",
            [f"X({key_name(row)}, {row.place})" for row in table if row.place is not None],
        )
    return lines


def other_levels(brief: Brief, direct: list[KeyRow]) -> list[str]:
    """Keys that close to ground although the others close to the rail."""
    return [
        line
        for row in direct
        if to_ground(brief, row)
        for line in (f"#define {row.name}_PRESSED_LEVEL 0", f"#define {row.name}_NEEDS_PULL_UP 1")
    ]


def block(name: str, rows: list[str]) -> list[str]:
    """A table as an X macro."""
    return [f"#define {name}(X) \\", " \\\n".join(f"    {row}" for row in rows)]


def key_name(row: KeyRow) -> str:
    """A button by its own name, others with their kind."""
    return row.name


def port_and_bit(port: str) -> str:
    """`PA3` as `'A', 3`."""
    lettered, numbered = LETTERED.match(port), NUMBERED.match(port)
    if lettered:
        return f"'{lettered[1]}', {int(lettered[2])}"
    return f"{numbered[1] or 0}, {int(numbered[2])}" if numbered else f'"{port}", 0'
