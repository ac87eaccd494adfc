"""Stacks and set-ups in words: what to fetch and where it goes."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping

from asketa_core.client.holds import SlotValue
from asketa_core.poses.library import Variation
from asketa_core.poses.recipe import Recipe, StackSlot
from asketa_core.props.kinds import Room, kinds
from asketa_core.props.stacks import Layer, Stack
from asketa_core.texts import texts
from asketa_core.words.catalogue import lookup, say

_PLACE_WORDS = ("Under", "Between", "Behind", "On", "Along", "Around", "Outside")


def says_where(label: str) -> bool:
    """Whether a slot's label says where a stack lies ('Under the knee'); others name the thing itself ('Seat')."""
    return label.split(" ", maxsplit=1)[0] in _PLACE_WORDS


def in_sentence(label: str) -> str:
    return label[:1].lower() + label[1:]


def count_words(count: int) -> str:
    """'two'; figures where there is no word."""
    return str(texts()["stacks"]["count"].get(count, count))


def _prop_words(layer: Layer, count: int) -> str:
    """'block lying flat', 'two folded blankets': one prop as it lies, so many times."""
    # Folded as thick as it goes a blanket is simply a folded blanket.
    wide = layer.kind == "blanket" and layer.way != str(max(kinds()["blanket"].layers))
    kind = "wide_blanket" if wide else layer.kind
    way = texts()["stacks"]["way" if count == 1 else "ways"].get(layer.way, "")
    form = lookup("stacks", "one" if count == 1 else "many")[kind]
    return str(form).format(way=way, height=f"{layer.height_cm:.0f}", count=count_words(count))


def layer_words(layer: Layer) -> str:
    words = _prop_words(layer, layer.pieces)
    return words if layer.pieces == 1 or layer.piled else say("stacks", "beside", words=words)


def stack_words(stack: Stack, base: str = "floor") -> str:
    """'chair 45 with two folded blankets'; what it would stand on when nothing is needed."""
    if not stack.layers:
        return say("stacks", base)
    alike: list[tuple[Layer, int]] = []
    for layer in stack.layers:
        if alike and (alike[-1][0].prop_id, alike[-1][0].way, layer.pieces) == (layer.prop_id, layer.way, 1):
            alike[-1] = (layer, alike[-1][1] + 1)
        else:
            alike.append((layer, 1))
    parts = [layer_words(layer) if count == 1 else _prop_words(layer, count) for layer, count in alike]
    if stack.layers[0].kind == "chair" and len(parts) > 1:
        return say("stacks", "on_chair", chair=parts[0], rest=_listed(parts[1:]))
    return _listed(parts)


def _listed(parts: list[str]) -> str:
    words = ", ".join(parts[:-1])
    return say("stacks", "also", words=words, rest=parts[-1]) if words else parts[-1]


def built_words(stack: Stack) -> str:
    """The same with the height it comes to where that is not plain from the words: 'bolster and folded blanket (17 cm)'."""
    words = stack_words(stack)
    plain = not stack.layers or stack.items == 1
    return words if plain else say("stacks", "height", words=words, height=f"{stack.height_cm:.0f}")


def fetch_list(stacks: Iterable[Stack], room: Room) -> list[str]:
    """What to take from the shelf, props of one kind and way together."""
    count: Counter[tuple[str, str]] = Counter()
    layers: dict[tuple[str, str], Layer] = {}
    names = {prop.id: prop.name for prop in room.stock}
    for stack in stacks:
        for layer in stack.layers:
            own = names.get(layer.prop_id, "") if layer.kind == "chair" else ""
            key = (own, _prop_words(layer, 1))
            layers.setdefault(key, layer)
            count[key] += layer.pieces
    found = []
    for key, number in count.items():
        words = _prop_words(layers[key], number)
        found.append(f"{key[0]} ({words})" if key[0] else words)
    return found


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
    found += [f"wall_{wall}" for wall in recipe.walls]
    return [say("hand_supports", code) for code in found]
