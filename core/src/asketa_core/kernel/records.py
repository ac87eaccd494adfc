"""What the kernel is handed and hands out: records of plain numbers.

Lengths in cm, angles in degrees, weights in kg, shares of body weight. A record is one row of a structured array, so
that Python fills it by name and compiled code reads it in place.
"""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np

from asketa_core.kernel.codes import MOST_MARKS, Bound, Read

Record = Any
"""One row of one of the types below; its fields are attributes."""


def record(*fields: tuple[Any, ...]) -> Any:
    return np.dtype((np.record, np.dtype(list(fields), align=True)))


def numbers(*names: str) -> list[tuple[str, str]]:
    return [(name, "f8") for name in names]


def switches(*names: str) -> list[tuple[str, str]]:
    return [(name, "i8") for name in names]


POINT = record(*numbers("x", "y", "z"))

SEGMENTS = (
    "thigh", "lower_leg", "ankle_above_sole", "ankle_above_floor_leg_long", "foot", "between_hips", "hip_above_seat",
    "knee_above_rest", "hip_to_l5s1", "lumbar", "thorax", "neck_and_head", "shoulder_below_c7", "shoulder_half_breadth",
    "upper_arm", "forearm", "hand", "thigh_radius_hip", "thigh_radius_knee", "ankle_above_rest_on_side",
)  # fmt: skip
"""Lengths of a body that postures are settled with."""

WEIGHED = (
    "thigh", "lower_leg", "foot", "upper_arm", "forearm", "hand", "head_and_neck", "pelvis", "lumbar", "thorax",
)  # fmt: skip
"""Parts of a body whose masses are known, as fractions of its weight, and where along them their centres are."""

BODY = record(
    *numbers(*SEGMENTS, "stature", "weight"),
    *numbers(*(f"{part}_mass" for part in WEIGHED)),
    *numbers(*(f"{part}_centre" for part in WEIGHED)),
    *numbers("arms_mass", "trunk", "upper_mass", "upper_lever", "reference_moment"),
    # Half-axes of the belly, forward, sideways and along the spine; without a pregnancy none is looked at.
    *switches("pregnant"),
    *numbers("belly_forward", "belly_aside", "belly_along"),
)
"""One body. ``upper_mass`` is the mass fraction of everything above the hips, ``upper_lever`` its sum of mass fraction ×
distance along a straight trunk with the arms hanging, ``trunk`` the length from the hips to C7."""

HIP = record(
    *numbers("coupling"),
    # Where the groin pinches, if it does.
    *switches("pinches"),
    *numbers("pinch_straight", "pinch_later", "pinch_slope", "pinch_out_at", "pinch_earlier_most"),
)
"""What is known of one side beside its ranges: degrees of hip flexion given back per degree of knee bend, and the groin."""

VALUE = record(("slot", "i8"), ("times", "f8"), ("plus", "f8"), ("plus_slot", "i8"))
"""A slot's number times a factor, plus a constant, plus another slot's number; slots are -1 where there is none."""

LEG_RULE = record(
    *switches(
        "rule", "knee_supported", "let_out", "off_wall", "sole_on_wall", "pointed", "stacked", "shin_lifted", "ahead_sign",
        "sole_down", "on_knee", "slides", "foot_held", "on_chair", "rolled", "follows_pelvis", "across_given",
    ),
    ("surface", VALUE), ("ahead", VALUE), ("apart", VALUE), ("bend", VALUE), ("knee_support", VALUE),
    ("ankle_support", VALUE), ("let_out_to", VALUE), ("flexion", VALUE), ("abduction", VALUE), ("rotation", VALUE),
    ("wall", VALUE), ("roll_behind", VALUE),
    *numbers("across", "thigh_share", "rests_at", "ankle_up", "toes_out", "least_share"),
)  # fmt: skip
"""How one leg is placed; which fields count is the rule's affair."""

WORK = record(*switches("read", "on_other", "effort", "motion"), *numbers("of_deg"))
"""What does the work: a read-out against a range of motion, a fixed number of degrees, or by itself."""

AIM = record(*switches("read", "worked", "other"), *numbers("at_least", "at_most"))

