"""Install what is missing: Debian's packages, the Python environment, the front end and its build."""

import fcntl
import gzip
import hashlib
import os
import shutil
import subprocess
import sys
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from pathlib import Path

from kumpan.tools.console import Stop, stage

ROOT = Path(__file__).resolve().parents[3]
VENV = ROOT / ".venv"
FRONTEND = ROOT / "frontend"
DIST = FRONTEND / "dist"
OPENAPI = FRONTEND / "src/api/openapi.json"
SCHEMA = FRONTEND / "src/api/schema.ts"
# What sets a page of a PDF; its folder is named after the machine's kind.
PANGO = next(Path("/usr/lib").glob("*/libpangoft2-1.0.so.0"), Path("/usr/lib/libpangoft2-1.0.so.0"))
DEBIAN = {
    "mariadb-server-core": Path("/usr/sbin/mariadbd"),
    "mariadb-client": Path("/usr/bin/mariadb-admin"),
    "chromium": Path("/usr/bin/chromium"),
    "libpangoft2-1.0-0": PANGO,
}
NGINX = "/usr/sbin/nginx"
# Only for what the tests and `./run cluster` start themselves.
DEBIAN_FOR_TESTS = {
    "nginx-light": Path(NGINX),
    "galera-4": Path("/usr/lib/galera/libgalera_smm.so"),
    "mariadb-backup": Path("/usr/bin/mariadb-backup"),
    "haproxy": Path("/usr/sbin/haproxy"),
    "socat": Path("/usr/bin/socat"),
    "rsync": Path("/usr/bin/rsync"),
}
BUILD_INPUTS = (
    "src", "public", "index.html", "vite.config.ts", "vite.first.ts", "vite.guide.ts", "vite.pwa.ts",
    "tsconfig.json", "package-lock.json", "../docs/guide",
)  # fmt: skip
PACKED = (".js", ".css")


