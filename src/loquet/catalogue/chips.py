"""Microcontrollers from the open data set modm-devices (MPL-2.0), read a part at a time."""

import json
import re
from functools import lru_cache
from pathlib import Path
from typing import Any, NamedTuple

import modm_devices
from modm_devices.parser import DeviceParser

from loquet.catalogue.bundled import package_bodies, supply_limits_mv
from loquet.core.parts import AlternateFunction, Chip, ChipPin, PartError, PinKind

DATA_SOURCE = f"modm-devices {modm_devices.__version__} (open data set)"
RESOURCES = Path(modm_devices.__file__).parent / "resources" / "devices" / "stm32"
NAME = re.compile(r"^stm32[a-z][0-9][a-z0-9]{2}[a-z][a-z0-9][a-z][0-9][a-z0-9]{0,2}$")
PORT = re.compile(r"^P([A-K])(\d{1,2})(?![A-Za-z0-9])")
UNSUITED_FAMILIES = {"wb", "wl", "h7", "f7", "n6", "mp"}
RAILS = {
    "VDD": "supply", "VDDA": "supply", "VREF+": "supply", "VBAT": "supply", "VDDUSB": "supply", "VDD_USB": "supply",
    "VDDIO2": "supply", "VLCD": "supply", "VSS": "ground", "VSSA": "ground", "VREF-": "ground",
    "VCAP": "regulator", "VCAP_1": "regulator", "VCAP1": "regulator", "VCAP_2": "regulator",
}  # fmt: skip


class ListedChip(NamedTuple):
    """A row of the index: enough to search by."""

    name: str
    family: str
    package: str
    ports: int


def find_chip(name: str) -> Chip:
    """The chip of exactly that name; raises PartError saying what is wrong and what comes near."""
    wanted = name.strip().lower()
    if not NAME.match(wanted):
        raise PartError(name, "is not a microcontroller name of the open data set", "Write it in full, such as stm32l051c8t6.")
    return read_chip(wanted)


@lru_cache(maxsize=32)
def read_chip(name: str) -> Chip:
    """Read one part; raises PartError where it is unknown or its package or supplies are not covered."""
    parser = DeviceParser()
    near: list[str] = []
    for path in sorted(RESOURCES.glob(f"{name[:7]}-*.xml")):
        for device in parser.parse(str(path)).get_devices():
            if device.partname == name:
                return chip_of(device)
            near.append(device.partname)
    alike = [other for other in near if other[:9] == name[:9]] or near
    hint = f"Near it: {', '.join(sorted(alike)[:4])}." if alike else "Pick one from the list."
    raise PartError(name, "is not in the open data set", hint)


def chip_of(device: Any) -> Chip:
    """A chip as core type from a device of the data set; raises PartError where it is not covered."""
    identity, name = device.identifier, device.partname
    found = package_bodies().get(identity["package"] + identity["pin"])
    if found is None:
        raise PartError(name, "is in a package without a land-pattern family here", "Pick one in LQFP, QFN or TSSOP.")
    if identity["family"] in UNSUITED_FAMILIES:
        raise PartError(name, "needs a radio, a converter or an external core supply that no recipe covers", "Pick another family.")
    gpio = next(driver for driver in device.properties["driver"] if driver["name"] == "gpio")
    pins = package_pins(gpio, name)
    limits = supply_limits_mv(identity["family"])
    return Chip(
        name=name,
        family=identity["family"],
        package=found[0],
        pins=pins,
        supply_min_mv=limits[0] if limits else None,
        supply_max_mv=limits[1] if limits else None,
        supply_source="from memory of the maker's data sheet" if limits else "",
        data_source=DATA_SOURCE,
    )


def package_pins(gpio: dict[str, Any], name: str) -> tuple[ChipPin, ...]:
    """All pins of the package in order; several port pins on one package pin are merged."""
    functions = port_functions(gpio)
    by_number: dict[str, list[dict[str, str]]] = {}
    for pin in gpio["package"][0]["pin"]:
        if pin.get("variant", "remap-default") == "remap-default":
            by_number.setdefault(pin["position"], []).append(pin)
    pins = [package_pin(number, rows, functions) for number, rows in sorted(by_number.items(), key=lambda item: int(item[0]))]
    for pin in pins:
        if pin.kind == "unknown":
            raise PartError(name, f"has a pin {pin.number} '{pin.name}' that no recipe covers", "Pick a part without it.")
    return tuple(pins)