MOST_WORKS = 8
MOST_AIMS = 8

PROGRAMME = record(
    *switches("worked", "stands_by", "lean", "carried", "upright", "lying", "on_chair", "both_feet_down", "rising",
              "head_rests", "head_supported", "head_on_arms", "hand_beside", "one_hand_down", "balances_hips", "holds_on", "one_leg",
              "steps_up", "has_pad", "long_fold", "check_seat_height", "exempt_from_band", "shares_given",
              "reads_shin", "bounds_slide", "shin_near_level", "flat_when_low", "easy_when_upright", "shared",
              "stands", "works", "aims", "takes_arms"),
    *numbers("side_sign", "hollow", "carry", "raised_arms", "minutes", "seat_carries", "share_left", "share_right",
             "follows", "flat_below", "easy_lean"),
    ("rests_on", VALUE), ("raised", VALUE), ("lean_at", VALUE), ("recline", VALUE), ("roll", VALUE), ("turn", VALUE),
    ("side_bend", VALUE), ("support", VALUE), ("head_on", VALUE), ("knee", VALUE), ("hips_on", VALUE),
    ("ankle_x", VALUE), ("apart", VALUE), ("toes_out", VALUE), ("heels_on", VALUE), ("shins", VALUE),
    ("thigh_on", VALUE), ("thigh_down", VALUE), ("stance", VALUE), ("pad", VALUE), ("padding_a", VALUE),
    ("padding_b", VALUE), ("thigh_forward", VALUE),
    ("shins_bounded", "i8"),
    ("easy", "i8", (2,)),
    ("leg", LEG_RULE, (2,)),
    ("work", WORK, (MOST_WORKS,)),
    ("aim", AIM, (MOST_AIMS,)),
    ("marks", "i1", (MOST_MARKS, 3)),
)  # fmt: skip
"""A recipe in a position with one side worked, as numbers. Legs and flags stand under left, right and the whole."""

LEG = record(
    ("hip", POINT), ("knee", POINT), ("ankle", POINT), ("toes", POINT),
    *numbers("flexion", "abduction", "rotation", "knee_flexion", "reach_short", "fold_short", "idle", "roll_in_way"),
    *switches("near_singular", "stopped_by"),
    # What the leg shows on its own, whatever the trunk does.
    *numbers("fall", "thigh_down", "carried", "opening", "hip_use", "twist", "shin_slope", "sole_tilt", "kneecap",
             "beyond_range", "room", "hamstrings", "behind", "cos_out"),
)  # fmt: skip
"""One placed leg at one end of the ranges, with the pelvis upright."""

POSTURE = record(
    ("read", "f8", (len(Read), 3, 3)),
    ("there", "i1", (len(Read), 3)),
    ("marks", "i1", (MOST_MARKS, 3)),
    ("met", "i1", (len(Bound), 2)),
    ("amount", "f8", (len(Bound), 2)),
    ("pitch", "f8", (3,)), ("flexion", "f8", (3,)), ("lean", "f8", (3,)),
    ("unbalanced", "f8", (3,)), ("out_of_reach", "f8", (3,)),
)  # fmt: skip
"""A settled posture: read-outs by read-out, whom they are about and level; which of them there are; what it counts as;
and how bounds are met, by bound and side, with what is missing at the middle of the ranges."""

LIMIT = record(
    *switches(
        "severity", "kind", "side", "phases", "first", "terms", "at_middle", "exact", "spares_gentle", "quantity"
    ),
)
"""A limit: ``phases`` are bits, ``first`` and ``terms`` say where its terms stand, ``quantity`` what its caution is about
where it names no read-out."""

TERM = record(
    *switches("read", "flag", "above", "neutral"), *numbers("value", "least_error", "varies_beyond"),
)  # fmt: skip
"""A condition: a read-out above or below a figure, or (without a read-out) a flag."""

VERDICT = record(*switches("concerns", "severity", "within_error"), *numbers("margin", "weight"))
"""One limit against one posture."""

