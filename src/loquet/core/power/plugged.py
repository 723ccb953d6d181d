"""While a cell is charged from a port and the device is played: what the port has to give."""

from collections.abc import Mapping

from loquet.core.brief import Brief, Thing
from loquet.core.brief.joining import joiners
from loquet.core.parts import Part
from loquet.core.parts.choosing import Wanted, pick
from loquet.core.plain.frozen import Frozen
from loquet.core.power.budget import Made
from loquet.core.power.charging import charge_ma
from loquet.core.power.converting import ENTRY, PORT_ENTRY
from loquet.core.provenance import Source, Working, given

PATH_V = 4.6
USB = Source(
    kind="standard",
    text=(
        "USB 2.0 section 7.2.1: 500 mA after configuration; USB Type-C 2.1 section 4.6: 1.5 or 3 A"
        " as the host says"
    ),
)


class Plugged(Frozen):
    """A rail while its cell is charged: the port with its limit, and in mA what charges the cell
    and what feeds the device through the path.
    """

    port: str
    limit_ma: float
    charge_ma: float
    play_ma: float

    @property
    def port_ma(self) -> float:
        """What the port gives altogether."""
        return self.charge_ma + self.play_ma


def plugged(brief: Brief, made: Made, parts: Mapping[str, Part]) -> Plugged | None:
    """How a rail is fed while its cell is charged; nothing where none is, or no port brings 5 V."""
    port = next((t for t in brief.things if t.five_volts()), None)
    if port is None or made.feeder is None or not made.supply or not made.feeder.charging_ma():
        return None
    if made.taken is None:
        return None
    charging = charge_ma(made.feeder, charger_of(parts))
    playing = made.input_ma("play", PATH_V)
    return Plugged(
        port=port.name, limit_ma=port.port_gives_ma(), charge_ma=charging, play_ma=playing
    )


def entry_value(brief: Brief, feeder: Thing | None) -> str:
    """The capacitor at the input of the converter of a source; a small one behind a port, which may
    not see more than 10 µF in all.
    """
    fed_with = (feeder, *joiners(brief, feeder)) if feeder is not None else ()
    charged = feeder is not None and feeder.charging_ma() > 0
    ports = brief.things if charged else fed_with
    return PORT_ENTRY if any(thing.five_volts() for thing in ports) else ENTRY


def charger_of(parts: Mapping[str, Part]) -> Part:
    """The charger that is taken; raises PartError."""
    return pick(parts, Wanted("charger"))


def port_working(rail: str, row: Plugged) -> Working:
    """What the port has to give."""
    return Working(
        id=f"power.{rail}.port",
        title=f"{row.port} while it charges and the device is played",
        value=row.port_ma,
        unit="mA",
        shown=f"{row.port_ma:.0f} mA",
        formula="Icharge + Iplay",
        inputs=(
            given("Icharge", row.charge_ma, "mA", "resistor at the charger"),
            given("Iplay", row.play_ma, "mA", "in play, through the path's diode at 4.6 V"),
        ),
        source=USB,
    )
