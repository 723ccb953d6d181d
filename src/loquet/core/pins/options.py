"""Which pins can carry a need, by which function, and at what risk."""

from dataclasses import dataclass
from functools import lru_cache

from loquet.core.parts import AlternateFunction, Chip, ChipPin
from loquet.core.pins.model import Need, NeedKind
from loquet.core.pins.sharing import BOOT_RISK, DEBUG_RISK, OSCILLATOR_RISK, WAKE_RISK


@dataclass(frozen=True)
class Option:
    """A need on a pin.

    `group` names the instance (and remap group) that all signals of one bus must share; `hardware`
    the block that two buses cannot both use; `channel` the timer channel or interrupt line that
    only one signal can have; `remap` what must agree between all signals of a peripheral whose
    functions move together.
    """

    pin: str
    port: str
    function: AlternateFunction | None
    risk: int
    group: str = ""
    hardware: str = ""
    channel: str = ""
    remap: tuple[str, str] | None = None


TWO_WIRE, SERIAL, PORT, SOUND = (
    ("i2c", "fmpi2c", "twim", "usi", "sercom"),
    ("spi", "spim", "usi", "sercom"),
    ("usart", "uart", "lpuart", "uarte", "sercom"),
    ("i2s",),
)
USB = ("usb", "usb_otg_fs", "usb_drd_fs", "usbd")
BUS_SIGNALS: dict[NeedKind, tuple[tuple[str, ...], tuple[str, ...]]] = {
    "two-wire clock": (TWO_WIRE, ("scl",)),
    "two-wire data": (TWO_WIRE, ("sda",)),
    "serial clock": (SERIAL, ("sck",)),
    "serial out": (SERIAL, ("mosi",)),
    "serial in": (SERIAL, ("miso",)),
    "port transmit": (PORT, ("tx",)),
    "port receive": (PORT, ("rx",)),
    "sound clock": (SOUND, ("ck", "sck")),
    "sound word": (SOUND, ("ws", "lrck")),
    "sound data": (SOUND, ("sd", "sdo", "sdout")),
    "usb minus": (USB, ("dm",)),
    "usb plus": (USB, ("dp",)),
}
TIMER_SIGNALS = frozenset(
    ("ch1", "ch2", "ch3", "ch4", "out0", "out1", "out2", "out3", *(f"wo{i}" for i in range(8)))
)
# Ports behind the power switch of the clock domain: 3 mA as a sink, nothing to speak of as a
# source, 2 MHz; data sheets of the family, from memory.
WEAK_PLATFORM = "stm32"
WEAK_PORTS = frozenset(("PC13", "PC14", "PC15"))
LIT_LOADS = ("light", "sounder")
FIXED_SIGNALS: dict[NeedKind, tuple[str, ...]] = {
    "crystal in": ("rcc.osc_in", "rcc.oscx_in"),
    "crystal out": ("rcc.osc_out", "rcc.oscx_out"),
    "slow crystal in": ("rcc.osc32_in",),
    "slow crystal out": ("rcc.osc32_out",),
}


def options_of(need: Need, chip: Chip, locked: str | None = None) -> tuple[Option, ...]:
    """All ways to carry the need, in pin order, or on the locked pin only.

    Reset pins and debug pins are kept for their own work; a lock alone puts something else on a
    debug pin, or a light on a weak one, at a risk that is said.
    """
    if locked is None:
        found = options_of_kind(need.kind, chip)
        if need.load not in LIT_LOADS or not chip.name.startswith(WEAK_PLATFORM):
            return found
        return tuple(option for option in found if option.port not in WEAK_PORTS)
    return tuple(
        dict.fromkeys(
            o
            for pin in chip.pins
            if pin.number == locked and usable(pin, need.kind)
            for o in pin_options(need.kind, pin)
        )
    )


@lru_cache(maxsize=4096)
def options_of_kind(kind: NeedKind, chip: Chip) -> tuple[Option, ...]:
    """All ways to carry a kind of need without a lock, each once (the data set lists some functions
    twice).
    """
    free = (
        pin
        for pin in chip.pins
        if usable(pin, kind) and (kind.startswith("debug") or not is_debug(pin))
    )
    return tuple(dict.fromkeys(option for pin in free for option in pin_options(kind, pin)))


def usable(pin: ChipPin, kind: NeedKind) -> bool:
    """Port pins but reset; dedicated pins for debug and USB only."""
    return not pin.is_reset and (
        pin.kind == "port" or (pin.kind == "dedicated" and kind.startswith(("debug", "usb")))
    )


def pin_options(kind: NeedKind, pin: ChipPin) -> list[Option]:
    """The ways one pin can carry one kind of need."""
    risk = 0 if kind.startswith(("debug", "crystal", "slow")) else risk_of(pin)
    port = pin.ports[0] if pin.ports else pin.name
    if kind in BUS_SIGNALS:
        return bus_options(kind, pin, risk)
    if kind in ("input", "output", "high drive"):
        return [Option(pin.number, port, None, risk)] if able_plain(pin, kind) else []
    if kind == "interrupt":
        return [Option(pin.number, port, None, risk, channel=interrupt_line(pin))]
    if kind == "timer":
        return timer_options(pin, risk)
    first = next((f for f in pin.functions if fits(f, kind)), None)
    if first is None:
        return []
    if kind.startswith("touch"):
        group = f"{first.peripheral} {first.signal.partition('_')[0]}"
        return [Option(pin.number, port, first, risk, group, group)]
    return [Option(pin.number, port, first, risk)]


