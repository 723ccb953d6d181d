"""A board from an imported outline to its comparison, by hand: every step as a maker takes it."""

from collections import Counter
from contextlib import suppress
from math import hypot
from pathlib import Path
from typing import Any

from selenium.common.exceptions import TimeoutException
from selenium.webdriver import ActionChains, Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import closed, on_board, press, reads, see, station
from tests.browser.test_access import faults

EXAMPLE = Path(__file__).resolve().parents[2] / "examples" / "pocket-lamp.brief.json"
DRAWING = """<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="36mm" viewBox="0 0 60 36">
<path d="M4 0H52A18 18 0 0 1 52 36H4A4 4 0 0 1 0 32V4A4 4 0 0 1 4 0Z"/>
<circle cx="4.5" cy="18" r="1.2"/></svg>"""
MAKE = """const done = arguments[1];
const headers = {'X-Loquet': 'page', 'Content-Type': 'application/json'};
fetch('/api/projects', {method: 'POST', headers, body: arguments[0]})
  .then(r => r.json()).then(p => done(p.project))"""
Plain = dict[str, Any]


def asked(driver: Chrome, path: str) -> Plain:
    """What the server says."""
    found: Plain = driver.execute_async_script(
        "const done = arguments[1]; fetch(arguments[0]).then(r => r.json()).then(done)", path
    )
    return found


def test_a_board_by_hand(server: Server, driver: Chrome, tmp_path: Path) -> None:
    driver.get(server.address)
    project = driver.execute_async_script(MAKE, EXAMPLE.read_text())
    path = f"/api/projects/{project}"
    outline_from_a_drawing(driver, f"{server.address}/project/{project}/brief", tmp_path)
    outline = asked(driver, path)["boards"][0]["outline_mm"]
    assert max(x for x, _ in outline) == 70
    make_all(driver, path)
    arranged_otherwise(driver, path)
    two_keys_measured(driver)
    area_poured(driver, path)
    two_parts_in_one_place(driver, path)
    cut_and_drawn(driver, path)
    others_give_way(driver, path)
    bent_and_tidied(driver, path)
    undone_and_compared(driver, path)
    press(driver, "[role='radio'][title^='with true heights']")
    assert see(driver, "[data-testid='solid'] canvas").size["width"] > 400


def outline_from_a_drawing(driver: Chrome, page: str, folder: Path) -> None:
    """Refused while it is no drawing, looked at, taken."""
    driver.get(page)
    press(driver, "[data-testid='outline-from-drawing']")
    chooser = see(driver, "input[type='file']")
    for name, text in (("words.svg", "no drawing"), ("shell.svg", DRAWING)):
        (folder / name).write_text(text)
        chooser.send_keys(str(folder / name))
        if name == "words.svg":
            reads(driver, "[data-testid='drawing-refused']", "not a whole DXF file")
    reads(driver, "[data-testid='drawing-seen']", "70.00 x 36.00 mm, with 1 hole.")
    press(driver, "[data-testid='take-outline']")
    see(driver, "[data-thing='post 1']")


def make_all(driver: Chrome, path: str) -> None:
    """Pins to pour, without a stop."""
    station(driver, "board")
    press(driver, "[title^='Pins, circuit, placing']")
    WebDriverWait(driver, 120).until(lambda d: asked(d, path)["stale"] == [])
    assert [f["sentence"] for f in asked(driver, path)["findings"] if f["severity"] == "stop"] == []
    see(driver, "[data-testid='board-canvas'][data-scale]")


def two_keys_measured(driver: Chrome) -> None:
    """The brief has them at 12 and 28 mm across; pressed a little beside their middles they are 16
    mm apart.
    """
    press(driver, "[data-testid='measure']")
    canvas = see(driver, "[data-testid='board-canvas']")
    act = ActionChains(driver, duration=0)
    for x in (12.2, 28.1):
        act.move_to_element_with_offset(canvas, *on_board(canvas, x, 10.1)).click()
    act.perform()
    span = "16.000 mm straight; 16.000 mm across, 0.000 mm up"
    see(driver, f"[data-testid='board-canvas'][data-span='{span}']")
    press(driver, "[data-testid='measure']")


