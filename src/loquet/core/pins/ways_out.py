"""What to give up when the pins run out: every way is tried on the solver before it is offered, and
ranked by cost.
"""

from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from itertools import combinations
from typing import Any, get_args

from loquet.core.brief import Brief, Display, SchemeName, Thing
from loquet.core.parts import Part
from loquet.core.parts.listing import ListedChip, Stock
from loquet.core.parts.screen import ScreenModule
from loquet.core.pins.chords import together_of
from loquet.core.pins.needing import axes_of, needs_of
from loquet.core.pins.schemes.comparing import (
    TITLES,
    area_working,
    bill_of,
    faults_in_chords,
    price_working,
)
from loquet.core.pins.schemes.timing import latency_ms, scan_us
from loquet.core.pins.wiring import wire
from loquet.core.plain.frozen import Frozen
from loquet.core.provenance import Source, Working, given

REDRAWN_CENTS, SMALLER_SCREEN_CENTS, BITS_CENTS, SLOWER_CENTS = 120.0, 250.0, 25.0, 150.0
AREA_CENTS_PER_MM2, OUTSIDE_READER_CENTS = 0.2, 20.0
COLOUR_STEPS = (18, 16, 15, 12, 9, 6, 3)
MOST_CHIPS = 14
Fits = Callable[[Brief], bool]
Edit = dict[str, Any]


class WayOut(Frozen):
    """A way out: the words on the button, what it costs and gives up, and the edits that make it.

    `cost` ranks the ways, in cents: added parts, and what the change asks of the maker (common
    practice, no source).
    """

    title: str
    gives_up: str
    cost: float
    price_cents: float
    edits: tuple[dict[str, Any], ...]
    working: Working


class Shelf(Frozen):
    """What the ways draw on: parts, screens, chips with their stock at the simulated supplier."""

    parts: dict[str, Part]
    screens: dict[str, ScreenModule]
    chips: tuple[tuple[ListedChip, Stock], ...]


Term = tuple[str, float, str]


def way_out(
    title: str,
    gives_up: str,
    edits: tuple[Edit, ...],
    price: Sequence[Term],
    burden: Sequence[Term],
) -> WayOut:
    """A way whose price and burden are sums of terms (name, cents, origin)."""
    terms = (*price, *burden)
    cost = sum(cents for _, cents, _ in terms)
    return WayOut(
        title=title,
        gives_up=gives_up,
        cost=cost,
        price_cents=sum(cents for _, cents, _ in price),
        edits=edits,
        working=Working(
            id="way.cost",
            title=f"What ranks this way: {title}",
            value=cost,
            unit="cents",
            shown=f"{cost:.0f} cents",
            formula=" + ".join(name for name, _, _ in terms) or "0, nothing is added",
            inputs=tuple(given(name, cents, "cents", origin) for name, cents, origin in terms),
            source=Source(
                kind="common practice",
                text=(
                    "prices of the bundled catalogue are invented; what a change asks of the maker"
                    " is a guess without source"
                ),
            ),
        ),
    )


def part_terms(name: str, bill: list[tuple[str, int]], shelf: Shelf) -> tuple[Term, Term]:
    """Price and area of added parts."""
    area = area_working(name, bill, shelf.parts).value
    return (
        ("parts", price_working(name, bill, shelf.parts).value, "catalogue (invented prices)"),
        ("board", area * AREA_CENTS_PER_MM2, f"{area:.0f} mm² of courtyards at 0.2 cents"),
    )


def ways_out(brief: Brief, shelf: Shelf, fits: Fits) -> tuple[WayOut, ...]:
    """All ways that were found to work, the cheapest first; pairs of small ones only where no
    single one does.
    """
    singles = [
        *other_schemes(brief, shelf),
        *fewer_bits(brief, fits),
        *other_screens(brief, shelf),
        *converters(brief, shelf),
        *dropped(brief),
    ]
    working = [way for changed, way in singles if fits(changed)]
    working += bigger_chips(brief, shelf, fits)
    if not working:
        working = pairs(brief, singles, fits)
    return tuple(sorted(working, key=lambda way: (way.cost, way.title)))


def other_schemes(brief: Brief, shelf: Shelf) -> Iterator[tuple[Brief, WayOut]]:
    """Reading the keys another way, where all chords are still read."""
    for name in get_args(SchemeName):
        if name == brief.key_scheme.name:
            continue
        wiring = wire(brief, name)
        if faults_in_chords(wiring, together_of(brief)):
            continue
        bill = bill_of(wiring)
        parts, board = part_terms(name, bill, shelf)
        scan = scan_us(brief, wiring)
        words = ", ".join(f"{n} x {shelf.parts[p].short}" for p, n in bill) or "no parts"
        edit = {"kind": "set-scheme", "scheme": name}
        yield (
            brief.model_copy(
                update={
                    "key_scheme": brief.key_scheme.model_copy(
                        update={"name": name, "direct": (), "diodes": ()}
                    )
                }
            ),
            way_out(
                f"Read the keys another way: {TITLES[name].lower()}",
                f"adds {words}; up to {latency_ms(brief, wiring, scan).value:.1f} ms from press to"
                " report",
                (edit,),
                (parts,),
                (board,),
            ),
        )


