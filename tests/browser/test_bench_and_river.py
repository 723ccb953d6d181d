"""Parts and Power in a real browser: a way between source and rail chosen by hand and taken back,
currents by mode, the kit marked, a line of the drawers read.
"""

from pathlib import Path

from selenium.webdriver import Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import closed, press, reads, says, see, station

TAKEN = "[data-ways='cell'] tr[data-taken='true']"


def milliamperes(driver: Chrome, what: str) -> float:
    return float(see(driver, f"[data-testid='river'] {what}").get_attribute("data-ma") or 0)


def test_a_topology_is_chosen_and_its_consequences_are_seen(server: Server, driver: Chrome) -> None:
    driver.get(server.address)
    press(driver, "[data-project='Ridge handset']")
    station(driver, "power")
    reads(driver, TAKEN, "Linear regulator")
    assert "recommended: lasts 20.6 h of 22.5 h" in see(driver, TAKEN).text
    # 20 mA screen, 20 mA chip, a twentieth of 3.3 V / 42 Ω of the sounder, 2 mA of the light
    assert abs(milliamperes(driver, "[data-rail='cell']") - 45.93) < 0.01
    press(driver, "button[aria-label='Take it: step-up and step-down']")
    reads(driver, TAKEN, "Step-up and step-down")
    reads(driver, "[data-testid='river']", "Step-up and step-down")
    assert "chosen by hand" in see(driver, "[data-ways='cell']").text
    # the power is passed on: 3.3 V x 45.9 mA / 0.9 / 3.7 V = 45.5 mA and 0.05 mA of its own
    reads(driver, "[data-testid='river']", "draws 46 mA")
    press(driver, "[data-working='power.cell.run.play']")
    assert "model" in see(driver, "[data-testid='working']").text
    closed(driver)
    driver.find_element(By.XPATH, "//button[text()='Undo']").click()
    says(driver, "Undone: ")
    reads(driver, TAKEN, "Linear regulator")


def test_the_river_follows_the_mode(server: Server, driver: Chrome) -> None:
    driver.get(f"{server.address}/project/18/power")
    press(driver, "[data-testid='mode-sleep']")
    WebDriverWait(driver, 20).until(lambda d: milliamperes(d, "[data-load='light']") == 0)
    press(driver, "[data-testid='mode-peak']")
    # 3.3 V across the coil's 42 Ω
    WebDriverWait(driver, 20).until(
        lambda d: abs(milliamperes(d, "[data-load='buzzer']") - 78.57) < 0.01
    )
    # 280 mA are wanted: at least 3.57 kΩ, E24 3.6 kΩ, which set 278 mA
    press(driver, "[data-testid='mode-charge']")
    reads(driver, "[data-testid='charge']", "278 mA into cell")
    reads(driver, "[data-testid='river']", "at most 500 mA")


def test_a_drawer_is_read_and_the_kit_is_marked(server: Server, driver: Chrome) -> None:
    driver.get(f"{server.address}/project/1/parts")
    press(driver, "[data-part='transistor-npn-sot23']")
    reads(driver, "[data-testid='picked-line']", "emitter")
    assert "SOT95P237X112-3N" in see(driver, "[data-testid='picked-line']").text
    before = int(see(driver, "[data-testid='drawer-buy']").text.split()[-1])
    press(driver, "[data-testid='drawer-box']")
    cells = "[data-kit='AAA cell, alkaline, 1.5 V']"
    assert see(driver, cells).text.startswith("20 x")
    press(driver, f"{cells} button:nth-of-type(3)")
    see(driver, f"{cells}[data-state='bought']")
    assert int(see(driver, "[data-testid='drawer-buy']").text.split()[-1]) == before - 1
    press(driver, "[data-testid='drawer-buy']")
    assert "AAA cell, alkaline" not in see(driver, "[data-testid='to-buy']").text
    driver.refresh()
    press(driver, "[data-testid='drawer-box']")
    see(driver, f"{cells}[data-state='bought']")


def test_a_stick_is_made_sure_of_through_its_card(server: Server, driver: Chrome) -> None:
    driver.get(server.address)
    press(driver, "[data-project='Star handset']")
    station(driver, "parts")
    sure = "[data-testid='drawer-sure']"
    reads(driver, sure, "2")
    press(driver, sure)
    card = "[data-card='stick-resistive-13']"
    assert "5 to 20 kΩ, and steady while the stick moves" in see(driver, card).text
    see(driver, f"{card} input").send_keys("Wren, 2026-11-20")
    press(driver, f"{card} button")
    see(driver, f"{card}[data-confirmed='true']")
    reads(driver, card, "Measured: Wren, 2026-11-20")
    reads(driver, sure, "1")
    pages = driver.execute_async_script(
        "const done = arguments[0];"
        " fetch(document.querySelector(\"a[href$='measuring-cards']\").href).then(r =>"
        " r.blob()).then(b => done([b.type, b.size]))"
    )
    assert pages[0] == "application/pdf"
    assert pages[1] > 1500
    driver.find_element(By.XPATH, "//button[text()='Undo']").click()
    see(driver, f"{card}[data-confirmed='false']")


def test_a_list_of_parts_is_read_line_by_line(
    server: Server, driver: Chrome, tmp_path: Path
) -> None:
    driver.get(f"{server.address}/project/1/parts")
    press(driver, "[data-testid='drawer-buy']")
    mine = tmp_path / "mine.csv"
    mine.write_text("Count,What,Value,Size\n10,Resistor,4.7 kΩ,0603\n5,Lamp,amber,inch 0805\n")
    see(driver, "[data-testid='parts-list']").send_keys(str(mine))
    reads(driver, "[data-testid='read-list']", "2 lines, 1 to look at")
    assert "line 2" in see(driver, "[data-testid='read-list']").text
    assert "write inch 0603 or metric 0603" in see(driver, "[data-testid='read-list']").text
    other = tmp_path / "other.csv"
    other.write_text("What\nLamp\n")
    see(driver, "[data-testid='parts-list']").send_keys(str(other))
    reads(driver, "[data-testid='list-problem']", "has no column Count")


def test_a_protection_is_left_out_with_its_reason_and_put_back(
    server: Server, driver: Chrome
) -> None:
    driver.get(f"{server.address}/project/2/pins")
    press(driver, "[data-testid='solve-pins']")
    says(driver, "Pins solved")
    station(driver, "circuit")
    press(driver, "[data-testid='make-circuit']")
    see(driver, "[data-sheet='chip'] svg")
    station(driver, "power")
    press(driver, "button[aria-label='Leave out reverse guard of cell']")
    why = see(driver, "[aria-label='Why reverse guard of cell may be left out']")
    why.send_keys("short")
    leave = driver.find_element(By.XPATH, "//button[text()='Leave it out']")
    assert leave.get_attribute("disabled")
    why.send_keys(", the cells are soldered in")
    leave.click()
    row = "[data-protection='reverse guard']"
    reads(driver, row, "short, the cells are soldered in")
    station(driver, "circuit")
    press(driver, "[data-testid='make-circuit']")
    reads(driver, "[data-testid='by-hand']", "reverse guard left out")
    station(driver, "power")
    press(driver, "button[aria-label='Put back reverse guard of cell']")
    WebDriverWait(driver, 20).until(lambda d: not d.find_elements(By.CSS_SELECTOR, row))
    station(driver, "circuit")
    press(driver, "[data-testid='make-circuit']")
    reads(driver, "[data-testid='by-hand']", "Nothing.")
    station(driver, "power")
    reads(driver, row, "against a source that is put in the wrong way round")
