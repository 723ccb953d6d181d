"""`./loquet test`: every check there is, in the order of how fast it fails."""

import os
import subprocess
import sys
import time

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
    ["tests", *(f"--ignore={folder}" for folder in COMPUTING), *SHARED, "2"],
]
"""Tests that only compute share all processors; the others, which ask for answers in time, are two
at once. A file stays with one process.
"""


def checks() -> list[tuple[str, list[str], object]]:
    """Name, command and folder of every check before the tests."""
    python = [sys.executable, "-m"]
    return [
        ("ruff", [*python, "ruff", "check", "src", "tests", "bench"], ROOT),
        ("ruff format", [*python, "ruff", "format", "--check", "src", "tests", "bench"], ROOT),
        ("import contracts", [os.path.join(os.path.dirname(sys.executable), "lint-imports")], ROOT),
        ("mypy strict", [*python, "mypy"], ROOT),
        ("biome", ["npx", "--no-install", "biome", "check", "."], WEB),
        ("tsc", ["npx", "--no-install", "tsc", "--noEmit"], WEB),
        ("vitest", ["npx", "--no-install", "vitest", "run"], WEB),
    ]


def test(arguments: list[str]) -> int:
    """0 where all is green; with arguments only pytest runs, with them."""
    ensure_packages(RUN_PACKAGES | TEST_PACKAGES)
    ensure_web_packages()
    ensure_web()
    ensure_warm()
    if not arguments:
        for name, command, folder in checks():
            began = time.monotonic()
            done = subprocess.run(
                command, cwd=str(folder), stdin=subprocess.DEVNULL, capture_output=True, text=True
            )
            say(
                f"{name}: {'clean' if done.returncode == 0 else 'FAILED'}"
                f" ({time.monotonic() - began:.0f} s)"
            )
            if done.returncode:
                print(done.stdout[-8000:] + done.stderr[-4000:], flush=True)
                return 1
    for some in [arguments] if arguments else TESTS:
        say(f"pytest {' '.join(some)}")
        failed = subprocess.run(
            [sys.executable, "-m", "pytest", *some], cwd=ROOT, stdin=subprocess.DEVNULL
        ).returncode
        if failed:
            return failed
    return 0
