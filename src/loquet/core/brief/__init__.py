"""The brief: what the hands touch, the outline, the power source, and how many by when."""

from loquet.core.brief.controls import (
    Button,
    Control,
    DirectionalPad,
    Encoder,
    Potentiometer,
    Stick,
    TouchPad,
    Trigger,
)
from loquet.core.brief.keys import Key, keys_of
from loquet.core.brief.links import (
    BoardLink,
    Expansion,
    Link,
    MemoryCard,
    Sensor,
    SerialPort,
    SparePort,
    UsbDevice,
)
from loquet.core.brief.model import (
    Brief,
    ChipChoice,
    FixingHole,
    PolygonOutline,
    PowerSwitch,
    ProgrammingPort,
    RoundedRectangle,
    Shell,
)
from loquet.core.brief.outputs import (
    Buzzer,
    Headphones,
    Light,
    LightChain,
    LightMatrix,
    Screen,
    Speaker,
)
from loquet.core.brief.pin_table import OwnPad, PinTable
from loquet.core.brief.reading import read_brief
from loquet.core.brief.reading_keys import Chords, KeyScheme, SchemeName
from loquet.core.brief.sense import BriefError
from loquet.core.brief.sources import CellPair, CoinCell, FromHost, LithiumCell, NineVolt, Power

__all__ = [
    "BoardLink",
    "Brief",
    "BriefError",
    "Button",
    "Buzzer",
    "CellPair",
    "ChipChoice",
    "Chords",
    "CoinCell",
    "Control",
    "DirectionalPad",
    "Encoder",
    "Expansion",
    "FixingHole",
    "FromHost",
    "Headphones",
    "Key",
    "KeyScheme",
    "Light",
    "LightChain",
    "LightMatrix",
    "Link",
    "LithiumCell",
    "MemoryCard",
    "NineVolt",
    "OwnPad",
    "PinTable",
    "PolygonOutline",
    "Potentiometer",
    "Power",
    "PowerSwitch",
    "ProgrammingPort",
    "RoundedRectangle",
    "SchemeName",
    "Screen",
    "Sensor",
    "SerialPort",
    "Shell",
    "SparePort",
    "Speaker",
    "Stick",
    "TouchPad",
    "Trigger",
    "UsbDevice",
    "keys_of",
    "read_brief",
]
