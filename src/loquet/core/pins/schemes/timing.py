"""How long a scan takes, and the longest time from a press to its report."""

from loquet.core.brief import Brief
from loquet.core.pins.needing import bus_host, bus_khz_of
from loquet.core.pins.wiring import KeyWiring
from loquet.core.provenance import Source, Working, WorkingInput, given

PULL_UP_OHM = 40_000.0
LINE_PF, KEY_PF = 20.0, 5.0
READ_US = 1.0
REGISTER_KHZ = 1000
CONVERT_US = 20.0
FIRMWARE_LOOP_MS = 1.0
DEBOUNCE_MS = 5.0
MEMORY = Source(
    kind="from memory", text="usual figures of such parts; the maker's data sheet gives limits"
)
PRACTICE = Source(kind="common practice", text="scan, debounce of 5 ms, report interval; no source")


def settle_us(keys_on_line: int) -> float:
    """Time for a line to rise: three time constants of the pull-up and the line's capacitance, in
    microseconds.
    """
    return 3 * PULL_UP_OHM * (LINE_PF + KEY_PF * keys_on_line) * 1e-12 * 1e6


def expander_scan_us(chips: int, wide: int, bus_khz: int) -> float:
    """Reading all expanders over the bus: address, register, address again and the lines, 9 bits a
    byte, with start and stop.
    """
    bits = chips * (9 * (3 + wide // 8) + 3)
    return bits / bus_khz * 1000


def scan_us(brief: Brief, wiring: KeyWiring) -> Working:
    """The time of one whole scan in microseconds, with its formula."""
    direct = READ_US if wiring.direct else 0.0
    count = len(wiring.listed)
    inputs: tuple[WorkingInput, ...]
    match wiring.scheme:
        case "one pin each":
            value, formula, inputs = READ_US, "read", ()
        case "diode matrix" | "bare matrix" | "mixed":
            value = wiring.rows * (settle_us(wiring.rows) + READ_US) + direct
            formula, inputs = MATRIX_SCAN, matrix_inputs(wiring.rows, wiring.rows)
        case "charlieplexed":
            value = wiring.rows * (settle_us(2 * (wiring.rows - 1)) + READ_US) + direct
            formula, inputs = MATRIX_SCAN, matrix_inputs(wiring.rows, 2 * (wiring.rows - 1))
        case "expander 8" | "expander 16":
            wide, khz = int(wiring.scheme.split()[1]), bus_khz_of(brief)
            chips = -(-count // wide)
            value = expander_scan_us(chips, wide, khz) + direct
            formula = "chips x (9 x bytes + 3) / f + direct, 9 bits a byte with starts and stop"
            inputs = (
                given("chips", chips, "", "keys by lines of an expander"),
                given("bytes", 3 + wide // 8, "", "two addresses, a register, the lines"),
                given("f", khz, "kHz", "the two-wire bus"),
            )
        case "shift register":
            value = (8 * -(-count // 8) + 2) / REGISTER_KHZ * 1000 + direct
            formula = "(8 x registers + 2) / f + direct, with two steps of loading"
            inputs = (
                given("registers", -(-count // 8), "", "eight keys each"),
                given("f", REGISTER_KHZ, "kHz", "assumed"),
            )
        case "resistor ladder":
            value = -(-count // 8) * CONVERT_US + direct
            formula = "ladders x conversion + direct"
            inputs = (
                given("ladders", -(-count // 8), "", "eight keys each"),
                given("conversion", CONVERT_US, "µs", "with settling; from memory"),
            )
    added = given("direct", direct, "µs", "keys with a pin of their own: one read of the ports")
    return Working(
        id=f"scheme.{wiring.scheme}.scan",
        title="Scan time",
        value=value,
        unit="µs",
        shown=f"{value:.0f} µs",
        formula=formula,
        inputs=(*inputs, added) if inputs else (READ,),
        source=MEMORY,
    )


MATRIX_SCAN = "lines x (3 x R x C + read) + direct"
READ = given("read", READ_US, "µs", "one read of the ports; assumed")


def matrix_inputs(lines: int, keys_on_line: int) -> tuple[WorkingInput, ...]:
    """What the scan of a matrix is made of: driven lines, pull-up, and the line with its keys."""
    load = LINE_PF + KEY_PF * keys_on_line
    return (
        given("lines", lines, "", "driven one after the other"),
        given("R", PULL_UP_OHM / 1000, "kΩ", "usual pull-up inside a chip; from memory"),
        given("C", load, "pF", f"{LINE_PF:g} pF and {KEY_PF:g} pF for each key; assumed"),
        READ,
    )


def report_ms(brief: Brief) -> float:
    """The longest wait for the report: the polling interval of a USB host, or the period with which
    a host's keys are scanned.
    """
    return 0.0 if brief.role == "stand-alone" else 1.0


def bus_wait_ms(brief: Brief, wiring: KeyWiring) -> float:
    """The longest wait for a bus that a two-wire screen is being written over: one page of 128
    bytes.
    """
    shared = wiring.scheme in ("expander 8", "expander 16") and bus_host(brief) is not None
    return 128 * 9 / bus_khz_of(brief) if shared else 0.0


def latency_ms(brief: Brief, wiring: KeyWiring, scan: Working) -> Working:
    """Worst case from press to report: wait for the scan, the scan, debounce, report interval, in
    milliseconds.
    """
    wait, report, bus = (
        max(FIRMWARE_LOOP_MS, scan.value / 1000),
        report_ms(brief),
        bus_wait_ms(brief, wiring),
    )
    value = wait + scan.value / 1000 + bus + DEBOUNCE_MS + report
    return Working(
        id=f"scheme.{wiring.scheme}.latency",
        title="Longest time from press to report",
        value=value,
        unit="ms",
        shown=f"{value:.1f} ms",
        formula="wait for scan + scan + wait for bus + debounce + report",
        inputs=(
            WorkingInput(
                name="wait for scan",
                value=f"{wait:.6g}",
                unit="ms",
                origin="a loop of 1 ms, or the scan where that is longer",
            ),
            WorkingInput(
                name="scan", value=f"{scan.value / 1000:.6g}", unit="ms", origin="scan time"
            ),
            WorkingInput(
                name="wait for bus",
                value=f"{bus:.6g}",
                unit="ms",
                origin="one page of the screen on the same bus",
            ),
            WorkingInput(
                name="debounce",
                value=f"{DEBOUNCE_MS:.0f}",
                unit="ms",
                origin="common practice: 5 to 10 ms",
            ),
            WorkingInput(
                name="report",
                value=f"{report:.0f}",
                unit="ms",
                origin="polling of 1 ms at full speed" if report else "stand-alone: no report",
            ),
        ),
        source=PRACTICE,
    )
