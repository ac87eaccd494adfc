"""Logs without health data: what happened and where in the code, never with which values.

Messages of errors quote what somebody typed or a whole row of a table; a log is read by more people than a record is.
"""

from __future__ import annotations

import logging
import traceback
from types import TracebackType

SysExcInfo = tuple[type[BaseException], BaseException, TracebackType | None] | tuple[None, None, None]


class Scrubbed(logging.Formatter):
    """Tracebacks as kinds of errors and places in files; messages of errors and lines of code left out."""

    def formatException(self, ei: SysExcInfo) -> str:
        error = ei[1]
        lines: list[str] = []
        while error is not None:
            places = traceback.extract_tb(error.__traceback__)
            lines += [f"{type(error).__module__}.{type(error).__qualname__}"]
            lines += [f"  {place.filename}:{place.lineno} in {place.name}" for place in places]
            error = error.__cause__ or (None if error.__suppress_context__ else error.__context__)
        return "\n".join(lines)

    def formatStack(self, stack_info: str) -> str:
        return "\n".join(line for line in stack_info.splitlines() if line.lstrip().startswith("File "))


class NoValues(logging.Filter):
    """Warnings of the database layer and of Django's own request log carry values in their arguments."""

    def filter(self, record: logging.LogRecord) -> bool:
        if record.name.startswith(("django.db", "psycopg")):
            record.msg, record.args = "the database layer reports %s", (record.levelname,)
        return True
