"""What hands and machines around the page do: two fingers on the board, a printer, a browser that believes it is offline."""

import base64
import io

from pypdf import PdfReader
from selenium.webdriver import Chrome
from selenium.webdriver.common.print_page_options import PrintOptions
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import press, see, station


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
        "arguments[0].dispatchEvent(new WheelEvent('wheel', "
        "{ deltaY: 200, ctrlKey: true, clientX: 600, clientY: 400, bubbles: true, cancelable: true }))",
        canvas,
    )
    WebDriverWait(driver, 20).until(lambda d: scale(d) < 0.2 * grown)  # e^-2 of it


def test_a_printed_circuit_has_every_part(server: Server, driver: Chrome) -> None:
    driver.get(f"{server.address}/project/1/circuit")
    see(driver, "[data-sheet] svg")
    parts = driver.execute_script(
        "return fetch('/api/projects/1/circuit').then(r => r.json()).then(c => c.components.map(p => p.ref))"
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
