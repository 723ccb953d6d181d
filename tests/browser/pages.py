"""What a maker does on a page: see, press, drag, read."""

from selenium.common.exceptions import StaleElementReferenceException
from selenium.webdriver import ActionChains, Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

STATIONS = (
    "brief",
    "parts",
    "power",
    "pins",
    "circuit",
    "board",
    "stack",
    "release",
    "build",
    "log",
)


def see(driver: Chrome, selector: str, seconds: float = 60) -> WebElement:
    return WebDriverWait(driver, seconds).until(lambda d: d.find_element(By.CSS_SELECTOR, selector))


STILL = """const [selector, done] = arguments; let before = '', turns = 0;
const look = () => {
  const box = document.querySelector(selector)?.getBoundingClientRect();
  const now = box ? [box.x, box.y, box.width, box.height].join() : '';
  if ((now && now === before) || ++turns > 120) return done();
  before = now;
  requestAnimationFrame(look);
};
look();"""


def press(driver: Chrome, selector: str) -> None:
    """Once it can be pressed and stays where it is: what still comes in may move it away from under
    the pointer.
    """
    WebDriverWait(driver, 60).until(
        lambda d: d.find_element(By.CSS_SELECTOR, selector).is_enabled()
    )
    driver.execute_async_script(STILL, selector)
    see(driver, selector).click()


def says(driver: Chrome, words: str, seconds: float = 90) -> None:
    """Wait for a notice with these words."""
    WebDriverWait(driver, seconds, ignored_exceptions=[StaleElementReferenceException]).until(
        lambda d: any(
            words in n.text for n in d.find_elements(By.CSS_SELECTOR, "[data-testid='notice']")
        )
    )


def reads(driver: Chrome, selector: str, words: str, seconds: float = 30) -> None:
    """Wait until an element holds these words."""
    WebDriverWait(driver, seconds, ignored_exceptions=[StaleElementReferenceException]).until(
        lambda d: any(words in e.text for e in d.find_elements(By.CSS_SELECTOR, selector))
    )


def station(driver: Chrome, name: str) -> None:
    press(driver, f"[data-station='{name}']")
    see(driver, f"main[aria-label='{name}']")


def drag(driver: Chrome, selector: str, dx: int, dy: int) -> None:
    element = see(driver, selector)
    ActionChains(driver, duration=0).move_to_element(element).click_and_hold().move_by_offset(
        dx // 2, dy // 2
    ).move_by_offset(dx - dx // 2, dy - dy // 2).release().perform()


def on_board(canvas: WebElement, x: float, y: float) -> tuple[int, int]:
    """A place of the board in mm as an offset from the middle of its picture."""
    mm, left, base = (
        float(canvas.get_attribute(f"data-{n}") or 0) for n in ("scale", "left", "base")
    )
    size = canvas.size
    return round(left + x * mm - size["width"] / 2), round(base - y * mm - size["height"] / 2)


def closed(driver: Chrome) -> None:
    """Leave a dialog by Escape."""
    ActionChains(driver).send_keys(Keys.ESCAPE).perform()
    WebDriverWait(driver, 20).until(
        lambda d: not d.find_elements(By.CSS_SELECTOR, "[role='dialog']")
    )


def place_of(driver: Chrome, thing: str) -> tuple[float, float]:
    element = see(driver, f"[data-thing='{thing}']")
    return float(element.get_attribute("data-x") or 0), float(element.get_attribute("data-y") or 0)
