"""The types of what is handed in, for the signatures of what the rest of the core calls."""

from __future__ import annotations

from typing import Any

from numba import float64, from_dtype, int8, int16, int32, int64, types

from asketa_core.kernel.records import (
    BODY,
    CASE,
    HIP,
    LEG,
    LIMIT,
    OUTCOME,
    POSTURE,
    PROGRAMME,
    STAGE,
    TERM,
    TRADE,
    VERDICT,
    Before,
    Client,
    Desk,
    Found,
    Legs,
    Lifted,
    LimitTable,
    Said,
    Setups,
    Tally,
)

BODY_TYPE = from_dtype(BODY)
BODIES, HIPS, PROGRAMMES = BODY_TYPE[::1], from_dtype(HIP)[::1], from_dtype(PROGRAMME)[::1]
PLACED, ONE_LEG = from_dtype(LEG)[:, ::1], from_dtype(LEG)[::1]
POSTURES, CASES = from_dtype(POSTURE)[::1], from_dtype(CASE)[::1]
LIMITS, TERMS, VERDICTS = from_dtype(LIMIT)[::1], from_dtype(TERM)[::1], from_dtype(VERDICT)[::1]
OUTCOMES, STAGES, TRADES = from_dtype(OUTCOME)[::1], from_dtype(STAGE)[::1], from_dtype(TRADE)[::1]
ROM, SEEN = float64[:, :, ::1], int8[:, ::1]


def tuple_of(fields: tuple[Any, ...], names: type) -> Any:
    """The type of a named tuple."""
    return types.NamedTuple(fields, names)  # type: ignore[no-untyped-call]


CLIENT = tuple_of((BODIES, ROM, HIPS, SEEN), Client)
LIMIT_TABLE = tuple_of((LIMITS, TERMS, int64[:, ::1], int64, int64), LimitTable)
SETUPS = tuple_of((float64[:, ::1], CASES, int32[::1], int32[::1]), Setups)
TALLY = tuple_of((int8[::1], float64[::1], int64[::1], int64[::1]), Tally)
SAID = tuple_of((int16[:, ::1], int16[:, ::1], int8[:, ::1], int16[:, ::1], float64[:, ::1], STAGES), Said)
BEFORE = tuple_of((SAID, int32[:, ::1], int8[::1], int64[::1]), Before)
LEGS = tuple_of((PLACED, PLACED, float64[:, ::1], float64[:, ::1]), Legs)
DESK = tuple_of((POSTURES, int64[::1], int8[:, ::1], int64[:, ::1], TALLY, TALLY, OUTCOMES), Desk)
LIFTED = tuple_of((float64[::1], from_dtype(LEG)[:, :, ::1], int8[:, ::1]), Lifted)
FOUND = tuple_of((OUTCOMES, int8[:, ::1], float64[:, ::1], int8[:, ::1], int64[:, ::1], float64[:, :, ::1]), Found)
