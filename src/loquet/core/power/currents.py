"""Currents by mode."""

from loquet.core.plain.frozen import Frozen

MODES = ("play", "idle", "sleep", "peak")


class Currents(Frozen):
    """Milliamperes while the device is played, waits, sleeps, and with everything on at once."""

    play: float = 0.0
    idle: float = 0.0
    sleep: float = 0.0
    peak: float = 0.0

    def of(self, mode: str) -> float:
        """The current of a mode."""
        return float(getattr(self, mode))

    def plus(self, other: "Currents") -> "Currents":
        """The sum, mode by mode."""
        return Currents(**{mode: self.of(mode) + other.of(mode) for mode in MODES})
