"""The first time at the parts shelf: a regulator from its data sheet, taken into a project; looked
at by an outside checker too.
"""

import time
import tomllib

from selenium.webdriver import Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select, WebDriverWait

from tests.browser.conftest import Server
from tests.browser.pages import press, see
from tests.browser.test_access import faults
from tests.conftest import ROOT

PACK = ROOT / "examples" / "packs" / "tarn-regulator.toml"
SHEET = "Pin\tName\tFunction\n1\tVOUT\tRegulated output\n2, 4\tGND\tGround\n3\tVIN\tPower\n"
FIGURES = {
    "highest supply": "12",
    "least supply": "3.6",
    "most current": "500",
    "drop-out at its most current": "0.3",
    "thermal resistance to the air": "60",
    "current that it takes itself": "0.06",
}
SET = (
    "const [field, text] = arguments;"
    "Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), 'value').set.call(field, text);"
    "field.dispatchEvent(new Event('input', { bubbles: true }));"
)


def put(driver: Chrome, label: str, text: str) -> None:
    field = see(driver, f"[aria-label='{label}']")
    if field.tag_name == "textarea":
        driver.execute_script(SET, field, text)
    else:
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(text)


def test_a_regulator_from_its_sheet_to_the_board(server: Server, driver: Chrome) -> None:
    """Entered on the screen it equals the same part as TOML, but for the words of its package."""
    began = time.monotonic()
    driver.get(f"{server.address}/shelf?kind=linear+regulator")
    see(driver, "[data-part='regulator-linear-low']")
    found = {"shelf": faults(driver)}
    press(driver, "[data-testid='new-of']")
    put(driver, "What it is", "Linear regulator, 3.3 V, 500 mA, for inputs up to 12 V")
    put(driver, "Name on the shelf", "tarn-r33")
    press(driver, "[data-testid='paste-pins']")
    put(driver, "Pin table", SHEET)
    press(driver, "[data-testid='take-pins']")
    Select(see(driver, "[aria-label='Package family']")).select_by_value("drawn")
    wanted = tomllib.loads(PACK.read_text())["part"][0]
    rows = [
        f"{p['number']} {p['x_mm']} {p['y_mm']} {p['w_mm']} {p['h_mm']}"
        for p in wanted["body"]["pads"]
    ]
    put(driver, "Pads", "\n".join(rows))
    for index, size in enumerate(wanted["body"]["body_mm"], 1):
        put(driver, f"body {index}", str(size))
    for label, text in FIGURES.items():
        put(driver, label, text)
    put(driver, "Price in cents", "9")
    put(driver, "Height in mm", "1.6")
    Select(see(driver, "[aria-label='How it was made sure of']")).select_by_value("drawing")
    put(driver, "Drawing with page, or who measured when", wanted["evidence_text"])
    found["part being typed"] = faults(driver)
    WebDriverWait(driver, 10).until(
        lambda d: "Nothing is missing" in see(d, "[data-testid='missing']").text
    )
    press(driver, "[data-testid='keep-part']")
    see(driver, "[data-testid='bench'][data-part='own/tarn-r33'] [data-testid='like-this']")
    found["own part"] = faults(driver)
    kept = driver.execute_async_script(
        "fetch('/api/shelf/part?id=own/tarn-r33').then(r => r.json()).then(arguments[0])"
    )["part"]
    assert kept["body"]["pads"] == [
        {"drill_mm": 0, "round": False, "paste": True, "covered": False, "bare_mm": 0, **pad}
        for pad in wanted["body"]["pads"]
    ]
    for field in ("kind", "description", "values", "height_mm", "price_cents", "evidence_text"):
        assert kept[field] == wanted[field], field
    assert {n: (t["pads"], t["does"]) for n, t in kept["terminals"].items()} == {
        n: (t["pads"], t["does"]) for n, t in wanted["terminals"].items()
    }
    driver.get(f"{server.address}/project/1/parts")
    press(driver, "[data-testid='drawer-shelf']")
    see(driver, "[data-could='own/tarn-r33']")
    found["from the shelf"] = faults(driver)
    driver.find_element(By.CSS_SELECTOR, "[data-could='own/tarn-r33'] button").click()
    see(driver, "[data-taken='own/tarn-r33']")
    assert {page: rows for page, rows in found.items() if rows} == {}
    assert time.monotonic() - began < 180
