"""`./loquet shots`: the pictures of docs/screenshots, taken from demo data in a database of their
own.
"""

import json
import os
import shutil
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from selenium.webdriver import Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import Select, WebDriverWait

from loquet.demo.scenario import demo_brief
from loquet.launcher.browser import chromium
from loquet.launcher.database import MariaDb, free_port
from loquet.launcher.steps import (
    ROOT,
    RUN_PACKAGES,
    TEST_PACKAGES,
    SetupFailed,
    ensure_packages,
    ensure_warm,
    ensure_web,
    say,
    state,
)

SHOTS = ROOT / "docs" / "screenshots"
SHELL = b"""<svg xmlns="http://www.w3.org/2000/svg" width="72mm" height="44mm" viewBox="0 0 72 44">
<path d="M6 0H50A22 22 0 0 1 50 44H40A8 8 0 0 0 24 44H6A6 6 0 0 1 0 38V6A6 6 0 0 1 6 0Z"/>
<circle cx="6" cy="6" r="1.2"/><circle cx="6" cy="38" r="1.2"/>
<rect x="28" y="18" width="12" height="6" rx="1"/>
<rect x="50" y="8" width="8" height="2" rx="1"/></svg>"""


@contextmanager
def fresh_application() -> Iterator[str]:
    """A running application with fresh demo data; gives its address."""
    folder = Path(tempfile.mkdtemp(prefix="loquet-shots-"))
    server = MariaDb(folder / "database")
    process: subprocess.Popen[bytes] | None = None
    try:
        server.start()
        environment = {
            **os.environ,
            "LOQUET_DATABASE_URL": server.url(),
            "LOQUET_STATE": str(state()),
        }
        for command in ("migrate", "seed"):
            subprocess.run(
                [sys.executable, "-m", "loquet.cli", command],
                env=environment,
                check=True,
                stdin=subprocess.DEVNULL,
            )
        port = free_port()
        process = subprocess.Popen(
            [sys.executable, "-m", "loquet.cli", "serve", "--port", str(port)],
            env=environment,
            stdin=subprocess.DEVNULL,
        )
        wait_for(f"http://127.0.0.1:{port}/api/health")
        prepare(f"http://127.0.0.1:{port}")
        yield f"http://127.0.0.1:{port}"
    finally:
        if process:
            process.terminate()
            process.wait(15)
        server.remove()
        shutil.rmtree(folder, ignore_errors=True)


def asked(address: str, body: object = None, method: str | None = None) -> Any:
    """What an endpoint answers; `body` is posted where there is one, or sent by another method."""
    data = None if body is None else json.dumps(body).encode()
    headers = {"Content-Type": "application/json", "X-Loquet": "page"}
    wanted = urllib.request.Request(address, data=data, headers=headers, method=method)
    with urllib.request.urlopen(wanted, timeout=60) as answer:
        return json.load(answer)


def prepare(address: str) -> None:
    """The first demo project made up to its poured board, and one beside it that lacks pins."""
    asked(f"{address}/api/projects", demo_brief("ridge-handset").model_dump(mode="json"))
    job = asked(f"{address}/api/projects/1/jobs", {"kind": "everything"})["job"]
    end = time.monotonic() + 120
    while asked(f"{address}/api/jobs/{job}")["state"] in ("waiting", "running"):
        if time.monotonic() > end:
            raise SetupFailed("the first demo project could not be made in time")
        time.sleep(0.2)


