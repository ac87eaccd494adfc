"""What facts of several kinds of record have in common."""

from __future__ import annotations

from pydantic import model_validator

from asketa_core.answers import YesNo
from asketa_core.datafiles import Record


class NoFacts(Record):
    """A kind of record that says all by being there; how it is today is asked at arrival."""


class WithSymptoms(Record):
    """Facts of a kind of record that asks at arrival for what may not wait. Empty: not asked yet."""

    symptoms_now: tuple[str, ...] = ()

    @model_validator(mode="after")
    def no_symptom_stands_alone(self) -> WithSymptoms:
        if "none" in self.symptoms_now and len(self.symptoms_now) > 1:
            raise ValueError("'none' cannot stand beside symptoms")
        return self

    @property
    def alarming(self) -> YesNo:
        """Whether something happens now; what nobody asked about counts as no, and is asked."""
        return "yes" if set(self.symptoms_now) - {"none"} else "no"
