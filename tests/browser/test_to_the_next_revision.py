"""From a proven board to a working device and the next revision, by hand in a real browser: stack,
order with a query, building, a fault hunted, logged, blocked, fixed, released, compared.
"""

from selenium.webdriver import ActionChains, Chrome, Keys
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import Select, WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import press, reads, says, see, station


def fill(driver: Chrome, label: str, words: str) -> None:
    field = see(driver, f"[aria-label='{label}']")
    field.clear()
    field.send_keys(words)


def choose(driver: Chrome, label: str, words: str) -> None:
    Select(see(driver, f"[aria-label='{label}']")).select_by_visible_text(words)


def test_from_the_stack_to_revision_b(server: Server, driver: Chrome) -> None:
    driver.get(server.address)
    press(driver, "[data-project='Filter dial']")
    press(driver, "[data-testid='finish']")
    says(driver, "written and proven", 240)

    # the stack: a cut by keys, taken apart, openings, order; the whole with the keyboard alone
    ActionChains(driver).send_keys("7").perform()
    see(driver, "main[aria-label='stack']")
    see(driver, "[data-testid='cut'] [data-piece='front wall']")
    assert len(driver.find_elements(By.CSS_SELECTOR, "[data-testid='tightest'] li")) == 5
    line = see(driver, "[aria-label='Line of the cut']")
    before = line.get_attribute("aria-valuetext")
    line.send_keys(Keys.ARROW_UP)
    WebDriverWait(driver, 20).until(
        lambda d: (
            d.find_element(By.CSS_SELECTOR, "[aria-label='Line of the cut']").get_attribute(
                "aria-valuetext"
            )
            != before
        )
    )
    press(driver, "[data-testid='look-apart']")
    see(driver, "[data-testid='solid']")
    press(driver, "[data-testid='look-openings']")
    reads(driver, "[data-testid='openings']", "front wall")
    assert len(driver.find_elements(By.CSS_SELECTOR, "[data-testid='templates'] a")) >= 15
    press(driver, "[data-testid='look-together']")
    reads(driver, "[data-testid='order']", "Drive 4 screws")
    whole = see(driver, "[data-working='stack.whole']").text
    fill(driver, "Wall", "3")
    see(driver, "[aria-label='Wall']").send_keys(Keys.ENTER)
    WebDriverWait(driver, 20).until(
        lambda d: d.find_element(By.CSS_SELECTOR, "[data-working='stack.whole']").text != whole
    )

    # files of a panel, cost, calendar, an order at a house that asks back
    station(driver, "release")
    choose(driver, "How", "panel, held by tabs")
    see(driver, "[data-testid='panel-drawing'][data-copies='4']")
    fill(driver, "Rows", "1")
    see(driver, "[aria-label='Rows']").send_keys(Keys.ENTER)
    see(driver, "[data-testid='panel-drawing'][data-copies='2']")
    press(driver, "[data-testid='prove']")
    reads(driver, "[data-testid='proof']", "copies on panels", 180)
    press(driver, "[data-layer='panel/copper-near.gbr']")
    reads(driver, "[data-house='ropewalk']", "Panels parted by tabs are not made here")
    see(driver, "[data-testid='landed'] [data-total='millrace']", 180)
    see(driver, "[data-testid='in-time']")
    press(driver, "[data-house='saltmarsh'] [data-testid='choose']")
    reads(driver, "main", "Write and prove them again")
    press(driver, "[data-testid='finish']")
    see(driver, "[data-house='saltmarsh'].border-copper", 180)
    press(driver, "[data-house='saltmarsh'] [data-testid='order']")
    order = see(driver, "[data-order][data-state='received']").get_attribute("data-order")
    press(driver, f"[data-order='{order}'] [data-testid='next-day']")
    see(driver, f"[data-order='{order}'][data-state='waits for an answer']")
    fill(driver, "Answer to the house", "Clip the legend there.")
    press(driver, "[data-testid='answer']")
    WebDriverWait(driver, 20).until(
        lambda d: (
            not d.find_elements(
                By.CSS_SELECTOR, f"[data-order='{order}'][data-state='waits for an answer']"
            )
        )
    )

    # building: a step done, a simulated unit with a fault, hunted
    station(driver, "build")
    press(driver, "[data-testid='steps'] li:nth-of-type(2) button")
    see(driver, "[data-testid='lit']")
    press(driver, "[data-testid='step-done']")
    press(driver, "[data-testid='page-power']")
    reads(driver, "main", "SUPPLY to GROUND")
    press(driver, "[data-testid='page-units']")
    press(driver, "[data-testid='new-simulated']")
    fault = Select(see(driver, "[aria-label='Fault set in the simulated unit']"))
    WebDriverWait(driver, 30).until(lambda _: len(fault.options) > 20)
    named = next(o.text for o in fault.options if "Button home" in o.text and "pad 1" in o.text)
    fault.select_by_visible_text(named)
    reads(driver, "[data-testid='records']", "set")
    press(driver, "[data-testid='key-test']")
    reads(driver, "[data-testid='records']", "1 wrong")
    press(driver, "[data-testid='observe']")
    for _ in range(5):
        see(driver, "[data-testid='causes']")
        if driver.find_elements(By.CSS_SELECTOR, "[data-testid='causes'][data-sure='true']"):
            break
        count = len(driver.find_elements(By.CSS_SELECTOR, "[data-testid='records'] li"))
        press(driver, "[data-testid='next-tests'] [data-testid='read']")
        WebDriverWait(driver, 20).until(
            lambda d, n=count: (
                len(d.find_elements(By.CSS_SELECTOR, "[data-testid='records'] li")) > n
            )  # type: ignore[misc]
        )
    assert "without contact" in see(driver, "[data-testid='causes'][data-sure='true'] tr").text

    # logged: it blocks the release; revision B, fixed, released, compared
    station(driver, "log")
    fill(driver, "What went wrong", "Joint of the home button")
    fill(driver, "Patch", "soldered again")
    choose(driver, "Sort", "solder")
    press(driver, "[data-testid='note-fault']")
    see(driver, "[data-card='Joint of the home button'][data-state='open']")
    reads(driver, "[data-testid='ready-meter']", "1 stop")
    press(driver, "[data-testid='new-revision']")
    see(driver, "[data-revision='B']")
    reads(driver, "[data-testid='todo']", "soldered again")
    station(driver, "release")
    prove = see(driver, "[data-testid='prove']")
    assert not prove.is_enabled()
    station(driver, "log")
    press(driver, "[data-card='Joint of the home button'] [data-testid='fixed']")
    see(driver, "[data-card='Joint of the home button'][data-state='fixed']")
    reads(driver, "[data-testid='ready-meter']", "No stops")
    station(driver, "release")
    press(driver, "[data-testid='prove']")
    see(driver, "[data-testid='download']", 180)
    station(driver, "log")
    press(driver, "[data-revision='A'] [data-testid='compare']")
    see(driver, "[data-testid='compared']")

    # the order book: the same boards once more, with the files of then
    driver.get(server.address)
    press(driver, "[data-testid='order-book-tab']")
    press(driver, f"[data-testid='order-book'] [data-order='{order}'] button")
    reads(driver, "[aria-label='Order book']", f"with the files of order {order}")
