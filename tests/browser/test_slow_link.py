"""What a maker sees while the server takes its time: the hand is not contradicted, and the page
says that it waits.
"""

from collections.abc import Iterator

import pytest
from selenium.webdriver import ActionChains, Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import drag, place_of, press, says, see, station

UNDER_WAY = "[data-testid='under-way']"
LATE_MS = 1500


def link(driver: Chrome, latency_ms: int) -> None:
    driver.set_network_conditions(latency=latency_ms, throughput=10_000_000)


@pytest.fixture
def quick_again(driver: Chrome) -> Iterator[None]:
    yield
    link(driver, 0)


def test_a_dropped_part_stays_in_place_until_the_answer_has_come(
    server: Server, driver: Chrome, quick_again: None
) -> None:
    driver.get(f"{server.address}/project/1/board")
    canvas = see(driver, "[data-testid='board-canvas'][data-scale]")
    scale, left, base = (
        float(canvas.get_attribute(f"data-{name}") or 0) for name in ("scale", "left", "base")
    )
    script = (
        "return fetch('/api/projects/1/board').then(r => r.json()).then(b => b.parts.find(p =>"
        " p.role === 'buzzer'))"
    )
    buzzer = driver.execute_script(script)
    x = left + buzzer["x"] * scale - canvas.size["width"] / 2
    y = base - buzzer["y"] * scale - canvas.size["height"] / 2
    link(driver, LATE_MS)
    ActionChains(driver, duration=0).move_to_element_with_offset(
        canvas, int(x), int(y)
    ).click_and_hold().move_by_offset(0, -9).move_by_offset(0, -9).release().perform()
    # The answer cannot be there yet: the drop is still drawn where the hand left it, and the head
    # strip says why.
    see(driver, UNDER_WAY, 5)
    assert canvas.get_attribute("data-held") == buzzer["ref"]
    assert see(driver, UNDER_WAY).text == "Being saved"
    WebDriverWait(driver, 20).until(lambda d: not d.find_elements(By.CSS_SELECTOR, UNDER_WAY))
    WebDriverWait(driver, 20).until(lambda d: canvas.get_attribute("data-held") is None)
    link(driver, 0)
    assert driver.execute_script(script)["y"] > buzzer["y"]


def test_undo_says_what_it_undid_at_any_station(server: Server, driver: Chrome) -> None:
    driver.get(f"{server.address}/project/1/brief")
    before = place_of(driver, "dome")
    drag(driver, "[data-thing='dome']", -12, 0)
    WebDriverWait(driver, 20).until(lambda d: place_of(d, "dome") != before)
    station(driver, "release")
    press(driver, "header button[title^='Undo: ']")
    says(driver, "Undone: Move dome to ")
    station(driver, "brief")
    assert place_of(driver, "dome") == before
    driver.find_element(By.XPATH, "//button[text()='Redo']").click()
    says(driver, "Done again: Move dome to ")
    assert place_of(driver, "dome") != before
