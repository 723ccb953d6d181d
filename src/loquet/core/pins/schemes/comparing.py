"""All schemes for one brief, and which of them to take."""

from collections.abc import Callable
from typing import get_args

from loquet.core.brief import Brief, SchemeName
from loquet.core.parts import Part, pattern_of
from loquet.core.pins.chords import together_of
from loquet.core.pins.ghosting import (
    Ghost,
    Together,
    chain_ghosts,
    ghosts,
    least_diodes,
    least_direct,
    rollover,
)
from loquet.core.pins.model import Need
from loquet.core.pins.needing import axes_of, key_needs, keys_seen, ladders_for, needs_with
from loquet.core.pins.schemes.card import GhostPicture, PartLine, SchemeCard
from loquet.core.pins.schemes.ladder import KEYS_A_LADDER, ladder_windows, least_gap
from loquet.core.pins.schemes.timing import latency_ms, scan_us
from loquet.core.pins.wiring import KeyWiring, wire, wiring_of
from loquet.core.power import Rail, rail_of
from loquet.core.provenance import Source, Working, WorkingInput, given

TITLES: dict[SchemeName, str] = {
    "one pin each": "One pin each",
    "diode matrix": "Matrix with diodes",
    "bare matrix": "Matrix without diodes",
    "charlieplexed": "Charlieplexed",
    "expander 8": "Expanders of 8 lines",
    "expander 16": "Expanders of 16 lines",
    "shift register": "Shift registers",
    "resistor ladder": "Resistor ladder",
    "mixed": "Chorded keys direct, the rest in a matrix",
}
INNER_PULL_OHM, OUTER_PULL_OHM, LADDER_PULL_OHM = 40_000.0, 100_000.0, 10_000.0
CENTS_PER_MM2, CENTS_PER_MS = 0.2, 5.0
Fits = Callable[[tuple[Need, ...]], str]


def compare(brief: Brief, parts: dict[str, Part], fits: Fits) -> tuple[SchemeCard, ...]:
    """A card for every scheme; `fits` says why a set of needs does not fit the chip, or nothing
    where it does.

    One is recommended: of those that fit and read all chords, the one with the least of price, area
    and latency (common practice).
    """
    together = together_of(brief)
    cards = [card_of(brief, name, parts, together, fits) for name in get_args(SchemeName)]
    cards = [
        c
        for c in cards
        if c.name != "mixed"
        or c.name == brief.key_scheme.name
        or len(wire(brief, "mixed").direct) > 0
    ]
    good = [c for c in cards if c.fits and c.reads_chords]
    if not good:
        return tuple(cards)
    best = min(good, key=burden)
    chosen = best.model_copy(update={"recommended": True, "reason": reason(best, cards)})
    return tuple(chosen if c.name == best.name else c for c in cards)


def burden(card: SchemeCard) -> float:
    """Price, area (0.2 cents a square millimetre) and latency (5 cents a millisecond) as one sum in
    cents; common practice, no source.
    """
    return card.price_cents + card.area_mm2 * CENTS_PER_MM2 + card.latency_ms * CENTS_PER_MS


def reason(best: SchemeCard, cards: list[SchemeCard]) -> str:
    """Why this one."""
    refused = [c for c in cards if not c.fits and c.pins > best.pins]
    parts = (
        "adds no parts"
        if not best.parts
        else "adds " + ", ".join(f"{p.count} x {p.title}" for p in best.parts)
    )
    text = (
        f"It fits, reads every chord and {parts}; {best.latency_ms:.1f} ms at the most from press"
        " to report."
    )
    return f"{text} {refused[0].title} does not fit." if refused else text


