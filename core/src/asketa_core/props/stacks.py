"""Stacks: what can be built from a room's props, and the stack nearest a wanted height.

Stability: soft goes on hard and never the other way round, each layer's footprint covers the one
above, at most one block stands on end, and a seat is wide enough. Blankets are the one exception to
the footprint rule: they hang over the edge of what they lie on. What a seat may be made of is narrower than what
stands: nobody builds a tower to sit on. Folded blankets lie on each other as one pile.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache

from asketa_core.props.kinds import FURNITURE, Prop, Room, kinds

SITTING_WIDTH_CM = 25.0
SAME_HEIGHT_CM = 1.5
"""Stacks nearer than this in height are one choice unless a slot says otherwise: the simplest is offered. It is what
one fold more or less comes to, so that a step is something a person does."""

STANDS_FROM_CM = 15.0
"""A block this wide carries another; of narrower ones only one is in a stack under a limb."""

LIES_ONCE = frozenset({"cushion", "pillow", "towel_roll", "round_bolster"})
"""What rolls or sinks is not stacked on its like."""

MOST_THINGS = 3
"""More than three things under one place do not stay; a pile of folded blankets is one thing."""

MOST_PADDING = {True: 1, False: 2}
"""How many folded blankets pad a seat of blocks, and one of a bolster or cushion: more make a tower."""

MOST_ON_CHAIR = 2
"""A chair's seat takes at most two pieces before it is no longer a seat."""

LISTS_KEPT = 1024
"""Some ten rooms' lists of what can be built."""


class Use(StrEnum):
    """What rests on a stack; decides how much it gives, how wide it must be and what it may be made of."""

    SITTING = "sitting"
    STRADDLE = "straddle"
    """Sat on between the legs: kneeling, or in a deep squat."""
    CONTACT = "contact"
    """Touched only: the feet carry."""
    LIMB = "limb"


MOST_PILED = {Use.SITTING: 4, Use.STRADDLE: 4, Use.CONTACT: 1, Use.LIMB: 2}
"""How many folded blankets a pile may have."""


@dataclass(frozen=True, slots=True)
class Layer:
    """One prop in a stack. ``way`` is a face, a number of folds, or ``seat``. Several ``pieces`` lie side by side, or on
    each other where they are blankets."""

    prop_id: str
    kind: str
    way: str
    height_cm: float
    footprint_cm: tuple[float, float]
    pieces: int = 1

    @property
    def upright(self) -> bool:
        faces = kinds()[self.kind].faces
        return self.way in faces and faces[self.way].upright

    @property
    def piled(self) -> bool:
        """Whether its pieces lie on each other."""
        return kinds()[self.kind].drapes

    @property
    def things(self) -> int:
        """What a person would count: a pile is one."""
        return 1 if self.piled else self.pieces


@dataclass(frozen=True, slots=True)
class Stack:
    """Layers from the floor up. ``height_cm`` is the height under load; empty means the floor."""

    layers: tuple[Layer, ...]
    height_cm: float
    firm: bool = True
    arms: bool = False

    @property
    def items(self) -> int:
        return sum(layer.pieces for layer in self.layers)

    @property
    def used(self) -> Counter[str]:
        """How many of each prop it takes from the room."""
        count: Counter[str] = Counter()
        for layer in self.layers:
            count[layer.prop_id] += layer.pieces
        return count

    @property
    def to_build(self) -> int:
        """How much it is to build, in halves of a thing: whole props first, then one with a folded blanket, then piles."""
        return sum(2 * layer.things for layer in self.layers) + self.piled

    @property
    def kinds(self) -> Counter[str]:
        """How many of each kind it takes."""
        count: Counter[str] = Counter()
        for layer in self.layers:
            count[layer.kind] += layer.pieces
        return count

    @property
    def piled(self) -> int:
        """How many blankets lie on others."""
        return sum(layer.pieces - 1 for layer in self.layers if layer.piled)

    @property
    def tallness(self) -> tuple[int, float]:
        """Sort key for 'flattest': blocks on end last, then by the smallest footprint, larger first."""
        area = min((layer.footprint_cm[0] * layer.footprint_cm[1] for layer in self.layers), default=1e9)
        return (sum(layer.upright for layer in self.layers), -area)

    @property
    def key(self) -> str:
        """Stable name of this stack within its room, used to compare and to remember it."""
        parts = [
            f"{layer.prop_id}:{layer.way}" + (f"x{layer.pieces}" if layer.pieces > 1 else "") for layer in self.layers
        ]
        return "+".join(parts) or "floor"


