"""The sheets of a circuit in a real browser: a part leads to its figure, a net is lit everywhere, a
pin is cut by hand and given back, a part is added.
"""

from selenium.webdriver import ActionChains, Chrome, Keys
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import closed, press, reads, says, see, station

CARD, HANDS = "[data-testid='part-card']", "[data-testid='by-hand']"


def lit(driver: Chrome, look: str) -> list[str]:
    """Nets of everything on the sheets that is lit in a way, each once."""
    found = driver.find_elements(By.CSS_SELECTOR, f"[data-sheet] .{look}[data-net]")
    return sorted({f.get_attribute("data-net") or "" for f in found})


def typed(driver: Chrome, label: str, text: str) -> None:
    see(driver, f"input[aria-label='{label}']").send_keys(text)


def test_sheets_are_read_and_changed_by_hand(server: Server, driver: Chrome) -> None:
    driver.get(server.address)
    press(driver, "[data-project='Star handset']")
    station(driver, "circuit")
    press(driver, "[data-testid='make-circuit']")
    see(driver, "[data-sheet='chip'] svg")
    titles = [h.text for h in driver.find_elements(By.CSS_SELECTOR, "[data-sheet] h2")]
    assert titles[:3] == ["Chip core", "Sources to rails", "Controls"]

    # a resistor by keyboard: what it is for, and the figure behind its value
    see(driver, "[data-press][aria-label*='charging current']").send_keys(Keys.ENTER)
    reads(driver, CARD, "Sets the charging current")
    press(driver, f"{CARD} [data-working='cell.charge']")
    assert "Charging current" in see(driver, "[data-testid='working']").text
    closed(driver)

    # a net under the pointer is lit on every sheet, and said in the strip
    wire = driver.find_element(By.CSS_SELECTOR, "[data-sheet='buzzer'] [data-grasp='BUZZER_DRIVE']")
    driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", wire)
    name = driver.find_element(
        By.CSS_SELECTOR, "[data-sheet='buzzer'] text[data-net='BUZZER_DRIVE']"
    )
    ActionChains(driver).move_to_element(name).perform()
    WebDriverWait(driver, 10).until(lambda d: lit(d, "under-pointer") == ["BUZZER_DRIVE"])
    sheets = driver.find_elements(By.XPATH, "//section[.//*[contains(@class, 'under-pointer')]]")
    assert {s.get_attribute("data-sheet") for s in sheets} == {"chip", "buzzer"}
    reads(driver, "footer", "BUZZER_DRIVE: ")

    # a curve stands beside the parts that it is about: 40 kΩ and 100 nF
    assert (
        "The chip starts 4.8 ms after its rail." in see(driver, "[data-curve='reset RESET']").text
    )

    # a pin is cut: the open pin is a stop; taken back, it is gone
    press(driver, "[data-press='R1']")
    press(driver, f"{CARD} button[aria-label='Change pin 1']")
    driver.find_element(By.XPATH, "//form//button[text()='Cut']").click()
    reads(driver, HANDS, "pin 1 of")
    press(driver, "[data-testid='make-circuit']")
    reads(driver, "[aria-label='Findings']", "pin 1 is on no net")
    press(driver, f"{HANDS} button[aria-label^='Take back']")
    reads(driver, HANDS, "Nothing.")

    # a part is added on two nets, and stands on the sheets after the recipes ran
    driver.find_element(By.XPATH, "//button[text()='Add a part']").click()
    typed(driver, "Name of the part", "bleed")
    typed(driver, "Part of the catalogue", "resistor-1608")
    typed(driver, "Value", "1 MΩ")
    typed(driver, "Pads and nets", "1 supply, 2 ground")
    driver.find_element(By.XPATH, "//button[text()='Add it']").click()
    reads(driver, HANDS, "bleed added")
    press(driver, "[data-testid='make-circuit']")
    see(driver, "[data-sheet='added'] svg")
    says(driver, "Circuit made")

    # a net gets another name in the list
    press(driver, f"{CARD} button[aria-label='Back to the nets']")
    typed(driver, "Search nets", "LIGHT_DRIVE")
    press(driver, "section[aria-label='Nets'] li button")
    typed(driver, "New name for LIGHT_DRIVE, or a net to join it to", "lamp")
    driver.find_element(By.XPATH, "//button[text()='Rename']").click()
    reads(driver, HANDS, "LIGHT_DRIVE is called LAMP")
