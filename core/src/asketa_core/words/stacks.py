"""Stacks and set-ups in words: what to fetch and where it goes."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping

from asketa_core.clientfile import SlotValue
from asketa_core.poses.library import Variation
from asketa_core.poses.recipe import Recipe, StackSlot
from asketa_core.props.kinds import Room
from asketa_core.props.stacks import Layer, Stack
from asketa_core.texts import texts
from asketa_core.words.catalogue import lookup, say

_PLACE_WORDS = ("Under", "Between", "Behind")


def says_where(label: str) -> bool:
    """Whether a slot's label says where a stack lies ('Under the knee'); others name the thing itself ('Seat')."""
    return label.split(" ", maxsplit=1)[0] in _PLACE_WORDS


def in_sentence(label: str) -> str:
    return label[:1].lower() + label[1:]


def layer_words(layer: Layer) -> str:
    kind, way = layer.kind, layer.way
    if kind == "chair":
        return say("stacks", "chair", height=f"{layer.height_cm:.0f}")
    shown_way = way if kind == "blanket" else str(lookup("stacks", way))
    words = say("stacks", kind, way=shown_way)
    if layer.pieces > 1:
        both = texts()["stacks"].get(f"{way}_pair", shown_way)
        words = say("stacks", "pair", item=kind.replace("_", " ")) + f", {both}"
    return words


def stack_words(stack: Stack) -> str:
    """'chair 45, blanket in 8 layers'; 'floor' when nothing is needed."""
    counted = Counter(layer_words(layer) for layer in stack.layers)
    return ", ".join(f"{n} × {words}" if n > 1 else words for words, n in counted.items()) or say("stacks", "floor")


def fetch_list(stacks: dict[str, Stack], room: Room) -> list[str]:
    """What to take from the shelf, props of one kind and way together."""
    count: Counter[str] = Counter()
    names = {prop.id: prop.name for prop in room.props}
    for stack in stacks.values():
        for layer in stack.layers:
            own = names.get(layer.prop_id, "")
            words = f"{own} ({layer_words(layer)})" if own and layer.kind == "chair" else layer_words(layer)
            count[words] += 1
    return [f"{number} × {words}" if number > 1 else words for words, number in count.items()]


def heights_words(variation: Variation, setup: Mapping[str, SlotValue]) -> str:
    """What a set-up that was used stood on, in one line: 'seat 49, foot block 10'. Slots the variation no longer
    has are left out."""
    return ", ".join(
        f"{variation.label_of(name).lower()} {value.number:.0f}"
        for name, value in setup.items()
        if isinstance(variation.setup_slots.get(name), StackSlot) and value.number
    )


def hand_supports(recipe: Recipe) -> list[str]:
    """What the pose leans on beside its stacks: a chair or a wall."""
    found: list[str] = [recipe.hands.on] if recipe.hands.on in texts()["hand_supports"] else []
    if recipe.wall_behind:
        found.append("wall_behind")
    return [say("hand_supports", code) for code in found]