FLOOR = Stack((), 0.0)


def _layers_of(prop: Prop, use: Use, faces: frozenset[str] | None, most_piled: int) -> Iterator[Layer]:
    kind = kinds()[prop.kind]
    for way, face in kind.faces.items():
        if faces is not None and way not in faces:
            continue
        yield Layer(prop.id, prop.kind, way, face.height_cm * _keeps(prop, use), face.footprint_cm)
        if use is Use.SITTING and kind.rigid and not face.upright and prop.count >= 2:
            long, short = face.footprint_cm
            yield Layer(prop.id, prop.kind, way, face.height_cm * _keeps(prop, use), (long, 2 * short), pieces=2)
    layer_cm = prop.layer_cm if prop.layer_cm is not None else kind.layer_cm
    if layer_cm is None:
        return
    thickest = max(kind.layers)
    for layers, footprint in kind.layers.items():
        one = layers * layer_cm * _keeps(prop, use)
        # Only the usual fold is piled: between one blanket and two a wide fold makes the difference, above that none.
        for pieces in range(1, (min(prop.count, most_piled) if layers == thickest else 1) + 1):
            yield Layer(prop.id, prop.kind, str(layers), pieces * one, footprint, pieces)


def _keeps(prop: Prop, use: Use) -> float:
    keeps = kinds()[prop.kind].keeps
    return keeps.sitting if use in (Use.SITTING, Use.STRADDLE) else keeps.limb


def _covers(below: tuple[float, float], above: tuple[float, float]) -> bool:
    return max(below) >= max(above) - 1e-9 and min(below) >= min(above) - 1e-9


def _may_lie_on(below: Layer | None, above: Layer, use: Use) -> bool:
    if below is None:
        return True
    # Arms and chest lie on a bolster laid across a seat; nobody sits on what reaches beyond it.
    if below.kind == "chair" and use is Use.LIMB and not kinds()[above.kind].rigid:
        return True
    if kinds()[above.kind].rigid and not kinds()[below.kind].rigid:
        return False
    if kinds()[above.kind].drapes and not kinds()[below.kind].drapes:
        return True
    # A blanket evens out what is below it: nothing stands on one, and a second pile on a first is one higher pile.
    if kinds()[below.kind].drapes:
        return False
    return _covers(below.footprint_cm, above.footprint_cm)


def _stable(layers: tuple[Layer, ...], use: Use) -> bool:
    laid = [layer for layer in layers if layer.kind != "chair"]
    if sum(layer.upright for layer in laid) > 1 or sum(layer.things for layer in laid) > MOST_THINGS:
        return False
    # Only what is long and firm lies on its like.
    if any(count > 1 for kind, count in Counter(layer.kind for layer in laid).items() if kind in LIES_ONCE):
        return False
    if use is Use.LIMB or not laid:
        return sum(kinds()[layer.kind].rigid and min(layer.footprint_cm) < STANDS_FROM_CM for layer in laid) <= 1
    hard = sum(kinds()[layer.kind].rigid for layer in laid)
    shaped = sum(not kinds()[layer.kind].rigid and not layer.piled for layer in laid)
    if use is Use.CONTACT:
        return len(laid) == 1
    if any(layer.upright for layer in laid) or shaped > 1:
        return False
    if use is Use.STRADDLE:
        return hard <= 2
    if len(laid) > 1 and any(layer.piled and layer.pieces > MOST_PADDING[hard > 0] for layer in laid):
        return False
    if hard > 1 or (len(laid) < len(layers) and sum(layer.pieces for layer in laid) > MOST_ON_CHAIR):
        return False
    # A draped blanket is as wide as what it lies on; two blocks side by side carry a pelvis.
    widths = [min(layer.footprint_cm) for layer in layers if not layer.piled and layer.pieces == 1] or [1e9]
    return min(widths) >= SITTING_WIDTH_CM


def _finish(layers: tuple[Layer, ...], arms: bool) -> Stack:
    return Stack(
        layers,
        sum(layer.height_cm for layer in layers),
        all(kinds()[layer.kind].firm for layer in layers),
        arms,
    )


