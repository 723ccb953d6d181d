"""Edits of the pin plan: locks."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.counted import Counted
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused, with_choices
from loquet.core.pins.needing import needs_of

BoardNm = Annotated[int, Field(ge=-1_000_000_000, le=1_000_000_000)]


class LockPin(Counted):
    """Keep a signal on a pin, however often the plan is solved."""

    kind: Literal["lock-pin"] = "lock-pin"
    signal: Annotated[str, Field(max_length=60)]
    pin: Annotated[str, Field(pattern=r"^[A-Za-z0-9+.-]{1,12}$")]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Lock {self.signal} to pin {self.pin}"

    def apply(self, design: Design) -> Design:
        """Add the lock; two signals cannot hold one pin."""
        brains = [brain.name for brain in design.brief.brains] or [""]
        signals = ({n.signal for n in needs_of(design.brief, brain)} for brain in brains)
        beside = next((own for own in signals if self.signal in own), None)
        if beside is None:
            raise EditRefused(f"There is no signal '{self.signal}'.", "Reload the page.")
        for signal, pin in design.choices.pin_locks.items():
            if pin == self.pin and signal != self.signal and signal in beside:
                raise EditRefused(
                    f"Pin {pin} is locked to {signal}.",
                    "Release that lock first.",
                )
        locks = {**design.choices.pin_locks, self.signal: self.pin}
        return with_choices(design, pin_locks=locks)


class ReleasePin(Counted):
    """Let the solver choose the pin of a signal again."""

    kind: Literal["release-pin"] = "release-pin"
    signal: Annotated[str, Field(max_length=60)]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Release the lock of {self.signal}"

    def apply(self, design: Design) -> Design:
        """Drop the lock."""
        locks = {s: p for s, p in design.choices.pin_locks.items() if s != self.signal}
        return with_choices(design, pin_locks=locks)


class TakePlacedTargets(Counted):
    """Solve the pins for the places where pads really lie (signal to place in nm), within the
    locks; see `pinning.placed_targets`.
    """

    kind: Literal["take-placed-targets"] = "take-placed-targets"
    targets: Annotated[
        dict[Annotated[str, Field(max_length=80)], tuple[BoardNm, BoardNm]], Field(max_length=400)
    ]

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Solve the pins for the placed board"

    def apply(self, design: Design) -> Design:
        """Keep the places of signals that exist; a place is dropped again as soon as the brief
        moves what it belongs to.
        """
        known = {need.signal for need in needs_of(design.brief)}
        targets = {signal: place for signal, place in self.targets.items() if signal in known}
        return with_choices(design, pin_targets=targets)
