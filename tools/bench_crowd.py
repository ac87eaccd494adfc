"""Fifty therapists who open a client each at once, and what the workers keep in memory after a thousand answers.

On a server and a database of their own. The load runs on the same cores as the server.
"""

from __future__ import annotations

import json
import os
import secrets
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from http.cookiejar import CookieJar
from itertools import islice, product
from pathlib import Path
from typing import Any

from asketa import ENGINE, HOST, LOCAL, PYTHON, ROOT, answers, port_to_serve_on, serve, server_environment
from postgres import Cluster
from steps import Failed

DATABASE = "asketa_bench"
ANSWERS = 1000
OPENED = ("", "/ladders/figure_four", "/setups/figure_four.block_flat/left")
"""What opening a client asks for: the head, one ladder, one set-up."""


class Therapist:
    """Somebody signed in, at as many screens at once as one likes."""

    def __init__(self, address: str, email: str, password: str) -> None:
        self._address, self._cookies = address, CookieJar()
        self._opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self._cookies))
        self.get("/api/auth/me")
        self._post("/api/auth/sign-in", {"email": email, "password": password})

    def get(self, path: str) -> Any:
        with self._opener.open(self._address + path, timeout=120) as answer:
            return json.load(answer)

    def _post(self, path: str, body: dict[str, Any]) -> None:
        token = next((cookie.value or "" for cookie in self._cookies if cookie.name == "csrftoken"), "")
        headers = {"Content-Type": "application/json", "X-CSRFToken": token, "Referer": self._address}
        request = urllib.request.Request(self._address + path, json.dumps(body).encode(), headers)
        with self._opener.open(request, timeout=120) as answer:
            answer.read()


def open_client(therapist: Therapist, below: str, start: float) -> float:
    """After how many seconds everything was there."""
    for path in OPENED:
        therapist.get(below + path)
    return time.perf_counter() - start


def private_mb(pid: int) -> float:
    """What a process keeps in memory, shared pages in parts (PSS)."""
    for line in Path(f"/proc/{pid}/smaps_rollup").read_text(encoding="utf-8").splitlines():
        if line.startswith("Pss:"):
            return int(line.split()[1]) / 1024
    return 0.0


def workers_of(pid: int) -> list[int]:
    return [int(each) for each in Path(f"/proc/{pid}/task/{pid}/children").read_text(encoding="utf-8").split()]


def more(below: list[str], ladders: list[str]) -> Iterator[str]:
    """Ladders of one client after the other."""
    return (f"{client}/ladders/{ladder}" for client, ladder in product(below, ladders))


def measure(address: str, pid: int, crowd: dict[str, Any]) -> None:
    below = [f"/api/practices/{crowd['practice']}/clients/{client}" for client in crowd["clients"]]
    therapist = Therapist(address, crowd["email"], crowd["password"])
    with ThreadPoolExecutor(len(below)) as at_once:
        start = time.perf_counter()
        done = sorted(at_once.map(partial(open_client, therapist, start=start), below))
    print(f"{'fifty clients opened at once: half of them, the last':52} {done[len(done) // 2]:.1f} s, {done[-1]:.1f} s")
    asked = len(OPENED) * len(below)
    ladders = [each["family"] for each in therapist.get(f"{below[0]}/families")]
    for path in islice(more(below, ladders), ANSWERS - asked):
        therapist.get(path)
    kept = ", ".join(f"{private_mb(worker):.0f}" for worker in workers_of(pid))
    print(f"{f'in memory after {ANSWERS} answers, each worker (PSS)':52} {kept} MB")


def main() -> int:
    os.environ["ASKETA_ENGINE"] = str(ENGINE)
    cluster, mark, port = Cluster(LOCAL), secrets.token_urlsafe(12), port_to_serve_on()
    cluster.start()
    cluster.drop_database(DATABASE)
    cluster.create_database(DATABASE)
    server = None
    try:
        environment = {**os.environ, **server_environment(cluster, "owner", DATABASE)}
        loaded = ""
        for command in (["migrate", "-v", "0"], ["load_crowd"]):
            loaded = subprocess.run(
                [str(PYTHON), "manage.py", *command], cwd=ROOT / "server", env=environment, stdout=subprocess.PIPE,
                text=True, check=True,
            ).stdout  # fmt: skip
        server = serve(cluster, port, mark, DATABASE)
        if not answers(server, port, mark):
            raise Failed("The server for the crowd did not start. Its message is above.")
        measure(f"http://{HOST}:{port}", server.pid, json.loads(loaded))
    finally:
        if server is not None:
            server.terminate()
            server.wait()
        cluster.drop_database(DATABASE)
    return 0


if __name__ == "__main__":
    sys.exit(main())
