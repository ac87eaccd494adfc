"""Writes the JSON Schemas of every file Asketa reads into docs/schemas."""

from __future__ import annotations

import json
from pathlib import Path

from asketa_core.__main__ import schemas

FOLDER = Path(__file__).resolve().parent.parent / "docs" / "schemas"
PUBLISHED = ("family", "client_file", "room", "variation")


def main() -> None:
    FOLDER.mkdir(parents=True, exist_ok=True)
    every = schemas()
    for name in PUBLISHED:
        path = FOLDER / f"{name}.json"
        path.write_text(json.dumps(every[name], indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
        print(f"· {path}")


if __name__ == "__main__":
    main()
