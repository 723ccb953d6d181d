"""Parts of one's own: a land pattern by family and dimensions, or pads as they were drawn, told by
the part's own id, so that every stage finds it where it finds all parts.
"""

from functools import lru_cache
from typing import Any

from loquet.core.parts.part import (
    Body,
    Drawn,
    DrawnPad,
    GullWings,
    NoLeads,
    Part,
    PartError,
    Rows,
)
from loquet.core.parts.patterns import pattern_of
from loquet.core.parts.terminal import Terminal, way

OWN = "own:"
SPAN_MM, FOOT_MM, LEAD_MM, BODY_MM = 0.1, 0.2, 0.05, 0.05
TEXT = (
    "dimensions as they were typed for this project; limits of ±0.1 mm over the leads, ±0.2 mm of"
    " the foot, ±0.05 mm of the lead assumed"
)


class PartShelf(dict[str, Part]):
    """The parts of the catalogue by id, and behind them every part that is told by its own id;
    `preferred` are those that somebody chose before all others, `own` those of one's own, which
    come before what ships with Loquet; `barred` are those that lack a terminal of their kind, so
    that no recipe takes them.
    """

    preferred: frozenset[str] = frozenset()
    own: frozenset[str] = frozenset()
    barred: frozenset[str] = frozenset()

    def __missing__(self, part_id: str) -> Part:
        """A part of one's own; raises KeyError for any other id, PartError for one that cannot be
        read.
        """
        if not part_id.startswith(OWN):
            raise KeyError(part_id)
        return own_part(part_id)

    def get(self, part_id: str, default: Any = None) -> Any:
        """The part of that id, or the default."""
        known = part_id in self
        return self[part_id] if known else default

    def __contains__(self, part_id: object) -> bool:
        """Whether there is such a part."""
        return super().__contains__(part_id) or (
            isinstance(part_id, str) and part_id.startswith(OWN)
        )


@lru_cache(maxsize=512)
def own_part(part_id: str) -> Part:
    """The part that an id tells; raises PartError."""
    try:
        family, fields = read_id(part_id)
        body = BODIES[family](fields)
        tall = float(fields["tall"])
    except (KeyError, ValueError, IndexError) as error:
        raise PartError(
            part_id[:80], f"cannot be read ({error})", "Type its dimensions again."
        ) from None
    return Part(
        id=part_id,
        kind="part of one's own",
        description=f"Part of one's own, {family}",
        body=body,
        height_mm=tall,
        price_cents=0.0,
        reference="U",
        evidence="none",
        evidence_text=TEXT,
        terminals=pins_of(body),
    )


def pins_of(body: Body) -> dict[str, Terminal]:
    """A way for every pad of a body."""
    numbers = dict.fromkeys(pad.number for pad in pattern_of(body).pads)
    return {way(i + 1): Terminal(pads=(n,), does="way") for i, n in enumerate(numbers)}


def read_id(part_id: str) -> tuple[str, dict[str, str]]:
    """The family and the dimensions of an id such as `own:two sides;pins=8;pitch=1.27`."""
    family, *pairs = part_id.removeprefix(OWN).split(";")
    return family, dict(pair.split("=", 1) for pair in pairs)


def about(value: float, allowed: float) -> tuple[float, float]:
    """A dimension with its limits."""
    return (round(value - allowed, 4), round(value + allowed, 4))


def hundredths(value: float) -> str:
    """A dimension as the names of IPC-7351B have it."""
    return str(round(value * 100))


def wings(fields: dict[str, str], sides: int) -> Body:
    """Leads bent out on two or four sides."""
    pins, (pitch, span, foot, lead, w, h, tall) = (
        int(fields["pins"]),
        numbers(fields, "pitch span foot lead w h tall"),
    )
    word = "SOP" if sides == 2 else "QFP"
    across = hundredths(span) if sides == 2 else f"{hundredths(span)}X{hundredths(span)}"
    return GullWings(
        family="gull-wings",
        prefix=f"{word}{hundredths(pitch)}P{across}X{hundredths(tall)}-{pins}N",
        sides=2 if sides == 2 else 4,
        pins=pins,
        pitch_mm=pitch,
        span_mm=about(span, SPAN_MM),
        foot_mm=about(foot, FOOT_MM),
        lead_mm=about(lead, LEAD_MM),
        body_mm=(w, h),
    )


def numbers(fields: dict[str, str], names: str) -> list[float]:
    """Dimensions in mm by their names."""
    return [float(fields[name]) for name in names.split()]


def flat(fields: dict[str, str]) -> Body:
    """Terminals under four edges, with an exposed pad numbered one past the last pin."""
    pins, (pitch, w, foot, lead, exposed, tall) = (
        int(fields["pins"]),
        numbers(fields, "pitch w foot lead exposed tall"),
    )
    size = hundredths(w)
    return NoLeads(
        family="no-leads",
        prefix=f"QFN{hundredths(pitch)}P{size}X{size}X{hundredths(tall)}-{pins + 1}N",
        pins=pins,
        pitch_mm=pitch,
        body_mm=about(w, BODY_MM),
        terminal_mm=about(foot, FOOT_MM / 2),
        lead_mm=about(lead, LEAD_MM),
        exposed_mm=exposed,
    )


def two_rows(fields: dict[str, str]) -> Body:
    """Leads through the board in two rows, or castellations on it where there is no hole."""
    pins, (pitch, span, lead, drill, w, h) = (
        int(fields["pins"]),
        numbers(fields, "pitch span lead drill w h"),
    )
    return Rows(
        family="rows",
        name=f"ROWS-{pins}-{hundredths(pitch)}-{hundredths(span)}",
        pins=pins,
        pitch_mm=pitch,
        row_mm=span,
        pad_mm=(lead, lead) if drill else (max(lead, 2.0), lead),
        drill_mm=drill,
        body_mm=(w, h),
    )


def drawn_pads(fields: dict[str, str]) -> Body:
    """Pads as they were drawn: `number x y width height [hole]` each, in mm about the middle."""
    w, h = numbers(fields, "w h")
    return Drawn(
        family="drawn",
        name="own pads",
        pads=tuple(drawn_pad(text) for text in fields["pads"].split("|")),
        body_mm=(w, h),
        first_pin_mark=True,
    )


def drawn_pad(text: str) -> DrawnPad:
    """One pad; raises ValueError where it is not a number and four or five lengths."""
    number, *lengths = text.split()
    x, y, w, h, *drill = (float(length) for length in lengths)
    if len(drill) > 1 or w <= 0 or h <= 0 or (drill and drill[0] >= min(w, h)):
        raise ValueError(f"pad {number}")
    return DrawnPad(
        number=number,
        x_mm=x,
        y_mm=y,
        w_mm=w,
        h_mm=h,
        drill_mm=drill[0] if drill else 0.0,
        round=bool(drill) and w == h,
        paste=not drill,
    )


BODIES = {
    "two sides": lambda fields: wings(fields, 2),
    "four sides": lambda fields: wings(fields, 4),
    "no leads": flat,
    "two rows": two_rows,
    "drawn pads": drawn_pads,
}
