"""Every screen and dialog by an outside checker (axe-core), and the whole job by keyboard alone."""

from typing import Any

import pytest
from selenium.webdriver import ActionChains, Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import STATIONS, closed, place_of, press, reads, says, see, station
from tests.conftest import ROOT

AXE = ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js"
CHECK = """
const done = arguments[0];
axe.run(document, { resultTypes: ["violations"] }).then((found) =>
  done(found.violations.map((v) =>
    `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(" | ")}`)));
"""
MOST_TABS = 90


def faults(driver: Chrome) -> Any:
    """What axe-core has against the page as it is."""
    driver.execute_script(AXE.read_text("utf-8"))
    return driver.execute_async_script(CHECK)


def test_no_screen_has_a_fault(server: Server, driver: Chrome) -> None:
    """Workshop, unknown address, all stations before and after the board is made, of one board and
    of several brains.
    """
    found = {}
    driver.get(server.address)
    see(driver, "[data-project]")
    found["workshop"] = faults(driver)
    driver.get(f"{server.address}/no/such/page")
    assert "no such page" in see(driver, "[data-testid='plain-page']").text
    found["unknown address"] = faults(driver)
    driver.get(f"{server.address}/project/9999/brief")
    see(driver, "[data-testid='plain-page']")
    found["unknown project"] = faults(driver)
    for name in ("Dusk remote", "Ridge handset", "Dew panel"):
        driver.get(server.address)
        press(driver, f"[data-project='{name}']")
        for each in STATIONS:
            station(driver, each)
            WebDriverWait(driver, 30).until(
                lambda d: "Reading the chip" not in d.find_element(By.TAG_NAME, "main").text
            )
            found[f"{name}, {each}"] = faults(driver)
    assert {page: rows for page, rows in found.items() if rows} == {}


def test_no_dialog_has_a_fault(server: Server, driver: Chrome) -> None:
    """History, finder, sheet of keys, a working, a picked thing with its form, schemes, files,
    chips, own table.
    """
    found = {}
    driver.get(f"{server.address}/project/1/brief")
    see(driver, "[data-thing='screen']")
    for button in ("History", "Find", "Keys"):
        driver.find_element(By.XPATH, f"//header//button[text()='{button}']").click()
        see(driver, "[role='dialog']")
        found[button] = faults(driver)
        closed(driver)
    press(driver, "[data-working='tally.keys']")
    see(driver, "[data-testid='working']")
    found["working"] = faults(driver)
    closed(driver)
    press(driver, "[data-thing='screen']")
    see(driver, "[aria-label='Name']")
    found["form"] = faults(driver)
    station(driver, "pins")
    for view in ("keys", "files"):
        press(driver, f"[data-view='{view}']")
        see(driver, "[data-testid='schemes']" if view == "keys" else "[data-testid='handover-zip']")
        found[view] = faults(driver)
    driver.find_element(By.XPATH, "//button[text()='Other chip']").click()
    see(driver, "[data-testid='chip-search'] li")
    found["chips"] = faults(driver)
    driver.find_element(By.XPATH, "//button[text()='Own table']").click()
    found["own table"] = faults(driver)
    assert {page: rows for page, rows in found.items() if rows} == {}


def tab_to(driver: Chrome, selector: str) -> None:
    """Press Tab until an element has the focus that shows."""
    for _ in range(MOST_TABS):
        ActionChains(driver).send_keys(Keys.TAB).perform()
        there = driver.execute_script(
            "const at = document.activeElement; return at.matches(arguments[0])"
            " && getComputedStyle(at).visibility !== 'hidden'",
            selector,
        )
        if there:
            return
    pytest.fail(f"{selector} is not reached in {MOST_TABS} steps of Tab")


def keys(driver: Chrome, *pressed: str) -> None:
    """Press keys where the focus is."""
    ActionChains(driver).send_keys(*pressed).perform()


def enter(driver: Chrome, selector: str) -> None:
    """Go to an element by Tab and press Enter there."""
    tab_to(driver, selector)
    keys(driver, Keys.ENTER)


