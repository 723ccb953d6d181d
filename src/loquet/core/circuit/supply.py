"""What two AAA cells give, as the recipes use it."""

from dataclasses import dataclass

from loquet.core.provenance import Source


@dataclass(frozen=True)
class SupplyRange:
    """The rail in volts: empty, usual, fresh."""

    empty_v: float
    usual_v: float
    fresh_v: float
    source: Source


TWO_AAA = SupplyRange(
    empty_v=2 * 0.9,
    usual_v=2 * 1.5,
    fresh_v=2 * 1.65,
    source=Source(
        kind="standard",
        text="IEC 60086-2 cell LR03: 1.5 V nominal, 0.9 V end point, 1.65 V highest open circuit; from memory",
    ),
)
