"""Microcontrollers from the open data set modm-devices (MPL-2.0), read a part at a time."""

import re
from functools import lru_cache
from pathlib import Path
from typing import Any

import modm_devices
from modm_devices.parser import DeviceParser

from loquet.catalogue.bundled import (
    converter_min_mv,
    corrected_port,
    package_by_letters,
    supply_limits_mv,
    usb_of,
)
from loquet.catalogue.free_routing import nrf_functions
from loquet.catalogue.mapped import find_mapped
from loquet.core.parts import AlternateFunction, Chip, ChipPin, PartError, PinKind

DATA_SOURCE = f"modm-devices {modm_devices.__version__} (open data set)"
DEVICES = Path(modm_devices.__file__).parent / "resources" / "devices"
STM32_NAME = re.compile(
    r"^stm32[a-z][0-9a-z][a-z0-9]{2}[a-z][a-z0-9][a-z][0-9][a-z0-9]{0,2}(@m[0347]p?)?$"
)
NRF_NAME = re.compile(r"^nrf5[0-9]{3,4}-[a-z]{4}(@[a-z]{3})?$")
PORT = re.compile(r"^P([A-Z])(\d{1,2})(?![A-Za-z0-9])")
NRF_PORT = re.compile(r"^P(\d)\.(\d{2})")
UNSUITED_FAMILIES = {"wb", "wl", "h7", "f7", "n6", "mp", "52", "53"}
RAILS = {
    "VDD": "supply",
    "VDDA": "supply",
    "VREF+": "supply",
    "VBAT": "supply",
    "VDDUSB": "supply",
    "VDD_USB": "supply",
    "VDDIO2": "supply",
    "VLCD": "supply",
    "VSS": "ground",
    "VSSA": "ground",
    "VREF-": "ground",
    "VCAP": "regulator",
    "VCAP_1": "regulator",
    "VCAP1": "regulator",
    "VCAP_2": "regulator",
}
NO_PATTERN = "is in a package without a land-pattern family here; Pick one in LQFP, QFN or TSSOP."
NO_RECIPE = (
    "needs a radio, a converter or an external core supply that no recipe covers; Pick another"
    " family."
)


def find_chip(name: str) -> Chip:
    """The chip of exactly that name; raises PartError saying what is wrong and what comes near."""
    wanted = name.strip().lower()
    mapped = find_mapped(wanted)
    if mapped is not None:
        return mapped
    if not STM32_NAME.match(wanted) and not NRF_NAME.match(wanted):
        raise PartError(
            name,
            "is not a microcontroller name of the open data set",
            "Write it in full, such as stm32l051c8t6.",
        )
    return read_chip(wanted)


@lru_cache(maxsize=64)
def read_chip(name: str) -> Chip:
    """Read one part; raises PartError where it is unknown."""
    near: list[str] = []
    for path in files_for(name):
        for device in devices_of(path):
            if device.partname == name:
                return chip_of(device)
            near.append(device.partname)
    alike = [other for other in near if other[:9] == name[:9]] or near
    hint = f"Near it: {', '.join(sorted(alike)[:4])}." if alike else "Pick one from the list."
    raise PartError(name, "is not in the open data set", hint)


def files_for(name: str) -> list[Path]:
    """The files of the data set that may describe a part."""
    if name.startswith("nrf"):
        return [
            path for path in sorted((DEVICES / "nrf").glob("*.xml")) if path.stem[:5] == name[:5]
        ]
    return sorted((DEVICES / "stm32").glob(f"{name[:7]}-*.xml"))


def all_files() -> list[Path]:
    """Every file whose parts may have a package pin map."""
    return [*sorted((DEVICES / "stm32").glob("*.xml")), *sorted((DEVICES / "nrf").glob("*.xml"))]


@lru_cache(maxsize=4)
def devices_of(path: Path) -> list[Any]:
    """All parts of one file."""
    return list(DeviceParser().parse(str(path)).get_devices())