def test_the_whole_job_by_keyboard_alone(server: Server, driver: Chrome) -> None:
    """From the workshop over an order, a unit and its fault to the files of the next revision
    without a pointer.
    """
    driver.get(server.address)
    see(driver, "[data-project='Slant remote']")
    enter(driver, "[data-project='Slant remote']")
    see(driver, "[data-testid='next']")
    keys(driver, "1")
    see(driver, "[data-thing='mark']")

    # nudge a button, take it back, turn it, pick it and change a field
    before = place_of(driver, "light key")
    tab_to(driver, "[data-thing='light key']")
    ActionChains(driver).key_down(Keys.SHIFT).send_keys(Keys.ARROW_UP).key_up(Keys.SHIFT).perform()
    WebDriverWait(driver, 20).until(lambda d: place_of(d, "light key") != before)
    assert place_of(driver, "light key") == (before[0], pytest.approx(before[1] + 1))
    ActionChains(driver).key_down(Keys.CONTROL).send_keys("z").key_up(Keys.CONTROL).perform()
    WebDriverWait(driver, 20).until(lambda d: place_of(d, "light key") == before)
    keys(driver, Keys.SPACE)
    see(driver, "[data-thing='light key'][aria-pressed='true']")

    # add a thing from the tray and remove it again
    enter(driver, "[data-group='shows']")
    enter(driver, "[data-testid='add-light']")
    see(driver, "[data-thing='light 1'], [data-thing='light 2']")
    tab_to(driver, "[data-thing='light 1'], [data-thing='light 2']")
    keys(driver, Keys.DELETE)
    WebDriverWait(driver, 20).until(
        lambda d: not d.find_elements(By.CSS_SELECTOR, "[data-thing='light 2']")
    )

    # the pins, then the whole board with the one next action
    keys(driver, "4")
    see(driver, "main[aria-label='pins']")
    enter(driver, "[data-testid='solve-pins']")
    says(driver, "Pins solved")
    tab_to(driver, "[data-pin][tabindex='0']")
    keys(driver, "6")
    see(driver, "main[aria-label='board']")
    enter(driver, "[data-testid='next-action']")
    reads(driver, "[data-testid='ready-meter']", "No stops", 120)

    # release, working of a price, proof, order
    keys(driver, "7")
    see(driver, "[data-testid='cut'] [data-piece='front wall']")
    tab_to(driver, "[aria-label='Line of the cut']")
    keys(driver, Keys.ARROW_UP)
    keys(driver, "8")
    see(driver, "main[aria-label='release']")
    enter(driver, "[data-testid='prove']")
    says(driver, "written and proven")
    enter(driver, "[data-testid='order']")
    see(driver, "[data-order][data-state='received']")

    # a step of building, a simulated unit with any fault, hunted until one cause stands out
    keys(driver, "9")
    see(driver, "main[aria-label='build']")
    enter(driver, "[data-testid='steps'] li:nth-of-type(2) button")
    enter(driver, "[data-testid='step-done']")
    enter(driver, "[data-testid='page-units']")
    enter(driver, "[data-testid='new-simulated']")
    see(driver, "[aria-label='Fault set in the simulated unit'] option:nth-of-type(20)")
    tab_to(driver, "[aria-label='Fault set in the simulated unit']")
    keys(driver, Keys.ARROW_DOWN)
    reads(driver, "[data-testid='records']", "set")
    enter(driver, "[data-testid='observe']")
    for count in range(3, 11):
        see(driver, "[data-testid='causes']")
        if driver.find_elements(By.CSS_SELECTOR, "[data-testid='causes'][data-sure='true']"):
            break
        enter(driver, "[data-testid='next-tests'] [data-testid='read']")
        see(driver, f"[data-testid='records'] li:nth-of-type({count})")
    see(driver, "[data-testid='causes'][data-sure='true']")

    # logged: it blocks the release until it is fixed in the next revision
    keys(driver, "0")
    see(driver, "main[aria-label='log']")
    tab_to(driver, "[aria-label='What went wrong']")
    keys(driver, "Found on unit 1")
    tab_to(driver, "[aria-label='Patch']")
    keys(driver, "mended")
    enter(driver, "[data-testid='note-fault']")
    see(driver, "[data-card='Found on unit 1'][data-state='open']")
    reads(driver, "[data-testid='ready-meter']", "1 stop")
    enter(driver, "[data-testid='new-revision']")
    see(driver, "[data-revision='B']")
    enter(driver, "[data-card='Found on unit 1'] [data-testid='fixed']")
    see(driver, "[data-card='Found on unit 1'][data-state='fixed']")
    reads(driver, "[data-testid='ready-meter']", "No stops")
    keys(driver, "8")
    enter(driver, "[data-testid='prove']")
    see(driver, "[data-testid='download']", 180)

    # find a thing, look at the keys, and leave both
    ActionChains(driver).key_down(Keys.CONTROL).send_keys("k").key_up(Keys.CONTROL).perform()
    see(driver, "[role='dialog'] input")
    closed(driver)
    keys(driver, "?")
    reads(driver, "[role='dialog']", "go to a station")
    closed(driver)