def area_poured(driver: Chrome, path: str) -> None:
    """The line of an area drawn about the first part with the net of most pads, closed with Enter;
    a typed one and tear-drops beside it; both taken out again.
    """
    canvas = see(driver, "[data-testid='board-canvas']")
    wide = canvas.get_attribute("data-scale")
    press(driver, "[data-testid='show-pour']")
    WebDriverWait(driver, 30).until(lambda _: canvas.get_attribute("data-scale") != wide)
    board = asked(driver, f"{path}/board")
    near = next(p for p in board["parts"] if not p["far"])
    press(driver, "[data-testid='draw-area']")
    act = ActionChains(driver, duration=0)
    for dx, dy in ((-2, -2), (2, -2), (2, 2), (-2, 2)):
        act.move_to_element_with_offset(canvas, *on_board(canvas, near["x"] + dx, near["y"] + dy))
        act.click()
    act.perform()
    canvas.send_keys(Keys.ENTER)
    reads(driver, "[data-testid='areas']", "near side")
    (drawn,) = asked(driver, f"{path}/board")["areas"]
    assert len(drawn["ring"]) == 4
    assert abs(sum(x for x, _ in drawn["ring"]) / 4 - near["x"]) < 0.3
    driver.find_element(By.XPATH, "//summary[.='or type a rectangle']").click()
    press(driver, "[data-testid='pour-rectangle']")
    reads(driver, "[data-testid='areas']", "near side, 100 mm²")
    assert faults(driver) == []
    WebDriverWait(driver, 60).until(lambda d: asked(d, path)["stale"] == [])
    press(driver, "[title='It has its way before all others']")
    WebDriverWait(driver, 30).until(
        lambda d: max(x for x, _ in asked(d, f"{path}/board")["areas"][0]["ring"]) == 20
    )
    press(driver, "[data-testid='tear-drops']")
    WebDriverWait(driver, 30).until(lambda d: asked(d, f"{path}/board")["tear_drops"])
    for left in (1, 0):
        WebDriverWait(driver, 60).until(lambda d: asked(d, path)["stale"] == [])
        press(driver, "[aria-label^='Take out the area of']")
        WebDriverWait(driver, 30).until(
            lambda d, left=left: len(asked(d, f"{path}/board")["areas"]) == left
        )
    WebDriverWait(driver, 60).until(lambda d: asked(d, path)["stale"] == [])
    press(driver, "[data-testid='tear-drops']")
    WebDriverWait(driver, 30).until(lambda d: not asked(d, f"{path}/board")["tear_drops"])
    WebDriverWait(driver, 60).until(lambda d: asked(d, path)["stale"] == [])
    press(driver, "[data-testid='show-pour']")
    WebDriverWait(driver, 30).until(lambda _: canvas.get_attribute("data-scale") == wide)


def two_parts_in_one_place(driver: Chrome, path: str) -> None:
    """A resistor dragged onto another part is found at once, and undone."""
    board = asked(driver, f"{path}/board")
    free = [p for p in board["parts"] if not p["locked"] and not p["far"]]
    small = [p for p in free if p["ref"].startswith(("R", "C"))]
    one, other = small[0], small[-1]
    canvas = see(driver, "[data-testid='board-canvas']")
    start, end = (on_board(canvas, p["x"], p["y"]) for p in (one, other))
    two_swapped(driver, path, start, end)
    ActionChains(driver, duration=0).move_to_element_with_offset(
        canvas, *start
    ).click_and_hold().move_to_element_with_offset(canvas, *end).release().perform()
    reads(driver, "[aria-label='Findings']", "overlap")
    stale = asked(driver, path)["stale"]
    assert stale == ["routing", "pour"]
    ActionChains(driver).key_down(Keys.CONTROL).send_keys("z").key_up(Keys.CONTROL).perform()
    WebDriverWait(driver, 30).until(lambda d: asked(d, path)["stale"] == [])


