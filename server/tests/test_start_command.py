"""The start command on a machine that is not as it left it: taken ports, other servers, stale process numbers."""

from __future__ import annotations

import json
import os
import socket
import subprocess
import sys
import tempfile
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from http.server import BaseHTTPRequestHandler, HTTPServer
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

from django.conf import settings

sys.path.insert(0, str(settings.ROOT / "tools"))
import asketa
import postgres
from steps import Failed


@contextmanager
def served(mark: str) -> Iterator[int]:
    """Another application that answers on a port of its own; yields the port."""

    class Handler(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            self.send_response(200)
            self.end_headers()
            self.wfile.write(json.dumps({"mark": mark}).encode())

        def log_message(self, *_: object) -> None:
            pass

    server = HTTPServer(("127.0.0.1", 0), Handler)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    try:
        yield server.server_address[1]
    finally:
        server.shutdown()
        server.server_close()


@contextmanager
def process() -> Iterator[subprocess.Popen[bytes]]:
    running = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(60)"])
    try:
        yield running
    finally:
        running.kill()
        running.wait()


class Ports(TestCase):
    def test_another_asketa_on_the_port_is_not_taken_for_ones_own(self) -> None:
        with served("theirs") as port, process() as own:
            self.assertFalse(asketa.answers(own, port, "mine"))
            self.assertTrue(asketa.answers(own, port, "theirs"))

    def test_a_server_that_ended_does_not_answer(self) -> None:
        with process() as own:
            own.kill()
            own.wait()
            self.assertFalse(asketa.answers(own, 1, "mine"))

    def test_a_taken_port_is_passed_over(self) -> None:
        with socket.socket() as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            port = taken.getsockname()[1]
            with patch.object(asketa, "PORT", port), patch("asketa.say"):
                self.assertGreater(asketa.port_to_serve_on(), port)
                with patch.object(asketa, "PORTS_TRIED", 1), self.assertRaisesRegex(Failed, "--port"):
                    asketa.port_to_serve_on()

    def test_the_database_sees_a_port_that_something_else_took(self) -> None:
        with socket.socket() as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            self.assertTrue(postgres._taken(taken.getsockname()[1]))
        self.assertFalse(postgres._taken(postgres._free_port()))


class Leftovers(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.local = Path(folder.name)

    def test_a_process_that_has_the_number_of_an_old_server_is_left_alone(self) -> None:
        pid_file = self.local / "server.pid"
        with process() as stranger, patch.object(asketa, "PID_FILE", pid_file):
            pid_file.write_text(str(stranger.pid))
            asketa.stop_server()
            self.assertIsNone(stranger.poll())
            self.assertFalse(pid_file.exists())

    def test_an_environment_left_half_made_is_made_anew(self) -> None:
        """As a kill leaves it: a python is there, pip and the stamp are not."""
        venv = self.local / "venv"
        (venv / "bin").mkdir(parents=True)
        (venv / "lib" / "python3.11" / "site-packages").mkdir(parents=True)
        python = venv / "bin" / "python"
        python.write_text("#!/bin/sh\necho No module named pip >&2; exit 1\n")
        python.chmod(0o755)
        ran: list[list[str]] = []

        def run(command: list[str], **_: object) -> int:
            ran.append(command)
            (venv / "lib" / "python3.11" / "site-packages").mkdir(parents=True, exist_ok=True)
            return 0

        places = {"LOCAL": self.local, "ENGINE": self.local / "engine", "VENV": venv, "PYTHON": python}
        quiet = {"run": run, "say": lambda _: None}
        with patch.multiple(asketa, **places, **quiet), patch("steps.say"), patch.dict(os.environ):
            asketa.python_environment("run")
        # Made anew, then what builds, what runs, the core in place and its engine.
        steps = ["venv", "pip", "pip", "pip", "asketa_core.kernel"]
        self.assertEqual([command[1:3] for command in ran], [["-m", step] for step in steps])

    def test_a_database_somebody_else_uses_stays_up(self) -> None:
        """A test run that ends stops no database under a running demo."""
        code = (
            f"import sys, pathlib; sys.path.insert(0, {str(settings.ROOT / 'tools')!r}); import postgres; "
            f"c = postgres.Cluster(pathlib.Path({str(self.local)!r})); c._use(); print('ready', flush=True); input()"
        )
        with subprocess.Popen([sys.executable, "-c", code], stdin=subprocess.PIPE, stdout=subprocess.PIPE) as demo:
            assert demo.stdin is not None and demo.stdout is not None
            while b"ready" not in (line := demo.stdout.readline()):
                self.assertTrue(line)
            cluster = postgres.Cluster(self.local)
            cluster._use()
            with patch.object(cluster, "stop") as stop, patch("postgres.say"):
                cluster.stop_unless_used()
                stop.assert_not_called()
                demo.stdin.write(b"\n")
                demo.stdin.close()
                demo.wait()
                cluster.stop_unless_used()
                stop.assert_called_once()


class CommandLine(TestCase):
    def test_unknown_words_are_refused_and_help_names_every_command(self) -> None:
        command = [sys.executable, str(settings.ROOT / "tools" / "asketa.py")]
        helped = subprocess.run([*command, "--help"], capture_output=True, text=True, check=True, env=dict(os.environ))
        for name in ("demo", "test", "bench", "campaign", "stop"):
            self.assertIn(name, helped.stdout)
        refused = subprocess.run([*command, "demmo"], capture_output=True, text=True, check=False)
        self.assertNotEqual(refused.returncode, 0)
        self.assertNotIn("Traceback", refused.stderr)
