"""Holds: the set-up used, and what happened on one side."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from asketa_core.answers import Day, TriState
from asketa_core.datafiles import Record
from asketa_core.plain_text import FreeText, Key
from asketa_core.units import Side


class SlotValue(Record):
    """One slot of a set-up as used: a stack by its key and height, a number, or a choice."""

    stack: Annotated[str, Field(max_length=200)] | None = None
    number: Annotated[float, Field(ge=-1000, le=1000)] | None = None
    choice: Annotated[str, Field(max_length=60)] | None = None


Place = Literal["wanted", "hip", "groin", "knee", "back", "other"]
Sensation = Literal["calm", "stretch", "warm", "pressure", "sharp", "pinching", "tingling", "numb", "none"]
Sign = Literal[
    "breath_held", "grimace", "wobble", "back_rounds", "knee_rides_up", "knee_drifts_in", "arch_falls", "hip_hikes", "pelvis_tilts",
    "clunk", "gave_way",
]  # fmt: skip


class Response(Record):
    """What happened on one side in one hold. What nobody said is ``None``, and never taken as fine: ``signs`` empty
    means that somebody looked, that the breath was steady and that nothing was seen.

    ``dose_s`` was planned, ``held_s`` really held, where a clock ran. ``morning_asked`` says that the client was asked how
    it was the next morning, whether or not an answer came.
    """

    id: Key
    date: Day
    variation: Key
    side: Side
    setup: Annotated[dict[Key, SlotValue], Field(max_length=40)]
    dose_s: int = Field(gt=0, le=1200)
    held_s: int | None = Field(default=None, ge=0, le=7200)
    before: int | None = Field(default=None, ge=0, le=10)
    during: int = Field(ge=0, le=10)
    after: int | None = Field(default=None, ge=0, le=10)
    kind: Sensation | None = None
    place: Place | None = None
    signs: tuple[Sign, ...] | None = Field(default=None, max_length=20)
    settled_next_morning: TriState = "unknown"
    morning_asked: bool = False
    note: FreeText = Field(default="", max_length=2000)

    @property
    def family(self) -> str:
        """The family of the rung that was held."""
        return self.variation.partition(".")[0]


class Trial(Record):
    """Two ways of one slot, held briefly one after the other on one side, and the one that was kept. The rest of the
    set-up was the same; ``felt`` is the discomfort in each, 0–10."""

    id: Key
    date: Day
    variation: Key
    side: Side
    slot: Key
    a: SlotValue
    b: SlotValue
    felt_a: int = Field(ge=0, le=10)
    felt_b: int = Field(ge=0, le=10)
    kept: Literal["a", "b"]

    @property
    def family(self) -> str:
        """The family of the rung that was held."""
        return self.variation.partition(".")[0]

    @property
    def kept_value(self) -> SlotValue:
        return self.a if self.kept == "a" else self.b

    @property
    def other_value(self) -> SlotValue:
        return self.b if self.kept == "a" else self.a

    @property
    def felt_kept(self) -> int:
        return self.felt_a if self.kept == "a" else self.felt_b

    @property
    def felt_other(self) -> int:
        return self.felt_b if self.kept == "a" else self.felt_a
