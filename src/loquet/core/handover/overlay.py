"""A device-tree overlay for a host that reads the keys through its own pins: direct keys or a
matrix.
"""

import re

from loquet.core.brief import Brief
from loquet.core.brief.shares import marked
from loquet.core.handover.key_table import key_table, to_ground
from loquet.core.pins import PinPlan
from loquet.core.pins.wiring import wiring_of

FIRST_CODE = 0x2C0
# Flags of a line: Linux device tree bindings, dt-bindings/gpio/gpio.h; 16 asks for the pull-up
# inside the chip.
ACTIVE_HIGH, ACTIVE_LOW = 0, 1
PULLED_UP = ACTIVE_LOW | 16
DEBOUNCE_MS, SETTLE_US = 5, 10


class NotOnHost(Exception):
    """A scheme or a pad that the host's own key drivers cannot read."""


def host_line(port: str) -> int:
    """The line number in a host pin's name (`GPIO17`: 17); raises NotOnHost."""
    found = re.search(r"(\d+)$", port)
    if not found:
        raise NotOnHost(
            f"the pad '{port}' has no line number; name it like GPIO17 in the pin table"
        )
    return int(found[1])


def write_overlay(brief: Brief, plan: PinPlan, mark: str = "") -> bytes:
    """The overlay's source; direct keys and matrix may stand together. Raises NotOnHost."""
    wiring = wiring_of(brief)
    if wiring.listed or wiring.scheme == "charlieplexed":
        raise NotOnHost(
            f"keys by {wiring.scheme} have no ready driver on a host; take one pin each or a matrix"
        )
    nodes = direct_node(brief, plan) + (matrix_node(brief, plan, mark) if wiring.cells else [])
    lines = [
        (
            f"/* Keys of {brief.name} on the host's own pins. Written by Loquet. Pull-ups are asked"
            " for where a key closes to ground. */"
        ),
        "/dts-v1/;",
        "/plugin/;",
        "",
        "/ {",
        "\tfragment@0 {",
        '\t\ttarget-path = "/";',
        "\t\t__overlay__ {",
        *(f"\t\t\t{line}" for line in nodes),
        "\t\t};",
        "\t};",
        "};",
        "",
    ]
    return "\n".join(lines).encode("ascii")


def direct_node(brief: Brief, plan: PinPlan) -> list[str]:
    """Keys with a pin each."""
    rows = [row for row in key_table(brief, plan) if row.pin]
    if not rows:
        return []
    lines = ["keys {", '\tcompatible = "gpio-keys";']
    for row in rows:
        lines += [
            f"\tkey-{row.number} {{",
            f'\t\tlabel = "{row.title}";',
            f"\t\tlinux,code = <{FIRST_CODE + row.number}>;",
            (
                f"\t\tgpios = <&gpio {host_line(row.port)}"
                f" {PULLED_UP if to_ground(brief, row) else ACTIVE_HIGH}>;"
            ),
            f"\t\tdebounce-interval = <{DEBOUNCE_MS}>;",
            "\t};",
        ]
    return [*lines, "};"]


def matrix_node(brief: Brief, plan: PinPlan, mark: str) -> list[str]:
    """The matrix.

    The host's driver drives what it calls columns and reads what it calls rows: our rows and
    columns the other way round.
    """
    wiring = wiring_of(brief)
    rows = [plan.of(marked(mark, f"row {i + 1}")) for i in range(wiring.rows)]
    columns = [plan.of(marked(mark, f"column {i + 1}")) for i in range(wiring.columns)]
    cells = [
        f"<0x{(row.column << 24) | (row.row << 16) | (FIRST_CODE + row.number):08x}>"
        for row in key_table(brief, plan)
        if row.row is not None and row.column is not None
    ]
    return [
        "key-matrix {",
        '\tcompatible = "gpio-matrix-keypad";',
        f"\tdebounce-delay-ms = <{DEBOUNCE_MS}>;",
        f"\tcol-scan-delay-us = <{SETTLE_US}>;",
        "\tcol-gpios = "
        + ", ".join(f"<&gpio {host_line(r.port)} {ACTIVE_LOW}>" for r in rows if r)
        + ";",
        "\trow-gpios = "
        + ", ".join(f"<&gpio {host_line(c.port)} {PULLED_UP}>" for c in columns if c)
        + ";",
        "\tgpio-activelow;",
        "\tlinux,keymap = " + ", ".join(cells) + ";",
        "};",
    ]
