"""Brief and Pins as a maker drives them: a handset on a chip that is too small, a way out, locks,
schemes, files.
"""

import json
import zipfile
from pathlib import Path

import pytest
from selenium.webdriver import ActionChains, Chrome, Keys
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import closed, place_of, press, reads, says, see, station


def test_a_handset_on_a_chip_that_is_too_small(
    server: Server, driver: Chrome, downloads: Path
) -> None:
    driver.get(server.address)
    press(driver, "[data-project='Ridge handset']")
    station(driver, "brief")
    assert see(driver, "[data-working='tally.keys']").text == "14"
    assert see(driver, "[data-working='tally.free']").text == "-5"

    # the Pins station says why and ranks what to do
    station(driver, "pins")
    see(driver, "[data-testid='ways-out']")
    reads(driver, "[data-testid='pin-verdict']", "does not fit")
    says(driver, "ways out were tried and work", 120)
    assert "14 of them are keys" in see(driver, "[data-testid='ways-out']").text
    assert not see(driver, "[data-testid='solve-pins']").is_enabled()

    # compare the schemes, look at a ghost, then follow a way out
    press(driver, "[data-view='keys']")
    see(driver, "[data-scheme='one pin each'][data-fits='false']")
    assert len(driver.find_elements(By.CSS_SELECTOR, "[data-scheme]")) == 9
    driver.find_element(By.XPATH, "//tr[@data-scheme='bare matrix']//button").click()
    assert "reads as pressed too" in see(driver, "[data-testid='ghost']").text
    press(driver, "[data-working='scheme.diode matrix.latency']")
    assert "debounce" in see(driver, "[data-testid='working']").text
    closed(driver)
    press(driver, "li[data-way*='matrix with diodes'] [data-working='way.cost']")
    assert "parts + board" in see(driver, "[data-testid='working']").text
    closed(driver)
    press(driver, "li[data-way*='matrix with diodes'] [data-testid='take']")
    reads(driver, "[data-scheme='diode matrix']", "chosen")
    press(driver, "[data-view='chip']")
    press(driver, "[data-testid='solve-pins']")
    says(driver, "Pins solved")
    assert "no better plan" in see(driver, "[data-testid='pin-verdict']").text

    # lock two pins, solve again, find them where they were
    for signal in ("column 1", "left stick x"):
        press(driver, f"input[aria-label='Lock {signal}']")
        WebDriverWait(driver, 20).until(
            lambda d, s=signal: d.find_element(
                By.CSS_SELECTOR, f"input[aria-label='Lock {s}']"
            ).is_selected()
        )
    before = {
        s: see(driver, f"[data-signal='{s}']").get_attribute("data-pin")
        for s in ("column 1", "stick:left stick:x")
    }
    press(driver, "[data-testid='solve-pins']")
    says(driver, "Pins solved")
    assert {
        s: see(driver, f"[data-signal='{s}']").get_attribute("data-pin") for s in before
    } == before

    # export everything
    press(driver, "[data-view='files']")
    see(driver, "[data-file='usb-report.h']")
    press(driver, "[data-testid='handover-zip']")
    WebDriverWait(driver, 30).until(
        lambda d: list(downloads.glob("*handover.zip")) and not list(downloads.glob("*.crdownload"))
    )
    archive = zipfile.ZipFile(next(downloads.glob("*handover.zip")))
    assert set(archive.namelist()) == {
        "pins.h",
        "pins.json",
        "wiring-card.pdf",
        "usb-report.h",
        "usb-report.bin",
    }
    mapped = json.loads(archive.read("pins.json"))
    assert len(mapped["keys"]) == 14
    assert {s["signal"]: s["pin"] for s in mapped["signals"]}["column 1"] == before["column 1"]