def shown(brief: Brief) -> tuple[Thing, Display] | None:
    """The first thing that shows pictures, with how it is written to."""
    return next(((t, d) for t in brief.things if (d := t.display()) is not None), None)


def changed_thing(thing: Thing, **changes: Any) -> Edit:
    """The edit that changes fields of a thing."""
    return {"kind": "change-thing", "name": thing.name, "changes": changes}


def fewer_bits(brief: Brief, fits: Fits) -> Iterator[tuple[Brief, WayOut]]:
    """The most colour bits that fit."""
    found = shown(brief)
    if found is None or found[1].bus != "parallel colour":
        return
    thing, display = found
    now = display.colour_bits
    for bits in (b for b in COLOUR_STEPS if b < now):
        changed = brief.with_things(thing.model_copy(update={"colour_bits": bits}))
        if fits(changed) or bits == COLOUR_STEPS[-1]:
            steps = COLOUR_STEPS.index(bits) - COLOUR_STEPS.index(now)
            yield (
                changed,
                way_out(
                    f"Fewer colour bits: {bits} in place of {now}",
                    f"{2**bits} colours in place of {2**now}; {now - bits} lines come free",
                    (changed_thing(thing, colour_bits=bits),),
                    (),
                    (
                        (
                            "colours",
                            BITS_CENTS * steps,
                            f"{BITS_CENTS:g} cents a step, {steps} steps",
                        ),
                    ),
                ),
            )
            return


def other_screens(brief: Brief, shelf: Shelf) -> Iterator[tuple[Brief, WayOut]]:
    """A screen on another bus: the nearest in pixels."""
    found = shown(brief)
    if found is None or found[1].part not in shelf.screens:
        return
    thing, display = found
    now = shelf.screens[display.part]
    for bus in ("one-way serial", "two-wire"):
        rows = [s for s in shelf.screens.values() if s.bus == bus]
        if bus == display.bus or not rows:
            continue
        pixels = now.width_px * now.height_px
        module = min(rows, key=lambda s: (abs(s.width_px * s.height_px - pixels), s.id))
        smaller = module.width_px * module.height_px < pixels
        yield (
            brief.with_things(thing.model_copy(update={"part": module.id, "bus": bus})),
            way_out(
                f"Screen on another bus: {module.description}",
                f"{module.width_px} x {module.height_px} pixels on {bus}; another refresh rate",
                (changed_thing(thing, part=module.id, bus=bus),),
                (),
                (
                    ("other screen", SLOWER_CENTS, "another part and another refresh rate"),
                    ("fewer pixels", SMALLER_SCREEN_CENTS if smaller else 0.0, "what it shows"),
                ),
            ),
        )


