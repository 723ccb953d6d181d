"""A user's own chip or ready module: its pads and what each can do."""

from typing import Annotated

from pydantic import Field

from loquet.core.plain.frozen import Frozen


class OwnPad(Frozen):
    """A pad: its name on the module, its port, and what it can do, such as `input`, `adc.in0`,
    `i2c1.scl`.
    """

    pad: Annotated[str, Field(pattern=r"^[A-Za-z0-9+.-]{1,12}$")]
    port: Annotated[str, Field(pattern=r"^[A-Za-z0-9+._/-]{0,16}$")] = ""
    can: Annotated[
        tuple[Annotated[str, Field(pattern=r"^[A-Za-z0-9_.@ -]{1,40}$")], ...], Field(max_length=60)
    ] = ()


class PinTable(Frozen):
    """A table of pads.

    `module` says that it is a ready module rather than a bare chip, `package` names the part of
    one's own that draws its land pattern; without one its pins can be planned, and no board made.
    """

    name: Annotated[
        str,
        Field(
            pattern=r"^[A-Za-z0-9][A-Za-z0-9 ._+-]{0,39}$",
            description="letters, digits, spaces and . _ + -",
        ),
    ]
    module: bool = True
    package: Annotated[str, Field(max_length=80)] = ""
    pads: Annotated[tuple[OwnPad, ...], Field(min_length=2, max_length=300)]
    source: Annotated[str, Field(max_length=200)] = "the user's own table"
