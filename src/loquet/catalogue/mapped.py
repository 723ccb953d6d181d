"""Chips whose functions the open data set has and whose package maps are ours, and ready modules
that carry a chip.
"""

from functools import cache
from pathlib import Path
from typing import Any

import modm_devices
from modm_devices.parser import DeviceParser

from loquet.catalogue.bundled import table, usb_of
from loquet.catalogue.translating import Functions, function, functions_of, port_of
from loquet.core.parts import Chip, ChipPin, PartError, PinKind

DEVICES = Path(modm_devices.__file__).parent / "resources" / "devices"
DATA_SOURCE = (
    f"functions: modm-devices {modm_devices.__version__} (open data set); package map: from memory"
)
SUPPLIES = frozenset(
    ("VCC", "AVCC", "IOVDD", "ADC_AVDD", "USB_VDD", "VREG_VIN", "VDDANA", "VDDIO", "VDDIN", "VIN")
)
GROUNDS = frozenset(("GND", "GNDANA", "TESTEN"))
CORES = frozenset(("DVDD", "VREG_VOUT", "VDDCORE", "AREF"))
FIXED: dict[str, Functions] = {
    "SWDIO": (function("debug", "swdio", "fixed"),),
    "SWCLK": (function("debug", "swclk", "fixed"),),
    "USB_DM": (function("usb", "dm", "fixed"),),
    "USB_DP": (function("usb", "dp", "fixed"),),
    "XIN": (function("rcc", "osc_in", "fixed"),),
    "XOUT": (function("rcc", "osc_out", "fixed"),),
}


def mapped_names() -> tuple[str, ...]:
    """Every chip that has a map here, then every module."""
    chips = [name for row in table("package_maps")["map"] for name in sorted(devices(row))]
    return (*dict.fromkeys(chips), *modules())


@cache
def modules() -> dict[str, dict[str, Any]]:
    """Ready modules by id."""
    return {row["id"]: row for row in table("package_maps")["module"]}


def row_for(name: str) -> dict[str, Any] | None:
    """The map that a part name falls under."""
    for row in table("package_maps")["map"]:
        if name.startswith(tuple(row["parts"])) and name.endswith(tuple(row["ends"])):
            return dict(row)
    return None


def devices(row: dict[str, Any]) -> dict[str, Any]:
    """The data set's parts that a map covers, by name."""
    return {
        name: device
        for path in files_of(row["platform"])
        if any(path.stem[:4] == part[:4] for part in row["parts"])
        for name, device in devices_in(path).items()
        if name.startswith(tuple(row["parts"])) and name.endswith(tuple(row["ends"]))
    }


@cache
def files_of(platform: str) -> tuple[Path, ...]:
    """The files of a platform."""
    return tuple(sorted((DEVICES / platform).glob("*.xml")))


@cache
def devices_in(path: Path) -> dict[str, Any]:
    """The parts of one file by name."""
    return {d.partname: d for d in DeviceParser().parse(str(path)).get_devices()}


@cache
def find_mapped(name: str) -> Chip | None:
    """The chip or module of that name where it is one of these; raises PartError where the data set
    lacks the part.
    """
    if name in modules():
        return module_of(modules()[name])
    row = row_for(name)
    return chip_of(name, row) if row else None


def chip_of(name: str, row: dict[str, Any]) -> Chip:
    """A chip from its map and the data set's functions; raises PartError."""
    functions = functions_by_port(name)
    pins = tuple(
        pin_of(str(index), port, row["reset"], functions)
        for index, port in enumerate(row["pins"].split(), 1)
    )
    low, high = row["supply_mv"]
    core = row.get("core", "")
    return Chip(
        name=name,
        family=row["platform"],
        package=row["package"],
        pins=pins,
        usb_clock=usb_of(name, "usb_clock"),
        usb_pull_up=usb_of(name, "usb_pull_up"),
        supply_min_mv=low,
        supply_max_mv=high,
        supply_source="from memory of the maker's data sheet",
        core_capacitor=core,
        uncovered=row.get("keeps", ""),
        data_source=DATA_SOURCE,
        pins_from="memory",
    )


def module_of(row: dict[str, Any]) -> Chip:
    """A ready module: its pads with what the chip on it can do there."""
    chip = row_for(row["chip"])
    assert chip is not None
    carried = next(name for name in sorted(devices(chip)) if name.startswith(row["chip"]))
    functions = functions_by_port(carried)
    low, high = row["supply_mv"]
    return Chip(
        name=row["id"],
        family="module",
        package=row["package"],
        pins=tuple(
            pin_of(str(index), port, chip["reset"], functions)
            for index, port in enumerate(row["pads"].split(), 1)
        ),
        supply_min_mv=low,
        supply_max_mv=high,
        supply_source=row["evidence"],
        module=True,
        data_source=f"{row['title']}: {row['evidence']}",
        pins_from="measurement",
    )


def pin_of(number: str, name: str, reset: str, functions: dict[str, Functions]) -> ChipPin:
    """One pin of a map."""
    able = functions.get(name, FIXED.get(name, ()))
    return ChipPin(
        number=number,
        name=name,
        kind=kind_of(name, name == reset, bool(able)),
        ports=(name,) if name in functions and name not in FIXED else (),
        functions=able,
        is_reset=name == reset,
        rail=name if name in SUPPLIES | GROUNDS | CORES | {"3V3"} else "",
    )


def kind_of(name: str, reset: bool, able: bool) -> PinKind:
    """What a pin is, by its name in the map."""
    if reset:
        return "reset"
    if name in SUPPLIES:
        return "supply"
    if name == "3V3":
        return "gives"
    if name in GROUNDS:
        return "ground"
    if name in CORES:
        return "regulator"
    if name in FIXED and able:
        return "dedicated"
    return "port" if able or name[:1] == "P" or name.startswith("GPIO") else "unused"


@cache
def functions_by_port(name: str) -> dict[str, Functions]:
    """What every port pin of a chip can do; raises PartError where the data set has no such
    part.
    """
    row = row_for(name)
    device = devices(row).get(name) if row else None
    if row is None or device is None:
        raise PartError(name, "is not in the open data set", "Pick one from the list.")
    gpio = next(d for d in device.properties["driver"] if d["name"] == "gpio")
    buses = frozenset(row.get("two_wire", "").split())
    found = {
        port_of(row["platform"], pin): functions_of(row["platform"], pin, buses)
        for pin in gpio["gpio"]
    }
    for word, port in zip(("swdio", "swclk"), row.get("debug", ()), strict=False):
        found[port] = (*found.get(port, ()), function("debug", word, "fixed"))
    for word, port in zip(("in", "out", "clock"), row.get("program", "").split(), strict=False):
        found[port] = (*found.get(port, ()), function("program", word, "fixed"))
    return found
