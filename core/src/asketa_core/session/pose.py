"""Poses of a session: what of each side's set-up a session's minutes and order depend on."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum

from asketa_core.client.holds import SlotValue
from asketa_core.clinical import clinical
from asketa_core.limits.model import Limit
from asketa_core.poses.library import SECONDS_PER, Family, Hold, Stage, Variation
from asketa_core.poses.posture import Readout
from asketa_core.poses.recipe import LYING
from asketa_core.poses.transfers import transfers
from asketa_core.setup.screened import Screened
from asketa_core.texts import Phrase
from asketa_core.units import SIDES, Side

BETWEEN_SETS_S = clinical("session.between_sets", "seconds")
CALM_BREATH_S = SECONDS_PER["breaths"]
CARRYING_SHARE, CARRYING_BENT_DEG, CARRYING_ALONE_SHARE = 0.15, 15.0, 0.6
"""A knee carries when it is bent and more than this share of body weight passes it, or when it stands nearly alone
(judgement: standing evenly on straight legs tires no knee)."""


class Level(StrEnum):
    """How high the body is, from standing to lying on the floor."""

    STANDING = "standing"
    SEATED = "seated"
    BED = "bed"
    FLOOR = "floor"
    LYING = "lying"

    @property
    def down(self) -> bool:
        """Whether one has to get up from the floor."""
        return self in (Level.FLOOR, Level.LYING)


class Strain(StrEnum):
    """What should not last too long in one go."""

    STANDING = "standing"
    FLAT = "flat"
    KNEE_LEFT = "knee_left"
    KNEE_RIGHT = "knee_right"


KNEES: Mapping[Side, Strain] = {Side.LEFT: Strain.KNEE_LEFT, Side.RIGHT: Strain.KNEE_RIGHT}


@dataclass(frozen=True, slots=True)
class Part:
    """One side of a pose, or the whole of one both legs share.

    ``props`` counts what of the room it uses, by the prop's id; ``strains`` is what it asks for as long as it is held;
    ``with_chair`` says whether the way to the floor and up goes by a chair. ``closed`` is why it is not open, if it is not.
    """

    hold: Hold
    dose_s: int
    rounds: int
    level: Level
    props: Mapping[str, int]
    strains: frozenset[Strain] = frozenset()
    with_chair: bool = False
    closed: Phrase | None = None


@dataclass(frozen=True, slots=True)
class Pose:
    """One pose of a session with its sides in the order they are done; ``None`` stands for both at once. ``counters`` are
    the families that undo what it leaves behind; ``fixed`` ones stay where they are when an order is looked for."""

    family: str
    name: Phrase
    stage: Stage
    sides: Mapping[Side | None, Part]
    counters: tuple[str, ...] = ()
    wants_counter: bool = False
    fixed: bool = False

    @property
    def first(self) -> Part:
        return next(iter(self.sides.values()))

    @property
    def last(self) -> Part:
        return list(self.sides.values())[-1]

    @property
    def strains(self) -> frozenset[Strain]:
        return frozenset().union(*(part.strains for part in self.sides.values()))


def pose_of(family: Family, sides: Mapping[Side | None, Part], fixed: bool = False) -> Pose:
    """A pose of the library with its planned sides; ``sides`` must not be empty."""
    if not sides:
        raise ValueError("a pose has at least one side")
    counters = family.counter_poses
    return Pose(family.family, family.name, family.stage, sides, counters.of, counters.wanted, fixed)


def part_of(screened: Screened, row: int, dose_s: int, rounds: int = 1, closed: Phrase | None = None) -> Part:
    """What a session needs to know of one judged set-up: row ``row`` of its grid."""
    return Part(
        screened.variation.hold, dose_s, rounds, level_of(screened, row), _props(screened, row), _strains(screened, row),
        _technique(screened, row) in {way.id for way in transfers().floor if way.chair}, closed,
    )  # fmt: skip


def level_of(screened: Screened, row: int) -> Level:
    """How high one is held: lying takes the height of what one lies on."""
    return level_with(screened.variation, screened.grid.setup(row))


def level_with(rung: Variation, setup: Mapping[str, SlotValue]) -> Level:
    """How high a rung is held with a set-up."""
    place = setup.get("place")
    if place is not None and place.choice not in (None, "floor"):
        return Level.BED
    return level_of_rung(rung)


def level_of_rung(rung: Variation) -> Level:
    """How high a rung is held, lying on the floor."""
    if rung.position in LYING:
        return Level.LYING
    return {"standing": Level.STANDING, "chair": Level.SEATED}.get(rung.position, Level.FLOOR)


def _technique(screened: Screened, row: int) -> str:
    return screened.way_at(row).name if screened.ways else ""


def _props(screened: Screened, row: int) -> dict[str, int]:
    used: dict[str, int] = {}
    for stack in screened.grid.supports(row):
        for prop, count in stack.used.items():
            used[prop] = used.get(prop, 0) + count
    return used


def _strains(screened: Screened, row: int) -> frozenset[Strain]:
    found = set()
    if screened.pose_at(row).counts_as("supine", None):
        found.add(Strain.FLAT)
    if screened.variation.position == "standing":
        found.add(Strain.STANDING)
    if level_of(screened, row) not in (Level.LYING, Level.BED):
        found.update(KNEES[side] for side in SIDES if _carries(screened, row, side))
    return frozenset(found)


def _carries(screened: Screened, row: int, side: Side) -> bool:
    share = _middle(screened, row, Readout.KNEE_LOAD_SHARE, side)
    bent = _middle(screened, row, Readout.KNEE_FLEXION, side) > CARRYING_BENT_DEG
    return share > CARRYING_ALONE_SHARE or (bent and share > CARRYING_SHARE)


def _middle(screened: Screened, row: int, readout: Readout, side: Side) -> float:
    pose = screened.pose_at(row)
    return pose.middle(readout, side) if pose.shows(readout, side) else 0.0


def held_s(part: Part, breath_s: float = CALM_BREATH_S) -> float:
    """Seconds one round of a side takes."""
    return hold_s(part.hold, part.dose_s, breath_s)


def hold_s(hold: Hold, dose_s: int, breath_s: float = CALM_BREATH_S) -> float:
    """Seconds one round of a dose takes: breaths by this client's own breath, repetitions with the pauses between their
    sets."""
    if hold.style == "breaths":
        return dose_s * breath_s / SECONDS_PER["breaths"]
    if hold.style == "reps":
        return dose_s * hold.sets + BETWEEN_SETS_S * (hold.sets - 1)
    return float(dose_s)


@dataclass(frozen=True, slots=True)
class Most:
    """The longest a strain should last in one go, in seconds, and whether a record says so."""

    seconds: float
    by_record: bool = False


_READ_AS = {Readout.SUPINE_MINUTES: Strain.FLAT, Readout.STANDING_MINUTES: Strain.STANDING}


def most_in_one_go(limits: Sequence[Limit]) -> dict[Strain, Most]:
    """House figures, or less where a record's limit says less."""
    knee = Most(clinical("session.knee_loaded", "seconds"))
    found = {
        Strain.STANDING: Most(clinical("session.standing", "seconds")),
        Strain.FLAT: Most(clinical("session.flat", "seconds")),
        Strain.KNEE_LEFT: knee,
        Strain.KNEE_RIGHT: knee,
    }
    for limit in limits:
        for term in limit.terms:
            strain = _READ_AS.get(term.readout) if term.readout is not None and len(limit.terms) == 1 else None
            if strain is not None and term.above is not None and term.above * 60 < found[strain].seconds:
                found[strain] = Most(term.above * 60, by_record=True)
    return found