def wait_for(address: str, seconds: float = 40) -> None:
    """Until an address answers; raises SetupFailed."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        try:
            with urllib.request.urlopen(address, timeout=2):
                return
        except OSError:
            time.sleep(0.1)
    raise SetupFailed(f"{address} does not answer.")


def find(driver: Chrome, selector: str, seconds: float = 30) -> WebElement:
    """The first element that fits, once it is there."""
    return WebDriverWait(driver, seconds).until(lambda d: d.find_element(By.CSS_SELECTOR, selector))


def press(driver: Chrome, selector: str) -> None:
    """Press an element once it can be pressed."""
    WebDriverWait(driver, 30).until(
        lambda d: d.find_element(By.CSS_SELECTOR, selector).is_enabled()
    )
    driver.find_element(By.CSS_SELECTOR, selector).click()


def shots() -> int:
    """Take all pictures anew."""
    ensure_packages(RUN_PACKAGES | TEST_PACKAGES)
    ensure_web()
    ensure_warm()
    SHOTS.mkdir(parents=True, exist_ok=True)
    with fresh_application() as address, chromium() as driver:
        for name, go in STEPS:
            go(driver, address)
            if not name:
                continue
            time.sleep(0.6)
            driver.save_screenshot(str(SHOTS / f"{name}.png"))
            say(f"docs/screenshots/{name}.png")
    return 0


def workshop(driver: Chrome, address: str) -> None:
    """The projects."""
    driver.get(address)
    find(driver, "[data-project='Focus pad']")


def station(name: str, waits: str, then: tuple[str, ...] = ()) -> Callable[[Chrome, str], None]:
    """Open a station of the first project and press what is to be pressed."""

    def go(driver: Chrome, address: str) -> None:
        if f"/project/1/{name}" not in driver.current_url:
            driver.get(f"{address}/project/1/{name}")
        find(driver, waits)
        for selector in then:
            time.sleep(0.4)
            press(driver, selector)

    return go


def release(driver: Chrome, address: str) -> None:
    """A panel asked for, the files written and proven, one of its layers read back."""
    driver.get(f"{address}/project/1/release")
    Select(find(driver, "select[aria-label='How']")).select_by_value("tabs")
    find(driver, "[data-testid='panel-drawing'][data-copies='4']")
    press(driver, "[data-testid='prove']")
    find(driver, "[data-house]", 60)
    press(driver, "[data-layer='panel/copper-near.gbr']")
    find(driver, "[data-testid='layer-canvas']:not([data-objects='0'])")
    time.sleep(1)


def order(driver: Chrome, address: str) -> None:
    """Order, and let three days pass."""
    press(driver, "[data-testid='order']")
    for _ in range(3):
        find(driver, "[data-order]")
        driver.find_elements(By.CSS_SELECTOR, "[data-order] button:not([data-working])")[0].click()
        time.sleep(0.5)
    driver.execute_script("document.querySelector('[data-order]').scrollIntoView()")


def switched_on(driver: Chrome, address: str) -> None:
    """The sheets of the first project, lit by volts and currents."""
    driver.get(f"{address}/project/1/circuit")
    find(driver, "[aria-label='Chip core']")
    press(driver, "[data-testid='switch-on']")
    find(driver, "[data-load]")


def power(driver: Chrome, address: str) -> None:
    """The handset with a cell of its own, in play."""
    driver.get(f"{address}/project/13/power")
    find(driver, "[data-testid='river'] [data-load='screen']")


def handset(driver: Chrome, address: str) -> None:
    """The handset with a stick picked and the reach of a medium hand."""
    driver.get(f"{address}/project/18/brief")
    find(driver, "[data-thing='left stick']").click()
    Select(find(driver, "select[aria-label='Thumb reach']")).select_by_value("medium")


def handset_pins(driver: Chrome, address: str) -> None:
    """The handset on a chip that is too small."""
    driver.get(f"{address}/project/18/pins")
    find(driver, "[data-testid='ways-out'] [data-way]", 120)


def schemes(driver: Chrome, address: str) -> None:
    """The ways to read the handset's keys, after one was taken, with the ghost of a bare matrix."""
    press(driver, "[data-testid='ways-out'] [data-testid='take']")
    time.sleep(0.5)
    press(driver, "[data-testid='solve-pins']")
    find(driver, "[data-testid='notice']")
    press(driver, "[data-testid='notice'] button")
    press(driver, "[data-view='keys']")
    find(driver, "[data-scheme='bare matrix'] button").click()
    find(driver, "[data-testid='ghost']")
    driver.execute_script("document.querySelector('[data-testid=schemes]').scrollTo(0, 900)")


def shelf(driver: Chrome, address: str) -> None:
    """A regulator of one's own on the bench of the parts shelf."""
    text = (ROOT / "examples" / "packs" / "tarn-regulator.toml").read_text()
    asked(f"{address}/api/shelf/pack", {"text": text, "take": ["own/tarn-r33"]})
    driver.get(f"{address}/shelf?kind=linear+regulator&part=own/tarn-r33")
    find(driver, "[data-testid='bench'][data-part='own/tarn-r33']")


QUOTES = ((5, 100, 60, 2040), (10, 60, 40, 2052), (20, 90, 80, 4781), (50, 120, 70, 11394))
"""Boards, width and height in mm, cents: what an invented house asked."""


