"""Lists every package that ships with the application, with its licence: for the repository and for the Settings screen.

Read from what is installed, so that a list can be held to the locks.
"""

from __future__ import annotations

import json
import re
import sys
from collections.abc import Iterator
from importlib.metadata import PackageNotFoundError, distribution
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
WEB = ROOT / "web"
LIST = WEB / "src" / "features" / "settings" / "licences.json"
DOCUMENT = ROOT / "docs" / "licences.md"

KNOWN = {"MIT License": "MIT", "BSD License": "BSD", "Apache Software License": "Apache-2.0"}


def web_packages() -> Iterator[dict[str, str]]:
    """What the build takes its scripts, styles and fonts from."""
    lock: dict[str, Any] = json.loads((WEB / "package-lock.json").read_text(encoding="utf-8"))
    for path, package in lock["packages"].items():
        if not path or package.get("dev") or package.get("optional"):
            continue
        told = json.loads((WEB / path / "package.json").read_text(encoding="utf-8"))
        licence = told.get("license", "")
        name = path.rpartition("node_modules/")[2]
        yield {
            "name": name,
            "version": package["version"],
            "licence": licence if isinstance(licence, str) else licence["type"],
        }


def server_packages() -> Iterator[dict[str, str]]:
    """What the server runs on."""
    for line in (ROOT / "requirements" / "run.txt").read_text(encoding="utf-8").splitlines():
        found = re.match(r"([A-Za-z0-9_.-]+)(?:\[[^\]]*\])?==(\S+)", line)
        if found is None:
            continue
        try:
            about = distribution(found[1]).metadata
        except PackageNotFoundError:
            # For another platform than this one.
            continue
        yield {"name": found[1], "version": found[2], "licence": _licence(about)}


def _licence(about: Any) -> str:
    if expression := about.get("License-Expression"):
        return str(expression)
    classed = [
        each.rpartition(" :: ")[2] for each in about.get_all("Classifier") or [] if each.startswith("License ::")
    ]
    said = ", ".join(classed) or (about.get("License") or "").splitlines()[0]
    return KNOWN.get(said, said)


def packages() -> list[dict[str, str]]:
    unique = {(each["name"], each["version"]): each for each in (*web_packages(), *server_packages())}
    return sorted(unique.values(), key=lambda each: (each["name"].lower(), each["version"]))


def main() -> int:
    """Write the list, or with ``--check`` say whether it is current."""
    found = packages()
    as_json = json.dumps(found, indent=2, ensure_ascii=False) + "\n"
    rows = [f"| {each['name']} | {each['version']} | {each['licence']} |" for each in found]
    as_document = "\n".join(
        ["# Licences", "", "What ships with the application, as installed. Written by `./asketa licences`.", "",
         "| package | version | licence |", "|---|---|---|", *rows, ""]
    )  # fmt: skip
    if "--check" in sys.argv[1:]:
        current = LIST.read_text(encoding="utf-8") == as_json and DOCUMENT.read_text(encoding="utf-8") == as_document
        if not current:
            print("The list of licences is not that of the packages installed. Run: ./asketa licences", file=sys.stderr)
        return 0 if current else 1
    LIST.write_text(as_json, encoding="utf-8")
    DOCUMENT.write_text(as_document, encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