@lru_cache(maxsize=LISTS_KEPT)
def buildable(
    room: Room,
    use: Use,
    on_chair: bool = False,
    allowed: tuple[str, ...] | None = None,
    faces: tuple[str, ...] | None = None,
    max_layers: int = 3,
    apart_cm: float = SAME_HEIGHT_CM,
    most_piled: int | None = None,
) -> tuple[Stack, ...]:
    """Every stable stack the room can build, one per height, lowest first. Kept: many slots of many clients ask for the
    same.

    ``on_chair`` starts from each chair of the room instead of the floor; ``allowed`` limits the kinds
    laid on top, ``faces`` the faces anything with faces may show.
    ``max_layers`` counts what lies on the chair or the floor. Where several stacks reach a height
    (within ``apart_cm``), the one that is least to build is kept, then the kind
    named first, then the flattest.
    ``most_piled`` is how many folded blankets a pile may have where that differs from the use's own.
    """
    face_set = None if faces is None else frozenset(faces)
    stock = {prop.id: prop.count for prop in room.stock}
    options = [
        layer
        for prop in room.stock
        if prop.kind not in FURNITURE and prop.count > 0 and (allowed is None or prop.kind in allowed)
        for layer in _layers_of(prop, use, face_set, MOST_PILED[use] if most_piled is None else most_piled)
    ]
    found: list[Stack] = []

    def grow(layers: tuple[Layer, ...], free: dict[str, int], arms: bool, left: int) -> None:
        if _stable(layers, use):
            found.append(_finish(layers, arms))
        if left == 0:
            return
        top = layers[-1] if layers else None
        for layer in options:
            if free[layer.prop_id] >= layer.pieces and _may_lie_on(top, layer, use):
                grow(
                    (*layers, layer),
                    {**free, layer.prop_id: free[layer.prop_id] - layer.pieces},
                    arms,
                    left - 1,
                )

    if on_chair:
        for prop in room.stock:
            if prop.kind == "chair" and prop.count > 0:
                size = prop.chair
                seat = Layer(prop.id, "chair", "seat", size.height_cm, (size.width_cm, size.depth_cm))
                grow((seat,), {**stock, prop.id: prop.count - 1}, size.arms, max_layers)
    else:
        grow((), stock, False, max_layers)
    return tuple(_one_per_height(found, apart_cm, use is Use.SITTING, allowed or ()))


def _one_per_height(stacks: list[Stack], apart_cm: float, sat_on: bool, preferred: tuple[str, ...]) -> list[Stack]:
    """The simplest stack of each height. Of seats firmness and arms are kept apart: they are choices too, and so is the
    bare floor."""
    kept: list[Stack] = []
    ranks = {kind: rank for rank, kind in enumerate(preferred)}

    def last(stack: Stack) -> int:
        return max((ranks.get(layer.kind, 0) for layer in stack.layers), default=0)

    for stack in sorted(stacks, key=lambda s: (s.to_build, last(s), s.tallness, s.key)):
        twin = any(
            bool(stack.layers) == bool(other.layers)
            and abs(stack.height_cm - other.height_cm) < apart_cm
            and (not sat_on or (stack.firm, stack.arms) == (other.firm, other.arms))
            for other in kept
        )
        if not twin:
            kept.append(stack)
    return sorted(kept, key=lambda s: (s.height_cm, s.key))


@dataclass(frozen=True, slots=True)
class Nearest:
    """Answer to a wanted height: the stack that fits, or the nearest below and above."""

    fits: Stack | None
    below: Stack | None
    above: Stack | None


def nearest(stacks: Sequence[Stack], wanted_cm: float, tolerance_cm: float) -> Nearest:
    """The stack nearest ``wanted_cm`` within the tolerance, then the least to build, then flattest.

    Distances are compared to the millimetre, so that a simpler stack is not passed over for a hair.
    """
    near = [s for s in stacks if abs(s.height_cm - wanted_cm) <= tolerance_cm]
    if near:
        best = min(near, key=lambda s: (round(abs(s.height_cm - wanted_cm), 1), s.to_build, s.tallness, s.key))
        return Nearest(best, None, None)
    below = [s for s in stacks if s.height_cm < wanted_cm]
    above = [s for s in stacks if s.height_cm > wanted_cm]
    return Nearest(
        None,
        max(below, key=lambda s: s.height_cm, default=None),
        min(above, key=lambda s: s.height_cm, default=None),
    )


def fits_stock(room: Room, stacks: Iterable[Stack]) -> bool:
    """Whether the room has enough of everything to build all ``stacks`` at once."""
    need: Counter[str] = Counter()
    for stack in stacks:
        need.update(stack.used)
    stock = {prop.id: prop.count for prop in room.stock}
    return all(stock.get(prop_id, 0) >= count for prop_id, count in need.items())
