"""What may hang on pins that have other work: boot, reset, programming, oscillator."""

from dataclasses import dataclass
from typing import Literal

from loquet.core.pins.model import Need

BOOT_RISK, OSCILLATOR_RISK, DEBUG_RISK, WAKE_RISK = 20, 1, 40, 1


@dataclass(frozen=True)
class SharingRule:
    """What may share a pin with its other work, and why; common practice, no source."""

    pin: str
    hangs: str
    verdict: Literal["safe", "look", "stop"]
    why: str


SHARING: tuple[SharingRule, ...] = (
    SharingRule("programming", "key", "stop", "a held key shorts the line and blocks programming"),
    SharingRule(
        "programming",
        "sounder",
        "stop",
        "programming pulses sound it, and its driver loads the line",
    ),
    SharingRule(
        "programming",
        "light",
        "look",
        "programming pulses flash it; a resistor of 1 kΩ or more keeps the line free",
    ),
    SharingRule("programming", "input", "stop", "what drives the input fights the probe"),
    SharingRule("programming", "test point", "safe", "it draws nothing"),
    SharingRule(
        "boot", "key", "look", "a key held at switch-on starts the loader in place of the program"
    ),
    SharingRule(
        "boot",
        "light",
        "look",
        "the light pulls the pin while the chip reads it; keep a strap of 10 kΩ",
    ),
    SharingRule(
        "boot",
        "output",
        "look",
        "the load must not pull the pin to the loader's level at switch-on",
    ),
    SharingRule("boot", "test point", "safe", "it draws nothing"),
    SharingRule(
        "reset",
        "key",
        "safe",
        "a push button to ground is what the pin is for; nothing else may pull it",
    ),
    SharingRule("reset", "capacitor", "safe", "100 nF keeps it quiet"),
    SharingRule("reset", "output", "stop", "a load holds the chip in reset"),
    SharingRule("oscillator", "key", "safe", "while the device runs on its internal oscillator"),
    SharingRule("oscillator", "input", "safe", "while the device runs on its internal oscillator"),
    SharingRule("oscillator", "output", "safe", "while the device runs on its internal oscillator"),
)


def kind_of_load(need: Need) -> str:
    """What a need is to the sharing rules: key, sounder, light, input or output."""
    if need.load:
        return need.load
    drives = need.kind in ("output", "timer", "high drive", "converter output")
    return "output" if drives else "input"


def sharing_rule(pin: str, load: str) -> SharingRule | None:
    """The rule for a load on a pin with other work."""
    return next((rule for rule in SHARING if rule.pin == pin and rule.hangs == load), None)
