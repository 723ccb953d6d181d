"""The index of all chips: enough to search by, baked once from the open data set."""

import json
from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context
from pathlib import Path

from loquet.catalogue.chips import DATA_SOURCE, all_files, chip_of, devices_of
from loquet.catalogue.mapped import find_mapped, mapped_names
from loquet.core.parts import Chip, PartError
from loquet.core.parts.listing import ListedChip
from loquet.core.pins.model import Need, NeedKind
from loquet.core.pins.options import options_of

EDITION = 4
COUNTED: tuple[tuple[str, NeedKind], ...] = (
    ("analogue", "analogue"),
    ("timers", "timer"),
    ("two_wire", "two-wire clock"),
    ("serial", "serial clock"),
    ("usb", "usb minus"),
    ("touch", "touch"),
)


def row_of(chip: Chip) -> ListedChip:
    """A chip as a row of the index; buses are counted by instance, channels by pin."""
    counts = {}
    for name, kind in COUNTED:
        options = options_of(Need("", kind, "", ""), chip)
        counts[name] = len(
            {o.hardware if name in ("two_wire", "serial", "usb") else o.pin for o in options}
        )
    ports = sum(pin.kind == "port" and not pin.is_reset for pin in chip.pins)
    return ListedChip(
        name=chip.name,
        family=chip.family,
        package=chip.package,
        ports=ports,
        covered=not chip.uncovered,
        **counts,
    )


def rows_of_file(path: Path) -> list[ListedChip]:
    """Every part of a file at the ordinary temperature grade that has a package pin map."""
    rows = []
    for device in devices_of(path):
        if device.identifier.get("temperature", "6") not in ("6", None):
            continue
        try:
            rows.append(row_of(chip_of(device)))
        except PartError:
            continue
    return rows


def bake_index() -> list[ListedChip]:
    """All rows, sorted by name; half a minute on two cores."""
    with ProcessPoolExecutor(2, mp_context=get_context("spawn")) as pool:
        rows = [row for found in pool.map(rows_of_file, all_files()) for row in found]
    mapped = (find_mapped(name) for name in mapped_names())
    rows += [row_of(chip) for chip in mapped if chip is not None]
    return sorted(rows, key=lambda row: row.name)


def listed_chips(cache: Path) -> list[ListedChip]:
    """The index from its cache file, baked first where it is missing or from another data set or
    edition.
    """
    source = f"{DATA_SOURCE}, edition {EDITION}"
    if cache.exists():
        saved = json.loads(cache.read_text("utf-8"))
        if saved.get("source") == source:
            return [ListedChip.model_validate(row) for row in saved["rows"]]
    rows = bake_index()
    cache.parent.mkdir(parents=True, exist_ok=True)
    draft = cache.with_suffix(".draft")
    draft.write_text(
        json.dumps({"source": source, "rows": [row.model_dump(mode="json") for row in rows]}),
        "utf-8",
    )
    draft.replace(cache)
    return rows
