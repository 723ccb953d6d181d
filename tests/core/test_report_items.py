"""Items of a report descriptor by the bytes of HID 1.11, section 6.2.2, and the linter, one fault
at a time.
"""

import pytest

from loquet.core.handover.report_items import Item, ItemFault, decode, encode, lint


@pytest.mark.parametrize(
    ("item", "data"),
    [
        (Item("Usage Page", 1), "05 01"),
        (Item("Usage Page", 0xFF00), "06 00 ff"),
        (Item("Usage", 0x10000), "0b 00 00 01 00"),
        (Item("Usage Minimum", 255), "19 ff"),
        (Item("Usage Maximum", 256), "2a 00 01"),
        (Item("Logical Minimum", -127), "15 81"),
        (Item("Logical Minimum", -128), "15 80"),
        (Item("Logical Minimum", -129), "16 7f ff"),
        (Item("Logical Maximum", 127), "25 7f"),
        (Item("Logical Maximum", 255), "26 ff 00"),
        (Item("Logical Maximum", 65535), "27 ff ff 00 00"),
        (Item("Physical Minimum", -1), "35 ff"),
        (Item("Physical Maximum", 200), "46 c8 00"),
        (Item("Unit Exponent", 14), "55 0e"),
        (Item("Unit", 0x14), "65 14"),
        (Item("Report Size", 16), "75 10"),
        (Item("Report ID", 3), "85 03"),
        (Item("Report Count", 6), "95 06"),
        (Item("Collection", 1), "a1 01"),
        (Item("End Collection", 0), "c0"),
        (Item("Input", 2), "81 02"),
    ],
)
def test_items_are_the_bytes_of_the_standard(item: Item, data: str) -> None:
    """Prefix bytes of HID 1.11, 6.2.2.4 to 6.2.2.8: tag, type, size; 255 as a logical maximum takes
    two bytes, since it is signed.
    """
    assert encode(item) == bytes.fromhex(data)
    assert decode(bytes.fromhex(data)) == [item]


def test_what_is_no_item_is_refused() -> None:
    for wrong in (Item("Usage", 1 << 32), Item("Logical Maximum", 1 << 31), Item("Usage", -1)):
        with pytest.raises(ItemFault, match="does not fit four bytes"):
            encode(wrong)
    for data, place in (
        ("05 01 fe 00", 2),
        ("05", 0),
        ("05 01 26 ff", 2),
        ("05 01 75 08 91 02", 4),
    ):
        with pytest.raises(ItemFault, match=f"byte {place} starts no item"):
            decode(bytes.fromhex(data))


OPEN = "05 01 09 05 a1 01 "
GOOD = "05 09 19 01 29 08 15 00 25 01 75 01 95 08 81 02 "


@pytest.mark.parametrize(
    ("data", "faults"),
    [
        (OPEN + GOOD + "c0", []),
        (OPEN + "05 09 09 01 09 02 15 00 25 01 75 04 95 02 81 02 c0", []),
        (OPEN + "05 01 09 30 15 80 25 7f 75 08 95 01 81 02 c0", []),
        (OPEN + "05 07 19 00 29 65 15 00 25 65 75 08 95 06 81 00 c0", []),
        (OPEN + GOOD, ["1 collections are never ended."]),
        (OPEN + GOOD + "c0 c0", ["A collection ends that never began."]),
        (GOOD, ["An input stands outside all collections."]),
        ("05 01 a1 01 " + GOOD + "c0", ["A collection has no usage."]),
        (OPEN + "75 03 95 01 81 03 c0", ["The report is 3 bits long, which are no whole bytes."]),
        (OPEN + "75 08 81 03 c0", ["An input has no size or no count."]),
        (OPEN + "95 08 81 03 c0", ["An input has no size or no count."]),
        (
            "09 05 a1 01 19 01 29 08 15 00 25 01 75 01 95 08 81 02 c0",
            ["An input has no usage page."],
        ),
        (
            OPEN + "09 30 15 01 25 00 75 08 95 01 81 02 c0",
            ["A logical range runs from 1 to 0."],
        ),
        (
            OPEN + "09 30 15 00 26 00 01 75 08 95 01 81 02 c0",
            ["A logical range of 0 to 256 does not fit 8 bits."],
        ),
        (OPEN + "09 30 15 00 26 ff 00 75 08 95 01 81 02 c0", []),
        (
            OPEN + "09 30 15 81 26 80 00 75 08 95 01 81 02 c0",
            ["A logical range of -127 to 128 does not fit 8 bits."],
        ),
        (
            OPEN + "09 30 16 7f ff 25 7f 75 08 95 01 81 02 c0",
            ["A logical range of -129 to 127 does not fit 8 bits."],
        ),
        (
            OPEN + "05 09 19 01 15 00 25 01 75 01 95 08 81 02 c0",
            ["A usage range has only one end."],
        ),
        (
            OPEN + "05 09 29 08 15 00 25 01 75 01 95 08 81 02 c0",
            ["A usage range has only one end."],
        ),
        (
            OPEN + "05 09 19 09 29 08 15 00 25 01 75 01 95 08 81 02 c0",
            ["A usage range runs from 9 to 8."],
        ),
        (
            OPEN + "05 09 19 01 29 07 15 00 25 01 75 01 95 08 81 02 c0",
            ["A usage range of 7 stands for 8 fields."],
        ),
        (
            OPEN + "05 07 19 00 29 65 15 00 25 64 75 08 95 06 81 00 c0",
            ["A usage range of 102 stands for 101 array values."],
        ),
        (OPEN + "15 00 25 01 75 08 95 01 81 02 c0", ["An input has no usage."]),
        (
            OPEN + "09 30 09 31 15 00 25 01 75 08 95 01 81 02 c0",
            ["2 usages stand for 1 fields."],
        ),
        ("05 01 fe", ["byte 2 starts no item that is known here."]),
    ],
)
def test_the_linter_names_each_fault_and_no_other(data: str, faults: list[str]) -> None:
    """Written by hand, one fault each, and the values just within."""
    assert lint(bytes.fromhex(data)) == faults
