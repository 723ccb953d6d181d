"""A catalogue part and the drawing of its body."""

from collections.abc import Mapping
from functools import cached_property
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.parts.in_use import InUse, Mates, Side
from loquet.core.parts.surroundings import Around
from loquet.core.parts.terminal import NAMELESS, PadNumber, Terminal, way
from loquet.core.plain.frozen import Frozen


class PartError(Exception):
    """A part that is not in the catalogue, or whose data cannot be used."""

    def __init__(self, part: str, problem: str, way_out: str) -> None:
        super().__init__(f"Part '{part}' {problem}. {way_out}")
        self.part, self.problem, self.way_out = part, problem, way_out


Mm = Annotated[float, Field(gt=0, le=300)]
Place = Annotated[float, Field(ge=-300, le=300)]
Span = tuple[Mm, Mm]
Words = Annotated[str, Field(max_length=300)]
MOST_PADS = 500
PACKAGE = "chip package"
"""The kind of parts that only draw a chip or module: its pins say what its pads are."""


class TwoEnds(Frozen):
    """A chip part with two end terminals: limits in mm of length, width and terminal."""

    family: Literal["two-ends"]
    prefix: Words
    inch_code: Words
    metric_code: Words
    length_mm: Span
    width_mm: Span
    terminal_mm: Span


class GullWings(Frozen):
    """Leads on two or four sides, bent out: span over the leads, foot, lead width, in mm."""

    family: Literal["gull-wings"]
    prefix: Words
    sides: Literal[2, 4]
    pins: Annotated[int, Field(ge=2, le=MOST_PADS)]
    pitch_mm: Annotated[float, Field(ge=0.2, le=20)]
    span_mm: Span
    foot_mm: Span
    lead_mm: Span
    body_mm: Span
    positions: tuple[tuple[str, int], ...] = ()


class NoLeads(Frozen):
    """Terminals under the four edges of the body, with an exposed pad: limits in mm."""

    family: Literal["no-leads"]
    prefix: Words
    pins: Annotated[int, Field(ge=4, le=MOST_PADS, multiple_of=4)]
    pitch_mm: Annotated[float, Field(ge=0.2, le=20)]
    body_mm: Span
    terminal_mm: Span
    lead_mm: Span
    exposed_mm: Annotated[float, Field(ge=0, le=100)]


class DrawnPad(Frozen):
    """A pad copied from a drawing, in mm; `drill_mm` 0 is a surface pad, a `covered` one stays
    under the mask, and around a fiducial a ring `bare_mm` wide is free of mask and copper.
    """

    number: PadNumber
    x_mm: Place
    y_mm: Place
    w_mm: Mm
    h_mm: Mm
    drill_mm: Annotated[float, Field(ge=0, le=20)] = 0.0
    round: bool = False
    paste: bool = True
    covered: bool = False
    bare_mm: Annotated[float, Field(ge=0, le=20)] = 0.0


class Drawn(Frozen):
    """A pattern taken from a drawing, in mm, with the pegs that need unplated holes; a finger or a
    pill touches it within `touched_mm` about its middle.
    """

    family: Literal["drawn"]
    name: Words
    pads: Annotated[tuple[DrawnPad, ...], Field(min_length=1, max_length=MOST_PADS)]
    body_mm: Span
    body_middle_mm: tuple[Place, Place] = (0.0, 0.0)
    pegs_mm: Annotated[tuple[tuple[Place, Place, Mm], ...], Field(max_length=40)] = ()
    first_pin_mark: bool = False
    touched_mm: Annotated[float, Field(ge=0, le=100)] = 0.0


class Rows(Frozen):
    """Contacts in two straight rows, in mm: leads or posts through the board, or castellations
    soldered on it where `drill_mm` is 0.

    `row_mm` is the distance of the rows' pad middles; pin 1 is top left and numbers run
    anticlockwise, as chips are numbered from above.
    """

    family: Literal["rows"]
    name: Words
    pins: Annotated[int, Field(ge=2, le=80, multiple_of=2)]
    pitch_mm: Annotated[float, Field(gt=0.5, le=20)]
    row_mm: Annotated[float, Field(gt=1, le=100)]
    pad_mm: Span
    drill_mm: Annotated[float, Field(ge=0, le=20)] = 0.0
    body_mm: Span


Body = Annotated[TwoEnds | GullWings | NoLeads | Rows | Drawn, Field(discriminator="family")]


PartId = Annotated[str, Field(pattern=r"^(own:)?[a-zA-Z0-9][ -~]{0,299}$")]
TerminalName = Annotated[str, Field(pattern=r"^[a-zA-Z0-9][ -~]{0,39}$")]
FigureName = Annotated[str, Field(pattern=r"^[a-z][a-z0-9_]{0,39}$")]


