"""The core on the command line: JSON in (a file or standard input), JSON out; ``figure`` gives SVG.

``python -m asketa_core SUBCOMMAND [FILE]``. Bad input ends with exit code 2 and a JSON error that names
field, reason and remedy.
"""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any

from asketa_core.clientfile import ClientFile
from asketa_core.commands.angles import AnglesRequest, run_angles
from asketa_core.commands.figure import FigureRequest, run_figure
from asketa_core.commands.library import run_library
from asketa_core.commands.posture import PostureRequest, run_posture
from asketa_core.commands.screen import ScreenRequest, run_screen
from asketa_core.errors import InputError
from asketa_core.figure.palette import palettes
from asketa_core.ownvariation import own_schema
from asketa_core.parsing import parse
from asketa_core.plain_text import read_json
from asketa_core.poses.library import family_schema
from asketa_core.props.kinds import Room

BAD_INPUT = 2


def _angles(raw: Any) -> dict[str, Any]:
    return run_angles(parse(AnglesRequest, raw))


def _screen(raw: Any) -> dict[str, Any]:
    return run_screen(parse(ScreenRequest, raw))


def _posture(raw: Any) -> dict[str, Any]:
    return run_posture(parse(PostureRequest, raw))


def _figure(raw: Any) -> str:
    return run_figure(parse(FigureRequest, raw))


Answer = dict[str, Any] | str
"""JSON-ready values, or a document written as it is."""

COMMANDS: dict[str, Callable[[Any], Answer]] = {
    "angles": _angles,
    "figure": _figure,
    "posture": _posture,
    "screen": _screen,
}


def schemas() -> dict[str, Any]:
    """JSON Schemas of everything the core reads."""
    return {
        "angles": AnglesRequest.model_json_schema(),
        "figure": FigureRequest.model_json_schema(),
        "posture": PostureRequest.model_json_schema(),
        "screen": ScreenRequest.model_json_schema(),
        "client_file": ClientFile.model_json_schema(),
        "room": Room.model_json_schema(),
        "family": family_schema(),
        "variation": own_schema(),
    }


def _palettes() -> dict[str, Any]:
    return {light: dict(colours) for light, colours in palettes().items()}


def _body_map() -> dict[str, Any]:
    # Loaded where it is asked for: it draws.
    from asketa_core.figure.body_map import body_map  # noqa: PLC0415

    return body_map()


WITHOUT_REQUEST: dict[str, Callable[[], dict[str, Any]]] = {
    "body-map": _body_map,
    "library": run_library,
    "palettes": _palettes,
    "schema": schemas,
}


def _read(path: str | None) -> Any:
    try:
        text = Path(path).read_text(encoding="utf-8") if path is not None else sys.stdin.read()
    except OSError as error:
        raise InputError("(file)", f"the file cannot be read: {error.strerror}.", "Check its name.") from error
    return read_json(text)


def main(arguments: Sequence[str] | None = None) -> int:
    parser = argparse.ArgumentParser(prog="python -m asketa_core", description=__doc__)
    parser.add_argument("command", choices=[*COMMANDS, *WITHOUT_REQUEST])
    parser.add_argument("file", nargs="?", help="request as JSON; standard input when left out")
    options = parser.parse_args(arguments)
    answer: Answer
    try:
        if options.command in WITHOUT_REQUEST:
            answer = WITHOUT_REQUEST[options.command]()
        else:
            answer = COMMANDS[options.command](_read(options.file))
    except InputError as error:
        json.dump({"error": error.as_dict()}, sys.stdout, ensure_ascii=False, indent=2)
        sys.stdout.write("\n")
        return BAD_INPUT
    if isinstance(answer, str):
        sys.stdout.write(f"{answer}\n")
        return 0
    json.dump(answer, sys.stdout, ensure_ascii=False, indent=2, default=str, allow_nan=False)
    sys.stdout.write("\n")
    return 0


if __name__ == "__main__":
    sys.exit(main())
