"""Sums on buses and converters: frame rate, pull-ups, load, legible text, codes used.

Every figure is a working.
"""

from collections.abc import Mapping
from math import log2

from loquet.core.brief import Brief, Display
from loquet.core.parts.screen import ScreenModule
from loquet.core.provenance import Source, Working, WorkingInput, given
from loquet.core.quantities.shown import show_si

BUS_MANUAL = Source(
    kind="standard",
    text=(
        "UM10204 (I2C-bus specification) section 7.1: Rmin = (VDD - VOL)/IOL, Rmax = tr/(0.8473 Cb)"
    ),
)
RISE_S = {100: 1000e-9, 400: 300e-9}
LOW_LEVEL_V, SINK_A, BUS_LIMIT_PF = 0.4, 3e-3, 400.0
CHIP_PIN_PF, TRACK_PF = 10.0, 8.0  # UM10204: 10 pF a pin at most; 80 mm at 0.1 pF/mm
TWO_WIRE_BLOCK, COMMAND_BYTES = 16, 8
SERIAL_SHARE, PARALLEL_SHARE = 1.0, 0.9
PIXEL_KHZ = 6_000
Modules = Mapping[str, ScreenModule]
LEGIBLE_MM, FONT_ROWS, FONT_COLUMNS = 1.8, 8, 6


def pull_up_limits_ohm(supply_v: float, bus_pf: float, bus_khz: int) -> tuple[float, float]:
    """Least and greatest pull-up in ohm (UM10204 section 7.1)."""
    return (supply_v - LOW_LEVEL_V) / SINK_A, RISE_S[bus_khz] / (0.8473 * bus_pf * 1e-12)


