"""A device switched on in a real browser: its cell taken out and put in backwards, a key held, a
port plugged in, and the worst state followed to its part, mended, and gone.
"""

from selenium.webdriver import ActionChains, Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import Select

from tests.browser.conftest import Server
from tests.browser.pages import press, reads, says, see, station
from tests.conftest import ROOT

WORDS, PANEL = "[data-testid='state-words']", "[aria-label='Switched on']"
DEVICES = ROOT / "tests" / "data" / "devices"


def opened(driver: Chrome, server: Server, device: str) -> None:
    """A device of a file, with its circuit made and switched on."""
    driver.get(server.address)
    see(driver, "[data-testid='brief-file']").send_keys(str(DEVICES / f"{device}.brief.json"))
    see(driver, "main[aria-label='brief']")
    station(driver, "pins")
    press(driver, "[data-testid='solve-pins']")
    says(driver, "Pins solved")
    station(driver, "circuit")
    press(driver, "[data-testid='make-circuit']")
    see(driver, "[data-sheet='chip'] svg")
    press(driver, "[data-testid='switch-on']")
    see(driver, PANEL)


def choose(driver: Chrome, label: str, value: str) -> None:
    Select(see(driver, f"{PANEL} select[aria-label='{label}']")).select_by_value(value)


def colour(driver: Chrome, net: str) -> str:
    wire = driver.find_element(By.CSS_SELECTOR, f"[data-sheet] path[data-net='{net}']")
    return wire.get_attribute("stroke") or ""


def test_a_cell_is_turned_a_key_held_and_a_port_plugged_in(server: Server, driver: Chrome) -> None:
    opened(driver, server, "d29b-18650")
    reads(driver, WORDS, "With cell in, lines driven high.")
    supplied = colour(driver, "SUPPLY")
    name = driver.find_element(By.CSS_SELECTOR, "[data-sheet='light'] text[data-net='LIGHT_DRIVE']")
    driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", name)
    ActionChains(driver).move_to_element(name).perform()
    reads(driver, "footer", "LIGHT_DRIVE: 3.2")

    choose(driver, "Its brain is", "reset")
    choose(driver, "Key held", "button key 1")
    reads(driver, WORDS, "With cell in, button key 1 held.")
    choose(driver, "charge", "usual")
    reads(driver, WORDS, "With cell in and charge plugged in")
    reads(driver, PANEL, "takes")

    choose(driver, "cell", "reversed")
    reads(driver, WORDS, "With cell put in backwards and charge plugged in")
    choose(driver, "charge", "")
    reads(driver, WORDS, "With cell put in backwards, button key 1 held.")
    reads(driver, PANEL, "Nothing is wrong in any of")
    assert colour(driver, "SUPPLY") != supplied


def test_the_worst_state_leads_to_its_part_and_goes_when_it_is_mended(
    server: Server, driver: Chrome
) -> None:
    """703 mA through a switch for 300: a switch for 1 A is offered, and takes them."""
    opened(driver, server, "d09c-switch")
    press(driver, "[data-worst='part-current']")
    reads(driver, WORDS, "With pack nearly empty, lines driven high, everything on at once.")
    see(driver, "[data-over]")
    assert "pressed" in str(see(driver, "[data-sheet] [data-part='S7']").get_attribute("class"))
    press(driver, "[data-load='S7'] [data-working]")
    assert "limits of the parts" in see(driver, "[data-testid='working']").text
    driver.find_element(By.TAG_NAME, "body").send_keys("\ue00c")

    press(driver, "[data-repair^='Take the']")
    press(driver, "[data-testid='make-pins'], [data-testid='make-circuit']")
    reads(driver, PANEL, "Nothing is wrong in any of", 60)
    assert not driver.find_elements(By.CSS_SELECTOR, "[data-worst='part-current']")
