"""Writing the bare-board test netlist, IPC-D-356A: one record a contact, in thousandths of a
millimetre.
"""

from loquet.core.board.copper import FAR, BoardView, Copper
from loquet.core.geometry import Bar, Box, Round

LONGEST_NAME = 14
WIDEST_UM = 9999


def write_test_netlist(view: BoardView) -> bytes:
    """Through pads and vias (317), surface pads (327), unplated holes (367); long net names through
    aliases.
    """
    names = aliases(view)
    lines = [
        "C  Bare board test netlist",
        f"C  {view.brief.name}",
        "P  JOB   LOQUET",
        "P  UNITS CUST 1",
        "P  DIM   N",
    ]
    lines += [f"P  {alias}  {name}" for name, alias in names.items() if name and alias != name]
    for copper in (*view.pads, *view.wiring):
        if copper.kind != "track":
            lines.append(record(copper, names))
    for hole in view.holes:
        if not hole.plated:
            lines.append(
                f"367{'N/C':<14}   {'':<6} {'':<4}"
                f" D{hole.d // 1000:04d}UA00{xy(hole.x, hole.y)}X0000Y0000R000 S0"
            )
    return "\n".join([*lines, "999", ""]).encode("ascii")


def aliases(view: BoardView) -> dict[str, str]:
    """The name of each net in the records: itself, or NNAMEn where it is longer than 14
    characters.
    """
    names: dict[str, str] = {"": "N/C"}
    for net in view.circuit.nets:
        short = len(net.name) <= LONGEST_NAME
        names[net.name] = (
            net.name if short else f"NNAME{sum(v.startswith('NNAME') for v in names.values()) + 1}"
        )
    return names


def record(copper: Copper, names: dict[str, str]) -> str:
    """One contact: net, reference, pad, hole, side, place and size."""
    x, y, w, h = box_of(copper)
    who = f"{copper.ref:<6.6}-{copper.pad:<4.4}" if copper.ref else f"{'VIA':<6}-{'':<4}"
    head = f"{'317' if copper.drill_nm else '327'}{names[copper.net]:<14}   {who} "
    hole = f"D{copper.drill_nm // 1000:04d}P" if copper.drill_nm else "      "
    access = "A00" if len(copper.sides) == 2 else ("A02" if FAR in copper.sides else "A01")
    mask = "S3" if copper.kind == "via" else "S0"
    return f"{head}{hole}{access}{xy(x, y)}X{size(w)}Y{size(h)}R{turn_of(copper):03d} {mask}"


def size(length: int) -> str:
    """A size in micrometres, four digits: what is wider than 9.999 mm is written as that."""
    return f"{min(length // 1000, WIDEST_UM):04d}"


def turn_of(copper: Copper) -> int:
    """The turn of a contact, in degrees anticlockwise."""
    return copper.shape.turn if isinstance(copper.shape, Box) else 0


def box_of(copper: Copper) -> tuple[int, int, int, int]:
    """Middle and size of a contact in nm; a round one has the height 0, as the standard writes
    it.
    """
    shape = copper.shape
    match shape:
        case Round():
            return shape.x, shape.y, shape.d, 0
        case Box():
            return shape.x, shape.y, shape.w, shape.h
        case Bar():
            return shape.x1, shape.y1, shape.w, shape.w


def xy(x: int, y: int) -> str:
    """Signed coordinates in micrometres, six digits."""
    return f"X{x // 1000:+07d}Y{y // 1000:+07d}"
