"""The words of the AVR, RP and SAM files of the open data set, put into those of the others: one
vocabulary for every planner.
"""

import re
from typing import Any

from loquet.core.parts import AlternateFunction

Functions = tuple[AlternateFunction, ...]
WAKE = ("wake", "wkup", "fixed")
COMPARE = re.compile(r"^oc(\d?)([ab])$")
AVR_WORDS = {
    ("usart", "rxd"): ("usart", "rx"),
    ("usart", "txd"): ("usart", "tx"),
    ("twi", "scl"): ("i2c", "scl"),
    ("twi", "sda"): ("i2c", "sda"),
    ("spi", "sck"): ("spi", "sck"),
    ("spi", "mosi"): ("spi", "mosi"),
    ("spi", "miso"): ("spi", "miso"),
    ("usi", "scl"): ("usi", "scl"),
    ("usi", "sda"): ("usi", "sda"),
    ("usi", "usck"): ("usi", "sck"),
    ("usi", "do"): ("usi", "mosi"),
    ("usi", "di"): ("usi", "miso"),
    ("core", "xtal1"): ("rcc", "osc_in"),
    ("core", "xtal2"): ("rcc", "osc_out"),
}
RP_WORDS = {
    ("spi", "rx"): "miso",
    ("spi", "tx"): "mosi",
    ("spi", "sclk"): "sck",
    ("uart", "tx"): "tx",
    ("uart", "rx"): "rx",
    ("i2c", "scl"): "scl",
    ("i2c", "sda"): "sda",
}
SERIAL_PADS = {"out 0 clock 1": (0, 1, (2, 3)), "out 2 clock 3": (2, 3, (0, 1))}
PORT_PADS = {"transmit 0": (0, (1, 2, 3)), "transmit 2": (2, (0, 1, 3))}


def function(peripheral: str, signal: str, route: str) -> AlternateFunction:
    """A function in our words."""
    return AlternateFunction(peripheral=peripheral, signal=signal, route=route)


def functions_of(platform: str, pin: dict[str, Any], two_wire: frozenset[str]) -> Functions:
    """What a port pin can do; `two_wire` names the pins whose pads can hold a two-wire bus."""
    match platform:
        case "avr":
            return avr(pin)
        case "rp":
            return rp(pin)
        case _:
            return sam(pin, port_of(platform, pin) in two_wire)


def port_of(platform: str, pin: dict[str, Any]) -> str:
    """The pin's name in a package map: `PB3`, `PA08`, `GPIO5`, `QSPI_SD0`."""
    if platform == "rp":
        name = pin["name"]
        return f"GPIO{name}" if pin["port"] == "bank0" else f"QSPI_{name.upper()}"
    digits = pin["pin"] if platform == "sam" else str(int(pin["pin"]))
    return f"P{pin['port']}{digits}"


def avr(pin: dict[str, Any]) -> Functions:
    """Converter inputs, buses, compare outputs; a change of any pin in a change group wakes the
    chip.
    """
    found = []
    for s in pin.get("signal", []):
        driver, name, number = s["driver"], s["name"], s.get("instance", "")
        compare = COMPARE.match(name)
        if (driver, name) in AVR_WORDS:
            ours, word = AVR_WORDS[driver, name]
            found.append(function(ours + number, word, "fixed"))
        elif driver == "adc" and name.isdigit():
            found.append(function("adc", f"in{name}", "fixed"))
        elif driver == "tc" and compare:
            timer, channel = number or compare[1], "ab".index(compare[2]) + 1
            found.append(function(f"tim{timer}", f"ch{channel}", "fixed"))
        elif name.startswith("pcint"):
            found += [function("exint", name, "fixed"), function(*WAKE)]
    return tuple(found)


def rp(pin: dict[str, Any]) -> Functions:
    """Buses by function number, two pulse outputs a slice, any pin as a wake-up."""
    if pin["port"] != "bank0":
        return ()
    found = [function(*WAKE)]
    for s in pin.get("signal", []):
        driver, name, route = s["driver"], s["name"], f"function {s.get('af', '')}"
        if (driver, name) in RP_WORDS:
            word = RP_WORDS[driver, name]
            found.append(function(driver + s.get("instance", ""), word, route))
        elif driver == "adc":
            found.append(function("adc", name, "fixed"))
        elif driver == "pwm":
            number = (int(pin["pin"]) >> 1) & 7
            found.append(function(f"pwm{number}", f"out{'ab'.index(name)}", route))
    return tuple(found)


def sam(pin: dict[str, Any], two_wire: bool) -> Functions:
    """Serial blocks by pad number in the combinations that the block allows, converter inputs,
    waveform outputs, interrupt lines.
    """
    found = []
    for s in pin.get("signal", []):
        driver, name, route = s["driver"], s["name"], f"function {s.get('function', '').upper()}"
        index = int(s["index"]) if "index" in s else -1
        block = driver + s.get("instance", "")
        if driver == "sercom" and name == "pad":
            found += pads(block, index, route, two_wire)
        elif driver == "adc" and name == "ain":
            found.append(function("adc", f"ain{index}", route))
        elif driver == "dac" and name == "vout":
            found.append(function("dac", "out", route))
        elif driver in ("tc", "tcc") and name == "wo":
            found.append(function(block, f"wo{index}", route))
        elif driver == "eic" and name == "extint":
            found += [function("exint", f"extint{index}", route), function(*WAKE)]
        elif driver == "usb" and name in ("dm", "dp"):
            found.append(function("usb", name, route))
    return tuple(found)


def pads(block: str, pad: int, route: str, two_wire: bool) -> list[AlternateFunction]:
    """What one pad of a serial block can be; all signals of a bus need one combination."""
    found = []
    if two_wire and pad in (0, 1):
        found.append(function(block, ("sda", "scl")[pad], route))
    for words, (out, clock, inputs) in SERIAL_PADS.items():
        remap = f"remap {words}"
        if pad in (out, clock):
            found.append(function(block, "mosi" if pad == out else "sck", remap))
        elif pad in inputs:
            found.append(function(block, "miso", remap))
    for words, (transmit, receives) in PORT_PADS.items():
        remap = f"remap {words}"
        if pad == transmit:
            found.append(function(block, "tx", remap))
        elif pad in receives:
            found.append(function(block, "rx", remap))
    return found
