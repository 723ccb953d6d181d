"""`loquet unit`: the simulated bench unit of a brief on a socket, without a database."""

from pathlib import Path

from loquet.compiling import Unusable
from loquet.core.build.faults import GOOD, possible_faults
from loquet.reports.build import placed_at
from loquet.standins.bench_server import BenchServer
from loquet.standins.bench_unit import BenchUnit


def unit_server(path: Path, port: int, fault: int) -> tuple[BenchServer, str]:
    """The server of a simulated unit, and the words of the fault that is set in it by its number
    from 1 (0: a good unit). Raises Unusable.
    """
    _, _, views, desk = placed_at(path)
    faults = [GOOD, *possible_faults(desk, views)]
    if not 0 <= fault < len(faults):
        raise Unusable(
            f"There are {len(faults) - 1} faults; give a number from 1 to {len(faults) - 1}."
        )
    try:
        return BenchServer(BenchUnit(desk, faults[fault]), port), faults[fault].words
    except (OSError, OverflowError) as error:
        raise Unusable(f"The port {port} cannot be had: {error}. Give another.") from None