def package_pin(number: str, rows: list[dict[str, str]], functions: dict[str, tuple[AlternateFunction, ...]]) -> ChipPin:
    """One package pin from its rows; where several ports share it, the first one is used."""
    names = list(dict.fromkeys(row["name"] for row in rows))
    text = " / ".join(names)
    ports = tuple(dict.fromkeys(f"P{m[1]}{int(m[2])}" for name in names if (m := PORT.match(name))))
    kind, rail = kind_of(names[0], ports)
    able = functions.get(ports[0], ()) if ports else ()
    return ChipPin(
        number=number, name=text, kind=kind, ports=ports, functions=able, rail=rail,
        is_reset="NRST" in text, is_boot="BOOT0" in text,
    )  # fmt: skip


def kind_of(name: str, ports: tuple[str, ...]) -> tuple[PinKind, str]:
    """The kind of a pin from its name, and its rail where it is a supply."""
    if ports:
        return "port", ""
    if name.startswith("NRST"):
        return "reset", ""
    if name.startswith("BOOT0"):
        return "boot", ""
    if name == "NC" or name.startswith("UCPD1_DBCC"):
        return "unused", ""
    first = name.split("/")[0]
    match RAILS.get(first):
        case "supply":
            return "supply", first
        case "ground":
            return "ground", first
        case "regulator":
            return "regulator", first
    return "unknown", ""


def port_functions(gpio: dict[str, Any]) -> dict[str, tuple[AlternateFunction, ...]]:
    """Functions by port pin; older families carry remap groups in place of function numbers."""
    found: dict[str, list[AlternateFunction]] = {}
    for pin in gpio["gpio"]:
        port = f"P{pin['port'].upper()}{int(pin['pin'])}"
        for signal in pin.get("signal", []):
            if "driver" not in signal:
                continue
            route = f"AF{signal['af']}" if "af" in signal else "fixed"
            found.setdefault(port, []).append(
                AlternateFunction(peripheral=signal["driver"] + signal.get("instance", ""), signal=signal["name"], route=route)
            )
    for remap in gpio.get("remap", []):
        for group in remap["group"]:
            for signal in group["signal"]:
                port = f"P{signal['port'].upper()}{int(signal['pin'])}"
                peripheral = remap["driver"] + remap.get("instance", "")
                found.setdefault(port, []).append(AlternateFunction(peripheral=peripheral, signal=signal["name"], route=f"remap {group['id']}"))
    return {port: tuple(functions) for port, functions in found.items()}


def bake_index() -> list[ListedChip]:
    """Every covered part at the ordinary temperature grade, sorted by name; about 15 s."""
    parser, rows = DeviceParser(), []
    for path in sorted(RESOURCES.glob("*.xml")):
        for device in parser.parse(str(path)).get_devices():
            identity = device.identifier
            if identity["temperature"] != "6" or identity["package"] + identity["pin"] not in package_bodies():
                continue
            try:
                chip = chip_of(device)
            except PartError:
                continue
            rows.append(ListedChip(chip.name, chip.family, chip.package, sum(pin.kind == "port" for pin in chip.pins)))
    return sorted(rows)


def listed_chips(cache: Path) -> list[ListedChip]:
    """The index from its cache file, baked first where it is missing or from another data set."""
    if cache.exists():
        saved = json.loads(cache.read_text("utf-8"))
        if saved.get("source") == DATA_SOURCE:
            return [ListedChip(*row) for row in saved["rows"]]
    rows = bake_index()
    cache.parent.mkdir(parents=True, exist_ok=True)
    draft = cache.with_suffix(".draft")
    draft.write_text(json.dumps({"source": DATA_SOURCE, "rows": rows}), "utf-8")
    draft.replace(cache)
    return rows