def converters(brief: Brief, shelf: Shelf) -> Iterator[tuple[Brief, WayOut]]:
    """Analogue axes on an outside converter, or through a multiplexer."""
    axes = axes_of(brief)
    if axes < 1 or brief.analogue_by != "chip":
        return
    for how, part, words, least in (
        ("multiplexer", "multiplexer-8", "axes are read one after the other", 2),
        ("converter", "converter-4", "the axes share the two-wire bus", 1),
    ):
        if axes < least:
            continue
        count = -(-axes // int(shelf.parts[part].figure("channels")))
        bill = [(part, count), ("capacitor-1608", count)]
        added, board = part_terms(how, bill, shelf)
        yield (
            brief.model_copy(update={"analogue_by": how}),
            way_out(
                f"Read the {axes} {'axes' if axes > 1 else 'axis'} through an outside {how}",
                f"adds {count} x {shelf.parts[part].short}; {words}",
                ({"kind": "set-analogue", "by": how},),
                (added,),
                (board, ("firmware", OUTSIDE_READER_CENTS, "reading it takes code of its own")),
            ),
        )


def dropped(brief: Brief) -> Iterator[tuple[Brief, WayOut]]:
    """Leaving out what is nice to have."""
    for thing in brief.things:
        cost = thing.LEFT_OUT_CENTS
        if cost is not None:
            words = f"the {thing.label}"
            edit = {"kind": "remove-things", "names": [thing.name]}
            yield (
                brief.without(thing.name),
                way_out(
                    f"Leave out {words}",
                    words,
                    (edit,),
                    (),
                    (("doing without", cost, f"what a {thing.WORD} is taken to be worth"),),
                ),
            )


def bigger_chips(brief: Brief, shelf: Shelf, fits: Fits) -> list[WayOut]:
    """The smallest chips that carry everything: of the same family first, then of any, in stock,
    one a package.
    """
    brain = brief.brain
    if brain is None:
        return []
    now = next((row for row in shelf.chips if row[0].name == brain.part), None)
    found: list[WayOut] = []
    asked = asked_of(brief)
    families: Sequence[str] = (now[0].family, "") if now else ("",)
    for family in families:
        tried, packages = 0, set[str]()
        for chip, stock in sorted(
            shelf.chips, key=lambda r: (r[0].ports, r[1].price_cents, r[0].name)
        ):
            if (
                chip.ready_made != brain.READY_MADE
                or not suitable(chip, stock, now[0] if now else None, family)
                or chip.package in packages
                or not offers(chip, asked)
            ):
                continue
            tried += 1
            if tried > MOST_CHIPS or len(packages) >= 2:
                break
            if fits(brief.with_things(brain.model_copy(update={"part": chip.name}))):
                packages.add(chip.package)
                found.append(chip_way(brain, chip, stock, now))
    return list({way.title: way for way in found}.values())


def asked_of(brief: Brief) -> dict[str, int]:
    """What the needs ask of the counts in the chip index."""
    needs = needs_of(brief)
    kinds = Counter(n.kind for n in needs)
    return {
        "ports": len(needs),
        "analogue": kinds["analogue"],
        "timers": kinds["timer"],
        "two_wire": int(kinds["two-wire clock"] > 0),
        "serial": kinds["serial clock"],
        "usb": kinds["usb minus"],
        "touch": kinds["touch"] + kinds["touch sample"],
    }


def offers(chip: ListedChip, asked: dict[str, int]) -> bool:
    """Whether the counts alone leave a chance."""
    return all(getattr(chip, name) >= count for name, count in asked.items())


def suitable(chip: ListedChip, stock: Stock, now: ListedChip | None, family: str) -> bool:
    """In stock, with a land pattern, of the wanted family, and with more to offer than the present
    chip.
    """
    more = (
        now is None
        or chip.ports > now.ports
        or (chip.ports >= now.ports and chip.analogue > now.analogue)
    )
    return chip.covered and stock.pieces > 0 and more and (not family or chip.family == family)


def chip_way(
    brain: Thing, chip: ListedChip, stock: Stock, now: tuple[ListedChip, Stock] | None
) -> WayOut:
    """The next chip as a way out."""
    extra = max(0, stock.price_cents - (now[1].price_cents if now else 0))
    same_family = now is not None and chip.family == now[0].family
    words = "of the same family" if same_family else "of another family"
    redrawn = REDRAWN_CENTS if same_family else 2 * REDRAWN_CENTS
    return way_out(
        f"Next chip {words}: {chip.name}",
        f"{chip.package}, {chip.ports} pins, {stock.pieces} in stock at {stock.supplier};"
        f" {chip.soldering} soldering",
        (changed_thing(brain, part=chip.name),),
        (("dearer chip", float(extra), f"{stock.supplier}, against the chip of now"),),
        (("redrawn", redrawn, "board and firmware for another chip"),),
    )


def pairs(brief: Brief, singles: list[tuple[Brief, WayOut]], fits: Fits) -> list[WayOut]:
    """Two changes together, the cheapest pairs first, three at the most."""
    found: list[WayOut] = []
    cheapest = sorted(combinations(singles, 2), key=lambda pair: pair[0][1].cost + pair[1][1].cost)
    for (first, a), (second, b) in cheapest:
        both = together(brief, first, second)
        if both is None or not fits(both):
            continue
        found.append(
            way_out(
                f"{a.title}, and {b.title[0].lower()}{b.title[1:]}",
                f"{a.gives_up}; {b.gives_up}",
                (*a.edits, *b.edits),
                (("parts", a.price_cents + b.price_cents, "both changes"),),
                (
                    ("first", a.cost - a.price_cents, a.title),
                    ("second", b.cost - b.price_cents, b.title),
                ),
            )
        )
        if len(found) == 3:
            break
    return found


def together(brief: Brief, first: Brief, second: Brief) -> Brief | None:
    """Both changes of a brief at once; None where they touch the same thing or wish."""
    wishes = ("key_scheme", "analogue_by")
    changed = [{f for f in wishes if getattr(b, f) != getattr(brief, f)} for b in (first, second)]
    kept = [{t.name: t for t in b.things} for b in (first, second)]
    touched = [{t.name for t in brief.things if side.get(t.name) != t} for side in kept]
    if changed[0] & changed[1] or touched[0] & touched[1]:
        return None
    things = tuple(
        kept[t.name in touched[1]].get(t.name)
        for t in brief.things
        if t.name in kept[0] and t.name in kept[1]
    )
    update: dict[str, Any] = {f: getattr((first, second)[f in changed[1]], f) for f in wishes}
    return brief.model_copy(update={**update, "things": things})
