"""Steps of the set-up: each looks whether it is needed, says what it does, and is stamped by the
digest of its inputs.
"""

import hashlib
import os
import shutil
import subprocess
import sys
from collections.abc import Iterable
from pathlib import Path

ROOT = Path(__file__).resolve().parents[3]
RUN_PACKAGES = {"mariadbd": "mariadb-server-core", "mariadb": "mariadb-client-core"}
TEST_PACKAGES = {
    "chromium": "chromium",
    "chromedriver": "chromium-driver",
    "ngspice": "ngspice",
    "dtc": "device-tree-compiler",
}


class SetupFailed(Exception):
    """A step that cannot be done: why, and the one command or action that helps."""


def state() -> Path:
    """The ignored folder that holds everything Loquet makes."""
    return Path(os.environ.get("LOQUET_STATE", ROOT / ".loquet"))


def say(text: str) -> None:
    """A line of progress."""
    print(f"loquet: {text}", flush=True)


def run(command: list[str], cwd: Path = ROOT, log: str = "setup.log") -> None:
    """Run a command with its output in a log; raises SetupFailed with the last lines."""
    path = state() / "log" / log
    path.parent.mkdir(parents=True, exist_ok=True)
    with path.open("a", encoding="utf-8") as out:
        out.write(f"$ {' '.join(command)}\n")
        out.flush()
        code = subprocess.run(
            ["setpriv", "--pdeathsig", "TERM", "--", *command],
            cwd=cwd,
            stdout=out,
            stderr=out,
            stdin=subprocess.DEVNULL,
        ).returncode
    if code:
        tail = "\n".join(path.read_text("utf-8", "replace").splitlines()[-15:])
        raise SetupFailed(
            f"'{' '.join(command[:3])}' failed ({code}). The log is"
            f" {path.relative_to(ROOT) if path.is_relative_to(ROOT) else path}:\n{tail}"
        )


def digest_of_files(paths: Iterable[Path]) -> str:
    """SHA-256 over names and bytes of files."""
    found = hashlib.sha256()
    for path in sorted(paths):
        found.update(str(path.relative_to(ROOT)).encode() + b"\0" + path.read_bytes() + b"\0")
    return found.hexdigest()


def stamped(name: str, digest: str) -> bool:
    """Whether a step was already done for these inputs."""
    stamp = state() / "stamps" / name
    return stamp.is_file() and stamp.read_text() == digest


def put_stamp(name: str, digest: str) -> None:
    """Remember that a step is done."""
    stamp = state() / "stamps" / name
    stamp.parent.mkdir(parents=True, exist_ok=True)
    stamp.write_text(digest)


def ensure_packages(wanted: dict[str, str]) -> None:
    """System packages: installed by root, named in one command to anybody else."""
    missing = sorted(
        {
            package
            for program, package in wanted.items()
            if shutil.which(program) is None and not Path("/usr/sbin", program).exists()
        }
    )
    if not missing:
        return
    install = f"apt-get install -y --no-install-recommends {' '.join(missing)}"
    if os.geteuid() != 0:
        raise SetupFailed(
            f"These system packages are missing: {', '.join(missing)}. Run once: sudo apt-get"
            f" update && sudo {install}"
        )
    say(f"installing system packages {', '.join(missing)} (half a minute to several)")
    os.environ["DEBIAN_FRONTEND"] = "noninteractive"
    run(["apt-get", "update"])
    run(install.split())


def web_sources() -> list[Path]:
    """Everything the built front end depends on."""
    web = ROOT / "web"
    found = [p for p in (web / "src").rglob("*") if p.is_file()]
    return found + [
        p for p in web.iterdir() if p.is_file() and p.suffix in (".json", ".ts", ".html")
    ]


def ensure_web_packages() -> None:
    """Front-end packages from the lock file."""
    digest = digest_of_files([ROOT / "web" / "package-lock.json"])
    if stamped("web-packages", digest) and (ROOT / "web" / "node_modules").is_dir():
        return
    if shutil.which("npm") is None:
        raise SetupFailed("npm is missing. Install Node.js 20 with npm, then run this again.")
    say("installing front-end packages")
    run(["npm", "ci", "--no-audit", "--no-fund"], ROOT / "web", "web.log")
    put_stamp("web-packages", digest)


def ensure_web() -> None:
    """The built front end."""
    digest = digest_of_files(web_sources())
    if stamped("web-build", digest) and (ROOT / "web" / "dist" / "index.html").is_file():
        return
    ensure_web_packages()
    say("building the front end")
    run(["npm", "run", "build"], ROOT / "web", "web.log")
    put_stamp("web-build", digest)


def ensure_warm() -> None:
    """The compiled loops and the chip index."""
    digest = digest_of_files(
        [
            *(ROOT / "src" / "loquet" / "core" / "routing").glob("*.py"),
            ROOT / "requirements.lock",
            *(ROOT / "src/loquet/catalogue").glob("*.py"),
        ]
    )
    if stamped("warm", digest):
        return
    say("compiling the router and listing the chips (about half a minute, once)")
    run([sys.executable, "-m", "loquet.cli", "warm"])
    put_stamp("warm", digest)
