"""Numbers for what the core names in words: the kernel counts, it does not spell."""

from __future__ import annotations

from enum import IntEnum


class Who(IntEnum):
    """Whom a read-out or a flag is about."""

    LEFT = 0
    RIGHT = 1
    WHOLE = 2


class Level(IntEnum):
    """Ends of the client's ranges of motion."""

    LOW = 0
    MIDDLE = 1
    HIGH = 2


class Motion(IntEnum):
    """Ranges of motion."""

    HIP_FLEXION = 0
    HIP_EXTENSION = 1
    HIP_ADDUCTION = 2
    HIP_INTERNAL_ROTATION = 3
    OPEN_EXTERNAL_ROTATION = 4
    OPEN_ABDUCTION = 5
    KNEE_FLEXION = 6
    STRAIGHT_LEG_RAISE = 7
    NINETY_NINETY_LACK = 8
    PLANTED_DORSIFLEXION = 9


class Read(IntEnum):
    """Everything read off a posture."""

    HIP_FLEXION = 0
    HIP_EXTENSION = 1
    HIP_ABDUCTION = 2
    HIP_EXTERNAL_ROTATION = 3
    HIP_CLOSING = 4
    TRUNK_THIGH = 5
    HIP_BEND = 6
    HIP_RANGE_USED_PERCENT = 7
    HIP_USE_PERCENT = 8
    OPENING_USED_PERCENT = 9
    HAMSTRING_USED_PERCENT = 10
    GROIN_ROOM = 11
    HIP_ABOVE_KNEE_CM = 12
    THIGH_DOWN = 13
    KNEE_FLEXION = 14
    KNEE_TWIST = 15
    KNEE_LOAD_SHARE = 16
    KNEE_MOMENT_RATIO = 17
    KNEECAP_SHARE = 18
    KNEE_PADDING_CM = 19
    DORSIFLEXION = 20
    SHIN_SLOPE = 21
    LUMBAR_FLEXION = 22
    THORACIC_FLEXION = 23
    SPINE_FLEXION = 24
    SPINE_EXTENSION = 25
    SPINE_ROTATION = 26
    SIDE_BEND = 27
    TRUNK_LEAN = 28
    SPINE_MOMENT_RATIO = 29
    BALANCE_MARGIN_CM = 30
    SHOULDER_ELEVATION = 31
    HANDS_SHARE = 32
    SUPINE_MINUTES = 33
    STANDING_MINUTES = 34
    HOLD_MINUTES = 35
    BELLY_CLEARANCE_CM = 36
    KNEE_GAP_CM = 37
    NECK_BEND = 38
    HEAD_MISSES_CM = 39


class Bound(IntEnum):
    """What a body cannot meet."""

    REACH = 0
    FOLD = 1
    KNEE_RANGE = 2
    ANKLE_RANGE = 3
    HIP_RANGE = 4
    BALANCE = 5
    SEAT_TOO_HIGH = 6
    BACK_HOLLOWS = 7
    BACK_ROUNDS = 8
    KNEE_TWIST = 9
    HIP_EXTENSION = 10
    HIP_USE = 11
    SHIN_STEEP = 12
    AIM = 13
    TRUNK_ON_THIGH = 14
    SUPPORT_MISSES = 15
    HAND_MISSES = 16
    HEAD_UNSUPPORTED = 17
    IDLE_SUPPORT = 18
    ROLL_IN_KNEE = 19
    UNDETERMINED = 20


class Met(IntEnum):
    """How a bound is met: at every end of the ranges, not at their worst end, not even at their middle."""

    YES = 0
    PERHAPS = 1
    NO = 2


class Base(IntEnum):
    """What the pelvis rests on or stands over. Standing: the hips' height follows from the bend of the knees or is given,
    and what puts the weight over the feet is the hips, the trunk's lean, or something held on to."""

    SIT = 0
    STAND_KNEES = 1
    STAND_HEIGHT = 2
    STAND_LEANING = 3
    STRIDE_STANCE = 4
    STRIDE_THIGH_ON = 5
    STRIDE_THIGH_DOWN = 6
    KNEEL = 7


class Lean(IntEnum):
    """What decides how far the trunk leans: a figure, a back raised so far from lying, what is carried coming down to its
    support, the thighs it is laid on, or the legs long in front of a body that leans back on its hands."""

    GIVEN = 0
    RECLINED = 1
    TO_SUPPORT = 2
    ON_THIGHS = 3
    BACK_ON_HANDS = 4


class Carried(IntEnum):
    """What comes down to a support of its own height."""

    NOTHING = 0
    HANDS_HANG = 1
    HANDS_REACH = 2
    FOREARMS = 3
    CHEST = 4


class LegIs(IntEnum):
    """How a leg is placed, by the rules of the recipes."""

    PLANTED = 0
    LONG = 1
    STANDING = 2
    GROUND = 3
    FREE = 4
    FORCED = 5
    KNEELING = 6
    HALF_KNEELING = 7
    FOLDED = 8
    TURNED_IN = 9
    STRIDE_FRONT = 10
    STRIDE_STRAIGHT = 11
    STRIDE_KNEE_BEHIND = 12
    DROPPED = 13
    DROPPED_OVER_THIGH = 14


class Upright(IntEnum):
    """Which contacts carry the body."""

    SEAT = 0
    FEET = 1
    KNEES = 2


class Mark(IntEnum):
    """What a posture counts as that the kernel itself looks at or finds out; the other flags follow with higher numbers."""

    KNEELING = 0
    HELD_OR_LOADED = 1
    SOFT_SEAT = 2
    SEAT_WITHOUT_ARMS = 3
    FLOOR = 4
    SUPINE = 5
    BEYOND_EASY_SEAT = 6
    HEAD_CARRIED = 7
    NOT_UPRIGHT_ON_CHAIR = 8


MOST_MARKS = 64


class StoppedBy(IntEnum):
    """What ended the fall. The order of the ``ALREADY`` and of the plain members is the order in which ties are
    named."""

    EXTERNAL_ROTATION = 0
    ABDUCTION = 1
    SUPPORT = 2
    FULLY_DROPPED = 3
    ALREADY_PAST_EXTERNAL_ROTATION = 4
    ALREADY_PAST_ABDUCTION = 5
    ALREADY_PAST_SUPPORT = 6
    CANNOT_CLOSE = 7

    @property
    def code(self) -> str:
        return self.name.lower()
