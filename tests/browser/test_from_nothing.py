"""A device from nothing: things of every group, a second board with a link, versions compared and
gone back to.
"""

from selenium.common.exceptions import StaleElementReferenceException
from selenium.webdriver import ActionChains, Chrome, Keys
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import place_of, press, reads, see, station

GROUPS = {
    "controls": "button",
    "shows": "light",
    "sounds": "buzzer",
    "feeds": "cells",
    "ports": "programming",
    "brains": "chip",
    "senses": "motion",
    "own": "own-part",
    "marks": "hole",
}


def things(driver: Chrome) -> set[str]:
    found = driver.find_elements(By.CSS_SELECTOR, "[data-thing]")
    return {str(e.get_attribute("data-thing")) for e in found}


def add(driver: Chrome, group: str, kind: str) -> str:
    """Press a kind in the tray; the name of what came."""
    before = things(driver)
    press(driver, f"[data-group='{group}']")
    press(driver, f"[data-testid='add-{kind}']")
    WebDriverWait(driver, 20).until(lambda d: len(things(d)) == len(before) + 1)
    (name,) = things(driver) - before
    return name


def test_a_device_from_nothing(server: Server, driver: Chrome) -> None:
    driver.get(server.address)
    press(driver, "[data-preset='empty']")
    see(driver, "[data-testid='device']")
    added = {kind: add(driver, group, kind) for group, kind in GROUPS.items()}
    assert len(set(added.values())) == len(GROUPS)

    # a second board, one end of a link on each
    add(driver, "ports", "board-link")
    press(driver, "[data-testid='add-board']")
    see(driver, "[data-board='board 2'][aria-pressed='true']")
    add(driver, "controls", "button")
    add(driver, "ports", "board-link")
    reads(driver, "header", "2 boards")
    assert len(things(driver)) == 2

    # history: what came since the start, and back to it
    press(driver, "[data-testid='open-history']")
    driver.find_elements(By.CSS_SELECTOR, "[data-version] button")[-1].click()
    reads(driver, "[data-testid='changes']", "board 2")
    reads(driver, "[data-testid='changes']", added["buzzer"])
    press(driver, "[data-testid='go-back']")
    reads(driver, "[data-testid='history'] li:first-child", "Back to: Start")
    driver.find_element(By.XPATH, "//div[@data-testid='history']//button[text()='Close']").click()
    WebDriverWait(driver, 20).until(lambda d: added["buzzer"] not in things(d))
    assert driver.find_elements(By.CSS_SELECTOR, "[data-board='board 2']") == []
    driver.find_element(By.XPATH, "//button[text()='Undo']").click()
    press(driver, "[data-board='main']")
    see(driver, f"[data-thing='{added['buzzer']}']")


def keys(driver: Chrome, letter: str) -> None:
    ActionChains(driver).key_down(Keys.CONTROL).send_keys(letter).key_up(Keys.CONTROL).perform()


def test_things_are_copied_cut_and_pasted_into_another_project(
    server: Server, driver: Chrome
) -> None:
    driver.get(server.address)
    press(driver, "[data-project='Ridge handset']")
    station(driver, "brief")
    see(driver, "[data-thing='menu']").click()
    keys(driver, "c")
    device = see(driver, "[data-testid='device']")
    ActionChains(driver).move_to_element_with_offset(device, 0, 40).perform()
    keys(driver, "v")
    see(driver, "[data-thing='menu 2'][aria-pressed='true']")
    assert place_of(driver, "menu 2") != place_of(driver, "menu")
    keys(driver, "x")
    WebDriverWait(driver, 20, ignored_exceptions=[StaleElementReferenceException]).until(
        lambda d: "menu 2" not in things(d)
    )
    driver.get(server.address)
    press(driver, "[data-project='Dome pod']")
    station(driver, "brief")
    device = see(driver, "[data-testid='device']")
    ActionChains(driver).move_to_element_with_offset(device, 40, 0).perform()
    keys(driver, "v")
    see(driver, "[data-thing='menu 2'][aria-pressed='true']")


def test_two_halves_are_shown_board_by_board(server: Server, driver: Chrome) -> None:
    driver.get(server.address)
    press(driver, "[data-project='Slit halves']")
    station(driver, "brief")
    press(driver, "[data-board='right half']")
    see(driver, "[data-thing='slit open']")
    assert "dome left" not in things(driver)
    press(driver, "[data-testid='next-action']")
    WebDriverWait(driver, 90).until(
        lambda d: "No stops" in d.find_element(By.CSS_SELECTOR, "[data-testid='ready-meter']").text
    )
    station(driver, "board")
    press(driver, "[data-board='right half']")
    WebDriverWait(driver, 20).until(
        lambda d: int(see(d, "[data-testid='board-canvas']").get_attribute("data-parts") or 0) == 5
    )
    station(driver, "release")
    press(driver, "[data-testid='prove']")
    see(driver, "[data-layer='copper-near.gbr']", 60)
    assert len(driver.find_elements(By.CSS_SELECTOR, "[data-layer='copper-near.gbr']")) == 2