def card_of(
    brief: Brief, name: SchemeName, parts: dict[str, Part], together: Together, fits: Fits
) -> SchemeCard:
    """One scheme for this brief."""
    wiring = wiring_of(brief) if name == brief.key_scheme.name else wire(brief, name)
    lines = key_needs(brief, wiring, keys_seen(brief))
    found = faults_in_chords(wiring, together)
    bill = bill_of(wiring)
    price = price_working(name, bill, parts)
    area = area_working(name, bill, parts)
    scan = scan_us(brief, wiring)
    latency = latency_ms(brief, wiring, scan)
    current = current_working(name, wiring, rail_of(brief))
    why_not = fits(needs_with(brief, wiring))
    matrix = name == "bare matrix"
    return SchemeCard(
        name=name,
        title=TITLES[name],
        shape=shape_words(wiring),
        pins=pins_of(brief, wiring, lines),
        analogue=sum(n.kind == "analogue" for n in lines),
        parts=tuple(PartLine(part=p, title=parts[p].short, count=n) for p, n in bill),
        price_cents=price.value,
        area_mm2=area.value,
        cells=wiring.cells,
        scan_us=scan.value,
        latency_ms=latency.value,
        rollover=rollover_of(wiring),
        reads_chords=not found,
        ghosts=len(found),
        ghost=picture(wiring, found[0]) if found else None,
        cure_diodes=least_diodes(wiring, together) if matrix and found else (),
        cure_direct=least_direct(wiring, together) if matrix and found else (),
        current_ua=current.value,
        fits=not why_not,
        why_not=why_not,
        chosen=name == brief.key_scheme.name,
        workings=(
            price,
            area,
            scan,
            latency,
            current,
            *ladder_workings(wiring),
            *count_workings(name, pins_of(brief, wiring, lines), bill, wiring, len(found)),
        ),
    )


def count_workings(
    name: str, pins: int, bill: list[tuple[str, int]], wiring: KeyWiring, wrong: int
) -> tuple[Working, ...]:
    """What is counted of a scheme: chip pins, added parts, keys that may be held, chords that are
    read wrongly.
    """
    shape = (
        given("rows", wiring.rows, "", "wiring of this way"),
        given("columns", wiring.columns, "", "wiring of this way"),
        given("keys with a pin each", len(wiring.direct), "", "wiring of this way"),
        given("keys in a list", len(wiring.listed), "", "expanders, registers or ladders"),
    )
    parts = tuple(given(part, count, "", "bill of this way") for part, count in bill)
    rows: tuple[tuple[str, str, int, str, tuple[WorkingInput, ...]], ...] = (
        (
            "pins",
            "Chip pins of the keys",
            pins,
            "counted, lines that the keys ask of the chip",
            shape,
        ),
        (
            "parts",
            "Added parts",
            sum(count for _, count in bill),
            " + ".join(part for part, _ in bill) or "0, no parts",
            parts,
        ),
        (
            "held",
            "Keys held at once",
            rollover_of(wiring),
            (
                "counted, the most keys of which any may be held together and all are read; every"
                " set of that many is tried"
            ),
            shape,
        ),
        (
            "wrong",
            "Chords read wrongly",
            wrong,
            (
                "counted, chords of the brief in which a key is read that nobody presses, or a"
                " pressed one is not"
            ),
            shape,
        ),
    )
    return tuple(
        Working(
            id=f"scheme.{name}.{piece}",
            title=title,
            value=value,
            unit="",
            shown=str(value),
            formula=formula,
            inputs=inputs,
            source=Source(kind="computed", text="wiring of the keys and the chords of the brief"),
        )
        for piece, title, value, formula, inputs in rows
    )


def pins_of(brief: Brief, wiring: KeyWiring, lines: list[Need]) -> int:
    """Chip pins of the keys alone; an expander's bus counts where nothing else is on it."""
    shared = any(thing.on_bus() for thing in brief.things)
    return len(lines) + (
        2 if wiring.scheme.startswith("expander") and wiring.listed and not shared else 0
    )


def shape_words(wiring: KeyWiring) -> str:
    """`3 rows x 4 columns`, `2 ladders`."""
    count = len(wiring.listed)
    match wiring.scheme:
        case "one pin each":
            return f"{len(wiring.direct)} pins"
        case "charlieplexed":
            return f"{wiring.rows} lines"
        case "expander 8" | "expander 16":
            return f"{-(-count // int(wiring.scheme.split()[1]))} of them"
        case "shift register":
            return f"{-(-count // 8)} in a row"
        case "resistor ladder":
            return f"{ladders_for(count)} of up to {KEYS_A_LADDER} keys"
        case _:
            direct = f", {len(wiring.direct)} direct" if wiring.direct else ""
            return f"{wiring.rows} rows x {wiring.columns} columns{direct}"


