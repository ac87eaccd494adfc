"""Stacks: what can be built from a room's props, and the stack nearest a wanted height.

Stability: soft goes on hard and never the other way round, each layer's footprint covers the one
above, at most one block stands on end, and a seat is wide enough. Blankets are the one exception to
the footprint rule: on a chair they may hang over its edge.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from enum import StrEnum

from asketa_core.props.kinds import FURNITURE, Prop, Room, kinds

SITTING_WIDTH_CM = 25.0
SAME_HEIGHT_CM = 0.25
"""Stacks nearer than this in height are one choice unless a slot says otherwise: the simplest is offered."""


class Use(StrEnum):
    """What rests on a stack; decides how much it gives and how wide it must be."""

    SITTING = "sitting"
    LIMB = "limb"


@dataclass(frozen=True, slots=True)
class Layer:
    """One prop in a stack. ``way`` is a face, a number of folds, or ``seat``; ``pieces`` lie side by side."""

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


def _layers_of(prop: Prop, use: Use, faces: frozenset[str] | None) -> Iterator[Layer]:
    kind = kinds()[prop.kind]
    for way, face in kind.faces.items():
        if faces is not None and way not in faces:
            continue
        yield Layer(prop.id, prop.kind, way, face.height_cm * _keeps(prop, use), face.footprint_cm)
        if use is Use.SITTING and kind.rigid and not face.upright and prop.count >= 2:
            long, short = face.footprint_cm
            yield Layer(prop.id, prop.kind, way, face.height_cm * _keeps(prop, use), (long, 2 * short), pieces=2)
    layer_cm = prop.layer_cm if prop.layer_cm is not None else kind.layer_cm
    if layer_cm is not None:
        for layers, footprint in kind.layers.items():
            yield Layer(prop.id, prop.kind, str(layers), layers * layer_cm * _keeps(prop, use), footprint)


def _keeps(prop: Prop, use: Use) -> float:
    keeps = kinds()[prop.kind].keeps
    return keeps.sitting if use is Use.SITTING else keeps.limb


def _covers(below: tuple[float, float], above: tuple[float, float]) -> bool:
    return max(below) >= max(above) - 1e-9 and min(below) >= min(above) - 1e-9


def _may_lie_on(below: Layer | None, above: Layer) -> bool:
    if below is None:
        return True
    if kinds()[above.kind].rigid and not kinds()[below.kind].rigid:
        return False
    if below.kind == "chair" and kinds()[above.kind].drapes:
        return True
    # A blanket evens out what is below it; nothing that has a shape of its own stands on one.
    if kinds()[below.kind].drapes and not kinds()[above.kind].drapes:
        return False
    return _covers(below.footprint_cm, above.footprint_cm)


def _stable(layers: tuple[Layer, ...], use: Use) -> bool:
    if sum(layer.upright for layer in layers) > 1:
        return False
    if use is not Use.SITTING or not layers:
        return True
    # A draped blanket is as wide as what it lies on; two blocks side by side carry a pelvis.
    widths = [min(layer.footprint_cm) for layer in layers if not kinds()[layer.kind].drapes and layer.pieces == 1] or [
        1e9
    ]
    return min(widths) >= SITTING_WIDTH_CM and not any(layer.upright for layer in layers)


def _finish(layers: tuple[Layer, ...], arms: bool) -> Stack:
    return Stack(
        layers,
        sum(layer.height_cm for layer in layers),
        all(kinds()[layer.kind].firm for layer in layers),
        arms,
    )


def buildable(
    room: Room,
    use: Use,
    on_chair: bool = False,
    allowed: Iterable[str] | None = None,
    faces: Iterable[str] | None = None,
    max_layers: int = 3,
    apart_cm: float = SAME_HEIGHT_CM,
) -> list[Stack]:
    """Every stable stack the room can build, one per height, lowest first.

    ``on_chair`` starts from each chair of the room instead of the floor; ``allowed`` limits the kinds
    laid on top, ``faces`` the faces anything with faces may show.
    ``max_layers`` counts what lies on the chair or the floor. Where several stacks reach a height
    (within ``apart_cm``), the one with the fewest items is kept, then the flattest.
    """
    kinds_allowed = None if allowed is None else frozenset(allowed)
    face_set = None if faces is None else frozenset(faces)
    stock = {prop.id: prop.count for prop in room.props}
    options = [
        layer
        for prop in room.props
        if prop.kind not in FURNITURE and prop.count > 0 and (kinds_allowed is None or prop.kind in kinds_allowed)
        for layer in _layers_of(prop, use, face_set)
    ]
    found: list[Stack] = []

    def grow(layers: tuple[Layer, ...], free: dict[str, int], arms: bool, left: int) -> None:
        if _stable(layers, use):
            found.append(_finish(layers, arms))
        if left == 0:
            return
        top = layers[-1] if layers else None
        for layer in options:
            if free[layer.prop_id] >= layer.pieces and _may_lie_on(top, layer):
                grow(
                    (*layers, layer),
                    {**free, layer.prop_id: free[layer.prop_id] - layer.pieces},
                    arms,
                    left - 1,
                )

    if on_chair:
        for prop in room.props:
            if prop.kind == "chair" and prop.count > 0:
                size = prop.chair
                seat = Layer(prop.id, "chair", "seat", size.height_cm, (size.width_cm, size.depth_cm))
                grow((seat,), {**stock, prop.id: prop.count - 1}, size.arms, max_layers)
    else:
        grow((), stock, False, max_layers)
    return _one_per_height(found, apart_cm)


def _one_per_height(stacks: list[Stack], apart_cm: float) -> list[Stack]:
    """The simplest stack of each height. Firmness and arms are kept apart: they are choices too."""
    kept: list[Stack] = []
    for stack in sorted(stacks, key=lambda s: (s.items, s.tallness, s.key)):
        twin = any(
            abs(stack.height_cm - other.height_cm) < apart_cm and (stack.firm, stack.arms) == (other.firm, other.arms)
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


def nearest(stacks: list[Stack], wanted_cm: float, tolerance_cm: float) -> Nearest:
    """The stack nearest ``wanted_cm`` within the tolerance, then fewest items, then flattest.

    Distances are compared to the millimetre, so that a simpler stack is not passed over for a hair.
    """
    near = [s for s in stacks if abs(s.height_cm - wanted_cm) <= tolerance_cm]
    if near:
        best = min(near, key=lambda s: (round(abs(s.height_cm - wanted_cm), 1), s.items, s.tallness, s.key))
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
    stock = {prop.id: prop.count for prop in room.props}
    return all(stock.get(prop_id, 0) >= count for prop_id, count in need.items())
