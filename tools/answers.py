"""Records answers of the running demo for the web's component tests: typed by the API, and as it really answers.

Start ``./asketa demo`` first. Drawings are cut to their outer element, ids are made the same in every recording.
"""

from __future__ import annotations

import json
import re
import sys
import urllib.request
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
OUT = ROOT / "web" / "src" / "testing" / "answers.json"
PORT_FILE = ROOT / ".local" / "server-port"
ADDRESS = f"http://127.0.0.1:{PORT_FILE.read_text(encoding='utf-8') if PORT_FILE.exists() else 8000}"
LEFT, RIGHT, SHOWN = "low_lunge.foot_on_chair", "sit_to_stand.lift_pause", "figure_four.block_flat"
"""Rungs with few set-ups, so that the recording stays small."""
TRIED = "figure_four.block_end"
"""One of which both ways may be tried."""


class Demo:
    """The demo as somebody signed in sees it; everything answered is kept by method and path."""

    def __init__(self) -> None:
        self.cookies = CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.cookies))
        self.kept: dict[str, Any] = {}

    def ask(self, method: str, path: str, body: Any = None, *, keep: bool = True) -> Any:
        token = next((each.value for each in self.cookies if each.name == "csrftoken"), "")
        request = urllib.request.Request(
            ADDRESS + path,
            method=method,
            data=None if body is None else json.dumps(body).encode(),
            headers={"Content-Type": "application/json", "X-CSRFToken": token or "", "Accept-Language": "en"},
        )
        with self.opener.open(request) as answer:
            said = json.load(answer)
        if keep:
            self.kept[f"{method} {path}"] = said
        return said


def main() -> int:
    demo = Demo()
    demo.ask("GET", "/api/auth/me", keep=False)
    demo.ask(
        "POST", "/api/auth/sign-in", {"email": "ottoline@weir-room.example", "password": "weir-room-demo"}, keep=False
    )
    me = demo.ask("GET", "/api/auth/me")
    practice = f"/api/practices/{me['practices'][0]['id']}"
    for path in ("/settings", "/calendar", "/library", "/library/purposes", "/library/words", "/records"):
        demo.ask("GET", practice + path)
    demo.ask("GET", f"{practice}/library/families/figure_four?side=left")
    demo.ask("GET", f"{practice}/library/variations/{SHOWN}?side=left")
    demo.ask("GET", f"{practice}/library/variations/{SHOWN}/closers")
    clients = demo.ask("POST", f"{practice}/clients/search", {"text": ""})
    shared = next(each for each in clients if each["occupation"] == "baker")
    whom = next(each for each in clients if each["occupation"] == "clock repairer")
    client = f"{practice}/clients/{whom['id']}"
    for path in ("", "/coming", "/calendar", "/families", "/entries", "/measures", "/visit-notes"):
        demo.ask("GET", client + path)
    for path in ("", "/drawings"):
        for family in ("figure_four", "low_lunge", "sit_to_stand"):
            demo.ask("GET", f"{client}/ladders/{family}{path}")
        demo.ask("GET", f"{practice}/clients/{shared['id']}/ladders/bound_angle{path}")
    for rung, side in ((LEFT, "left"), (RIGHT, "right")):
        setup = f"{client}/setups/{rung}/{side}"
        chosen = demo.ask("GET", setup)["options"][0]["detail"]["setup"]
        demo.ask("POST", setup, {"setup": chosen, "view": "side"})
        demo.ask("POST", f"{setup}/way", {"setup": chosen})
        demo.ask("POST", f"{setup}/ways", {"setup": chosen})
        plan = {"variation": rung, "side": side, "setup": chosen, "dose_s": 30}
        demo.ask("POST", f"{client}/mat", plan, keep=False)
    tried = f"{client}/setups/{TRIED}/left"
    demo.ask("POST", f"{tried}/ways", {"setup": demo.ask("GET", tried, keep=False)["options"][0]["detail"]["setup"]})
    demo.ask("GET", f"{client}/mat")
    demo.ask("GET", f"{client}/plan")
    demo.ask("GET", f"{practice}/templates")
    demo.ask("GET", f"{client}/responses?most=60")
    text = json.dumps(demo.kept, indent=None, ensure_ascii=False, sort_keys=True)
    text = re.sub(r"(<svg [^>]*>).*?</svg>", r"\1</svg>", text)
    known = {me["practices"][0]["id"]: "the-practice", whom["id"]: "the-client", shared["id"]: "the-other"}
    for identity, name in known.items():
        text = text.replace(identity, name)
    places: dict[str, str] = {}
    text = re.sub(
        r"[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}",
        lambda found: places.setdefault(found[0], f"id-{len(places) + 1}"),
        text,
    )
    # One answer a line.
    text = text.replace(', "GET /', ',\n"GET /').replace(', "POST /', ',\n"POST /')
    OUT.write_text(text + "\n", encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
