"""A part of one's own."""

import re
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.on_posts import OnPosts
from loquet.core.brief.thing import Body, Fault, only

Package = Literal["row of posts", "two sides", "four sides", "no leads", "two rows", "drawn pads"]
Length = Annotated[float, Field(ge=0.05, le=100)]
ALL_LEADS = ("two sides", "four sides", "no leads", "two rows")
PACKED = only(package=ALL_LEADS)
ANY = only(package=(*ALL_LEADS, "drawn pads"))
BENT, FEET = only(package=("two sides", "four sides", "two rows")), only(package=ALL_LEADS[:3])
PAD = re.compile(r"^[A-Z0-9]{1,4}( -?\d+(\.\d+)?){2}( \d+(\.\d+)?){2,3}$")
SIDES = {"two sides": 2, "four sides": 4, "no leads": 4, "two rows": 2}


class OwnPart(OnPosts):
    """A part of one's own, which asks the brain for plain lines, named 1, 2 and so on: on a row of
    posts, in a package by its dimensions, or on pads as they are drawn.

    Its pins in order are those of `pin_order`, which also names the exposed pad of a package
    without leads, one past the last.
    """

    GROUP = "own"
    TITLE = "Part of one's own"
    WORD = "part"
    MARK = "box"

    kind: Literal["own-part"] = "own-part"
    lines: Annotated[int, Field(ge=0, le=24)] = 0
    width_mm: Annotated[float, Field(ge=0.5, le=200)] = 10.0
    height_mm: Annotated[float, Field(ge=0.5, le=200)] = 10.0
    package: Package = "row of posts"
    tall_mm: Annotated[Length, Field(description="mm above the board", json_schema_extra=ANY)] = 2.0
    pins: Annotated[int, Field(ge=2, le=144, json_schema_extra=PACKED)] = 8
    pitch_mm: Annotated[
        Length, Field(description="mm from pin to pin", json_schema_extra=PACKED)
    ] = 1.27
    span_mm: Annotated[
        Length, Field(description="mm over the leads, or between two rows", json_schema_extra=BENT)
    ] = 6.0
    foot_mm: Annotated[
        Length, Field(description="mm of a lead that lie on the pad", json_schema_extra=FEET)
    ] = 0.8
    lead_mm: Annotated[
        Length, Field(description="mm that a lead or a pad is wide", json_schema_extra=PACKED)
    ] = 0.4
    exposed_mm: Annotated[
        Length,
        Field(
            description="mm of the pad under the middle",
            json_schema_extra=only(package=("no leads",)),
        ),
    ] = 1.7
    drill_mm: Annotated[
        float,
        Field(
            ge=0,
            le=5,
            description="mm of the holes, 0 for none",
            json_schema_extra=only(package=("two rows",)),
        ),
    ] = 0.0
    pads: Annotated[
        str,
        Field(
            max_length=3000,
            description="number x y width height [hole] in mm, with commas between",
            json_schema_extra=only(package=("drawn pads",)),
        ),
    ] = ""

    def line_names(self) -> tuple[str, ...]:
        """Numbers from 1."""
        return tuple(str(i + 1) for i in range(self.lines))

    def bodies(self) -> tuple[Body, ...]:
        """Its posts, and as large as it is said to be; or its package."""
        if self.package == "row of posts":
            return self.on_board(self.width_mm, self.height_mm)
        return (Body("posts", self.part_id(), size_mm=(self.width_mm, self.height_mm)),)

    def part_id(self) -> str:
        """The id that tells its package."""
        lengths = {
            "pins": self.pins,
            "pitch": self.pitch_mm,
            "span": self.span_mm,
            "foot": self.foot_mm,
            "lead": self.lead_mm,
            "exposed": self.exposed_mm,
            "drill": self.drill_mm,
            "w": self.width_mm,
            "h": self.height_mm,
            "tall": self.tall_mm,
        }
        if self.package == "drawn pads":
            rows = "|".join(self.drawn())
            size = f"w={self.width_mm:g};h={self.height_mm:g};tall={self.tall_mm:g}"
            return f"own:{self.package};pads={rows};{size}"
        pairs = ";".join(f"{name}={value:g}" for name, value in lengths.items())
        return f"own:{self.package};{pairs}"

    def drawn(self) -> tuple[str, ...]:
        """Its drawn pads, each with single blanks."""
        rows = (" ".join(row.split()) for row in self.pads.split(","))
        return tuple(row for row in rows if row)

    def faults(self) -> tuple[Fault, ...]:
        """Those of its pin order; pins that its package does not have, or that no side can hold;
        pads that cannot be read.
        """
        found = super().faults()
        if found or self.package == "row of posts":
            return found
        if self.package == "drawn pads":
            return self.pad_faults()
        if self.pins % SIDES[self.package]:
            words = f"{self.pins} pins do not part over {SIDES[self.package]} sides"
            return (Fault("pins", words, "Type how many pins the package has in all."),)
        if self.package in ("two sides", "four sides") and self.span_mm <= 2 * self.foot_mm:
            words = f"two feet of {self.foot_mm:g} mm do not fit in {self.span_mm:g} mm"
            return (Fault("span_mm", words, "Measure over the tips of the leads."),)
        if self.lead_mm >= self.pitch_mm:
            words = f"a lead of {self.lead_mm:g} mm is wider than its pitch of {self.pitch_mm:g} mm"
            return (Fault("lead_mm", words, "Measure one lead, and from lead to lead."),)
        most = self.pins + (self.package == "no leads")
        if len(self.posts()) > most:
            words = f"names {len(self.posts())} pins, and the package has {most}"
            return (Fault("pin_order", words, "Take some out, or give it more pins."),)
        return ()

    def pad_faults(self) -> tuple[Fault, ...]:
        """Pads that cannot be read, or fewer than pins are named."""
        rows = self.drawn()
        for row in rows:
            if not PAD.match(row):
                way = (
                    "Write number x y width height, and a hole where it has one, such as 1 -1.5 0"
                    " 1 2."
                )
                return (Fault("pads", f"has '{row[:40]}', which is no pad", way),)
        numbers = {row.split()[0] for row in rows}
        missing = [str(i + 1) for i in range(len(self.posts())) if str(i + 1) not in numbers]
        if missing:
            return (
                Fault("pads", f"has no pad {missing[0]}", "Draw one for every pin in the order."),
            )
        return ()
