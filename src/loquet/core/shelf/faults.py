"""What is wrong with a part in itself: pads against terminals, the drawing, figures against one
another.
"""

from collections import Counter
from collections.abc import Iterator

from loquet.core.ordering.house import House
from loquet.core.ordering.supplier import Supplier
from loquet.core.parts import LandPattern, Part, pattern_of
from loquet.core.parts.part import PACKAGE
from loquet.core.parts.paste import Paste
from loquet.core.parts.surroundings import GROUND_END, NoValue, value_of
from loquet.core.plain.frozen import Frozen

PAIRS = (
    ("input_min_v", "input_max_v"),
    ("threshold_v", "gate_v"),
    ("hold_ma", "trip_ma"),
)
"""Figures of which the first must be below the second."""
SHARES = ("tolerance", "efficiency", "span_share", "spare_share")
REACH_MM, USUAL_V = 150.0, 3.3


class PartFault(Frozen):
    """Where in a part, what is wrong, and the way out."""

    field: str
    problem: str
    way_out: str


def faults_of(part: Part) -> tuple[PartFault, ...]:
    """Everything that is wrong with a part, the worst first; nothing where it can be used."""
    try:
        pattern = pattern_of(part.body)
    except (ValueError, ArithmeticError, IndexError) as error:
        words = f"gives no land pattern ({str(error)[:80] or type(error).__name__})"
        return (PartFault(field="body", problem=words, way_out="Check its dimensions."),)
    return (
        *pads_against_terminals(part, pattern),
        *odd_surroundings(part),
        *odd_figures(part),
        *odd_size(part, pattern),
    )


def house_faults(house: House) -> tuple[PartFault, ...]:
    """Everything that is wrong with a house of one's own."""
    return tuple(odd_house(house))


def odd_house(house: House) -> Iterator[PartFault]:
    """Options without a name, sizes and breaks that cannot be, prices of what is not offered."""
    if house.simulated:
        problem, way_out = "only houses that ship with Loquet are simulated", "Say 'typed'."
        yield PartFault(field="known", problem=problem, way_out=way_out)
    if not (house.setup_cents or house.area_cents_dm2 or house.piece_cents):
        problem = "nothing that it asks for boards is known"
        way_out = "Type its prices, or three of its quotes."
        yield PartFault(field="area_cents_dm2", problem=problem, way_out=way_out)
    if any(low > high for low, high in zip(house.smallest_mm, house.largest_mm, strict=True)):
        problem = "its smallest board is larger than its largest"
        yield PartFault(field="smallest_mm", problem=problem, way_out="Exchange them?")
    least = [count for count, _ in house.breaks]
    if least != sorted(set(least)) or least[0] < 1:
        problem = "its breaks do not rise from 1"
        yield PartFault(field="breaks", problem=problem, way_out="Write them by quantity.")
    for field, offered in (("finish_cents", house.finishes), ("colour_cents", house.colours)):
        for name in getattr(house, field):
            if name not in offered:
                problem = f"'{name}' has a price and is not offered"
                yield PartFault(
                    field=field, problem=problem, way_out="Offer it, or drop its price."
                )


def supplier_faults(supplier: Supplier) -> tuple[PartFault, ...]:
    """Everything that is wrong with a supplier of one's own."""
    if supplier.known == "simulated":
        problem = "only suppliers that ship with Loquet are simulated"
        return (PartFault(field="known", problem=problem, way_out="Say 'typed'."),)
    return ()


def paste_faults(paste: Paste) -> tuple[PartFault, ...]:
    """Everything that is wrong with a paste of one's own."""
    return tuple(odd_paste(paste))


def odd_paste(paste: Paste) -> Iterator[PartFault]:
    """Limits that no curve can keep, and a paste of one's own that is called a standard."""
    if paste.known != "typed":
        problem = "only pastes that ship with Loquet are those of the standard"
        yield PartFault(field="known", problem=problem, way_out="Say 'typed'.")
    for field in ("soak_c", "soak_s", "liquid_s", "peak_c"):
        low, high = getattr(paste, field)
        if low >= high:
            problem = f"it goes from {low:g} to {high:g}"
            yield PartFault(field=field, problem=problem, way_out="The lower one comes first.")
    if not paste.soak_c[0] < paste.liquid_c < paste.peak_c[0]:
        problem = (
            f"it melts at {paste.liquid_c:g} °C, which is not between where its soak begins"
            f" ({paste.soak_c[0]:g}) and its least peak ({paste.peak_c[0]:g})"
        )
        yield PartFault(field="liquid_c", problem=problem, way_out="Look at its data sheet again.")


