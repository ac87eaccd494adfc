"""What facts of several kinds of record have in common."""

from __future__ import annotations

from asketa_core.answers import Ticks, YesNo
from asketa_core.datafiles import Record


class NoFacts(Record):
    """A kind of record that says all by being there; how it is today is asked at arrival."""


class WithSymptoms(Record):
    """Facts of a kind of record that asks at arrival for what may not wait. Empty: not asked yet."""

    symptoms_now: Ticks[str] = ()

    @property
    def alarming(self) -> YesNo:
        """Whether something happens now; what nobody asked about counts as no, and is asked."""
        return "yes" if set(self.symptoms_now) - {"none"} else "no"
