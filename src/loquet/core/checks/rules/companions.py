"""What such a device usually has and this one lacks, each with the addition at one press where
Loquet can make it.
"""

from loquet.core.brief import Brief, Lack, keys_of
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import Finding, Outcome, Repair, Source

MANY_CONTROLS = 8


def run(subject: Subject) -> Outcome:
    """Notes on mounting, lights, menus, and on what each thing wants beside it."""
    brief = subject.brief
    found = mounting(brief)
    for each in brief.things:
        for lack in each.lacks(brief.kinds):
            found.append(said(lack, (thing(each.name),)))
    return outcome(found, 8)


def said(lack: Lack, about: tuple[str, ...]) -> Finding:
    """A lack as a finding, with its repair."""
    repairs = (Repair(label=lack.label, edit=dict(lack.edit)),) if lack.edit else ()
    return RULE.finding(lack.sentence, lack.way_out, about, repairs=repairs)


def mounting(brief: Brief) -> list[Finding]:
    """Holes, a light, a menu key."""
    found = []
    for board in brief.boards:
        if sum(t.drilled() is not None for t in brief.on(board.name)) < 2:
            edit = {"kind": "add-corner-holes", "board": board.name}
            add = Repair(label="Add four holes at the corners", edit=edit)
            words = "The board" if len(brief.boards) == 1 else f"The board {board.name}"
            sentence = f"{words} has fewer than two fixing holes."
            way = "Add holes, or say how the shell holds it."
            found.append(RULE.finding(sentence, way, (f"board:{board.name}",), repairs=(add,)))
    if not any(t.GROUP == "shows" and t.current_ma() and t.FIXED for t in brief.things):
        light = {"kind": "light", "name": "light", "board": brief.boards[0].name}
        add = Repair(label="Add an indicator light", edit={"kind": "add-thing", "thing": light})
        sentence = "There is no indicator light, so nobody sees whether the device is on."
        way = "Add one at the Brief station."
        found.append(RULE.finding(sentence, way, repairs=(add,)))
    many = len(brief.group("controls")) > MANY_CONTROLS
    if brief.role == "stand-alone" and many and not any(k.duty == "menu" for k in keys_of(brief)):
        way = "Give one button that duty, or do without."
        found.append(RULE.finding("No control is a menu key.", way))
    return found


RULE = Rule(
    "companions",
    "brief",
    "note",
    "Things forgotten in the brief come back as a second revision.",
    Source(kind="common practice", text="what such devices usually have, no source"),
    run,
)
