"""An amplifier with a speaker."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Duty, KitItem, Lack, Loose, Thing


class Speaker(Thing):
    """An amplifier with a speaker: fed by a converter output of the chip, by a timer, or by a
    digital sound bus.
    """

    GROUP = "sounds"
    TITLE = "Speaker with amplifier"
    WORD = "speaker"
    MARK = "sound"
    DRAWS = ("amplifier-class-d",)
    DUTY = Duty(0.125, 0.02, 0.0, "music and speech are an eighth of full power; common practice")

    kind: Literal["speaker"] = "speaker"
    feed_by: Annotated[Literal["converter", "timer", "sound bus"], Field(title="Sound from")] = (
        "timer"
    )
    mute_line: bool = True
    volume: bool = False

    def bodies(self) -> tuple[Body, ...]:
        """The speaker; a usual small one."""
        return (Body(size_mm=(20.0, 20.0)),)

    def loose(self) -> Loose:
        """A usual small one, 5 mm high."""
        return Loose(f"the {self.name}", (20.0, 20.0), 5.0)

    def lacks(self, kinds: frozenset[str]) -> tuple[Lack, ...]:
        """A volume control and a socket."""
        found = []
        if not self.volume and "slider" not in kinds:
            way = "Add a thumb-wheel, or set it from a menu."
            found.append(Lack("Nothing sets the volume of the speaker.", way))
        if "headphones" not in kinds:
            thing = {"kind": "headphones", "name": "headphones", "board": self.board}
            edit = {"kind": "add-thing", "thing": thing}
            label = "Add a headphone socket"
            sentence = "There is a speaker and no headphone socket."
            found.append(Lack(sentence, "Add one, or do without.", label, edit))
        return tuple(found)

    def kit(self) -> tuple[KitItem, ...]:
        """The speaker with its lead."""
        return (
            KitItem("sound and shows", "speaker 8 Ω, 1 W, 20 mm", 1, f"{self.name}"),
            KitItem(
                "leads and cables",
                "lead with a plug half for 2 pins at 2.0 mm (sockets, keyed), to the speaker",
                1,
                f"lead of {self.name}",
            ),
        )
