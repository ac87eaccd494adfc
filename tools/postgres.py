"""A private PostgreSQL cluster on loopback, beside whatever else runs on the machine.

As root the server runs as user postgres, because PostgreSQL refuses to run as root. Where that user
cannot reach the project's folder, the cluster lives in a fallback folder and says so.
"""

from __future__ import annotations

import fcntl
import hashlib
import os
import pwd
import secrets
import shutil
import socket
import subprocess
import time
from collections.abc import Sequence
from pathlib import Path
from typing import IO

from steps import Failed, say

SUPERUSER = "asketa_admin"

QUIET = {
    # A log is read by more people than a record is: no statements, no values, no rows. Errors reach the application.
    "log_min_messages": "fatal",
    "log_min_error_statement": "panic",
    "log_error_verbosity": "terse",
    "log_statement": "none",
    "log_min_duration_statement": "-1",
    "log_parameter_max_length": "0",
    "log_parameter_max_length_on_error": "0",
}
ROLES = ("owner", "app")
START_TRIES = 5


class Cluster:
    def __init__(self, local: Path) -> None:
        self._local = local
        self._as_root = os.geteuid() == 0
        self._home = self._choose_home()
        self._data = self._home / "data"
        self.log = self._home / "server.log"
        self._port_file = self._local / "postgres-port"
        self._held: IO[str] | None = None

    # --- where and as whom --------------------------------------------------------------------------

    @staticmethod
    def binaries() -> Path | None:
        """Folder of PostgreSQL's programs; the newest version installed."""
        found = sorted(Path("/usr/lib/postgresql").glob("*/bin/initdb"), key=lambda p: int(p.parts[-3]))
        if found:
            return found[-1].parent
        on_path = shutil.which("initdb")
        return Path(on_path).resolve().parent if on_path else None

    def _choose_home(self) -> Path:
        inside = self._local / "postgres"
        if not self._as_root or self._reachable_by_postgres(self._local):
            return inside
        name = hashlib.sha256(str(self._local).encode()).hexdigest()[:12]
        fallback = Path("/var/tmp") / f"asketa-{name}"
        if not fallback.exists():
            say(f"user postgres cannot reach {self._local}: the database goes to {fallback}")
        return fallback

    @staticmethod
    def _reachable_by_postgres(folder: Path) -> bool:
        return all(part.stat().st_mode & 0o001 for part in [folder, *folder.parents])

    def _drop_privileges(self, command: Sequence[str]) -> list[str]:
        if not self._as_root:
            return list(command)
        return ["setpriv", "--reuid=postgres", "--regid=postgres", "--init-groups", "--reset-env", *command]

    def _run(self, program: str, *arguments: str, check: bool = True) -> subprocess.CompletedProcess[str]:
        folder = self.binaries()
        if folder is None:
            raise Failed("PostgreSQL is not installed. Install Debian's package postgresql and run this again.")
        command = [str(folder / program), *arguments]
        # Only what touches the cluster's files runs as user postgres; clients keep their environment.
        if program in ("initdb", "pg_ctl"):
            command = self._drop_privileges(command)
        result = subprocess.run(
            command, cwd="/", capture_output=True, text=True, check=False,
            env={**os.environ, "PGPASSWORD": self.password("admin") if program != "initdb" else "", "LC_ALL": "C.UTF-8"},
        )  # fmt: skip
        if check and result.returncode != 0:
            raise Failed(f"{program} failed: {(result.stderr or result.stdout).strip()[-800:]}")
        return result

    # --- its files ----------------------------------------------------------------------------------

    def password(self, role: str) -> str:
        file = self._local / "passwords" / role
        if not file.exists():
            file.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
            file.write_text(secrets.token_urlsafe(24), encoding="utf-8")
            file.chmod(0o600)
        return file.read_text(encoding="utf-8")

    @property
    def port(self) -> int:
        """The port this cluster keeps; a free one is chosen once."""
        if not self._port_file.exists():
            self._port_file.write_text(str(_free_port()), encoding="utf-8")
        return int(self._port_file.read_text(encoding="utf-8"))

    def _create(self) -> None:
        say("creating the database cluster")
        if self._data.exists():
            # Left half made by an interrupted first start.
            shutil.rmtree(self._data)
        self._home.mkdir(mode=0o700, parents=True, exist_ok=True)
        password_file = self._home / "initial-password"
        password_file.write_text(self.password("admin"), encoding="utf-8")
        if self._as_root:
            postgres = pwd.getpwnam("postgres")
            os.chown(self._home, postgres.pw_uid, postgres.pw_gid)
            os.chown(password_file, postgres.pw_uid, postgres.pw_gid)
        self._run(
            "initdb", "-D", str(self._data), "-U", SUPERUSER, "--auth-local=trust", "--auth-host=scram-sha-256",
            f"--pwfile={password_file}", "-E", "UTF8", "--locale=C.UTF-8",
        )  # fmt: skip
        password_file.unlink()
        # No socket: its path would have to be short and free of spaces, and loopback is enough.
        with (self._data / "postgresql.conf").open("a", encoding="utf-8") as conf:
            conf.write("\nlisten_addresses = '127.0.0.1'\nunix_socket_directories = ''\n")
        (self._data / "made").write_text("", encoding="utf-8")
        if self._as_root:
            os.chown(self._data / "made", pwd.getpwnam("postgres").pw_uid, -1)

    # --- running ------------------------------------------------------------------------------------

    def running(self) -> bool:
        return self._run("pg_isready", "-q", "-h", "127.0.0.1", "-p", str(self.port), check=False).returncode == 0

    def _is_ours(self) -> bool:
        """Whether what answers on the port is this cluster: it takes this cluster's password."""
        return self._psql("postgres", "SELECT 1", check=False).returncode == 0

    def start(self) -> None:
        """Create the cluster if there is none, start it if it is not running, and make its roles. Whoever starts it or
        finds it running uses it until its process ends: see ``stop_unless_used``."""
        self._use()
        if not (self._data / "made").exists():
            self._create()
        if not (self.running() and self._is_ours()):
            self._start()
        self._make_roles()

    def _start(self) -> None:
        say("starting the database")
        for attempt in range(START_TRIES):
            if _taken(self.port):
                # Another program took the port since last time.
                taken = self.port
                self._port_file.unlink()
                say(f"port {taken} is taken by something else: the database goes to {self.port}")
            options = f"-p {self.port} " + " ".join(f"-c {name}={value}" for name, value in QUIET.items())
            self._run(
                "pg_ctl",
                "-D",
                str(self._data),
                "-w",
                "-t",
                "20",
                "-l",
                str(self.log),
                "-o",
                options,
                "start",
                check=False,
            )
            if self.running() and self._is_ours():
                return
            time.sleep(0.5 * (attempt + 1))
        raise Failed(f"The database does not start. Its log: {self.log}")

    def _use(self) -> None:
        """Hold the cluster with every other process that uses it, until this one ends."""
        if self._held is None:
            self._local.mkdir(exist_ok=True)
            self._held = (self._local / "postgres-users").open("w")
            fcntl.flock(self._held, fcntl.LOCK_SH)

    def stop_unless_used(self) -> None:
        """Stop it when nobody else uses it."""
        if self._held is None:
            return
        try:
            fcntl.flock(self._held, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            say("the database stays up: something else uses it")
            return
        self.stop()

    def stop(self) -> None:
        if (self._data / "made").exists() and self.running():
            say("stopping the database")
            self._run("pg_ctl", "-D", str(self._data), "-m", "fast", "-w", "stop", check=False)

    def _psql(self, database: str, sql: str, check: bool = True) -> subprocess.CompletedProcess[str]:
        return self._run(
            "psql", "-h", "127.0.0.1", "-p", str(self.port), "-U", SUPERUSER, "-d", database, "-v", "ON_ERROR_STOP=1",
            "-qAtc", sql, check=check,
        )  # fmt: skip

    def _make_roles(self) -> None:
        """The owner migrates and may create test databases; the application is neither owner nor superuser."""
        for role in ROLES:
            name = f"asketa_{role}"
            if not self._psql("postgres", f"SELECT 1 FROM pg_roles WHERE rolname = '{name}'").stdout.strip():
                self._psql("postgres", f"CREATE ROLE {name} LOGIN NOSUPERUSER")
            can = "CREATEDB" if role == "owner" else "NOCREATEDB"
            self._psql("postgres", f"ALTER ROLE {name} {can} PASSWORD '{self.password(role)}'")
        self._psql("postgres", "GRANT asketa_app TO asketa_owner")

    def create_database(self, name: str) -> None:
        if not self._psql("postgres", f"SELECT 1 FROM pg_database WHERE datname = '{name}'").stdout.strip():
            self._psql("postgres", f"CREATE DATABASE {name} OWNER asketa_owner")

    def drop_database(self, name: str) -> None:
        self._psql("postgres", f"DROP DATABASE IF EXISTS {name} WITH (FORCE)")


def _taken(port: int) -> bool:
    """Whether something listens on a loopback port."""
    with socket.socket() as probe:
        return probe.connect_ex(("127.0.0.1", port)) == 0


def _free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])