def two_swapped(driver: Chrome, path: str, one: tuple[int, int], other: tuple[int, int]) -> None:
    """Two parts picked with Shift change places, and back again; then they stand in a row, and
    back.
    """
    canvas = see(driver, "[data-testid='board-canvas']")
    act = ActionChains(driver, duration=0).move_to_element_with_offset(canvas, *one).click()
    act.key_down(Keys.SHIFT).move_to_element_with_offset(canvas, *other).click()
    act.key_up(Keys.SHIFT).perform()
    reads(driver, "[data-testid='picked-parts']", "2 picked")
    for words, label in (
        (["Swap"], "Arrange 2 parts: swap"),
        (["In rows…", "Put in rows"], "Put 2 parts in rows of 2"),
    ):
        for button in words:
            driver.find_element(By.XPATH, f"//button[.='{button}']").click()
        WebDriverWait(driver, 30).until(lambda d, made=label: asked(d, path)["label"] == made)
        driver.find_element(By.XPATH, "//button[.='Undo']").click()
        WebDriverWait(driver, 30).until(lambda d: asked(d, path)["stale"] == [])
    canvas.send_keys(Keys.ESCAPE)


def cut_and_drawn(driver: Chrome, path: str) -> None:
    """Route, cut a track, see the open link as a finding, draw it by hand, pour: no stop is
    left.
    """
    before = asked(driver, path)["version"]
    press(driver, "[data-testid='route']")
    WebDriverWait(driver, 90).until(lambda d: asked(d, path)["version"] != before)
    reads(driver, "[data-testid='notice']", "routed")
    board = asked(driver, f"{path}/board")
    near = [t for t in board["tracks"] if not t["far"] and t["net"].startswith("BUTTON_")]
    track = max(near, key=lambda t: abs(t["x1"] - t["x2"]) + abs(t["y1"] - t["y2"]))
    canvas = see(driver, "[data-testid='board-canvas'][data-scale]")

    def press_at(x: float, y: float) -> None:
        ActionChains(driver, duration=0).move_to_element_with_offset(
            canvas, *on_board(canvas, x, y)
        ).click().perform()

    press_at((track["x1"] + track["x2"]) / 2, (track["y1"] + track["y2"]) / 2)
    reads(driver, "[data-testid='picked-net']", track["net"])
    canvas.send_keys(Keys.DELETE)
    reads(driver, "[aria-label='Findings']", f"{track['net']} is not joined")
    press(driver, "[data-testid='route-net']")
    reads(driver, "[data-testid='notice']", f"{track['net']} routed")
    assert asked(driver, f"{path}/board")["links"] == []
    driver.find_element(By.XPATH, "//button[.='Undo']").click()
    reads(driver, "[aria-label='Findings']", f"{track['net']} is not joined")
    press(driver, "[data-testid='draw']")
    press_at(track["x1"], track["y1"])
    press_at(track["x2"], track["y2"])
    WebDriverWait(driver, 30).until(lambda d: asked(d, f"{path}/board")["links"] == [])
    press(driver, "[data-testid='draw']")
    press(driver, "[data-testid='pour']")
    WebDriverWait(driver, 60).until(lambda d: asked(d, path)["stale"] == [])
    assert [f["sentence"] for f in asked(driver, path)["findings"] if f["severity"] == "stop"] == []


