"""Every button of every screen can be reached in a small window, and at twice the size of
letters.
"""

from typing import Any

import pytest
from selenium.webdriver import Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import STATIONS, press, see, station

OUT_OF_REACH = """
const found = [];
for (const node of document.querySelectorAll("button, a[href], input, select, textarea")) {
  if (node.disabled || !node.getClientRects().length) continue;
  node.scrollIntoView({ block: "center", inline: "center" });
  const box = node.getBoundingClientRect();
  const [x, y] = [box.x + Math.min(box.width, 40) / 2, box.y + box.height / 2];
  const inside = x >= 0 && y >= 0 && x < innerWidth && y < innerHeight;
  const there = inside && document.elementFromPoint(x, y);
  if (!there || !(node.contains(there) || there.contains(node)))
    found.push(
      (node.ariaLabel || node.innerText || node.dataset.testid || node.outerHTML).slice(0, 40));
}
return found;
"""


@pytest.fixture
def window(driver: Chrome) -> Any:
    def sized(width: int, height: int) -> None:
        driver.execute_cdp_cmd(
            "Emulation.setDeviceMetricsOverride",
            {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False},
        )

    yield sized
    driver.execute_cdp_cmd("Emulation.clearDeviceMetricsOverride", {})


@pytest.mark.parametrize(("width", "height"), [(1024, 768), (640, 400)])
def test_every_button_can_be_reached(
    server: Server, driver: Chrome, window: Any, width: int, height: int
) -> None:
    """640 x 400 is a window of 1280 x 800 at 200 %."""
    window(width, height)
    driver.get(server.address)
    see(driver, "[data-project]")
    lost = {"workshop": driver.execute_script(OUT_OF_REACH)}
    for project in ("Dusk remote", "Ridge handset"):
        driver.get(server.address)
        press(driver, f"[data-project='{project}']")
        for each in STATIONS:
            station(driver, each)
            WebDriverWait(driver, 30).until(
                lambda d: "Reading the" not in d.find_element(By.TAG_NAME, "main").text
            )
            lost[f"{project}, {each}"] = driver.execute_script(OUT_OF_REACH)
    assert {page: rows for page, rows in lost.items() if rows} == {}
