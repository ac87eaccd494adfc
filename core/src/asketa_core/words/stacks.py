"""Stacks and set-ups in words: what to fetch and where it goes."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping

from asketa_core.client.holds import SlotValue
from asketa_core.poses.library import Variation
from asketa_core.poses.recipe import ChoiceSlot, Recipe, Slot, StackSlot
from asketa_core.props.kinds import Room, kinds
from asketa_core.props.stacks import Layer, Stack
from asketa_core.texts import Own, Phrase, has, listed, say


def says_where(slot: Slot) -> bool:
    """Whether a slot's label says where a stack lies ('Under the knee'); others name the thing itself ('Seat')."""
    return isinstance(slot, StackSlot) and slot.names_place


def _counted(count: int) -> Phrase | int:
    """'two'; figures where there is no word."""
    return say("stacks", "count", str(count)) if has("stacks", "count", str(count)) else count


def _prop_words(layer: Layer, count: int) -> Phrase:
    """'block lying flat', 'two folded blankets': one prop as it lies, so many times."""
    # Folded as thick as it goes a blanket is simply a folded blanket.
    wide = layer.kind == "blanket" and layer.way != str(max(kinds()["blanket"].layers))
    kind = "wide_blanket" if wide else layer.kind
    way = ("stacks", "way" if count == 1 else "ways", layer.way)
    shown = {"way": say(*way)} if has(*way) else {}
    form = "one" if count == 1 else "many"
    return say("stacks", form, kind, **shown, height=round(layer.height_cm), count=_counted(count))


def layer_words(layer: Layer) -> Phrase:
    words = _prop_words(layer, layer.pieces)
    return words if layer.pieces == 1 or layer.piled else say("stacks", "beside", words=words)


def stack_words(stack: Stack, base: str = "floor") -> Phrase:
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
        return say("stacks", "on_chair", chair=parts[0], rest=listed(parts[1:], "and"))
    return listed(parts, "and")


def built_words(stack: Stack) -> Phrase:
    """The same with the height it comes to where that is not plain from the words: 'bolster and folded blanket (17 cm)'."""
    return stack_words(stack) if not stack.layers or stack.items == 1 else _with_height(stack)


def sized_words(stack: Stack) -> Phrase:
    """The same always with its height, for a change between stacks that may bear one name: 'block lying flat (10 cm)'."""
    said = not stack.layers or (len(stack.layers) == 1 and stack.layers[0].kind == "chair")
    return stack_words(stack) if said else _with_height(stack)


def _with_height(stack: Stack) -> Phrase:
    return say("stacks", "height", words=stack_words(stack), height=round(stack.height_cm))


def fetch_list(stacks: Iterable[Stack], room: Room) -> list[Phrase]:
    """What to take from the shelf, props of one kind and way together."""
    count: Counter[tuple[str, Phrase]] = Counter()
    layers: dict[tuple[str, Phrase], Layer] = {}
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
        found.append(say("stacks", "named", name=Own(key[0]), words=words) if key[0] else words)
    return found


def home_list(stacks: Iterable[Stack]) -> list[Phrase]:
    """The same as one finds it at home, by its height: 'a thick book or a firm box, 10 cm high'. A seat, a bed and what is
    the same everywhere keep their names."""
    layers = [layer for stack in stacks for layer in stack.layers]
    count: Counter[Phrase] = Counter()
    for layer in layers:
        at = ("stacks", "home", layer.kind)
        count[say(*at, height=round(layer.height_cm)) if has(*at) else _prop_words(layer, 1)] += layer.pieces
    return [say("stacks", "times", count=_counted(n), words=words) if n > 1 else words for words, n in count.items()]


def heights_words(variation: Variation, setup: Mapping[str, SlotValue]) -> Phrase:
    """What a set-up that was used stood on, in one line: 'seat 49, foot block 10, foot drawn up'. Slots the variation no
    longer has are left out."""
    heights = [
        say("stacks", "at_height", label=variation.label_of(name), height=round(value.number))
        for name, value in setup.items()
        if isinstance(variation.setup_slots.get(name), StackSlot) and value.number
    ]
    return listed([*heights, *chosen_words(variation, setup)])


def chosen_words(variation: Variation, setup: Mapping[str, SlotValue]) -> list[Phrase]:
    """What of a set-up is otherwise than usual and is no prop: 'foot drawn up'."""
    return [
        say("stacks", "chosen", label=slot.label.inside, choice=say("choices", value.choice))
        for name, value in setup.items()
        if isinstance(slot := variation.setup_slots.get(name), ChoiceSlot)
        and value.choice is not None
        and value.choice != slot.plain
    ]


def hand_supports(recipe: Recipe) -> list[Phrase]:
    """What the pose leans on beside its stacks: a chair or a wall."""
    found: list[str] = [recipe.hands.on] if has("hand_supports", recipe.hands.on) else []
    found += [f"wall_{wall}" for wall in recipe.walls]
    return [say("hand_supports", code) for code in found]
