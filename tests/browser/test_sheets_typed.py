"""Twelve data sheets entered at the shelf's screen as a person reads them: each part equals the
same part in its pack.
"""

import re
import tomllib
from pathlib import Path

import pytest
from selenium.webdriver import Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select, WebDriverWait

from loquet.core.parts import Part
from loquet.core.shelf.differing import differences
from tests.browser.conftest import Server
from tests.browser.pages import press, see
from tests.browser.test_shelf import SET
from tests.conftest import ROOT

SHEETS = sorted((ROOT / "examples" / "sheets").glob("*.txt"))
FAMILIES = {
    "leads bent out": "gull-wings",
    "pads under its edges": "no-leads",
    "two rows": "rows",
    "pads as drawn": "drawn",
}
FIELDS = {
    "sides": "sides with leads",
    "span": "over the leads",
    "lead": "width of a lead",
    "exposed": "exposed pad",
    "row": "between the rows",
}
"""What the screen calls a dimension, where it is not the sheet's own word."""
MEETS = "Its grip meets the wall at, in mm"
SLOT = re.compile(r"(?<=\S) {2,}(?=\S)")


class Sheet:
    """A data sheet as it is read: its head, pins, what may stay open, package, figures."""

    def __init__(self, text: str) -> None:
        blocks = [block.splitlines() for block in text.strip().split("\n\n")]
        self.evidence = SLOT.split(blocks[0][0])[1]
        self.description = SLOT.split(blocks[0][1])[1]
        self.head = dict(SLOT.split(line) for line in blocks[1])
        named = {block[0].split("  ")[0]: block for block in blocks[2:]}
        self.pins = "\n".join(named["Pins"][1:])
        self.open = dict(SLOT.split(line) for line in named.get("May stay open", [""])[1:])
        package = named["Package"]
        self.family = FAMILIES[SLOT.split(package[0])[1]]
        self.pads = [line for line in package[1:] if re.match(r"\S+ -?[\d.]+ -?[\d.]+ ", line)]
        self.sizes = dict(SLOT.split(line) for line in package[1:] if line not in self.pads)
        self.in_use = dict(SLOT.split(line) for line in named.get("In use", [""])[1:])
        self.figures = dict(SLOT.split(line) for line in named.get("Figures", [""])[1:])


def typed(driver: Chrome, label: str, text: str) -> None:
    driver.execute_script(SET, see(driver, f'[aria-label="{label}"]'), text)


def enter(driver: Chrome, sheet: Sheet, part: Part) -> None:
    """Everything that the sheet says, in the order in which the screen asks for it."""
    press(driver, "[data-testid='new-of']")
    typed(driver, "What it is", sheet.description)
    typed(driver, "Name on the shelf", part.id.removeprefix("own/"))
    Select(see(driver, "[aria-label='Package family']")).select_by_value(sheet.family)
    typed(driver, "Name of the package", sheet.sizes.pop("name"))
    if sheet.pads:
        typed(driver, "Pads", "\n".join(sheet.pads))
    for word, value in sheet.sizes.items():
        label, numbers = FIELDS.get(word, word), re.findall(r"[\d.]+", value)
        for place, number in enumerate(numbers, 1):
            typed(driver, f"{label} {place}" if len(numbers) > 1 else label, number)
    WebDriverWait(driver, 30).until(pasting)
    typed(driver, "Pin table", sheet.pins)
    press(driver, "[data-testid='take-pins']")
    for words, reason in sheet.open.items():
        name = named_at(part, sheet.pins, words)
        press(driver, f'[aria-label="more of {name}"]')
        field = see(driver, f'[aria-label="Why {name} may stay open"]')
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(reason, Keys.ENTER)
        press(driver, f'[aria-label="more of {name}"]')
    for label, value in sheet.figures.items():
        typed(driver, label, re.findall(r"[\d.]+", value)[0])
    if "plug" in sheet.in_use:
        put_in_use(driver, sheet.in_use["plug"])
    Select(see(driver, "[aria-label='How it was made sure of']")).select_by_value("drawing")
    typed(driver, "Drawing with page, or who measured when", sheet.evidence)
    typed(driver, "Price in cents", sheet.head["Price"].split()[0])
    typed(driver, "Height in mm", sheet.head["Height"].split()[0])
    typed(driver, "Letters of its name on a board", sheet.head["Letters"])


def pasting(driver: Chrome) -> bool:
    """Whether the field for a pin table is there; asked for where it is not: a drawing that grows
    while its sizes are typed may move the button away under the pointer.
    """
    field = "[aria-label='Pin table']"
    if not driver.find_elements(By.CSS_SELECTOR, field):
        press(driver, "[data-testid='paste-pins']")
    return bool(driver.find_elements(By.CSS_SELECTOR, field))


def put_in_use(driver: Chrome, plug: str) -> None:
    """The plug of a sheet: its words, its size, and how its grip meets a wall."""
    press(driver, "[aria-label='Through the wall and beside it: say it']")
    driver.find_element(By.XPATH, "//label[contains(., 'there is one')]/input").click()
    words, sizes = plug.split(", ", 1)
    typed(driver, "What is plugged into it", words)
    labels = ("Plug across in mm", "Plug up in mm", "Plug with the bend of its lead in mm")
    for label, number in zip((*labels, MEETS), re.findall(r"[\d.]+", sizes), strict=True):
        typed(driver, label, number)


def named_at(part: Part, pins: str, word: str) -> str:
    """What a pin of the sheet is called as a terminal: by its pad."""
    row = next(line for line in pins.splitlines() if line.split("\t")[1:2] == [word])
    return part.at_pad[row.split("\t")[0]]


@pytest.mark.parametrize("path", SHEETS, ids=lambda path: path.stem)
def test_a_sheet_typed_equals_its_pack(path: Path, server: Server, driver: Chrome) -> None:
    sheet = Sheet(path.read_text())
    (row,) = tomllib.loads(path.with_suffix(".toml").read_text())["part"]
    wanted = Part.model_validate(row)
    kind = sheet.head["Kind"].replace(" ", "+")
    driver.get(f"{server.address}/shelf?kind={kind}")
    see(driver, "[data-testid='new-of']")
    enter(driver, sheet, wanted)
    WebDriverWait(driver, 10).until(
        lambda d: "Nothing is missing" in see(d, "[data-testid='missing']").text
    )
    press(driver, "[data-testid='keep-part']")
    see(driver, f"[data-testid='bench'][data-part='{wanted.id}'] [data-testid='like-this']")
    kept = driver.execute_async_script(
        "fetch('/api/shelf/part?id=' + arguments[0]).then(r => r.json()).then(arguments[1])",
        wanted.id,
    )["part"]
    assert differences(wanted, Part.model_validate(kept)) == ()