def others_give_way(driver: Chrome, path: str) -> None:
    """A track drawn from a pad straight across the longest way that the router laid: that one is
    led about it, nothing is open, and one undo takes both back.
    """
    board = asked(driver, f"{path}/board")
    near = [
        t for t in board["tracks"] if not t["far"] and not t["by_hand"] and t["net"] != "GROUND"
    ]
    crossed = max(near, key=lambda t: hypot(t["x1"] - t["x2"], t["y1"] - t["y2"]))
    x, y = (crossed["x1"] + crossed["x2"]) / 2, (crossed["y1"] + crossed["y2"]) / 2
    pads = [
        p
        for p in board["pads"]
        if "near" in p["sides"] and p["net"] not in ("", "GROUND", crossed["net"])
    ]
    pad = min(pads, key=lambda p: hypot(p["x"] - x, p["y"] - y))
    canvas = see(driver, "[data-testid='board-canvas'][data-scale]")
    press(driver, "[data-testid='draw']")
    press(driver, "[data-testid='giving']")
    act = ActionChains(driver, duration=0)
    for spot in ((pad["x"], pad["y"]), (2 * x - pad["x"], 2 * y - pad["y"])):
        act.move_to_element_with_offset(canvas, *on_board(canvas, *spot)).click()
    act.perform()
    canvas.send_keys(Keys.ENTER)
    reads(driver, "[data-testid='notice']", "gave way")
    after = asked(driver, f"{path}/board")
    assert crossed not in after["tracks"]
    assert after["links"] == []
    assert faults(driver) == []
    driver.find_element(By.XPATH, "//button[.='Undo']").click()
    WebDriverWait(driver, 30).until(lambda d: crossed in asked(d, f"{path}/board")["tracks"])
    press(driver, "[data-testid='giving']")
    press(driver, "[data-testid='draw']")


def bent_and_tidied(driver: Chrome, path: str) -> None:
    """A corner of a picked net is dragged 1 mm away; tidying pulls the way straight again, and the
    board is whole afterwards.
    """
    board = asked(driver, f"{path}/board")
    near = [t for t in board["tracks"] if not t["far"] and t["net"] != "GROUND"]
    corners = [(t, t[f"x{end}"], t[f"y{end}"]) for t in near for end in (1, 2)]
    ends = Counter((t["net"], x, y) for t, x, y in corners)

    def open_ground(x: float, y: float) -> bool:
        """Whether no part lies there."""
        return not any(
            part["x"] + part["yard"][0] - 0.3 < x < part["x"] + part["yard"][2] + 0.3
            and part["y"] + part["yard"][1] - 0.3 < y < part["y"] + part["yard"][3] + 0.3
            for part in board["parts"]
        )

    def clear_way(net: str, x: float, y: float) -> tuple[float, float] | None:
        """Where the corner may go by 1 mm so that what meets there crosses no part; None where it
        may not.
        """
        meeting = [
            t
            for t in near
            if t["net"] == net and (x, y) in ((t["x1"], t["y1"]), (t["x2"], t["y2"]))
        ]
        ends = [
            (t["x2"], t["y2"]) if (t["x1"], t["y1"]) == (x, y) else (t["x1"], t["y1"])
            for t in meeting
        ]
        for to in ((x, y + 1), (x, y - 1), (x + 1, y), (x - 1, y)):
            steps = [
                (ex + (to[0] - ex) * n / 20, ey + (to[1] - ey) * n / 20)
                for ex, ey in ends
                for n in range(10, 21)
            ]
            if all(open_ground(*step) for step in steps):
                return to
        return None

    track, x, y, to = max(
        (
            (t, x, y, to)
            for t, x, y in corners
            if ends[t["net"], x, y] == 2
            and open_ground(x, y)
            and open_ground((t["x1"] + t["x2"]) / 2, (t["y1"] + t["y2"]) / 2)
            and (to := clear_way(t["net"], x, y)) is not None
        ),
        key=lambda row: hypot(row[0]["x1"] - row[0]["x2"], row[0]["y1"] - row[0]["y2"]),
    )
    net = track["net"]
    canvas = see(driver, "[data-testid='board-canvas'][data-scale]")
    canvas.send_keys(Keys.ESCAPE)

    def at(x_mm: float, y_mm: float) -> tuple[int, int]:
        return on_board(canvas, x_mm, y_mm)

    middle = at((track["x1"] + track["x2"]) / 2, (track["y1"] + track["y2"]) / 2)
    ActionChains(driver, duration=0).move_to_element_with_offset(canvas, *middle).click().perform()
    reads(driver, "[data-testid='picked-net']", net)
    before = length_of(driver, path, net)
    for _ in range(3):  # a picture that comes between press and release takes the grip away
        ActionChains(driver, duration=0).move_to_element_with_offset(
            canvas, *at(x, y)
        ).click_and_hold().move_to_element_with_offset(canvas, *at(*to)).release().perform()
        with suppress(TimeoutException):
            WebDriverWait(driver, 10).until(lambda d: abs(length_of(d, path, net) - before) > 0.02)
            break
    assert abs(length_of(driver, path, net) - before) > 0.02
    assert all(t["by_hand"] for t in asked(driver, f"{path}/board")["tracks"] if t["net"] == net)
    press(driver, "[data-testid='tidy']")
    WebDriverWait(driver, 30).until(lambda d: length_of(d, path, net) < before + 0.05)
    press(driver, "[data-testid='pour']")
    WebDriverWait(driver, 60).until(lambda d: asked(d, path)["stale"] == [])
    assert [f["sentence"] for f in asked(driver, path)["findings"] if f["severity"] == "stop"] == []


