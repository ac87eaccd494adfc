"""Palettes of the figures, from ``data/figure/palettes.yaml``."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from enum import StrEnum
from functools import cache
from typing import Annotated

from pydantic import ConfigDict, Field

from asketa_core.datafiles import DATA, Record, load

Colour = Annotated[str, Field(pattern=r"^#[0-9A-F]{6}$")]


def _dashed(name: str) -> str:
    return name.replace("_", "-")


class Palette(Record):
    """A colour for every role in a figure, as ``#RRGGBB``."""

    model_config = ConfigDict(alias_generator=_dashed)

    ground: Colour
    left: Colour
    right: Colour
    mid: Colour
    hair: Colour
    far: Colour
    wood: Colour
    wood_edge: Colour
    felt: Colour
    felt_edge: Colour
    cotton: Colour
    cotton_edge: Colour
    line: Colour
    ink: Colour


class Light(StrEnum):
    """What a figure is looked at in."""

    DAY = "day"
    DIM = "dim"
    PRINT = "print"


@cache
def palettes() -> Mapping[str, Mapping[str, str]]:
    """Colours by role for every light."""
    read = load(DATA / "figure" / "palettes.yaml", dict[Light, Palette])
    return {light.value: read[light].model_dump(by_alias=True) for light in Light}


Paint = Callable[[str], str]
"""A role's colour as SVG writes it."""


def paint_for(light: Light | None) -> Paint:
    """Plain colours for a light; for none, custom properties ``--fig-ROLE`` a page may set, day otherwise."""
    if light is not None:
        return palettes()[light.value].__getitem__
    day = palettes()[Light.DAY.value]
    return lambda role: f"var(--fig-{role},{day[role]})"
