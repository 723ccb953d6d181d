"""What hands and machines around the page do: two fingers on the board, a printer, a browser that
believes it is offline.
"""

import base64
import io

from pypdf import PdfReader
from selenium.webdriver import ActionChains, Chrome
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.common.print_page_options import PrintOptions
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import on_board, press, see, station


def scale(driver: Chrome) -> float:
    return float(
        see(driver, "[data-testid='board-canvas'][data-scale]").get_attribute("data-scale") or 0
    )


def test_two_fingers_zoom_the_board_and_not_the_page(server: Server, driver: Chrome) -> None:
    driver.get(f"{server.address}/project/1/board")
    canvas = see(driver, "[data-testid='board-canvas'][data-scale]")
    before, box = scale(driver), canvas.rect
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    driver.execute_cdp_cmd(
        "Emulation.setTouchEmulationEnabled", {"enabled": True, "maxTouchPoints": 2}
    )
    for kind, reach in (("touchStart", 40), ("touchMove", 60), ("touchMove", 80), ("touchEnd", 0)):
        points = [{"x": x - reach, "y": y, "id": 0}, {"x": x + reach, "y": y, "id": 1}]
        driver.execute_cdp_cmd(
            "Input.dispatchTouchEvent", {"type": kind, "touchPoints": points if reach else []}
        )
    driver.execute_cdp_cmd("Emulation.setTouchEmulationEnabled", {"enabled": False})
    WebDriverWait(driver, 20).until(lambda d: scale(d) > 1.9 * before)
    assert scale(driver) < 2.1 * before
    assert driver.execute_script("return window.visualViewport.scale") == 1
    grown = scale(driver)
    driver.execute_script(
        "arguments[0].dispatchEvent(new WheelEvent('wheel', { deltaY: 200, ctrlKey: true, clientX:"
        " 600, clientY: 400, bubbles: true, cancelable: true }))",
        canvas,
    )
    WebDriverWait(driver, 20).until(lambda d: scale(d) < 0.2 * grown)  # e^-2 of it


def test_a_printed_circuit_has_every_part(server: Server, driver: Chrome) -> None:
    driver.get(f"{server.address}/project/1/circuit")
    see(driver, "[data-sheet] svg")
    parts = driver.execute_script(
        "return fetch('/api/projects/1/circuit').then(r => r.json()).then(c => c.components.map(p"
        " => p.ref))"
    )
    assert len(parts) > 25
    pages = PdfReader(io.BytesIO(base64.b64decode(driver.print_page(PrintOptions())))).pages
    text = " ".join(page.extract_text() for page in pages).split()
    assert [ref for ref in parts if ref not in text] == []
    assert "Findings" not in text


def test_a_browser_that_believes_it_is_offline_goes_on(server: Server, driver: Chrome) -> None:
    """The server is on this machine; the network outside does not matter."""
    driver.get(f"{server.address}/project/1/brief")
    see(driver, "[data-thing='dome']")
    driver.execute_script("window.dispatchEvent(new Event('offline'))")
    for name in ("pins", "circuit", "board"):
        station(driver, name)
    see(driver, "[data-testid='board-canvas'][data-scale]")
    station(driver, "brief")
    press(driver, "[data-testid='add-button']")
    see(driver, "[data-thing='key 1']")
    driver.execute_script("window.dispatchEvent(new Event('online'))")


BOARD = "return fetch('/api/projects/1/board').then(r => r.json())"


def test_a_track_is_cut_and_drawn_again_by_hand(server: Server, driver: Chrome) -> None:
    """Pick the longest track of a key, cut it with the Delete key, see the open link, draw it again
    from its pad to where it ended, undo both.
    """
    driver.get(f"{server.address}/project/1/board")
    canvas = see(driver, "[data-testid='board-canvas'][data-scale]")
    board = driver.execute_script(BOARD)
    near = (t for t in board["tracks"] if not t["far"] and t["net"].startswith("BUTTON_"))
    track = max(near, key=lambda t: abs(t["x1"] - t["x2"]) + abs(t["y1"] - t["y2"]))
    ends = ((track["x1"], track["y1"]), (track["x2"], track["y2"]))

    def press_at(x: float, y: float) -> None:
        ActionChains(driver, duration=0).move_to_element_with_offset(
            canvas, *on_board(canvas, x, y)
        ).click().perform()

    def count(name: str) -> int:
        return int(canvas.get_attribute(f"data-{name}") or 0)

    before = count("tracks")
    press_at((ends[0][0] + ends[1][0]) / 2, (ends[0][1] + ends[1][1]) / 2)
    assert track["net"] in see(driver, "[data-testid='picked-net']").text
    canvas.send_keys(Keys.DELETE)
    WebDriverWait(driver, 20).until(lambda d: count("tracks") == before - 1)
    links = driver.execute_script(BOARD)["links"]
    assert [link["net"] for link in links] == [track["net"]]
    press(driver, "[data-testid='draw']")
    press_at(*ends[0])
    assert canvas.get_attribute("data-drawing") == track["net"]
    canvas.send_keys(Keys.ESCAPE)
    WebDriverWait(driver, 20).until(lambda d: canvas.get_attribute("data-drawing") is None)
    press_at(*ends[0])
    press_at(*ends[1])
    WebDriverWait(driver, 20).until(lambda d: count("tracks") >= before)
    assert driver.execute_script(BOARD)["links"] == []
    assert count("by-hand") > 0
    press(driver, "[data-testid='route']")
    WebDriverWait(driver, 90).until(lambda d: "routing" not in d.execute_script(BOARD)["stale"])
    after = driver.execute_script(BOARD)
    assert after["links"] == []
    assert any(t["by_hand"] and t["net"] == track["net"] for t in after["tracks"])
