"""The shelf by keyboard alone: a part from its sheet, a house from its quotes, a supplier with
its price list; looked at by an outside checker on the way.
"""

import time
from pathlib import Path

from selenium.webdriver import ActionChains, Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import reads, see
from tests.browser.test_access import enter, faults, keys, tab_to

QUOTES = ((5, 100, 60, 20.4), (10, 60, 40, 20.5), (20, 90, 80, 51.1), (50, 120, 70, 123.6))


def write(driver: Chrome, label: str, text: str) -> None:
    """Go to a field by Tab, and type over what stands there."""
    tab_to(driver, f'[aria-label="{label}"]')
    held = ActionChains(driver).key_down(Keys.CONTROL).send_keys("a").key_up(Keys.CONTROL)
    held.send_keys(text).perform()


def back_to(driver: Chrome, selector: str) -> None:
    """Press Tab with Shift until an element has the focus."""
    for _ in range(60):
        ActionChains(driver).key_down(Keys.SHIFT).send_keys(Keys.TAB).key_up(Keys.SHIFT).perform()
        if driver.execute_script("return document.activeElement.matches(arguments[0])", selector):
            return
    raise AssertionError(f"{selector} is not reached")


def test_a_part_from_its_sheet(server: Server, driver: Chrome) -> None:
    began = time.monotonic()
    driver.get(f"{server.address}/shelf?kind=clock+crystal")
    see(driver, "[data-testid='new-of']")
    enter(driver, "[data-testid='new-of']")
    WebDriverWait(driver, 10).until(
        lambda d: d.switch_to.active_element.get_attribute("aria-label") == "What it is"
    )
    keys(driver, "Clock crystal, 32 kHz, two pads")
    write(driver, "Name on the shelf", "slow-clock")
    enter(driver, "[data-testid='paste-pins']")
    tab_to(driver, "[aria-label='Pin table']")
    keys(driver, "1, one, End", Keys.ENTER, "2, other, End")
    see(driver, "[data-testid='take-pins']:enabled")
    enter(driver, "[data-testid='take-pins']")
    write(driver, "load capacitance", "9")
    tab_to(driver, "[aria-label='Package family']")
    keys(driver, "two e")
    see(driver, '[aria-label="terminal 1"]')
    write(driver, "Price in cents", "21")
    WebDriverWait(driver, 10).until(
        lambda d: "Nothing is missing" in see(d, "[data-testid='missing']").text
    )
    assert faults(driver) == []
    back_to(driver, "[data-testid='keep-part']")
    keys(driver, Keys.ENTER)
    see(driver, "[data-testid='bench'][data-part='own/slow-clock'] [data-testid='like-this']")
    assert time.monotonic() - began < 180


def test_a_house_from_its_quotes(server: Server, driver: Chrome) -> None:
    driver.get(f"{server.address}/shelf?page=houses")
    see(driver, "[data-testid='new-house']:enabled")
    assert faults(driver) == []
    enter(driver, "[data-testid='new-house']")
    write(driver, "Name of the house", "Fell Boards")
    for count, row in enumerate(QUOTES, 1):
        if count > 3:
            enter(driver, "[data-testid='more-quotes']")
        for what, value in zip(("Boards", "Width", "Height", "Price"), row, strict=True):
            write(driver, f"{what} of quote {count}", str(value))
    see(driver, "[data-testid='learnt']")
    reads(driver, "[data-testid='within']", "missed by about")
    assert faults(driver) == []
    enter(driver, "[data-testid='take-learnt']")
    see(driver, "[data-testid='keep-house']:enabled")
    enter(driver, "[data-testid='keep-house']")
    reads(driver, "[data-testid='house-bench']", "Learnt from 4 quotes")


def test_a_supplier_with_its_list(server: Server, driver: Chrome, tmp_path: Path) -> None:
    """The file itself is handed over by the browser's own window, which no test can reach."""
    driver.get(f"{server.address}/shelf?page=suppliers")
    see(driver, "[data-testid='new-supplier']")
    enter(driver, "[data-testid='new-supplier']")
    write(driver, "Name of the supplier", "Beck Parts")
    enter(driver, "[data-testid='keep-supplier']")
    path = tmp_path / "beck.csv"
    path.write_text("sku,price 1\nA-1,0.5\nA-2,cheap\n")
    see(driver, "[data-supplier='supplier/beck-parts']")
    see(driver, "[data-testid='read-prices']").send_keys(str(path))
    see(driver, "[data-testid='list-columns']")
    assert faults(driver) == []
    enter(driver, "[data-testid='take-list']")
    reads(driver, "[data-testid='list-progress']", "line 3, price 1: 'cheap' is no price")
    enter(driver, "[data-testid='leave-out']")
    see(driver, "[data-testid='list-progress'][data-kept='1']")
    see(driver, "[data-line='A-1']")
    assert faults(driver) == []
    assert len(driver.find_elements(By.CSS_SELECTOR, "[data-line]")) == 1
