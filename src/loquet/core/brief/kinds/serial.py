"""An asynchronous serial port."""

from typing import Literal

from loquet.core.brief.thing import Body, KitItem, Thing


class SerialPort(Thing):
    """An asynchronous serial port: a spare one, or the pair to another half that cannot be left
    out.
    """

    GROUP = "ports"
    TITLE = "Serial port"
    WORD = "link"
    MARK = "header"
    EDGE = True

    kind: Literal["serial"] = "serial"
    spare: bool = True

    def bodies(self) -> tuple[Body, ...]:
        """Four posts."""
        return (Body(part="posts-4", size_mm=(10.16, 2.54)),)

    @property
    def LEFT_OUT_CENTS(self) -> float | None:  # type: ignore[override] # noqa: N802
        """Only a spare one can be left out."""
        return 80.0 if self.spare else None

    def kit(self) -> tuple[KitItem, ...]:
        """A lead."""
        return (
            KitItem("leads and cables", "lead with 4 sockets at 2.54 mm", 1, f"at {self.name}"),
        )
