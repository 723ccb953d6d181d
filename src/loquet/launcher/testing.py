"""`./loquet test`: every check there is, in the order of how fast it fails."""

import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from loquet.launcher.steps import (
    ROOT,
    RUN_PACKAGES,
    TEST_PACKAGES,
    ensure_packages,
    ensure_warm,
    ensure_web,
    ensure_web_packages,
    say,
)

WEB = ROOT / "web"
COMPUTING = ["tests/core", "tests/reference"]
SHARED = ["--dist", "loadfile", "--numprocesses"]
TESTS = [
    [*COMPUTING, *SHARED, "auto", "--maxprocesses", "4"],
    [
        *("tests", "--no-loadscope-reorder"),
        *(f"--ignore={folder}" for folder in COMPUTING),
        *(*SHARED, "2"),
    ],
]
"""Tests that only compute share all processors; the others, which ask for answers in time, are two
at once, in the order of tests/conftest.py. A file stays with one process.
"""


Check = tuple[str, list[str], Path]
"""Name, command and folder of a check."""


def checks() -> tuple[list[Check], list[Check]]:
    """Every check before the tests: those of Python, and beside them those of the front end."""
    python = [sys.executable, "-m"]
    return (
        [
            ("ruff", [*python, "ruff", "check", "src", "tests", "bench"], ROOT),
            ("ruff format", [*python, "ruff", "format", "--check", "src", "tests", "bench"], ROOT),
            ("import contracts", [str(Path(sys.executable).parent / "lint-imports")], ROOT),
            ("mypy strict", [*python, "mypy"], ROOT),
        ],
        [
            ("biome", ["npx", "--no-install", "biome", "check", "."], WEB),
            ("tsc", ["npx", "--no-install", "tsc", "--noEmit"], WEB),
            ("vitest", ["npx", "--no-install", "vitest", "run"], WEB),
        ],
    )


def all_clean(rows: list[Check]) -> bool:
    """Checks one after the other, up to the first that fails; whether all are clean."""
    for name, command, folder in rows:
        began = time.monotonic()
        done = subprocess.run(
            command, cwd=folder, stdin=subprocess.DEVNULL, capture_output=True, text=True
        )
        took = f"({time.monotonic() - began:.0f} s)"
        say(f"{name}: {'FAILED' if done.returncode else 'clean'} {took}")
        if done.returncode:
            print(done.stdout[-8000:] + done.stderr[-4000:], flush=True)
            return False
    return True


def set_up(rows: list[Check]) -> bool:
    """The front end and the compiled loops, with checks between them; whether all are clean."""
    ensure_web_packages()
    ensure_web()
    clean = all_clean(rows)
    ensure_warm()
    return clean


def test(arguments: list[str]) -> int:
    """0 where all is green; with arguments only pytest runs, with them.

    Checks of Python take as long as all else that comes before the tests, so these two go side by
    side.
    """
    ensure_packages(RUN_PACKAGES | TEST_PACKAGES)
    python, web = checks()
    with ThreadPoolExecutor() as lanes:
        made = lanes.submit(set_up, [] if arguments else web)
        clean = bool(arguments) or all_clean(python)
        if not (made.result() and clean):
            return 1
    for some in [arguments] if arguments else TESTS:
        say(f"pytest {' '.join(some)}")
        failed = subprocess.run(
            [sys.executable, "-m", "pytest", *some], cwd=ROOT, stdin=subprocess.DEVNULL
        ).returncode
        if failed:
            return failed
    return 0
