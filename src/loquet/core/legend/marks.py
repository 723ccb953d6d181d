"""Marks without which a part is put on the wrong way: first pin, plus and minus, ON.

Each stands whole on free board beside its own pad, or it is said that it does not.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import shapely
from shapely.geometry import LineString

from loquet.core.board.copper import BoardView
from loquet.core.circuit import Component
from loquet.core.geometry import Seat, middle_of
from loquet.core.legend.sheet import SPACE_NM, Sheet, ink, put_text
from loquet.core.parts import LandPattern
from loquet.core.parts.land import turns_unseen

LONG_NM, APART_NM, OUT_NM = 500_000, 200_000, 150_000
SLIDES_NM = (0, 250_000, -250_000, 500_000, -500_000, 900_000, -900_000)
FARTHER_NM = (0, 300_000, 700_000)
TURNED_NM = 1_000_000
LARGE_NM, HOLDER_INSET_NM = 6_000_000, 6_000_000
Spot = tuple[float, float]
WAYS = ((-1, 0), (1, 0), (0, 1), (0, -1))


@dataclass(frozen=True)
class Unmarked:
    """A mark for which no place was found: the part, what is missing, and whether the part fits the
    wrong way round as well.
    """

    ref: str
    what: str
    turns_unseen: bool = True


def mark_first_pin(view: BoardView, component: Component, sheet: Sheet) -> Unmarked | None:
    """A short double stroke just outside the courtyard, nearer to pin 1 than to any other pin."""
    pattern, seat = view.patterns[component.ref], view.seats[component.ref]
    if pattern.first_pin is None or component.bare:
        return None
    for lines in first_pin_places(pattern):
        drawn = [LineString([seat.point(*end) for end in line]) for line in lines]
        hull = shapely.union_all(drawn).envelope.buffer(sheet.width_nm / 2 + 20_000)
        if sheet.fits(hull, component.ref):
            sheet.words.append(hull)
            for line in drawn:
                ink(sheet, line)
            return None
    return Unmarked(component.ref, "pin 1", turns_unseen(pattern))


def first_pin_places(
    pattern: LandPattern,
) -> Iterator[tuple[tuple[tuple[int, int], tuple[int, int]], ...]]:
    """Both strokes of the mark, in the pattern's own drawing, at every side of the courtyard: the
    nearest to the pin first.
    """
    assert pattern.first_pin is not None
    px, py = pattern.first_pin
    yard = pattern.courtyard
    others = [middle_of(p.shape) for p in pattern.pads if middle_of(p.shape) != (px, py)]
    rows: list[tuple[float, int, tuple[tuple[tuple[int, int], tuple[int, int]], ...]]] = []
    for ax, ay in WAYS:
        edge = (yard.x + ax * yard.w // 2) if ax else (yard.y + ay * yard.h // 2)
        inset = abs(edge - (px if ax else py))
        for farther in FARTHER_NM:
            for slide in SLIDES_NM:
                out = [edge + (ax or ay) * (OUT_NM + farther + step) for step in (0, APART_NM)]
                along = (py if ax else px) + slide
                strokes = tuple(stroke(ax != 0, where, along) for where in out)
                middle = (sum(out) / 2, along) if ax else (along, sum(out) / 2)
                own = (middle[0] - px) ** 2 + (middle[1] - py) ** 2
                if all(own < (middle[0] - x) ** 2 + (middle[1] - y) ** 2 for x, y in others):
                    turned = TURNED_NM if ay else 0
                    rows.append((inset + farther + abs(slide) + turned, len(rows), strokes))
    for _, _, strokes in sorted(rows):
        yield strokes


def stroke(upright: bool, where: float, along: float) -> tuple[tuple[int, int], tuple[int, int]]:
    """A stroke of half a millimetre across a way."""
    a, b = round(along - LONG_NM / 2), round(along + LONG_NM / 2)
    at = round(where)
    return ((at, a), (at, b)) if upright else ((a, at), (b, at))


def mark_polarity(view: BoardView, component: Component, sheet: Sheet) -> list[Unmarked]:
    """Plus and minus beside their pads: inside a long holder, else just outside of the
    part, nearer to their own pad than to the other and to any pad of another part that has a plus.
    """
    pattern, seat = view.patterns[component.ref], view.seats[component.ref]
    small, found = view.rules.legend_height_nm, []
    inside, ends = pattern.body.w // 2 - HOLDER_INSET_NM, sorted(plus_and_minus(pattern))
    holder = inside > LARGE_NM and ends[0][0] < -inside < inside < ends[-1][0]
    rivals = rivals_of(view, component)
    plus, minus = pattern.poles
    for number, other, text in ((plus, minus, "+"), (minus, plus, "-")):
        x, y = min(middle_of(pad.shape) for pad in pattern.pads if pad.number == number)
        if (x, y) == (0, 0):
            continue  # under a coin cell nothing is printed: its rim says plus
        if holder:
            places: list[Spot] = [(inside if x > 0 else -inside, 0)]
            height = 2_000_000
        else:
            apart = [middle_of(pad.shape) for pad in pattern.pads if pad.number == other]
            height = small
            places = [
                at
                for at in places_beside(pattern, (x, y), height // 2 + SPACE_NM)
                if all(away(at, (x, y)) < away(at, spot) for spot in apart)
            ]
        spots = [seat.point(round(px), round(py)) for px, py in places]
        mine = seat.point(x, y)
        spots = [at for at in spots if all(away(at, mine) < away(at, r) for r in rivals)]
        own = component.ref if holder else ""
        if not any(put_text(sheet, text, at, height, own=own) for at in spots):
            word = "plus" if text == "+" else "minus"
            found.append(Unmarked(component.ref, word, turns_unseen(pattern)))
    return found


def plus_and_minus(pattern: LandPattern) -> list[tuple[int, int]]:
    """Middles of the pads of plus and minus."""
    return [middle_of(pad.shape) for pad in pattern.pads if pad.number in pattern.poles]


def rivals_of(view: BoardView, component: Component) -> list[tuple[int, int]]:
    """Middles of the pads of other parts that have a plus."""
    return [
        view.seats[other.ref].point(*middle_of(pad.shape))
        for other in view.circuit.components
        if other.polar and other.ref != component.ref
        for pad in view.patterns[other.ref].pads
    ]


def places_beside(pattern: LandPattern, pad: tuple[int, int], room_nm: float) -> Iterator[Spot]:
    """Places just outside of a part beside one of its pads: above, below, at its own side, then a
    little along and out.
    """
    x, y = pad
    yard = pattern.courtyard
    up, down = yard.y + yard.h // 2 + room_nm, yard.y - yard.h // 2 - room_nm
    own = 1 if x > yard.x else -1
    for farther in FARTHER_NM:
        for slide in SLIDES_NM:
            yield x + slide, up + farther
            yield x + slide, down - farther
            for side in (own, -own):
                yield yard.x + side * (yard.w // 2 + room_nm + farther), y + slide


def away(one: Spot, other: Spot) -> float:
    """The square of a distance."""
    return (one[0] - other[0]) ** 2 + (one[1] - other[1]) ** 2


def mark_on(view: BoardView, component: Component, sheet: Sheet) -> Unmarked | None:
    """ON beside the end of a switch at which its slider stands when it is on."""
    pattern, seat = view.patterns[component.ref], view.seats[component.ref]
    x, y = next(middle_of(p.shape) for p in pattern.pads if p.number == component.on_pad)
    yard, height = pattern.courtyard, view.rules.legend_height_nm
    room = height // 2 + SPACE_NM
    side = 1 if x > yard.x else -1
    beside = yard.x + side * (yard.w // 2 + 2 * room)
    for farther in FARTHER_NM:
        for slide in SLIDES_NM:
            for place in (
                (x + slide, yard.y - yard.h // 2 - room - farther),
                (beside + side * farther, y + slide),
                (x + slide, yard.y + yard.h // 2 + room + farther),
            ):
                if put_text(sheet, "ON", seat_point(seat, place), height):
                    return None
    return Unmarked(component.ref, "ON", turns_unseen=False)


def seat_point(seat: Seat, spot: Spot) -> tuple[int, int]:
    """A place of a part's drawing on the board."""
    return seat.point(round(spot[0]), round(spot[1]))