def able_plain(pin: ChipPin, kind: NeedKind) -> bool:
    """Plain input or output; a pin of a user's own table may be one-way."""
    return not pin.one_way or (pin.one_way == "input") == (kind == "input")


def fits(function: AlternateFunction, kind: NeedKind) -> bool:
    """Whether one function serves a kind that needs no partner."""
    peripheral, signal = function.peripheral, function.signal
    match kind:
        case "analogue":
            return peripheral.startswith(("adc", "saadc")) and is_analogue_input(signal)
        case "converter output":
            return peripheral.startswith("dac") and signal.startswith("out")
        case "touch" | "touch sample":
            return peripheral.startswith("tsc") and "_io" in signal
        case "wake-up":
            return (
                peripheral.startswith(("sys", "pwr")) and signal.startswith("wkup")
            ) or peripheral == "wake"
        case "program in" | "program out" | "program clock":
            return f"{peripheral} {signal}" == kind
        case "debug data":
            return "swdio" in signal
        case "debug clock":
            return "swclk" in signal or "swdclk" in signal
        case _:
            return f"{peripheral}.{signal}" in FIXED_SIGNALS.get(kind, ())


def is_analogue_input(signal: str) -> bool:
    """A single-ended converter input: `in3`, `inp3`, `ain3`, `vinp3`, but no negative one."""
    return signal.startswith(("inp", "ain", "vinp")) or (
        signal.startswith("in") and signal[2:3].isdigit()
    )


def bus_options(kind: NeedKind, pin: ChipPin, risk: int) -> list[Option]:
    """A bus signal on each instance that reaches this pin; with remap groups all signals of a bus
    need the same one.
    """
    drivers, signals = BUS_SIGNALS[kind]
    found = []
    for f in pin.functions:
        if driver_of(f.peripheral) in drivers and f.signal in signals:
            route = f" {f.route}" if f.route.startswith("remap") else ""
            remap = (f.peripheral, f.route) if route else None
            found.append(
                Option(
                    pin.number,
                    pin.ports[0] if pin.ports else pin.name,
                    f,
                    risk,
                    f.peripheral + route,
                    hardware_of(f.peripheral),
                    "",
                    remap,
                )
            )
    return found


def timer_options(pin: ChipPin, risk: int) -> list[Option]:
    """Every plain timer channel of a pin."""
    found = []
    for f in pin.functions:
        if is_timer_output(f):
            remap = (f.peripheral, f.route) if f.route.startswith("remap") else None
            found.append(
                Option(
                    pin.number,
                    pin.ports[0],
                    f,
                    risk,
                    "",
                    f.peripheral,
                    f"{f.peripheral}.{f.signal}",
                    remap,
                )
            )
    return found


def driver_of(peripheral: str) -> str:
    """`i2c1` as `i2c`."""
    return peripheral.rstrip("0123456789")


def hardware_of(peripheral: str) -> str:
    """The block behind a peripheral: sound and serial buses of one number are one block, as are the
    serial blocks of chips with free routing.
    """
    driver, number = driver_of(peripheral), peripheral[len(driver_of(peripheral)) :]
    if driver in ("spi", "i2s"):
        return f"spi{number}"
    if driver in ("spim", "twim"):
        return f"serial block {number}"
    return peripheral


def interrupt_line(pin: ChipPin) -> str:
    """The line that the data set names; else pins of one number share a line on all ports (`PA3`,
    `PB3`: line 3).
    """
    named = next((f.signal for f in pin.functions if f.peripheral == "exint"), "")
    if named:
        return f"interrupt {named}"
    port = pin.ports[0]
    digits = (
        "".join(c for c in port[2:] if c.isdigit())
        if port[:1] == "P" and port[1:2].isalpha()
        else ""
    )
    return f"interrupt line {digits}" if digits else f"interrupt {port}"


def risk_of(pin: ChipPin) -> int:
    """How unwise it is to hang something on this pin (see `sharing`)."""
    risk = BOOT_RISK if pin.is_boot else 0
    risk += OSCILLATOR_RISK if "OSC" in pin.name else 0
    risk += DEBUG_RISK if is_debug(pin) else 0
    return risk + (WAKE_RISK if "TAMP" in pin.name else 0)


def is_timer_output(function: AlternateFunction) -> bool:
    """A plain timer channel, which can make a square wave."""
    return (
        driver_of(function.peripheral) in ("tim", "pwm", "tc", "tcc")
        and function.signal in TIMER_SIGNALS
    )


def shares_debug(need: Need, option: Option) -> bool:
    """Only a lock puts something else on a debug pin; it then shares the pin with the probe, which
    is said as a finding.
    """
    return option.risk >= DEBUG_RISK and not need.kind.startswith("debug")


def is_debug(pin: ChipPin) -> bool:
    """Whether the pin is one of the two debug lines."""
    return any(fits(f, "debug data") or fits(f, "debug clock") for f in pin.functions)
