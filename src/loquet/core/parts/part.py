"""A catalogue part and the drawing of its body."""

from collections.abc import Mapping
from functools import cached_property
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.parts.terminal import NAMELESS, Terminal, way
from loquet.core.plain.frozen import Frozen


class PartError(Exception):
    """A part that is not in the catalogue, or whose data cannot be used."""

    def __init__(self, part: str, problem: str, way_out: str) -> None:
        super().__init__(f"Part '{part}' {problem}. {way_out}")
        self.part, self.problem, self.way_out = part, problem, way_out


Span = tuple[float, float]


class TwoEnds(Frozen):
    """A chip part with two end terminals: limits in mm of length, width and terminal."""

    family: Literal["two-ends"]
    prefix: str
    inch_code: str
    metric_code: str
    length_mm: Span
    width_mm: Span
    terminal_mm: Span


class GullWings(Frozen):
    """Leads on two or four sides, bent out: span over the leads, foot, lead width, in mm."""

    family: Literal["gull-wings"]
    prefix: str
    sides: Literal[2, 4]
    pins: int
    pitch_mm: float
    span_mm: Span
    foot_mm: Span
    lead_mm: Span
    body_mm: tuple[float, float]
    positions: tuple[tuple[str, int], ...] = ()


class NoLeads(Frozen):
    """Terminals under the four edges of the body, with an exposed pad: limits in mm."""

    family: Literal["no-leads"]
    prefix: str
    pins: int
    pitch_mm: float
    body_mm: Span
    terminal_mm: Span
    lead_mm: Span
    exposed_mm: float


class DrawnPad(Frozen):
    """A pad copied from a drawing, in mm; `drill_mm` 0 is a surface pad, a `covered` one stays
    under the mask, and around a fiducial a ring `bare_mm` wide is free of mask and copper.
    """

    number: str
    x_mm: float
    y_mm: float
    w_mm: float
    h_mm: float
    drill_mm: float = 0.0
    round: bool = False
    paste: bool = True
    covered: bool = False
    bare_mm: float = 0.0


class Drawn(Frozen):
    """A pattern taken from a drawing, in mm, with the pegs that need unplated holes; a finger or a
    pill touches it within `touched_mm` about its middle.
    """

    family: Literal["drawn"]
    name: str
    pads: tuple[DrawnPad, ...]
    body_mm: tuple[float, float]
    body_middle_mm: tuple[float, float] = (0.0, 0.0)
    pegs_mm: tuple[tuple[float, float, float], ...] = ()
    first_pin_mark: bool = False
    touched_mm: float = 0.0


class Rows(Frozen):
    """Contacts in two straight rows, in mm: leads or posts through the board, or castellations
    soldered on it where `drill_mm` is 0.

    `row_mm` is the distance of the rows' pad middles; pin 1 is top left and numbers run
    anticlockwise, as chips are numbered from above.
    """

    family: Literal["rows"]
    name: str
    pins: Annotated[int, Field(ge=2, le=80, multiple_of=2)]
    pitch_mm: Annotated[float, Field(gt=0.5)]
    row_mm: Annotated[float, Field(gt=1)]
    pad_mm: tuple[float, float]
    drill_mm: Annotated[float, Field(ge=0)] = 0.0
    body_mm: tuple[float, float]


Body = Annotated[TwoEnds | GullWings | NoLeads | Rows | Drawn, Field(discriminator="family")]


class Part(Frozen):
    """A part that can be put on the board; brands and prices are invented for the Larkfield
    scenario.
    """

    id: str
    kind: str
    description: str
    body: Body
    height_mm: float
    price_cents: float
    reference: str
    evidence: Literal["drawing", "measurement", "standard", "none"]
    evidence_text: str
    terminals: dict[str, Terminal] = {}
    values: dict[str, float] = {}
    hand_fitted: bool = False

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