@contextmanager
def install_lock() -> Iterator[None]:
    """One install or build at a time in this tree."""
    folder = ROOT / ".run"
    folder.mkdir(exist_ok=True)
    with (folder / "install.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        yield


def ensure_all(*, dev: bool) -> None:
    """Everything that the commands need, installed once; quick when nothing is missing."""
    with install_lock():
        ensure_debian(dev=dev)
        # Each of the two waits for itself most of the time.
        with ThreadPoolExecutor() as beside:
            screens = beside.submit(_ensure_screens)
            ensure_python("dev" if dev else "app")
            screens.result()


def _ensure_screens() -> None:
    ensure_front_end()
    ensure_client_types()
    ensure_build()


def ensure_debian(*, dev: bool = False) -> None:
    """Debian's packages that Kumpan stands on; `dev` those of its tests as well."""
    wanted = DEBIAN | (DEBIAN_FOR_TESTS if dev else {})
    missing = [name for name, file in wanted.items() if not file.exists()]
    if not _has_venv():
        missing.append("python3-venv")
    if not missing:
        return
    install = f"apt-get install -y --no-install-recommends {' '.join(missing)}"
    prefix = _root_prefix()
    if prefix is None:
        raise Stop(
            f"Some Debian packages are missing. Type this once, then start again:\n  sudo sh -c 'apt-get "
            f"update && {install}'"
        )
    with stage(f"Debian packages ({', '.join(missing)})"):
        _run([*prefix, "apt-get", "update"], "The list of Debian packages could not be read")
        _run([*prefix, *install.split()], "Debian packages could not be installed")


def _has_venv() -> bool:
    try:
        import ensurepip  # noqa: F401
    except ImportError:
        return False
    return True


def _root_prefix() -> list[str] | None:
    if os.geteuid() == 0:
        return []
    sudo = shutil.which("sudo")
    if sudo and subprocess.run([sudo, "-n", "true"], capture_output=True, check=False).returncode == 0:
        return [sudo, "-n"]
    return None


def ensure_python(lock: str) -> None:
    """The virtual environment from a pinned lock; `dev` holds all that `app` does."""
    if _fresh(VENV / ".kumpan-dev", _digest_of(ROOT / "requirements/dev.txt")):
        return
    file, stamp = ROOT / f"requirements/{lock}.txt", VENV / f".kumpan-{lock}"
    digest = _digest_of(file)
    if _fresh(stamp, digest):
        return
    with stage("Python packages"):
        if not (VENV / "bin/python").exists():
            _run([sys.executable, "-m", "venv", str(VENV)], "The Python environment could not be made")
        _run(
            [
                str(VENV / "bin/python"),
                "-m",
                "pip",
                "install",
                "-q",
                "--disable-pip-version-check",
                "--no-compile",  # a module is compiled when it is first used, and many never are
                "--require-hashes",
                "-r",
                str(file),
            ],
            "Python packages could not be installed",
        )
        stamp.write_text(digest)


def ensure_front_end() -> None:
    """The front end's packages, by their lock."""
    stamp = FRONTEND / "node_modules/.kumpan"
    digest = _digest_of(FRONTEND / "package-lock.json")
    if _fresh(stamp, digest):
        return
    if shutil.which("npm") is None:
        raise Stop("Node 20 with npm is needed to build the screens; install it, then start again.")
    with stage("Front-end packages"):
        # Not `npm ci`: it refuses a lock from which packages for other systems are missing, and not every
        # registry serves those. The lock still fixes every version and its integrity.
        _run(
            ["npm", "install", "--no-save", "--no-audit", "--no-fund", "--loglevel=error"],
            "Front-end packages could not be installed",
            FRONTEND,
        )
        stamp.write_text(digest)


def ensure_client_types() -> None:
    """The typed client's types, made again when the OpenAPI document changed; they are not kept in the
    repository.
    """
    stamp = FRONTEND / "node_modules/.kumpan-types"
    digest = _digest_of(OPENAPI, FRONTEND / "package-lock.json")
    if SCHEMA.exists() and _fresh(stamp, digest):
        return
    with stage("Client types"):
        _run(
            ["npx", "openapi-typescript", str(OPENAPI), "-o", str(SCHEMA)],
            "The client's types could not be made",
            FRONTEND,
        )
        stamp.write_text(digest)


def ensure_build() -> None:
    """The built front end, made again when one of its inputs changed."""
    digest = _digest_of(*(FRONTEND / name for name in BUILD_INPUTS))
    stamp = DIST / ".kumpan"
    if _fresh(stamp, digest):
        return
    with stage("Front-end build"):
        _run(["npx", "vite", "build", "--logLevel=warn"], "The screens could not be built", FRONTEND)
        _pack(DIST / "assets")
        stamp.write_text(digest)


def _pack(folder: Path) -> None:
    """Beside each script and style the same gzipped, so that no visit waits for the server to do it."""
    for file in folder.iterdir():
        if file.suffix in PACKED:
            Path(f"{file}.gz").write_bytes(gzip.compress(file.read_bytes(), mtime=0))


def _fresh(stamp: Path, digest: str) -> bool:
    return stamp.exists() and stamp.read_text() == digest


def _digest_of(*paths: Path) -> str:
    digest = hashlib.sha256()
    for path in paths:
        files = sorted(path.rglob("*")) if path.is_dir() else [path]
        for file in files:
            if file.is_file():
                digest.update(str(file.relative_to(ROOT)).encode() + b"\0" + file.read_bytes())
    return digest.hexdigest()


def _run(command: list[str], failure: str, cwd: Path = ROOT) -> None:
    environment = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    done = subprocess.run(command, cwd=cwd, env=environment, capture_output=True, text=True, check=False)
    if done.returncode != 0:
        raise Stop(f"{failure}:\n{(done.stdout + done.stderr).strip()[-3000:]}")