def house(driver: Chrome, address: str) -> None:
    """A house of one's own, learnt from its quotes."""
    quotes = [
        {"quantity": n, "width_mm": w, "height_mm": h, "cents": cents} for n, w, h, cents in QUOTES
    ]
    prices = {"setup_cents": 1266, "area_cents_dm2": 208, "piece_cents": 27}
    about = {"known": "learnt", "quotes": quotes, "within_cents": 146, **prices}
    shipping = [{"name": "letter", "cents": 450, "days": 8}]
    own = {"id": "house/fell-boards", "name": "Fell Boards", "work_days": 5, "shipping": shipping}
    asked(f"{address}/api/shelf/house", {"house": {**own, **about}, "version": 0}, "PUT")
    driver.get(f"{address}/shelf?page=houses")
    press(driver, "[data-testid='change-house']")
    find(driver, "[data-testid='within']")


def stack(driver: Chrome, address: str) -> None:
    """The handset cut through its cell, whose wires pass the board through a cut-out."""
    driver.get(f"{address}/project/13/board")
    press(driver, "[data-testid='next-action']")
    find(driver, "[data-testid='board-canvas'][data-scale]", 120)
    driver.get(f"{address}/project/13/stack")
    find(driver, "[data-testid='cut'] [data-piece='front wall']", 120)
    find(driver, "[data-wires='cell']")


def build(driver: Chrome, address: str) -> None:
    """A fault set in a simulated unit, hunted."""
    driver.get(f"{address}/project/1/build")
    press(driver, "[data-testid='page-units']")
    press(driver, "[data-testid='new-simulated']")
    find(driver, "[aria-label='Fault set in the simulated unit'] option:nth-of-type(20)")
    press(driver, "[data-testid='any-fault']")
    time.sleep(0.5)
    press(driver, "[data-testid='key-test']")
    find(driver, "[data-testid='keys-drawn']")
    press(driver, "[data-testid='observe']")
    find(driver, "[data-testid='causes']")


def log(driver: Chrome, address: str) -> None:
    """A fault noted, and the next revision begun."""
    driver.get(f"{address}/project/1/log")
    fields = {
        "What went wrong": "Joint of the red button has no contact",
        "Patch": "soldered again, flux first",
    }
    for label, words in fields.items():
        find(driver, f"[aria-label='{label}']").send_keys(words)
    press(driver, "[data-testid='note-fault']")
    find(driver, "[data-card][data-state='open']")
    press(driver, "[data-testid='new-revision']")
    find(driver, "[data-revision='B']")


def outline(driver: Chrome, address: str) -> None:
    """The drawing of a shell, looked at before it is taken."""
    driver.get(f"{address}/project/1/brief")
    press(driver, "[data-testid='outline-from-drawing']")
    with tempfile.TemporaryDirectory() as folder:
        drawing = Path(folder) / "shell.svg"
        drawing.write_bytes(SHELL)
        find(driver, "input[type='file']").send_keys(str(drawing))
        find(driver, "[data-testid='drawing-seen']")


def history(driver: Chrome, address: str) -> None:
    """A move compared with the start."""
    driver.get(f"{address}/project/1/brief")
    find(driver, "[data-thing='dome']").send_keys(Keys.SHIFT, Keys.ARROW_LEFT)
    time.sleep(1)
    press(driver, "[data-testid='open-history']")
    time.sleep(0.5)
    driver.find_elements(By.CSS_SELECTOR, "[data-version] button")[-1].click()
    find(driver, "[data-testid='changes'] li")


STEPS = (
    ("workshop", workshop),
    ("brief", station("brief", "[data-thing='dome']")),
    ("pins", station("pins", "[data-pin='48']")),
    ("", handset),
    ("ways-out", handset_pins),
    ("schemes", schemes),
    ("parts", station("parts", "[data-part='holder-aaa-surface']")),
    ("shelf", shelf),
    ("shelf-house", house),
    ("power", power),
    ("board-near", station("board", "[data-testid='board-canvas'][data-scale]")),
    (
        "board-solid",
        station(
            "board",
            "[data-testid='board-canvas']",
            ("[role='radio'][title^='with true heights']",),
        ),
    ),
    ("release", release),
    ("order", order),
    ("stack", stack),
    ("build", build),
    ("log", log),
    ("circuit", switched_on),
    ("outline", outline),
    ("history", history),
)