SoldAs = Annotated[str, Field(min_length=1, max_length=80)]


class Part(Frozen):
    """A part that can be put on the board; `sold_as` are the maker's numbers under which price
    lists have it. Brands and prices of bundled ones are invented for the Larkfield scenario.

    What it does not say of how it mates, goes on beyond its body, is tried, and of what is bought
    `with_it`, its role says; `contact` is the side from which it touches a flat cable.
    `around` is its application circuit.
    """

    id: PartId
    kind: Annotated[str, Field(max_length=40)]
    description: Words
    body: Body
    height_mm: Annotated[float, Field(ge=0, le=300)]
    price_cents: Annotated[float, Field(ge=0, le=1_000_000)]
    reference: Annotated[str, Field(pattern=r"^[A-Z]{1,3}$")]
    evidence: Literal["drawing", "measurement", "standard", "none"]
    evidence_text: Words
    terminals: Annotated[dict[TerminalName, Terminal], Field(max_length=MOST_PADS)] = {}
    values: Annotated[dict[FigureName, float], Field(max_length=60)] = {}
    hand_fitted: bool = False
    sold_as: Annotated[tuple[SoldAs, ...], Field(max_length=20)] = ()
    contact: Side = ""
    mates: Mates | None = None
    in_use: InUse | None = None
    trial: Words = ""
    with_it: Annotated[tuple[SoldAs, ...], Field(max_length=8)] = ()
    around: Annotated[tuple[Around, ...], Field(max_length=40)] = ()

    @cached_property
    def pin_names(self) -> dict[str, str]:
        """By pad the function that it has, in the order of the pads; ends that may be turned round
        and numbered ways have none.
        """
        rows = [
            (pad, name)
            for name, terminal in self.terminals.items()
            if terminal.does not in NAMELESS
            for pad in terminal.pads
        ]
        return dict(sorted(rows, key=lambda row: (len(row[0]), row[0])))

    @cached_property
    def joined(self) -> tuple[tuple[str, ...], ...]:
        """Pads that the part's own metal joins."""
        return tuple(tuple(sorted(t.pads)) for t in self.terminals.values() if t.joined)

    @cached_property
    def at_pad(self) -> dict[str, str]:
        """The name of the terminal at every pad."""
        return {pad: name for name, t in self.terminals.items() for pad in t.pads}

    @cached_property
    def poles(self) -> tuple[str, str]:
        """The terminals of plus and minus where a source is put on: of these names, or the first
        two ways of a connector.
        """
        return ("plus", "minus") if "plus" in self.terminals else (way(1), way(2))

    def ordered(self, order: Mapping[str, str]) -> "Part":
        """The part with the functions of its pads as somebody measured them."""
        pads: dict[str, list[str]] = {}
        for pad, name in order.items():
            pads.setdefault(name, []).append(pad)
        terminals = {
            name: t.model_copy(update={"pads": tuple(pads[name])}) if name in pads else t
            for name, t in self.terminals.items()
        }
        fields = {name: getattr(self, name) for name in Part.model_fields}
        return Part(**{**fields, "terminals": terminals})

    def figure(self, name: str) -> float:
        """A figure that must be known; raises PartError."""
        if name not in self.values:
            raise PartError(self.id, f"does not say its {name}", "Type it on the parts shelf.")
        return self.values[name]

    def pads(self, terminal: str) -> tuple[str, ...]:
        """The pads that a terminal wants on its net: all, or the first where they are joined;
        raises PartError.
        """
        found = self.terminals.get(terminal)
        if found is None:
            names = ", ".join(self.terminals) or "none"
            raise PartError(self.id, f"has no terminal '{terminal}'", f"It has: {names}.")
        return found.pads[:1] if found.joined else found.pads

    def pad(self, terminal: str) -> str:
        """The first pad of a terminal; raises PartError."""
        return self.pads(terminal)[0]

    @property
    def short(self) -> str:
        """The part in a few words for the middle of a sentence: `switching diode 100 V`."""
        words = self.description.split(",")[0]
        return words[0].lower() + words[1:]

    @property
    def size_codes(self) -> str:
        """Both codes of a chip size with its millimetres, since 0402 and 0603 exist in both
        systems.
        """
        if isinstance(self.body, TwoEnds):
            body = self.body
            length, width = sum(body.length_mm) / 2, sum(body.width_mm) / 2
            return (
                f"inch {body.inch_code} / metric {body.metric_code} ({length:.1f} x {width:.2f} mm)"
            )
        return self.body.name if isinstance(self.body, Drawn | Rows) else self.body.prefix
