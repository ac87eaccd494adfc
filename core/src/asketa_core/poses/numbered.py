"""The numbers under which the engine knows what the core names in words."""

from __future__ import annotations

from typing import get_args

from asketa_core.kernel.codes import MOST_MARKS, Bound, Mark, Read, Who
from asketa_core.poses.posture import Readout, Trouble
from asketa_core.poses.recipe import Flag, ImpliedFlag, NamedFlag
from asketa_core.units import Side

READOUTS: tuple[Readout, ...] = tuple(Readout)
READ_OF: dict[Readout, int] = {readout: Read[readout.name].value for readout in Readout}

TROUBLES: tuple[Trouble, ...] = tuple(Trouble)
BOUND_OF: dict[Trouble, int] = {trouble: Bound[trouble.name].value for trouble in Trouble}


def _numbered_flags() -> dict[Flag, int]:
    """Those the engine looks at under its own numbers, the others after them."""
    own: dict[Flag, int] = {}
    flags: tuple[Flag, ...] = (*get_args(NamedFlag), *get_args(ImpliedFlag))
    for flag in flags:
        if flag.upper() in Mark.__members__:
            own[flag] = Mark[flag.upper()].value
    others = [flag for flag in flags if flag not in own]
    found = own | {flag: len(Mark) + at for at, flag in enumerate(others)}
    assert len(own) == len(Mark) and len(found) <= MOST_MARKS
    return found


FLAG_OF: dict[Flag, int] = _numbered_flags()

assert len(Read) == len(Readout) and len(Bound) == len(Trouble)


WHO: dict[Side | None, int] = {None: Who.WHOLE.value, **{side: Who[side.name].value for side in Side}}


def who(side: Side | None) -> int:
    return WHO[side]
