"""`./loquet bench pages`: from an edit to its answer and to its picture, the cost of reading a
project, pictures a second while panning, and readers beside routing.
"""

import json
import os
import random
import threading
import time
import urllib.request
from pathlib import Path
from typing import Any

from selenium.webdriver import Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

from bench.devices import generated
from loquet.launcher.browser import chromium
from loquet.launcher.shooting import fresh_application
from loquet.launcher.steps import ROOT

EXAMPLE = "Dew panel"
READERS, SECONDS = 50, 20.0
HEADERS = {"Content-Type": "application/json", "X-Loquet": "bench"}


def ask(address: str, path: str, body: Any = None) -> Any:
    """A request and its answer as plain values."""
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(f"{address}{path}", data, HEADERS)
    with urllib.request.urlopen(request, timeout=60) as answer:
        return json.loads(answer.read() or b"null")


def share(values: list[float], part: float) -> float:
    """The value that a part of all stays under."""
    return sorted(values)[min(len(values) - 1, round(part * (len(values) - 1)))]


def wait_until_done(address: str, project: int) -> None:
    """Until no job of a project runs."""
    while ask(address, f"/api/projects/{project}")["jobs"]:
        time.sleep(0.2)


def number_of(address: str, name: str) -> int:
    """A project's number."""
    return int(next(p["id"] for p in ask(address, "/api/projects") if p["name"] == name))


def edits(address: str, project: int, count: int = 60) -> list[float]:
    """Milliseconds from sending a move to its whole answer, on a design with a board; every other
    one is undone.
    """
    times = []
    for index in range(count):
        head = ask(address, f"/api/projects/{project}")
        edit = {"kind": "move-thing", "name": "warmer", "x_mm": 16 + index / 100, "y_mm": 44}
        began = time.perf_counter()
        ask(address, f"/api/projects/{project}/edits", {"edit": edit, "version": head["version"]})
        times.append((time.perf_counter() - began) * 1000)
        ask(address, f"/api/projects/{project}/undo", {})
    return times


def reads(address: str, project: int, server: int, count: int = 60) -> float:
    """Milliseconds of the server's own time for each read of a project."""
    before = cpu_s(server)
    for _ in range(count):
        ask(address, f"/api/projects/{project}")
    return (cpu_s(server) - before) * 1000 / count


