"""A role: what a part must have to serve as its kind, as data."""

from loquet.core.parts import Part
from loquet.core.parts.in_use import STAYS, InUse, Mates
from loquet.core.parts.mating import End, end_of
from loquet.core.plain.frozen import Frozen

BY_MODE = ("plays_ma", "waits_ma", "sleeps_ma")
"""What a part draws by mode: figures that one which draws something could say, and need not."""

SPARES = ("spare_share", "spare_least")
"""How many more than wanted are bought of a part, where it says that."""


class Figure(Frozen):
    """A figure of a part in words, with its unit."""

    words: str
    unit: str = ""


class Role(Frozen):
    """Terminals that recipes ask a part of a kind for (or numbered `ways`), those that they know
    what to do with where it has them `also`, and figures that they and the rules want, the most
    harmful to leave out first, or that it `may_say`; and how parts of the kind mate, go on beyond
    their bodies, are tried before they are soldered (empty: too cheap to try, a spare does it) and
    what is bought with each, where they do not say it themselves.
    """

    name: str
    terminals: tuple[str, ...] = ()
    also: tuple[str, ...] = ()
    ways: bool = False
    figures: tuple[str, ...] = ()
    may_say: tuple[str, ...] = ()
    mates: Mates | None = None
    in_use: InUse | None = None
    trial: str = ""
    with_it: tuple[str, ...] = ()

    @property
    def could_say(self) -> tuple[str, ...]:
        """Figures that are not missing where they are not known."""
        draws = "draws_ma" in (*self.figures, *self.may_say)
        return (*self.may_say, *(BY_MODE if draws else ()), *SPARES)


class Roles(Frozen):
    """All roles by name, and all figures."""

    figures: dict[str, Figure]
    role: tuple[Role, ...]

    def of(self, kind: str) -> Role | None:
        """The role of a kind; nothing for a kind that no recipe asks for."""
        return next((role for role in self.role if role.name == kind), None)

    def end(self, part: Part) -> End | None:
        """How a part mates, if it is a connector."""
        role = self.of(part.kind)
        return end_of(part, part.mates or (role.mates if role else None))

    def in_use(self, part: Part) -> InUse:
        """How a part goes on beyond its body."""
        role = self.of(part.kind)
        return part.in_use or (role.in_use if role else None) or STAYS

    def trial(self, part: Part) -> str:
        """How one is tried before it is soldered."""
        role = self.of(part.kind)
        return part.trial or (role.trial if role else "")

    def with_it(self, part: Part) -> tuple[str, ...]:
        """What is bought with each: a cap, a nut."""
        role = self.of(part.kind)
        return part.with_it or (role.with_it if role else ())

    def words(self, figure: str) -> str:
        """A figure as it is said: `highest supply (V)`."""
        found = self.figures.get(figure)
        if found is None:
            return figure
        return f"{found.words} ({found.unit})" if found.unit else found.words

    def lacks(self, part: Part) -> tuple["Lack", ...]:
        """What a part has not of its role: terminals, without which no recipe can take it, then
        figures in the order of harm, without which something goes unchecked.
        """
        role = self.of(part.kind)
        if role is None:
            words = f"nothing knows what a '{part.kind}' is for"
            return (Lack(what="kind", words=words, serves=False),)
        found = [
            Lack(what=name, words=f"terminal '{name}'", serves=False)
            for name in role.terminals
            if name not in part.terminals
        ]
        found += [
            Lack(what=name, words=self.words(name), serves=True)
            for name in role.figures
            if name not in part.values
        ]
        return tuple(found)


class Lack(Frozen):
    """Something that a part has not; without it the part `serves` all the same, unchecked, or
    not.
    """

    what: str
    words: str
    serves: bool
