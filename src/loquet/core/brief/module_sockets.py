"""The sockets that ready modules have on themselves."""

from loquet.core.brief import Brief, Thing
from loquet.core.brief.kinds.module_port import ModulePort


def module_of(brief: Brief, port: ModulePort) -> Thing | None:
    """The brain on which a socket is: the one that it names, or the first."""
    return next((b for b in brief.brains if port.brain in ("", b.name)), None)


def module_sockets(brief: Brief) -> dict[str, ModulePort]:
    """The first socket that is in use on each module, by the module's name."""
    found: dict[str, ModulePort] = {}
    for thing in brief.things:
        module = module_of(brief, thing) if isinstance(thing, ModulePort) else None
        if isinstance(thing, ModulePort) and module is not None:
            found.setdefault(module.name, thing)
    return found