def length_of(driver: Chrome, path: str, net: str) -> float:
    """Millimetres of track of a net."""
    tracks = [t for t in asked(driver, f"{path}/board")["tracks"] if t["net"] == net]
    return float(sum(hypot(t["x1"] - t["x2"], t["y1"] - t["y2"]) for t in tracks))


def arranged_otherwise(driver: Chrome, path: str) -> None:
    """Four tries side by side, the best on the board; another one is taken, and the board is made
    to it.
    """
    press(driver, "[data-testid='show-tries']")
    press(driver, "[data-testid='make-tries']")
    WebDriverWait(driver, 240).until(lambda d: len(asked(d, f"{path}/tries")) >= 2)
    see(driver, "[data-testid='try']")
    tries = asked(driver, f"{path}/tries")
    assert [one["taken"] for one in tries].count(True) == 1
    assert tries[0]["taken"]
    WebDriverWait(driver, 30).until(
        lambda d: (
            see(d, "main[data-head]").get_attribute("data-head") == str(asked(d, path)["version"])
        )
    )
    other = driver.find_element(By.XPATH, "//button[.='Take it']")
    driver.execute_script("arguments[0].scrollIntoView()", other)
    WebDriverWait(driver, 30).until(lambda _: other.is_enabled())
    other.click()
    WebDriverWait(driver, 30).until(lambda d: not asked(d, f"{path}/tries")[0]["taken"])
    WebDriverWait(driver, 120).until(lambda d: asked(d, path)["stale"] == [])
    stops = [f["sentence"] for f in asked(driver, path)["findings"] if f["severity"] == "stop"]
    assert stops == []
    press(driver, "[data-testid='show-tries']")


def undone_and_compared(driver: Chrome, path: str) -> None:
    """Undone ten times, done again whenever nothing is left to undo; then a version before is
    compared in picture and words.
    """
    newest = asked(driver, path)["version"]
    for _ in range(10):
        if not asked(driver, path)["can_undo"]:
            stepped(driver, path, "Redo", "can_redo")
        stepped(driver, path, "Undo")
    stepped(driver, path, "Redo", "can_redo")
    assert asked(driver, path)["version"] == newest
    driver.find_element(By.XPATH, "//button[.='History']").click()
    labels = [v["label"] for v in asked(driver, f"{path}/versions")]
    cut = next(label for label in labels if label.startswith("Cut"))
    press(driver, f"[data-version='{cut}'] button")
    net = cut.removeprefix("Cut a track of ").removesuffix(" on main")
    reads(driver, "[data-testid='board-changes']", f"{net} track")
    assert driver.find_elements(By.CSS_SELECTOR, "[data-testid='board-changes'] line")
    closed(driver)


def stepped(driver: Chrome, path: str, word: str, until: str = "") -> None:
    """Press Undo or Redo once, or until there is no more of it; each press makes a step."""
    while True:
        before = asked(driver, path)["version"]
        driver.find_element(By.XPATH, f"//button[.='{word}']").click()
        WebDriverWait(driver, 30).until(lambda d, v=before: asked(d, path)["version"] != v)
        if not until or not asked(driver, path)[until]:
            return
