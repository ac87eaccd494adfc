"""Small helpers of the command: saying what happens, running it, and not doing it twice."""

from __future__ import annotations

import hashlib
import os
import subprocess
import time
from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path


class Failed(Exception):
    """A step failed; the message says what to do."""


_STARTED = time.monotonic()


def say(text: str) -> None:
    """Name a stage, with the time since the command began."""
    minutes, seconds = divmod(int(time.monotonic() - _STARTED), 60)
    print(f"· {minutes}:{seconds:02d} {text}", flush=True)


def run(command: Sequence[str], cwd: Path | None = None, env: dict[str, str] | None = None, check: bool = True) -> int:
    """Run a command and return its exit code; with ``check`` a failure stops everything."""
    result = subprocess.run(list(command), cwd=cwd, env={**os.environ, **(env or {})}, check=False)
    if check and result.returncode != 0:
        raise Failed(f"This step failed: {' '.join(command)}\n  Its message is above; mend that and run again.")
    return result.returncode


def fingerprint_of(paths: Iterable[Path]) -> str:
    digest = hashlib.sha256()
    for path in paths:
        digest.update(path.name.encode())
        digest.update(path.read_bytes())
    return digest.hexdigest()


@contextmanager
def unless_done(stamp: Path, fingerprint: str, what: str) -> Iterator[bool]:
    """Yield whether a step is needed; remember it as done when the block ends without an error."""
    needed = not stamp.exists() or stamp.read_text(encoding="utf-8") != fingerprint
    if needed:
        say(f"setting up: {what}")
    yield needed
    stamp.parent.mkdir(parents=True, exist_ok=True)
    stamp.write_text(fingerprint, encoding="utf-8")
