"""The Circuit station switched on: a state of the device that a person picks, and what is wrong in
which.
"""

from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import BaseModel

from loquet.api.context import ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.core.design import slice_of
from loquet.core.energising.energised import Energised
from loquet.core.energising.loading import Load, loads_at
from loquet.core.energising.states import (
    Level,
    State,
    UnknownState,
    Way,
    read_state,
    usual_state,
)
from loquet.core.energising.wording import level_words, words_of
from loquet.core.lookup.switched_on import energised_of, planned_of, seen_in
from loquet.store.designs import head_of, load_design

router = APIRouter(prefix="/api", tags=["circuit"])
StateText = Annotated[str, Query(max_length=400, description="cell=usual+usb=usual,high,play,on")]


class LevelView(BaseModel):
    """How a source may be there."""

    level: Level
    words: str
    volts: float


class SourceView(BaseModel):
    """A source with its levels, the one that it has (nothing where it is absent), and what it
    gives in mA (less than nothing where current flows into it).
    """

    name: str
    label: str
    levels: list[LevelView]
    level: str
    gives_ma: float


class NodeView(BaseModel):
    """A net in a state: its volts against ground, and what flows into it in mA."""

    net: str
    volts: float
    current_ma: float


class OnView(BaseModel):
    """A device in one state. `sound` is false where no answer keeps its own sums: then there are no
    volts and no loads.
    """

    id: str
    words: str
    sound: bool
    acts: str
    mode: str
    on: bool
    key: str
    keys: list[str]
    switch: str
    states: int
    sources: list[SourceView]
    nodes: list[NodeView]
    loads: list[Load]


@router.get("/projects/{project_id}/on")
def get_switched_on(
    project_id: int, session: SessionNow, context: ContextNow, state: StateText = ""
) -> OnView:
    """The device in a state, or with everything as it is usually; refused before there is a
    circuit, and for a state that it has not.
    """
    design = load_design(session, head_of(session, project_id).version)
    if not design.circuit:
        raise Refused("There is no circuit yet.", "Make it first.", 404)
    library, circuit = context.known(design), slice_of(design.circuit)
    whole = energised_of(design.brief, circuit, library, planned_of(design, library))
    try:
        wanted = read_state(whole.device, state) if state else usual_state(whole.ways)
    except UnknownState as error:
        raise Refused(error.problem, error.way_out, 422) from None
    return describe(whole, seen_in(whole, wanted), wanted)


def describe(whole: Energised, seen: Energised, state: State) -> OnView:
    """A state as it is shown."""
    brief, sound = whole.device.brief, bool(seen.sound[0])
    levels = dict(state.sources)
    flowing = seen.answers.sums[1][0]
    at = seen.answers.made.at
    return OnView(
        id=state.id,
        words=words_of(state, whole.ways),
        sound=sound,
        acts=state.acts,
        mode=state.mode,
        on=state.on,
        key=state.key,
        keys=[c.words for thing in brief.things for c in thing.contacts()],
        switch=next((t.label for t in brief.things if t.SWITCHES), ""),
        states=len(whole.states),
        sources=[
            SourceView(
                name=way.name,
                label=way.label,
                levels=levels_of(way),
                level=levels.get(way.name, ""),
                gives_ma=1000 * float(seen.given_a[way.name][0]) if way.name in seen.given_a else 0,
            )
            for way in whole.ways
        ],
        nodes=[
            NodeView(
                net=net.name,
                volts=float(seen.volt(net.name)[0]),
                current_ma=1000 * float(flowing[at[net.name]]),
            )
            for net in whole.device.circuit.nets
            if sound and net.name in at
        ],
        loads=list(loads_at(seen, 0)) if sound else [],
    )


def levels_of(way: Way) -> list[LevelView]:
    """How a source may be there, in words."""
    return [
        LevelView(level=level, words=level_words(way, level), volts=way.usual_v * share)
        for level, share in way.shares
    ]
