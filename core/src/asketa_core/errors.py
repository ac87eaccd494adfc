"""The error family of the core.

::

    AsketaError
    ├── InputError   a value given by a caller is missing, malformed or implausible
    └── DataError    a file of the core's own data (poses, props, norms, texts) is wrong

Every error names the piece that is wrong and what mends it.
"""

from __future__ import annotations


class AsketaError(Exception):
    """Root of every error the core raises on purpose."""


class InputError(AsketaError):
    """A value given by a caller cannot be used.

    ``field`` is a dotted path into the request, ``reason`` says what is wrong with it and
    ``remedy`` what to give instead. The offending value itself is left out of the message: it
    may be health data and messages end up in logs.
    """

    def __init__(self, field: str, reason: str, remedy: str) -> None:
        super().__init__(f"{field}: {reason} {remedy}")
        self.field = field
        self.reason = reason
        self.remedy = remedy

    def as_dict(self) -> dict[str, str]:
        return {"field": self.field, "reason": self.reason, "remedy": self.remedy}


class DataError(AsketaError):
    """A data file of the core is wrong; names the file and the place in it."""

    def __init__(self, file: str, place: str, reason: str) -> None:
        super().__init__(f"{file}: {place}: {reason}")
        self.file = file
        self.place = place
        self.reason = reason