def chip_of(device: Any) -> Chip:
    """A chip as core type from a device of the data set; raises PartError where it has no package
    pin map.
    """
    identity, name = device.identifier, device.partname
    gpio = next(
        (driver for driver in device.properties["driver"] if driver["name"] == "gpio"), None
    )
    if gpio is None or "package" not in gpio:
        raise PartError(
            name,
            "has no package pin map in the open data set",
            "Pick another part, or give a pin table of your own.",
        )
    nrf = identity["platform"] == "nrf"
    found = None if nrf else package_by_letters().get(identity["package"] + identity["pin"])
    family = identity["family"]
    pins = package_pins(gpio, nrf_functions(device, gpio) if nrf else port_functions(gpio), nrf)
    reset, boot = corrected_port(name, "reset"), corrected_port(name, "boot")
    pins = tuple(
        pin.model_copy(
            update={
                "is_reset": pin.is_reset or (reset != "" and reset in pin.ports),
                "is_boot": pin.is_boot or (boot != "" and boot in pin.ports),
            }
        )
        for pin in pins
    )
    limits = supply_limits_mv(family)
    package = found or plain_package(gpio["package"][0].get("name", ""))
    return Chip(
        name=name,
        family=family,
        package=package,
        pins=pins,
        usb_clock=usb_of(name, "usb_clock"),
        usb_pull_up=usb_of(name, "usb_pull_up"),
        supply_min_mv=limits[0] if limits else None,
        supply_max_mv=limits[1] if limits else None,
        supply_source="from memory of the maker's data sheet" if limits else "",
        converter_min_mv=converter_min_mv(family),
        uncovered=uncovered(family, found is not None, pins),
        data_source=DATA_SOURCE,
    )


def plain_package(name: str) -> str:
    """The data set's package name without its variant: `LQFP64_N` as `LQFP64`."""
    return name.replace("_", " ").split(" ")[0] or "unknown"


def uncovered(family: str, has_pattern: bool, pins: tuple[ChipPin, ...]) -> str:
    """Why no board can be made with a part yet, or nothing."""
    if not has_pattern:
        return NO_PATTERN
    if family in UNSUITED_FAMILIES:
        return NO_RECIPE
    unknown = next((pin for pin in pins if pin.kind == "unknown"), None)
    return (
        f"has a pin {unknown.number} '{unknown.name}' that no recipe covers; Pick a part"
        " without it."
        if unknown
        else ""
    )


def package_pins(
    gpio: dict[str, Any], functions: dict[str, tuple[AlternateFunction, ...]], nrf: bool
) -> tuple[ChipPin, ...]:
    """All pins of the package in order; several port pins on one package pin are merged."""
    by_number: dict[str, list[dict[str, str]]] = {}
    for pin in gpio["package"][0]["pin"]:
        if pin.get("variant", "remap-default") == "remap-default":
            by_number.setdefault(pin["position"], []).append(pin)
    return tuple(
        package_pin(number, rows, functions, nrf)
        for number, rows in sorted(by_number.items(), key=lambda item: order_of(item[0]))
    )


def order_of(number: str) -> tuple[int, str, int]:
    """Numbers by value, balls by letters then number."""
    letters, digits = number.rstrip("0123456789"), number[len(number.rstrip("0123456789")) :]
    return len(letters), letters, int(digits or 0)


def package_pin(
    number: str,
    rows: list[dict[str, str]],
    functions: dict[str, tuple[AlternateFunction, ...]],
    nrf: bool,
) -> ChipPin:
    """One package pin from its rows; where several ports share it, the first one is used."""
    names = list(dict.fromkeys(row["name"] for row in rows))
    text = " / ".join(names)
    ports = tuple(dict.fromkeys(port for name in names if (port := port_of(name, nrf))))
    kind, rail = kind_of(names[0], ports)
    able = functions.get(ports[0] if ports else names[0], ())
    if kind == "unknown" and able:
        kind = "dedicated"
    return ChipPin(
        number=number,
        name=text,
        kind=kind,
        ports=ports,
        functions=able,
        rail=rail,
        is_reset="NRST" in text,
        is_boot="BOOT0" in text,
    )


def port_of(name: str, nrf: bool) -> str:
    """The port pin in a pin's name: `PA3`, `P0.03`, or nothing."""
    if nrf:
        found = NRF_PORT.match(name)
        return f"P{found[1]}.{found[2]}" if found else ""
    found = PORT.match(name)
    return f"P{found[1]}{int(found[2])}" if found else ""


def kind_of(name: str, ports: tuple[str, ...]) -> tuple[PinKind, str]:
    """The kind of a pin from its name, and its rail where it is a supply."""
    if ports:
        return "port", ""
    if name.startswith("NRST"):
        return "reset", ""
    if name.startswith("BOOT0"):
        return "boot", ""
    if name in ("NC", "N.C.") or name.startswith("UCPD1_DBCC"):
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
                AlternateFunction(
                    peripheral=signal["driver"] + signal.get("instance", ""),
                    signal=signal["name"],
                    route=route,
                )
            )
    for remap in gpio.get("remap", []):
        for group in remap["group"]:
            for signal in group["signal"]:
                port = f"P{signal['port'].upper()}{int(signal['pin'])}"
                peripheral = remap["driver"] + remap.get("instance", "")
                found.setdefault(port, []).append(
                    AlternateFunction(
                        peripheral=peripheral, signal=signal["name"], route=f"remap {group['id']}"
                    )
                )
    return {port: tuple(functions) for port, functions in found.items()}