OUTCOME = record(
    *switches("possible", "stops", "asks", "cautions", "on_the_way"),
    *numbers("whole_size", "margin", "purpose", "missing"),
)
"""What a set-up comes to: how many kinds of limit stop or ask, how many quantities are cautioned, their whole size and those
of the way in and out, the smallest margin in units of error, how much of the client's range is kept to work in, per cent, and
by how much the body misses it where it is not possible."""

TRADE = record(*switches("unlike", "items", "stacked"), *numbers("away"))
"""What a set-up trades besides: supports that differ between the sides, how much there is to build, what lies on others, and
how many steps it is away from what is usual."""


class Outcome(NamedTuple):
    """The same in Python."""

    possible: int
    stops: int
    asks: int
    cautions: int
    on_the_way: int
    whole_size: float
    margin: float
    purpose: float
    missing: float


assert Outcome._fields == OUTCOME.names

STAGE = record(*switches("possible"), *numbers("margin", "missing"))
"""What one case of a stage comes to, beside its severities by kind and sizes by quantity."""

CASE = record(*switches("soft_seat", "arms", "on_floor", "some_flat"))
"""What a set-up is like besides its numbers. ``some_flat``: the back lies flat in some set-up of the grid."""


class Client(NamedTuple):
    """One body and its ranges: the body (1,), its ranges of motion by side, ``Motion`` and ``Level``, what else is known
    of each hip, and which bounds, by ``Bound`` and side, were seen otherwise."""

    bodies: Any
    rom: Any
    hips: Any
    seen: Any


class LimitTable(NamedTuple):
    """Limits and their terms, what each bound is about (by ``Bound`` and side), and how many kinds and quantities are
    told apart."""

    limits: Any
    terms: Any
    quantities: Any
    kinds: int
    sizes: int


class Setups(NamedTuple):
    """Set-ups of a programme: their numbers (n, slots), what they are like besides (n,), and which case of either leg each
    has (n,)."""

    xs: Any
    cases: Any
    left_of: Any
    right_of: Any


class Tally(NamedTuple):
    """What judging comes to so far: severities by kind and sizes by quantity, 0 where nothing is said, and what
    something is said of, in lists that begin with their length."""

    severity: Any
    weight: Any
    kinds: Any
    quantities: Any


class Said(NamedTuple):
    """What is said of some cases, in a row for each: how many kinds and quantities that are (cases, 2), the kinds with their
    severities and the quantities with their sizes (cases, room), and what else each comes to (cases,)."""

    counts: Any
    kinds: Any
    severity: Any
    quantities: Any
    weight: Any
    stages: Any


class Before(NamedTuple):
    """What was judged before. ``rows`` (m, n) are the cases of each set-up in what was said of stages; which of them weigh
    says ``weighs`` (m,). The cases of the left leg begin at ``first[0]``, those of the right at ``first[1]``."""

    said: Said
    rows: Any
    weighs: Any
    first: Any


class Legs(NamedTuple):
    """Every case of either leg at the three ends of the ranges (cases, levels), and the most of the client's range it leaves
    to work in for either side as the worked one (cases, 2)."""

    left: Any
    right: Any
    left_kept: Any
    right_kept: Any


class Desk(NamedTuple):
    """Where judging is done: a posture (1,), where the read-out of each term stands, which limits are settled and which are
    due (one row each for the pose and its way in; for trunk, rest and way in), the tallies of the pose and of its way in,
    and an outcome (1,). What lies on it counts for nothing when the next work begins."""

    postures: Any
    places: Any
    settled: Any
    agenda: Any
    tally: Tally
    of_way: Tally
    outcomes: Any


class Lifted(NamedTuple):
    """The worked leg on its way into a pose: how high its foot is lifted (lifts,), its cases (lifts, cases, levels), and
    which of them are ``placed``: they are when they are first asked for."""

    heights_cm: Any
    legs: Any
    placed: Any


class Found(NamedTuple):
    """What is found: what set-ups come to, their severities and sizes where those are kept, what some set-up counts as, and
    the ``wanted`` read-outs (k, 2) of each, (k, n, 3)."""

    outcomes: Any
    severities: Any
    weights: Any
    marks: Any
    wanted: Any
    read: Any


def many(size: int | tuple[int, ...], dtype: Any) -> Any:
    """An empty array of records."""
    return np.zeros(size, dtype)
