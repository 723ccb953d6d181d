"""From terminals to pads: recipes say which function of a part lies on which net, and only here
is asked which pads that function has on the part that was taken.
"""

from collections.abc import Iterable, Mapping
from dataclasses import replace

from loquet.core.circuit.model import Component, Fragment
from loquet.core.parts import Part


def landed(component: Component, parts: Mapping[str, Part]) -> Component:
    """A component with its nets by pad in place of terminal, in the order of the pads; the
    terminals of a chip are its pins. Raises PartError for a terminal that its part has not.
    """
    if component.is_chip:
        return component
    part = parts[component.part]
    pads = {pad: net for name, net in component.pads.items() for pad in part.pads(name)}
    update: dict[str, object] = {
        "pads": dict(sorted(pads.items(), key=lambda row: (len(row[0]), row[0])))
    }
    if component.on_pad:
        update["on_pad"] = part.pad(component.on_pad)
    return component.model_copy(update=update)


def landed_beside(fragments: Iterable[Fragment], parts: Mapping[str, Part]) -> list[Fragment]:
    """All fragments on their pads, and every part beside the pad of the terminal at which it must
    stand.
    """
    fragments = list(fragments)
    part_of = {c.role: parts[c.part] for f in fragments for c in f.components if not c.is_chip}

    def beside(component: Component) -> Component:
        host = part_of.get(component.near_role)
        if host is None:
            return component
        return component.model_copy(update={"near_pad": host.pad(component.near_pad)})

    return [
        replace(f, components=tuple(beside(landed(c, parts)) for c in f.components))
        for f in fragments
    ]
