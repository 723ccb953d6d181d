"""Chords: which keys may be held together, as a test that is closed downwards."""

from collections.abc import Iterable
from itertools import combinations

from loquet.core.brief import Brief, Key, keys_of
from loquet.core.pins.ghosting import Together

OPPOSITE = {"up": "down", "down": "up", "left": "right", "right": "left"}


def together_of(brief: Brief) -> Together:
    """The test of the brief's own rule: whether a set of keys may be held together."""
    keys = {key.id: key for key in keys_of(brief)}
    chords = brief.chords
    match chords.rule:
        case "typing":
            return lambda held: len(held) <= chords.at_once
        case "own":
            groups = [frozenset(group) for group in chords.groups]
            return lambda held: len(held) <= 1 or any(held <= group for group in groups)
        case "two thumbs" | "whole pad":
            most = 1 if chords.rule == "two thumbs" else 2
            return lambda held: all(
                thumb_can([keys[k] for k in held if keys[k].digit == thumb], most)
                for thumb in ("left thumb", "right thumb")
            )


def thumb_can(held: list[Key], most: int) -> bool:
    """Whether one thumb can hold these keys: so many, or two neighbouring directions of one pad."""
    if len(held) <= 1:
        return True
    if any(
        a.pad and a.pad == b.pad and OPPOSITE.get(a.direction) == b.direction
        for a, b in combinations(held, 2)
    ):
        return False
    if len(held) <= most:
        return True
    return (
        len(held) == 2
        and bool(held[0].pad)
        and held[0].pad == held[1].pad
        and "press" not in (held[0].direction, held[1].direction)
    )


def chord_pairs(keys: Iterable[str], together: Together) -> int:
    """How many pairs of keys must be readable together."""
    return sum(together(frozenset(pair)) for pair in combinations(keys, 2))
