"""Long work on a dask.distributed cluster, with the same calls as in processes of this machine."""

import contextlib
import uuid
from collections.abc import Callable
from concurrent.futures import Future
from concurrent.futures import TimeoutError as NotYet
from typing import Any

from distributed import Client, Queue, Variable, get_client

from loquet.jobs.telling import Told


class DaskRunning:
    """A call on a cluster: progress and stop go over two shared variables."""

    def __init__(
        self, pool: "DaskPool", function: Callable[..., Any], arguments: tuple[object, ...]
    ) -> None:
        self.name = f"loquet-{uuid.uuid4().hex}"
        self.stop = Variable(f"{self.name}-stop", client=pool.client)
        self.stop.set(False)
        self.queue = Queue(f"{self.name}-news", client=pool.client)
        self.future: Future[Any] = pool.executor.submit(
            call_on_cluster, self.name, function, arguments
        )

    def wait(self, seconds: float) -> bool:
        """Whether the answer came."""
        with contextlib.suppress(NotYet):
            self.future.exception(seconds)
        return bool(self.future.done())

    def news(self) -> list[Told]:
        """What the worker has put into the queue."""
        return (
            [Told(*row) for row in self.queue.get(timeout="1s", batch=True)]
            if self.queue.qsize()
            else []
        )

    def end(self) -> None:
        """Raise the flag that the worker looks at; its answer is not waited for."""
        self.stop.set(True)

    def answer(self) -> Any:
        """The result of the future."""
        return self.future.result()


def call_on_cluster(name: str, function: Callable[..., Any], arguments: tuple[object, ...]) -> Any:
    """On a worker of the cluster: the call, telling over the shared queue and looking at the
    flag.
    """
    client = get_client()
    stop, news = Variable(f"{name}-stop", client=client), Queue(f"{name}-news", client=client)

    def tell(seen: Told) -> bool:
        news.put(tuple(seen))
        return not stop.get(timeout="5s")

    return function(tell, *arguments)


class DaskPool:
    """A cluster behind a scheduler's address; its workers must have this same Loquet."""

    def __init__(self, address: str) -> None:
        self.client = Client(address, timeout="10s", set_as_default=False)
        self.executor = self.client.get_executor(pure=False)

    def submit(self, function: Callable[..., Any], *arguments: object) -> DaskRunning:
        """Start a call on the cluster."""
        return DaskRunning(self, function, arguments)

    def close(self) -> None:
        """Leave the cluster as it is."""
        self.executor.shutdown(wait=False)
        self.client.close(timeout=5)
