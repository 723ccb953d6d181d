"""The whole job by hand in a real browser, over a restart of the server."""

import zipfile
from pathlib import Path

import pytest
from selenium.webdriver import ActionChains, Chrome, Keys
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import closed, drag, place_of, press, says, see, station


def test_the_whole_job(server: Server, driver: Chrome, downloads: Path) -> None:
    driver.get(server.address)
    press(driver, "[data-project='Dusk remote']")
    station(driver, "brief")

    # move a button, and take the move back and forth
    before = place_of(driver, "dome")
    drag(driver, "[data-thing='dome']", -12, 0)
    WebDriverWait(driver, 20).until(lambda d: place_of(d, "dome") != before)
    after = place_of(driver, "dome")
    assert after[0] < before[0]
    assert (after[0] * 2).is_integer()
    driver.find_element(By.TAG_NAME, "body").send_keys(Keys.CONTROL, "z")
    WebDriverWait(driver, 20).until(lambda d: place_of(d, "dome") == before)
    ActionChains(driver).key_down(Keys.CONTROL).key_down(Keys.SHIFT).send_keys("z").key_up(
        Keys.SHIFT
    ).key_up(Keys.CONTROL).perform()
    WebDriverWait(driver, 20).until(lambda d: place_of(d, "dome") == after)

    # add a button where there is room
    press(driver, "[data-testid='add-button']")
    see(driver, "[data-thing='key 1']")
    WebDriverWait(driver, 20).until(
        lambda d: "5 to make" in d.find_element(By.CSS_SELECTOR, "[data-testid='ready-meter']").text
    )
    assert see(driver, "[data-working='tally.pins']").text == "13"
    assert see(driver, "[data-working='tally.keys']").text == "7"

    # pins, circuit, board
    station(driver, "pins")
    press(driver, "[data-testid='solve-pins']")
    says(driver, "Pins solved")
    assert "no better plan" in see(driver, "[data-testid='pin-verdict']").text
    assert see(driver, "[data-signal='button:key 1']")
    station(driver, "circuit")
    press(driver, "[data-testid='make-circuit']")
    says(driver, "Circuit made")
    press(driver, "[data-working='screen.pull_up']")
    see(driver, "[data-testid='working']")
    assert "UM10204" in driver.find_element(By.CSS_SELECTOR, "[data-testid='working']").text
    closed(driver)
    station(driver, "board")
    press(driver, "[data-testid='place']")
    says(driver, "Parts placed")
    press(driver, "[data-testid='route']")
    says(driver, "Board routed")
    press(driver, "[data-testid='pour']")
    says(driver, "Ground poured")
    WebDriverWait(driver, 20).until(
        lambda d: (
            int(
                d.find_element(By.CSS_SELECTOR, "[data-testid='board-canvas']").get_attribute(
                    "data-pieces"
                )
                or 0
            )
            > 0
        )
    )
    WebDriverWait(driver, 20).until(
        lambda d: "No stops" in d.find_element(By.CSS_SELECTOR, "[data-testid='ready-meter']").text
    )

    # prove, quote, order, download
    station(driver, "release")
    press(driver, "[data-testid='prove']")
    says(driver, "written and proven")
    assert "nets" in see(driver, "[data-testid='proof']").text
    see(driver, "[data-testid='layer-canvas']:not([data-objects='0'])")
    see(driver, "[data-house='millrace'] [data-testid='total']")
    assert len(driver.find_elements(By.CSS_SELECTOR, "[data-house]")) == 3
    press(driver, "[data-testid='order']")
    see(driver, "[data-order][data-state='received']")
    press(driver, "[data-testid='download']")
    WebDriverWait(driver, 30).until(
        lambda d: list(downloads.glob("*.zip")) and not list(downloads.glob("*.crdownload"))
    )
    names = zipfile.ZipFile(next(downloads.glob("*.zip"))).namelist()
    assert "fabrication/copper-near.gbr" in names

    # a restart loses nothing
    driver.get("about:blank")  # the page's event stream would complain of the stopped server
    assert server.stop() in (0, -15, 143)
    server.start()
    driver.get(f"{server.address}/project/1/brief")
    see(driver, "[data-thing='key 1']")
    assert place_of(driver, "dome") == after
    driver.get(f"{server.address}/project/1/release")
    see(driver, "[data-order][data-state='received']")
    assert "Proven" in see(driver, "[data-testid='proof']").text
    assert driver.find_elements(By.XPATH, "//button[text()='Undo']")[0].is_enabled()