def two_wire_frame_hz(width_px: int, height_px: int, bits: int, bus_khz: int) -> float:
    """Frames a second over two wires: 9 bits a byte, and with every 16 bytes an address and a
    control byte with start and stop.

    A frame is headed by eight command bytes that set the window.
    """
    data = width_px * height_px * bits / 8
    blocks = -(-data // TWO_WIRE_BLOCK)
    return bus_khz * 1000 / (9 * (data + 2 * blocks + COMMAND_BYTES + 2) + 2 * (blocks + 1))


def serial_frame_hz(
    width_px: int, height_px: int, bits: int, mhz: float, share: float = SERIAL_SHARE
) -> float:
    """Frames a second over a serial bus: clock / (w h bits) times the share of the time in which
    data flow.
    """
    return mhz * 1e6 / (width_px * height_px * bits) * share


def parallel_frame_hz(width_px: int, height_px: int, pixel_khz: float = PIXEL_KHZ) -> float:
    """Frames a second over a parallel bus: a pixel a clock, with a tenth of the time for line and
    frame syncs.
    """
    return pixel_khz * 1000 / (width_px * height_px) * PARALLEL_SHARE


def frame_rate(screen: Display, module: ScreenModule) -> Working:
    """The rate at which the whole screen can be written."""
    w, h, bits = module.width_px, module.height_px, module.bits_per_pixel
    of_pixels = (
        given("w", w, "px", module.evidence_text),
        given("h", h, "px", module.evidence_text),
    )
    inputs: tuple[WorkingInput, ...]
    match screen.bus:
        case "two-wire":
            rate = two_wire_frame_hz(w, h, bits, screen.bus_khz)
            formula = (
                "f / (9 x (data + 2 x blocks + commands + 2) + 2 x (blocks + 1)), 9 bits a byte"
                " with start and stop"
            )
            data = w * h * bits / 8
            inputs = (
                given("f", screen.bus_khz, "kHz", "brief"),
                given("data", data, "bytes", module.evidence_text),
                given(
                    "blocks", -(-data // TWO_WIRE_BLOCK), "", "16 bytes a block; common practice"
                ),
                given("commands", COMMAND_BYTES, "bytes", "sets the window; common practice"),
            )
        case "one-way serial":
            rate, formula = serial_frame_hz(w, h, bits, screen.serial_mhz), "f / (w x h x bits)"
            inputs = (
                given("f", screen.serial_mhz, "MHz", "brief"),
                *of_pixels,
                given("bits", bits, "", module.evidence_text),
            )
        case "parallel colour":
            rate, formula = parallel_frame_hz(w, h), "f / (w x h) x share"
            inputs = (
                given("f", PIXEL_KHZ / 1000, "MHz", "pixel clock of such screens; from memory"),
                *of_pixels,
                given("share", PARALLEL_SHARE, "", "the rest goes to the syncs; assumed"),
            )
    return Working(
        id="screen.rate",
        title="Frames a second",
        value=rate,
        unit="Hz",
        shown=f"{rate:.1f} Hz",
        formula=formula,
        inputs=(
            *inputs,
            WorkingInput(
                name="wanted",
                value=f"{screen.rate_hz:g} Hz" if screen.rate_hz else "not said",
                origin="brief",
            ),
        ),
        source=Source(
            kind="computed",
            text="bits on the wire; block of 16 bytes and command bytes are common practice",
        ),
    )


def legible_text(module: ScreenModule) -> tuple[int, int, float]:
    """Rows and columns of text that can be read at arm's length, and the character height in mm.

    A character is 6 x 8 pixels at least, and at least 1.8 mm high: grown by whole pixels until it
    is (common practice, no source).
    """
    pixel_mm = module.active_mm[1] / module.height_px
    times = max(1, -(-LEGIBLE_MM // (FONT_ROWS * pixel_mm)))
    return (
        int(module.height_px // (FONT_ROWS * times)),
        int(module.width_px // (FONT_COLUMNS * times)),
        FONT_ROWS * times * pixel_mm,
    )


def text_working(screen: Display, module: ScreenModule) -> Working:
    """What text the screen can show."""
    rows, columns, high = legible_text(module)
    return Working(
        id="screen.text",
        title="Legible text",
        value=rows,
        unit="",
        shown=f"{rows} rows of {columns} ({high:.1f} mm high)",
        formula=(
            "floor(h / (font x ceil(least / (font x pixel)))), a character grows by whole pixels"
            " until it is high enough"
        ),
        inputs=(
            given("h", module.height_px, "px", module.evidence_text),
            given("font", FONT_ROWS, "px", "rows of the least character; common practice"),
            given("least", LEGIBLE_MM, "mm", "read at arm's length; common practice"),
            given("pixel", module.active_mm[1] / module.height_px, "mm", module.evidence_text),
            WorkingInput(
                name="wanted",
                value=f"{screen.rows or 'any'} rows of {screen.columns or 'any'}",
                origin="brief",
            ),
        ),
        source=Source(kind="common practice", text="1.8 mm characters at arm's length; no source"),
    )


def bus_load_pf(brief: Brief, modules: Modules, extra_pf: float = 0.0) -> float:
    """Capacitance of the two-wire bus: the chip's pin, the track, everything that hangs on it, and
    what helpers add.
    """
    load = CHIP_PIN_PF + TRACK_PF + extra_pf
    for thing in brief.things:
        bus, display = thing.on_bus(), thing.display()
        if bus:
            load += bus.load_pf
            module = modules.get(display.part) if display else None
            load += module.bus_pf if module else 0.0
    return load


def bus_workings(
    brief: Brief, modules: Modules, extra_pf: float, khz: int, supply_v: float
) -> tuple[Working, Working]:
    """Load of the two-wire bus and the range of its pull-ups."""
    load = bus_load_pf(brief, modules, extra_pf)
    least, greatest = pull_up_limits_ohm(supply_v, load, khz)
    devices = load - CHIP_PIN_PF - TRACK_PF
    rise_ns = RISE_S[khz] * 1e9
    return (
        Working(
            id="bus.load",
            title="Load of the two-wire bus",
            value=load,
            unit="pF",
            shown=f"{load:.0f} of {BUS_LIMIT_PF:.0f} pF",
            formula="Cpin + Ctrack + Cdevices",
            inputs=(
                WorkingInput(
                    name="Cpin", value=f"{CHIP_PIN_PF:g}", unit="pF", origin="UM10204: 10 pF a pin"
                ),
                WorkingInput(
                    name="Ctrack",
                    value=f"{TRACK_PF:g}",
                    unit="pF",
                    origin="80 mm at 0.1 pF/mm; common practice",
                ),
                WorkingInput(
                    name="Cdevices",
                    value=f"{devices:g}",
                    unit="pF",
                    origin="everything on the bus by the brief and the parts' drawings",
                ),
            ),
            source=BUS_MANUAL,
        ),
        Working(
            id="bus.pull_ups",
            title="Range of the pull-ups",
            value=greatest,
            unit="Ω",
            shown=f"{show_si(least, 'Ω')} to {show_si(greatest, 'Ω')}",
            formula="tr / (0.8473 x Cb), at the most; at the least (VDD - VOL) / IOL",
            inputs=(
                WorkingInput(name="tr", value=f"{rise_ns:.0f}", unit="ns", origin=f"{khz} kHz"),
                WorkingInput(name="Cb", value=f"{load:g}", unit="pF", origin="load of the bus"),
                WorkingInput(name="VDD", value=f"{supply_v:g}", unit="V", origin="the rail"),
                WorkingInput(name="VOL", value=f"{LOW_LEVEL_V:g}", unit="V", origin="UM10204"),
                WorkingInput(name="IOL", value=f"{SINK_A * 1e3:g}", unit="mA", origin="UM10204"),
            ),
            source=BUS_MANUAL,
        ),
    )


def codes_used(span_v: float, reference_v: float, bits: int) -> tuple[float, float]:
    """Codes that a span of voltage uses of a converter, and the bits that are lost: log2(reference
    / span).
    """
    return min(span_v / reference_v, 1.0) * 2**bits, max(0.0, log2(reference_v / span_v))


def divider_ratio(supply_v: float, reference_v: float) -> float:
    """The share of a higher supply that just fits the converter's reference; 1 where none is
    needed.
    """
    return min(1.0, reference_v / supply_v)


def axis_working(
    name: str, title: str, span_share: float, supply_v: float, reference_v: float, bits: int = 12
) -> Working:
    """What an analogue axis uses of the converter, with a divider where its supply is above the
    reference.
    """
    ratio = divider_ratio(supply_v, reference_v)
    span = span_share * supply_v * ratio
    codes, lost = codes_used(span, reference_v, bits)
    divider = (
        f"; divider 1 : {1 / ratio:.2f} from {supply_v:g} V to {reference_v:g} V"
        if ratio < 1
        else ""
    )
    return Working(
        id=f"axis.{name}",
        title=f"Codes used by {title}",
        value=codes,
        unit="",
        shown=f"{codes:.0f} of {2**bits} ({lost:.2f} bits lost)",
        formula=f"span / reference x 2^{bits}, the rest of the codes is never reached{divider}",
        inputs=(
            WorkingInput(
                name="span",
                value=f"{span:.6g}",
                unit="V",
                origin=f"{span_share:.0%} of {supply_v:g} V by the part's drawing",
            ),
            WorkingInput(
                name="reference",
                value=f"{reference_v:g}",
                unit="V",
                origin="the rail",
            ),
        ),
        source=Source(
            kind="computed", text="codes = span/reference x 2^n; bits lost = log2(reference/span)"
        ),
    )