def bill_of(wiring: KeyWiring) -> list[tuple[str, int]]:
    """Parts that a scheme adds to the bare switches."""
    count = len(wiring.listed)
    match wiring.scheme:
        case "diode matrix" | "bare matrix" | "mixed" | "charlieplexed":
            return [("diode-sod123", len(wiring.diodes))] if wiring.diodes else []
        case "expander 8" | "expander 16":
            wide = wiring.scheme.split()[1]
            chips = -(-count // int(wide))
            return [(f"expander-{wide}", chips), ("capacitor-1608", chips)]
        case "shift register":
            chips = -(-count // 8)
            return [
                ("shift-register-8", chips),
                ("resistor-1608", count),
                ("capacitor-1608", chips),
            ]
        case "resistor ladder":
            return [("resistor-1608", count + ladders_for(count))]
        case _:
            return []


def rollover_of(wiring: KeyWiring) -> int:
    """The most keys of which any may be held together and all are read."""
    if wiring.scheme == "resistor ladder":
        return 1 + len(wiring.direct)
    if wiring.cells:
        return rollover(wiring) + len(wiring.direct)
    return len(wiring.listed) + len(wiring.direct)


def faults_in_chords(wiring: KeyWiring, together: Together) -> list[Ghost]:
    """Chords that are read wrongly."""
    match wiring.scheme:
        case "charlieplexed":
            return chain_ghosts(wiring, together)
        case "resistor ladder":
            return ladder_clashes(wiring, together)
        case _:
            return ghosts(wiring, together) if wiring.cells else []


def ladder_clashes(wiring: KeyWiring, together: Together) -> list[Ghost]:
    """Two chorded keys on one ladder: the lower resistor hides the other."""
    found = []
    for start in range(0, len(wiring.listed), KEYS_A_LADDER):
        group = wiring.listed[start : start + KEYS_A_LADDER]
        found += [
            Ghost(b, (a, b))
            for i, a in enumerate(group)
            for b in group[i + 1 :]
            if together(frozenset((a, b)))
        ]
    return found


def picture(wiring: KeyWiring, ghost: Ghost) -> GhostPicture:
    """The ghost with the places that its drawing needs."""
    return GhostPicture(
        key=ghost.key,
        path=ghost.path,
        cells=tuple(c for c in wiring.cells if c[0] == ghost.key or c[0] in ghost.path),
    )


def price_working(name: str, bill: list[tuple[str, int]], parts: dict[str, Part]) -> Working:
    """Price of the added parts for one device."""
    value = sum(parts[p].price_cents * n for p, n in bill)
    return Working(
        id=f"scheme.{name}.price",
        title="Added parts",
        value=value,
        unit="cents",
        shown=f"{value:.0f} cents",
        formula=" + ".join(f"{n} x [{p}]" for p, n in bill) or "0, no parts",
        inputs=tuple(
            given(f"[{p}]", parts[p].price_cents, "cents", "catalogue (invented price)")
            for p, _ in bill
        ),
        source=Source(kind="assumed", text="prices of the bundled catalogue, which are invented"),
    )


def area_working(name: str, bill: list[tuple[str, int]], parts: dict[str, Part]) -> Working:
    """Board area of the added parts: their courtyards."""
    yards = {p: pattern_of(parts[p].body).courtyard for p, _ in bill}
    value = sum(yards[p].w * yards[p].h / 1e12 * n for p, n in bill)
    return Working(
        id=f"scheme.{name}.area",
        title="Board area of added parts",
        value=value,
        unit="mm²",
        shown=f"{value:.0f} mm²",
        formula=" + ".join(f"{n} x [{p}]" for p, n in bill) or "0, no parts",
        inputs=tuple(
            given(f"[{p}]", y.w * y.h / 1e12, "mm²", "courtyard of the land pattern")
            for p, y in yards.items()
        ),
        source=Source(kind="standard", text="IPC-7351B courtyards"),
    )


def current_working(name: str, wiring: KeyWiring, rail: Rail) -> Working:
    """Mean current while one key is held: through its pull-up, in a matrix only while its row is
    driven; plus what helpers draw.
    """
    ohm, origin, share, helpers_ua, formula = pull_of(wiring)
    value = rail.usual_v / ohm * 1e6 * share + helpers_ua
    inputs = [
        WorkingInput(name="V", value=f"{rail.usual_v:g}", unit="V", origin=rail.source.text),
        WorkingInput(name="R", value=f"{ohm / 1000:g}", unit="kΩ", origin=origin),
    ]
    if formula.endswith("rows"):
        rows = f"{round(1 / share)}"
        inputs.append(WorkingInput(name="rows", value=rows, origin="shape of the matrix"))
    if helpers_ua:
        inputs.append(
            WorkingInput(
                name="Ihelpers",
                value=f"{helpers_ua:g}",
                unit="µA",
                origin="1 µA an expander, 2 µA a register; from memory",
            )
        )
    return Working(
        id=f"scheme.{name}.current",
        title="Current while one key is held",
        value=value,
        unit="µA",
        shown=f"{value:.0f} µA",
        formula=formula,
        inputs=tuple(inputs),
        source=Source(
            kind="from memory", text="usual pull-ups; the maker's data sheet gives limits"
        ),
    )


def pull_of(wiring: KeyWiring) -> tuple[float, str, float, float, str]:
    """The pull-up in ohm and whose it is, the share of the time in which it is driven, what helpers
    draw (µA), and the formula.
    """
    count = len(wiring.listed)
    match wiring.scheme:
        case "diode matrix" | "bare matrix" | "mixed" | "charlieplexed":
            share = 1 / max(1, wiring.rows)
            return INNER_PULL_OHM, "usual pull-up inside a chip", share, 0.0, "V / R / rows"
        case "shift register":
            chips = 2.0 * -(-count // 8)
            return OUTER_PULL_OHM, "outer pull-up of a register", 1.0, chips, "V / R + Ihelpers"
        case "expander 8" | "expander 16":
            chips = 1.0 * -(-count // int(wiring.scheme.split()[1]))
            return OUTER_PULL_OHM, "pull-up inside an expander", 1.0, chips, "V / R + Ihelpers"
        case "resistor ladder":
            return LADDER_PULL_OHM, "pull-up of the ladder, lowest key", 1.0, 0.0, "V / R"
        case _:
            return INNER_PULL_OHM, "usual pull-up inside a chip", 1.0, 0.0, "V / R"


def helpers_pf(brief: Brief, wiring: KeyWiring, parts: dict[str, Part]) -> float:
    """What key expanders and an outside converter bring to the two-wire bus, in pF."""
    extra = sum(parts[p].values.get("bus_pf", 0.0) * n for p, n in bill_of(wiring))
    if brief.analogue_by == "converter":
        converter = parts["converter-4"].values
        extra += converter["bus_pf"] * -(-axes_of(brief) // int(converter["channels"]))
    return extra


def ladder_workings(wiring: KeyWiring) -> tuple[Working, ...]:
    """The least distance between windows of the fullest ladder."""
    if wiring.scheme != "resistor ladder" or not wiring.listed:
        return ()
    keys = wiring.listed[:KEYS_A_LADDER]
    gap = least_gap(ladder_windows(keys))
    return (
        Working(
            id="scheme.resistor ladder.gap",
            title="Least distance between windows",
            value=gap,
            unit="codes",
            shown=f"{gap:.0f} codes",
            formula=(
                "counted, codes between the windows that lie nearest, at the worst of tolerance,"
                " worn contacts, leakage and one code each way"
            ),
            inputs=(
                WorkingInput(name="keys", value=str(len(keys)), origin="brief"),
                WorkingInput(name="resistors", value="E96, 1 %", origin="IEC 60063"),
            ),
            source=Source(
                kind="computed",
                text="worst case of the divider with a 12-bit converter on the same rail",
            ),
        ),
    )