def test_a_part_is_dragged_on_the_board_and_stays(server: Server, driver: Chrome) -> None:
    driver.get(f"{server.address}/project/1/board")
    canvas = see(driver, "[data-testid='board-canvas'][data-scale]")
    scale, left, base = (
        float(canvas.get_attribute(f"data-{name}") or 0) for name in ("scale", "left", "base")
    )
    size = canvas.size
    script = (
        "return fetch('/api/projects/1/board').then(r => r.json()).then(b => b.parts.find(p =>"
        " p.role === 'buzzer'))"
    )
    buzzer = driver.execute_script(script)
    x, y = (
        left + buzzer["x"] * scale - size["width"] / 2,
        base - buzzer["y"] * scale - size["height"] / 2,
    )
    ActionChains(driver, duration=0).move_to_element_with_offset(
        canvas, int(x), int(y)
    ).click_and_hold().move_by_offset(0, -9).move_by_offset(0, -9).perform()
    assert "B1 at" in see(driver, "[data-testid='reckoner']").text
    ActionChains(driver, duration=0).release().perform()
    WebDriverWait(driver, 20).until(lambda d: d.execute_script(script)["by_hand"])
    assert driver.execute_script(script)["y"] > buzzer["y"]
    assert "Let it be placed" in see(driver, "[data-testid='picked-part']").text

    # dropped on another part it stays there, and that is said
    chip, now = (
        driver.execute_script(script.replace("'buzzer'", f"'{role}'"))
        for role in ("chip", "buzzer")
    )
    dx, dy = (chip["x"] - now["x"]) * scale, (now["y"] - chip["y"]) * scale
    ActionChains(driver, duration=0).move_to_element_with_offset(
        canvas, int(x), int(y) - 18
    ).click_and_hold().move_by_offset(int(dx), int(dy)).release().perform()
    says(driver, "B1 now lies on ")
    assert "Move one of them, or undo." in see(driver, "[data-testid='notice']").text
    driver.find_element(By.XPATH, "//button[text()='Undo']").click()
    WebDriverWait(driver, 20).until(lambda d: d.execute_script(script)["y"] == now["y"])


def test_keys_reach_everything(server: Server, driver: Chrome) -> None:
    driver.get(f"{server.address}/project/2/brief")
    see(driver, "[data-thing='left']")
    body = driver.find_element(By.TAG_NAME, "body")
    body.send_keys("4")
    see(driver, "main[aria-label='pins']")
    body.send_keys("1")
    see(driver, "main[aria-label='brief']")
    before = place_of(driver, "left")
    driver.execute_script("document.querySelector(\"[data-thing='left']\").focus()")
    driver.switch_to.active_element.send_keys(Keys.ARROW_RIGHT)
    WebDriverWait(driver, 20).until(
        lambda d: place_of(d, "left")[0] == pytest.approx(before[0] + 0.1)
    )
    body.send_keys("?")
    see(driver, "[role='dialog']")
    body.send_keys(Keys.ESCAPE)
    ActionChains(driver).key_down(Keys.CONTROL).send_keys("k").key_up(Keys.CONTROL).perform()
    see(driver, "input[aria-label='Find']").send_keys("shutter open", Keys.ENTER)
    WebDriverWait(driver, 20).until(
        lambda d: d.find_elements(By.CSS_SELECTOR, "[data-testid='selected']")
    )


def test_a_broken_brief_is_refused_on_screen_with_the_place(
    server: Server, driver: Chrome, tmp_path: Path
) -> None:
    broken = tmp_path / "broken.json"
    broken.write_text('{"name": "x", "controls": []}')
    driver.get(server.address)
    see(driver, "[data-testid='brief-file']").send_keys(str(broken))
    assert "outline is missing" in see(driver, "[data-testid='brief-problem']").text
    broken.write_bytes(b"{ nonsense")
    see(driver, "[data-testid='brief-file']").send_keys(str(broken))
    WebDriverWait(driver, 20).until(
        lambda d: (
            "not JSON" in d.find_element(By.CSS_SELECTOR, "[data-testid='brief-problem']").text
        )
    )


def test_an_impossible_move_is_refused_and_said(server: Server, driver: Chrome) -> None:
    driver.get(f"{server.address}/project/2/brief")
    before = place_of(driver, "right")
    drag(driver, "[data-thing='right']", 160, 0)
    says(driver, "outside the board")
    assert place_of(driver, "right") == before