def cpu_s(process: int) -> float:
    """Seconds of computing of a process so far."""
    fields = Path(f"/proc/{process}/stat").read_text().rsplit(")", 1)[1].split()
    return (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


def full_board(address: str) -> int:
    """A new project with a whole board of 240 parts."""
    brief = json.loads(generated("large", 0).model_dump_json())
    project = int(ask(address, "/api/projects", brief)["project"])
    ask(address, f"/api/projects/{project}/jobs", {"kind": "everything"})
    wait_until_done(address, project)
    return project


def panning(driver: Chrome, address: str, project: int, look: str = "Near") -> float:
    """Pictures a second while the board is pulled about for three seconds."""
    driver.get(f"{address}/project/{project}/board")
    canvas = "[data-testid='board-canvas']"
    WebDriverWait(driver, 30).until(lambda d: d.find_elements(By.CSS_SELECTOR, canvas))
    time.sleep(1.5)
    driver.find_element(By.XPATH, f"//*[@role='radio'][.='{look}']").click()
    time.sleep(1.0)
    return float(driver.execute_async_script(PAN, canvas))


PAN = """
const [selector, done] = arguments;
const node = document.querySelector(selector);
const box = node.getBoundingClientRect();
const at = (t) => ({
  clientX: box.x + box.width / 2 + 120 * Math.sin(t / 200),
  clientY: box.y + box.height / 2 + 80 * Math.cos(t / 270),
});
const send = (kind, t, more) => node.dispatchEvent(new PointerEvent(kind, {
  bubbles: true, pointerId: 1, ...at(t), buttons: 4, button: 1, ...more,
}));
node.setPointerCapture = () => {};
const began = performance.now();
let pictures = 0;
send("pointerdown", 0);
const step = (now) => {
  pictures += 1;
  send("pointermove", now - began, { button: -1 });
  if (now - began < 3000) requestAnimationFrame(step);
  else { send("pointerup", now - began); done(pictures / ((now - began) / 1000)); }
};
requestAnimationFrame(step);
"""


def readers_beside_routing(address: str, projects: tuple[int, int]) -> tuple[list[float], float]:
    """Milliseconds of heads asked by 50 readers while two boards are routed, and how long a stop
    takes to be seen.

    Each reader asks about once a second, at times of its own; the first three seconds, in which 50
    connections are made, do not count.
    """
    times: list[float] = []
    lock, over = threading.Lock(), threading.Event()
    for project in projects:
        ask(address, f"/api/projects/{project}/jobs", {"kind": "everything"})
    from_here = time.perf_counter() + 3.0

    def read(index: int) -> None:
        chance = random.Random(index)
        over.wait(chance.uniform(0.0, 2.0))
        while not over.is_set():
            began = time.perf_counter()
            ask(address, f"/api/projects/{projects[index % 2]}")
            if began > from_here:
                with lock:
                    times.append((time.perf_counter() - began) * 1000)
            over.wait(chance.uniform(0.5, 1.5))

    threads = [threading.Thread(target=read, args=(i,), daemon=True) for i in range(READERS)]
    for thread in threads:
        thread.start()
    time.sleep(SECONDS)
    over.set()
    for thread in threads:
        thread.join()
    return times, stopping(address, projects[0])


def to_picture(driver: Chrome, address: str, project: int) -> list[tuple[float, float]]:
    """Milliseconds from a key that nudges a thing to the painted picture, and to the picture of the
    design that the server answered with.
    """
    driver.get(f"{address}/project/{project}/brief")
    thing = "[data-thing='warmer']"
    WebDriverWait(driver, 30).until(lambda d: d.find_elements(By.CSS_SELECTOR, thing))
    time.sleep(1.5)
    driver.set_script_timeout(120)
    return [(float(a), float(b)) for a, b in driver.execute_async_script(NUDGE, thing, 40)]


NUDGE = """
const [selector, count, done] = arguments;
const frame = () => new Promise((next) => requestAnimationFrame(next));
const painted = async () => {
  await frame();
  await new Promise((next) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = next;
    port2.postMessage(0);
  });
};
const until = async (seen) => {
  while (!seen()) await frame();
  await painted();
  return performance.now();
};
const version = () => document.querySelector("[data-head]").dataset.head;
(async () => {
  const found = [];
  for (let index = 0; index < count; index += 1) {
    const node = document.querySelector(selector);
    const [x, before] = [node.dataset.x, version()];
    const began = performance.now();
    const key = index % 2 ? "ArrowLeft" : "ArrowRight";
    node.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true }));
    const seen = await until(() => document.querySelector(selector).dataset.x !== x);
    const settled = await until(() => version() !== before);
    found.push([seen - began, settled - began]);
    await new Promise((next) => setTimeout(next, 250));
  }
  done(found);
})();
"""


def stopping(address: str, project: int) -> float:
    """Milliseconds from a stop to a head without that job; 0 where none runs any more."""
    jobs = ask(address, f"/api/projects/{project}")["jobs"]
    if not jobs:
        return 0.0
    began = time.perf_counter()
    ask(address, f"/api/jobs/{jobs[0]['id']}/stop", {})
    while any(j["id"] == jobs[0]["id"] for j in ask(address, f"/api/projects/{project}")["jobs"]):
        time.sleep(0.005)
    return (time.perf_counter() - began) * 1000


def pages_table() -> int:
    """Print the figures with their targets; 1 where one is missed."""
    with fresh_application() as address:
        project = number_of(address, EXAMPLE)
        ask(address, f"/api/projects/{project}/jobs", {"kind": "everything"})
        wait_until_done(address, project)
        ask(address, f"/api/projects/{project}")
        times = edits(address, project)
        cpu = reads(address, project, server_of(address))
        with chromium() as driver:
            pictures = panning(driver, address, project)
            full = full_board(address)
            pulled = {
                look: panning(driver, address, full, look) for look in ("Near", "See-through")
            }
            shown = to_picture(driver, address, project)
        beside, stop = readers_beside_routing(address, large_ones(address))
    rows = [
        ("edit to answer, p50 (ms)", share(times, 0.5), None, True),
        ("edit to answer, p95 (ms)", share(times, 0.95), 100.0, True),
        ("key to picture, p95 (ms)", share([a for a, _ in shown], 0.95), 100.0, True),
        ("key to picture of the answer, p50 (ms)", share([b for _, b in shown], 0.5), None, True),
        ("key to picture of the answer, p95 (ms)", share([b for _, b in shown], 0.95), None, True),
        ("reading a project, CPU (ms)", cpu, 50.0, True),
        ("panning, pictures a second", pictures, 50.0, False),
        *((f"panning 240 parts, {look.lower()}", pulled[look], 60.0, False) for look in pulled),
        (f"heads of {READERS} readers beside routing, p50 (ms)", share(beside, 0.5), None, True),
        (f"heads of {READERS} readers beside routing, p95 (ms)", share(beside, 0.95), 150.0, True),
        ("heads read", float(len(beside)), None, True),
        ("stop of a routing job (ms)", stop, 200.0, True),
    ]
    missed = 0
    for title, value, target, least in rows:
        met = target is None or (value <= target if least else value >= target)
        missed += not met
        wanted = "" if target is None else f"{'at most' if least else 'at least'} {target:.0f}"
        print(f"{title:52} {value:9.1f}  {wanted:14} {'' if met else 'MISSED'}")
    return int(missed > 0)


def large_ones(address: str) -> tuple[int, int]:
    """Two new projects with boards that take long to route."""
    source = json.loads((ROOT / "examples" / "dome-pod.brief.json").read_text())
    return tuple(  # type: ignore[return-value]
        int(ask(address, "/api/projects", {**large(source), "name": f"Large {i}"})["project"])
        for i in (1, 2)
    )


def large(brief: dict[str, Any]) -> dict[str, Any]:
    """A board of 200 x 140 mm with 48 keys around the parts of an example."""
    keys = [
        {
            "kind": "button",
            "name": f"key {i}",
            "place": {"x_mm": 14 + 15.5 * (i % 12), "y_mm": 14 + 15.0 * (i // 12)},
        }
        for i in range(48)
    ]
    outline = {"kind": "rounded-rectangle", "width_mm": 200, "height_mm": 140, "corner_mm": 4}
    chip = {"kind": "chip", "name": "chip", "part": "stm32l071rbt6"}
    cells = {"kind": "cells", "name": "cell", "place": {"x_mm": 60, "y_mm": 105, "far": True}}
    switch = {
        "kind": "power-switch",
        "name": "switch",
        "place": {"x_mm": 5.4, "y_mm": 100, "turn_deg": 270},
    }
    return {
        **{k: v for k, v in brief.items() if k in ("format", "quantity", "wanted_by")},
        "key_scheme": {"name": "diode matrix"},
        "boards": [{"name": "main", "outline": outline}],
        "things": [*keys, chip, cells, switch],
    }


def server_of(address: str) -> int:
    """The process that listens at an address."""
    port = int(address.rsplit(":", 1)[1])
    for folder in Path("/proc").glob("[0-9]*"):
        try:
            words = (folder / "cmdline").read_bytes().split(b"\0")
        except OSError:
            continue
        if b"serve" in words and str(port).encode() in words:
            return int(folder.name)
    raise RuntimeError(f"no server at {address}")
