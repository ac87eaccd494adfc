"""How functions of the kernel are compiled, and where what was compiled is kept.

What the outside calls is compiled when its module is loaded, for the types it names, so that no answer waits for it;
what those call is compiled with them. Division by zero gives infinity in compiled code and an error in plain Python, so
divisors are guarded where they can vanish.

The compiler keeps its work by a file's date and does not see that a function *called* by it has changed. So what it keeps
stands in a folder of its own for every state of the sources, named by their fingerprint: nothing stale is ever found. Where
that folder cannot be written nothing is loaded: the compiler would quietly keep its work elsewhere, stale or not at all.
"""

from __future__ import annotations

import hashlib
import os
import tempfile
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any, TypeVar, cast

from numba import config, njit, typeof

Function = TypeVar("Function", bound=Callable[..., Any])

KERNEL = Path(__file__).parent

FOLDER_NAMED_IN = "ASKETA_ENGINE"
"""The environment variable that says where compiled code is kept; without it in the user's own cache, where nobody else
can put anything."""


def fingerprint() -> str:
    """Which state of the sources this is."""
    found = hashlib.sha256()
    for path in sorted(KERNEL.glob("*.py")):
        found.update(path.name.encode() + b"\0" + path.read_bytes())
    return found.hexdigest()[:16]


def kept_in() -> Path:
    """The folder of what was compiled from this state of the sources."""
    named = os.environ.get(FOLDER_NAMED_IN)
    base = Path(named) if named else Path.home() / ".cache" / "asketa-engine"
    return base / fingerprint()


class EngineNotKept(OSError):
    """What is compiled cannot be kept, so that it would be compiled anew at every start. The message says how to mend
    it."""


def make_room(folder: Path) -> None:
    """Make the folder of what is compiled, or raise ``EngineNotKept``."""
    try:
        folder.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryFile(dir=folder):
            pass
    except OSError as error:
        raise EngineNotKept(
            f"The compiled engine cannot be kept in {folder}: {error.strerror}. Make the folder writable, or name another"
            f" in {FOLDER_NAMED_IN}."
        ) from error


if not getattr(config, "DISABLE_JIT"):  # noqa: B009  (the compiler names its settings when it runs)
    make_room(kept_in())
setattr(config, "CACHE_DIR", str(kept_in()))  # noqa: B010

AS_WRITTEN: Mapping[str, Any] = {"cache": True, "error_model": "numpy", "_nrt": False}
"""Kept; IEEE division; and no counting of references, for what a function is handed outlives it."""

FROM_WITHIN: Mapping[str, Any] = {**AS_WRITTEN, "no_cpython_wrapper": True, "no_cfunc_wrapper": True}


def compiled(function: Function) -> Function:
    """A function other compiled functions call."""
    return cast(Function, njit(**FROM_WITHIN)(function))


def inlined(function: Function) -> Function:
    """A function compiled into whatever calls it: to be handed its tables would take longer than what it does."""
    return cast(Function, njit(forceinline=True, **FROM_WITHIN)(function))


def entry(signature: object) -> Callable[[Function], Function]:
    """A function the rest of the core calls, compiled for the types of ``signature`` when its module is loaded."""

    def wrap(function: Function) -> Function:
        return cast(Function, njit(signature, **AS_WRITTEN)(function))

    return wrap


def directly(function: Function) -> Function:
    """An entry without the search for the types of what it is handed: there is only one way it is compiled."""
    ways = getattr(function, "overloads", None)
    return cast(Function, next(iter(ways.values())).entry_point) if ways else function


def type_of(example: object) -> Any:
    """The type of a tuple of numbers, for the signature of an entry."""
    return typeof(example)  # type: ignore[no-untyped-call]