def test_controls_are_dragged_from_the_tray_grouped_lined_up_and_mirrored(
    server: Server, driver: Chrome
) -> None:
    driver.get(server.address)
    press(driver, "[data-preset='handset']")
    see(driver, "[data-thing='left stick']")
    device, tray = see(driver, "[data-testid='device']"), see(driver, "[data-testid='add-encoder']")
    ActionChains(driver, duration=0).move_to_element(tray).click_and_hold().move_by_offset(
        0, 30
    ).move_to_element_with_offset(device, 0, 20).release().perform()
    see(driver, "[data-thing='encoder']")
    assert "Encoder" in see(driver, "[data-testid='selected']").text

    # two keys on one line, moved together
    first, second = (
        see(driver, "[data-thing='right west']"),
        see(driver, "[data-thing='right north']"),
    )
    first.click()
    ActionChains(driver, duration=0).key_down(Keys.SHIFT).click(second).key_up(Keys.SHIFT).perform()
    reads(driver, "[data-testid='group-bar']", "2 picked")
    driver.find_element(By.XPATH, "//button[text()='Same column']").click()
    WebDriverWait(driver, 20).until(
        lambda d: place_of(d, "right west")[0] == place_of(d, "right north")[0]
    )
    places = [place_of(driver, f"right {n}") for n in ("west", "north")]
    ActionChains(driver, duration=0).move_to_element(
        see(driver, "[data-thing='right west']")
    ).click_and_hold().move_by_offset(-6, 0).move_by_offset(-6, 0).release().perform()
    WebDriverWait(driver, 20).until(lambda d: place_of(d, "right west") != places[0])
    moved = [place_of(driver, f"right {n}") for n in ("west", "north")]
    assert moved[0][0] - places[0][0] == pytest.approx(moved[1][0] - places[1][0])
    driver.find_element(By.TAG_NAME, "body").send_keys(Keys.CONTROL, "z")
    WebDriverWait(driver, 20).until(lambda d: place_of(d, "right west") == places[0])

    # a mirrored copy changes its name and side
    see(driver, "[data-thing='right east']").click()
    driver.find_element(By.XPATH, "//button[text()='Mirror']").click()
    see(driver, "[data-thing='left west']")
    assert place_of(driver, "left west")[0] == pytest.approx(
        150 - place_of(driver, "right east")[0]
    )


def test_a_missing_companion_is_added_with_one_press(server: Server, driver: Chrome) -> None:
    driver.get(server.address)
    press(driver, "[data-preset='console']")
    see(driver, "[data-thing='left pad']")
    press(driver, "[data-group='sounds']")
    press(driver, "[data-testid='add-speaker']")
    see(driver, "[data-thing='speaker']")
    press(driver, "[data-finding='companions'] [data-repair='Add a headphone socket']")
    WebDriverWait(driver, 20).until(
        lambda d: d.find_elements(By.CSS_SELECTOR, "[data-thing='headphones']")
    )


def test_a_module_of_ones_own_is_planned(server: Server, driver: Chrome) -> None:
    driver.get(f"{server.address}/project/2/pins")
    see(driver, "[data-testid='solve-pins']")
    driver.find_element(By.XPATH, "//button[text()='Own table']").click()
    table = see(driver, "textarea[aria-label='Pin table']")
    table.clear()
    table.send_keys("pad,port,can\n1,GP0,fly")
    press(driver, "[data-testid='own-chip'] button[type='submit']")
    says(driver, "line 2")
    rows = [
        "pad,port,can",
        *(f"{n},GP{n},input output tim1.ch{n % 4 + 1}" for n in range(1, 14)),
        "14,SWDIO,debug.swdio",
        "15,SWCLK,debug.swclk",
    ]
    rows += ["16,GP16,input output i2c0.scl", "17,GP17,input output i2c0.sda"]
    table.clear()
    table.send_keys("\n".join(rows))
    press(driver, "[data-testid='own-chip'] button[type='submit']")
    reads(driver, "main", "my module")
    press(driver, "[data-testid='solve-pins']")
    says(driver, "Pins solved")