def entry_faults(entry: Part | House | Supplier | Paste) -> tuple[PartFault, ...]:
    """Everything that is wrong with an entry of the shelf."""
    if isinstance(entry, Part):
        return faults_of(entry)
    if isinstance(entry, Paste):
        return paste_faults(entry)
    return house_faults(entry) if isinstance(entry, House) else supplier_faults(entry)


def pads_against_terminals(part: Part, pattern: LandPattern) -> Iterator[PartFault]:
    """Every pad has one terminal, every terminal pads that are there."""
    pads = {pad.number for pad in pattern.pads}
    named = Counter(pad for t in part.terminals.values() for pad in t.pads)
    drawn_alone = part.kind == PACKAGE and not part.terminals
    for pad in () if drawn_alone else sorted(pads - named.keys()):
        problem = f"pad {pad} has no terminal"
        way_out = "Say what it does; a pad that is joined to nothing does 'nothing'."
        yield PartFault(field="terminals", problem=problem, way_out=way_out)
    for name, terminal in part.terminals.items():
        for pad in terminal.pads:
            if pad not in pads:
                problem = f"terminal '{name}' has a pad {pad} that the drawing has not"
                way_out = f"It has: {', '.join(sorted(pads)[:20])}."
                yield PartFault(field=f"terminals.{name}.pads", problem=problem, way_out=way_out)
    for pad, count in named.items():
        if count > 1:
            problem = f"pad {pad} has {count} terminals"
            yield PartFault(field="terminals", problem=problem, way_out="Give it one.")


def odd_surroundings(part: Part) -> Iterator[PartFault]:
    """Small parts at terminals that are not there, from a terminal to itself, or of values that
    cannot be read or worked out.
    """
    for number, row in enumerate(part.around, 1):
        field = f"around.{number - 1}"
        for end in (row.one, row.other):
            if end not in part.terminals and (end != GROUND_END or end == row.one):
                problem = f"small part {number} lies at '{end}', which the part has not"
                way_out = f"It has: {', '.join(list(part.terminals)[:20])}."
                yield PartFault(field=field, problem=problem, way_out=way_out)
        if row.one == row.other:
            problem = f"small part {number} lies between {row.one} and itself"
            yield PartFault(field=field, problem=problem, way_out="Say where its other end lies.")
        try:
            value_of(row, {**part.values, "rail_v": USUAL_V})
        except NoValue as error:
            names = ", ".join((*part.values, "rail_v"))
            way_out = f"Figures that it may name: {names}."
            yield PartFault(field=f"{field}.value", problem=str(error), way_out=way_out)


def odd_figures(part: Part) -> Iterator[PartFault]:
    """Figures that cannot be."""
    values = part.values
    for low, high in PAIRS:
        if low in values and high in values and values[low] >= values[high]:
            problem = f"{low} is {values[low]:g} and {high} {values[high]:g}"
            yield PartFault(field=f"values.{low}", problem=problem, way_out="Exchange them?")
    for name in SHARES:
        if not 0 <= values.get(name, 0) <= 1:
            problem = f"{name} is {values[name]:g}, and a share is 0 to 1"
            yield PartFault(field=f"values.{name}", problem=problem, way_out="80 % is 0.8.")
    for name, value in values.items():
        if value < 0 and name != "holds_c":
            problem = f"{name} is {value:g}"
            yield PartFault(field=f"values.{name}", problem=problem, way_out="Give it as positive.")


def odd_size(part: Part, pattern: LandPattern) -> Iterator[PartFault]:
    """A part that is larger than any board here, or has no height."""
    wide = max(pattern.courtyard.w, pattern.courtyard.h) / 1e6
    if wide > REACH_MM:
        problem = f"is {wide:.0f} mm wide"
        yield PartFault(field="body", problem=problem, way_out="Dimensions are in millimetres.")
    if part.height_mm < 0 or part.height_mm > REACH_MM:
        problem = f"is {part.height_mm:g} mm high"
        yield PartFault(field="height_mm", problem=problem, way_out="Give its height in mm.")
