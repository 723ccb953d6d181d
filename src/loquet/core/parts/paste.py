"""Solder pastes: the limits that a curve of heat must keep."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.plain.frozen import Frozen

Degrees = Annotated[float, Field(ge=20, le=400)]
Seconds = Annotated[float, Field(ge=0, le=1200)]
Slope = Annotated[float, Field(gt=0, le=20)]


class Paste(Frozen):
    """A solder paste and what its curve must keep: soak (°C from, to; s from, to), liquid (°C; s
    from, to), peak (°C from, to), the steepest way up and down (K/s), and from 25 °C to the peak
    (s); `known` by a standard, or typed from its data sheet, which `source` names.
    """

    id: Annotated[str, Field(pattern=r"^(paste/)?[a-z0-9][a-z0-9.-]{0,59}$")]
    name: Annotated[str, Field(min_length=2, max_length=80)]
    known: Literal["standard", "typed"]
    source: Annotated[str, Field(max_length=200)] = ""
    soak_c: tuple[Degrees, Degrees]
    soak_s: tuple[Seconds, Seconds]
    liquid_c: Degrees
    liquid_s: tuple[Seconds, Seconds]
    peak_c: tuple[Degrees, Degrees]
    up_k_s: Slope
    down_k_s: Slope
    whole_s: Annotated[float, Field(gt=0, le=1800)]
