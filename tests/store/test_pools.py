"""Long work in processes and on a cluster: the same bytes, and a stop that is felt at once."""

import threading
import time
from collections.abc import Iterator

import pytest
from distributed import LocalCluster
from sqlalchemy.orm import Session, sessionmaker

from loquet.core.design import Design
from loquet.core.freshness import each_slice
from loquet.core.pipeline import MADE
from loquet.core.routing import RoutingStopped
from loquet.demo.scenario import demo_brief
from loquet.jobs.cluster import DaskPool
from loquet.jobs.making import Refusal, make_slice
from loquet.jobs.pools import LocalPool, Pool
from loquet.jobs.runner import Ticket
from loquet.jobs.telling import Told


@pytest.fixture(scope="module")
def local() -> Iterator[LocalPool]:
    pool = LocalPool()
    pool.warm()
    yield pool
    pool.close()


@pytest.fixture(scope="module")
def cluster() -> Iterator[DaskPool]:
    with LocalCluster(n_workers=2, threads_per_worker=1, dashboard_address=None) as two:
        pool = DaskPool(two.scheduler_address)
        yield pool
        pool.close()


def made_on(pool: Pool) -> list[str]:
    """Every slice of the pod, made one after the other on a pool."""
    design, texts = Design(brief=demo_brief("dome-pod")), []
    for name, subject in each_slice(design.brief):
        ticket = Ticket(1, "everything", pool)
        answer = ticket.compute(make_slice, design.model_dump_json(), name, subject)
        assert not isinstance(answer, Refusal)
        texts.append(answer)
        design = design.with_made(name, subject, MADE[name].model_validate_json(answer))
    return texts


def test_a_cluster_gives_the_same_bytes(local: LocalPool, cluster: DaskPool) -> None:
    assert made_on(local) == made_on(cluster)


def forever(tell: object) -> None:
    while tell(Told("3 of 4", 0.25)):  # type: ignore[operator]
        time.sleep(0.05)


def stop_in_the_middle(pool: Pool, patience_s: float) -> None:
    ticket, ended = Ticket(1, "routing", pool), threading.Event()

    def work() -> None:
        with pytest.raises(RoutingStopped):
            ticket.compute(forever)
        ended.set()

    thread = threading.Thread(target=work)
    thread.start()
    while ticket.share == 0:
        time.sleep(0.02)
    assert ticket.share == 0.25
    began = time.monotonic()
    ticket.stop.set()
    assert ended.wait(10)
    assert time.monotonic() - began < patience_s
    thread.join()


def test_a_stop_is_felt_at_once(local: LocalPool, cluster: DaskPool) -> None:
    """0.2 s is what is promised; the rest is for a machine that is busy with other tests."""
    stop_in_the_middle(local, 0.5)
    stop_in_the_middle(cluster, 0.5)
    assert made_on(local)


def test_errors_cross_over_and_progress_only_rises(local: LocalPool) -> None:
    ticket = Ticket(1, "routing", local)
    with pytest.raises(ZeroDivisionError):
        ticket.compute(divide, 0)
    ticket.say("first", 0.2, 0.6)
    ticket.heard(Told("most of it", 0.75))
    ticket.heard(Told("a step back", 0.25))
    assert ticket.share == pytest.approx(0.5)
    ticket.say("second", 0.6, 1.0)
    assert ticket.share == pytest.approx(0.6)


def divide(tell: object, by: int) -> float:
    return 1 / by


def test_a_worker_that_dies_fails_its_job_and_is_replaced(
    local: LocalPool, factory: sessionmaker[Session]
) -> None:
    with pytest.raises(Exception, match="terminated abruptly"):
        Ticket(1, "routing", local).compute(die)
    assert Ticket(1, "routing", local).compute(divide, 2) == 0.5


def die(tell: object) -> None:
    import os

    os._exit(1)
