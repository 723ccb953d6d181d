"""Which pins can carry a need, by which function, and at what risk."""

from dataclasses import dataclass

from loquet.core.parts import AlternateFunction, Chip, ChipPin
from loquet.core.pins.model import Need

BOOT_RISK, OSCILLATOR_RISK = 20, 1


@dataclass(frozen=True)
class Option:
    """A need on a pin. `group` names the peripheral and remap group that both bus signals must share."""

    pin: str
    port: str
    function: AlternateFunction | None
    risk: int
    group: str = ""


def options_of(need: Need, chip: Chip) -> tuple[Option, ...]:
    """All ways to carry the need, in pin order; reset pins and debug pins are kept for their own work."""
    found: list[Option] = []
    for pin in chip.pins:
        if pin.kind != "port" or pin.is_reset:
            continue
        if is_debug(pin) and not need.kind.startswith("debug"):
            continue
        found.extend(pin_options(need, pin))
    return tuple(found)


def pin_options(need: Need, pin: ChipPin) -> list[Option]:
    """The ways one pin can carry one need."""
    risk = risk_of(pin)
    match need.kind:
        case "input" | "output":
            return [Option(pin.number, pin.ports[0], None, risk)]
        case "timer":
            return [Option(pin.number, pin.ports[0], f, risk) for f in pin.functions if is_timer_output(f)][:1]
        case "two-wire clock":
            return bus_options(pin, "scl", risk)
        case "two-wire data":
            return bus_options(pin, "sda", risk)
        case "debug data":
            return [Option(pin.number, pin.ports[0], f, 0) for f in pin.functions if is_debug_data(f)][:1]
        case "debug clock":
            return [Option(pin.number, pin.ports[0], f, 0) for f in pin.functions if is_debug_clock(f)][:1]


def bus_options(pin: ChipPin, signal: str, risk: int) -> list[Option]:
    """A bus signal on each instance that reaches this pin; with remap groups both signals need the same one."""
    return [
        Option(pin.number, pin.ports[0], f, risk, group=f.peripheral + (f" {f.route}" if f.route.startswith("remap") else ""))
        for f in pin.functions
        if f.peripheral.startswith("i2c") and f.signal == signal
    ]


def risk_of(pin: ChipPin) -> int:
    """How unwise it is to hang something on this pin: boot pins most, oscillator pins a little (common practice)."""
    return (BOOT_RISK if pin.is_boot else 0) + (OSCILLATOR_RISK if "OSC" in pin.name else 0)


def is_timer_output(function: AlternateFunction) -> bool:
    """A plain timer channel, which can make a square wave."""
    return function.peripheral.startswith("tim") and function.signal in ("ch1", "ch2", "ch3", "ch4")


def is_debug_data(function: AlternateFunction) -> bool:
    """The data line of the two-wire debug port."""
    return "swdio" in function.signal


def is_debug_clock(function: AlternateFunction) -> bool:
    """The clock line of the two-wire debug port."""
    return "swclk" in function.signal


def is_debug(pin: ChipPin) -> bool:
    """Whether the pin is one of the two debug lines."""
    return any(is_debug_data(f) or is_debug_clock(f) for f in pin.functions)
