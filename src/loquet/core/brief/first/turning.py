"""From the first format to the present one: the same signals, nets, parts and seats."""

from typing import Any

from loquet.core.brief.first.model import Brief as FirstBrief
from loquet.core.brief.model import MAIN

OWN_CHIP = "own"
FEEDS = {
    "two-aaa-cells": "cells",
    "lithium-cell": "lithium-cell",
    "coin-cell": "coin-cell",
    "nine-volt": "nine-volt",
    "from-host": "host-feed",
}
PORTS = {
    "usb-device": "usb-device",
    "spare-port": "spare-bus",
    "serial-port": "serial",
    "board-link": "serial",
    "memory-card": "memory-card",
    "expansion": "expansion",
}
FEED_NAMES = {"nine-volt": "block", "from-host": "feed"}
PLACE = ("x_mm", "y_mm", "turn_deg")
KEPT = (
    "name",
    "purpose",
    "role",
    "key_scheme",
    "chords",
    "analogue_by",
    "button_reading",
    "shell",
    "quantity",
    "wanted_by",
)
Plain = dict[str, Any]


class Names:
    """Names that are taken; things of different lists could share one, and now cannot."""

    def __init__(self) -> None:
        self.taken: set[str] = set()

    def own(self, wanted: str, other: str) -> str:
        """The wanted name, or one with another word where it is taken."""
        found, number = wanted, 2
        while found.lower() in self.taken:
            found = f"{wanted[:15]} {other}" if number == 2 else f"{wanted[:15]} {other} {number}"
            number += 1
        self.taken.add(found.lower())
        return found


def present_from_first(plain: Plain) -> Plain:
    """A brief of the present format from one of the first, both as plain values; raises
    ValidationError for one that is not of the first.
    """
    first = FirstBrief.model_validate(plain).model_dump(mode="json")
    names = Names()
    things = [controlled(row, names) for row in first["controls"]]
    for row in single_things(first):
        row["name"] = names.own(row["name"], "thing")
        things.append(row)
    things += [
        placed({**row, "kind": "hole", "name": names.own(row["name"], "hole")})
        for row in first["fixing_holes"]
    ]
    found: Plain = {name: first[name] for name in KEPT}
    found["format"] = "loquet-brief-2"
    found["boards"] = [{"name": MAIN, "outline": first["outline"]}]
    found["things"] = things
    table = first["pin_table"]
    found["shelf"] = {"pin_tables": [table] if table else []}
    return found


def controlled(row: Plain, names: Names) -> Plain:
    """A control; its name was its own among controls already."""
    return placed({**row, "name": names.own(row["name"], "control")})


def placed(row: Plain) -> Plain:
    """Coordinates as a place; what had none has none."""
    found = {k: v for k, v in row.items() if k not in PLACE}
    if row.get("x_mm") is not None and row.get("y_mm") is not None:
        turn = row.get("turn_deg", 0)
        found["place"] = {"x_mm": row["x_mm"], "y_mm": row["y_mm"], "turn_deg": turn}
    return found


def single_things(first: Plain) -> list[Plain]:
    """Everything that the first format had once, or in lists of their own, in its order."""
    rows = [chip_of(first)]
    for field, kind, name in (
        ("screen", "screen", "screen"),
        ("buzzer", "buzzer", "buzzer"),
        ("speaker", "speaker", "speaker"),
        ("headphones", "headphones", "headphones"),
        ("light", "light", "light"),
        ("light_chain", "light-chain", "lights"),
        ("light_matrix", "light-matrix", "lights"),
    ):
        if first[field] is not None:
            rows.append(renamed(placed({**first[field], "kind": kind, "name": name})))
    rows += [port_of(row) for row in first["links"]]
    rows += [sensor_of(row) for row in first["sensors"]]
    rows.append(feed_of(first["power"]))
    for field, name in (("crystal", "crystal"), ("clock_crystal", "clock crystal")):
        if first[field]:
            rows.append({"kind": name.replace(" ", "-"), "name": name})
    rows.append(placed({**first["power_switch"], "kind": "power-switch", "name": "switch"}))
    rows.append(placed({**first["programming_port"], "kind": "programming", "name": "port"}))
    return rows


def chip_of(first: Plain) -> Plain:
    """The chip, or the table in its stead."""
    row = placed({**first["chip"], "kind": "chip", "name": "chip"})
    if row["part"] == OWN_CHIP and first["pin_table"]:
        row |= {"table": first["pin_table"]["name"]}
    return row


def renamed(row: Plain) -> Plain:
    """Fields whose names have changed since."""
    if "current_ma" in row:
        row["light_ma"] = row.pop("current_ma")
    if row["kind"] == "speaker":
        row["feed_by"] = row.pop("feed")
    return row


def port_of(row: Plain) -> Plain:
    """A port; the pair to another half was a port of its own, which could not be left out."""
    found = {**row, "kind": PORTS[row["kind"]]}
    if found["kind"] == "serial":
        found["spare"] = row["kind"] == "serial-port"
    return found


def sensor_of(row: Plain) -> Plain:
    """A sensor by how it is read."""
    if row["reading"] == "voltage":
        return {"kind": "voltage-sensor", "name": row["name"]}
    return {**{k: v for k, v in row.items() if k != "reading"}, "kind": "bus-sensor"}


def feed_of(row: Plain) -> Plain:
    """The source; cells lay on the far side."""
    kind = FEEDS[row["kind"]]
    found = placed({**row, "kind": kind, "name": FEED_NAMES.get(row["kind"], "cell")})
    found["place"]["far"] = kind in ("cells", "lithium-cell", "coin-cell", "nine-volt")
    return found
