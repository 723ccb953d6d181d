"""Where long work runs: warm processes of this machine, which end at once when they are asked
to.
"""

import contextlib
import multiprocessing
import os
import queue
import threading
from collections.abc import Callable, Iterator
from concurrent.futures import Future, ProcessPoolExecutor
from concurrent.futures import TimeoutError as NotYet
from typing import Any, Protocol

from loquet.jobs.telling import Told

SPARE_WORKERS = 2
BEHIND_THE_PAGES, AFTER_ALL_ELSE = 10, 19
FORKS = multiprocessing.get_context("forkserver")
FORKS.set_forkserver_preload(["loquet.jobs.making"])
"""A process that has loaded what every job needs stands ready; workers are copies of it, so that a
new one is there at once.
"""
CHANNEL: Any = None


class Running(Protocol):
    """A call on its way.

    The function called takes, before its arguments, how to tell of its progress.
    """

    def wait(self, seconds: float) -> bool:
        """Whether the answer came within so many seconds."""

    def news(self) -> list[Told]:
        """What the call has told since the last time."""

    def end(self) -> None:
        """Give the call up at once."""

    def answer(self) -> Any:
        """What the function returned, or its error raised."""


class Pool(Protocol):
    """Takes calls of picklable functions."""

    def submit(self, function: Callable[..., Any], *arguments: object) -> Running:
        """Start a call."""

    def close(self) -> None:
        """Give everything back."""


def take_channel(channel: Any, niceness: int) -> None:
    """In a worker process: keep the way to tell of progress, and let what is more urgent go
    first.
    """
    global CHANNEL
    CHANNEL = channel
    os.nice(niceness)
    threading.Thread(target=end_with_parent, daemon=True).start()


def end_with_parent() -> None:
    """In a worker process: end when the process that started it has ended, however hard."""
    parent = multiprocessing.parent_process()
    if parent is not None:
        parent.join()
        os._exit(0)


def call(function: Callable[..., Any], arguments: tuple[object, ...]) -> Any:
    """In a worker process: the call, telling over the channel; a local call is ended by ending its
    process.
    """

    def tell(seen: Told) -> bool:
        CHANNEL.put(seen)
        return True

    return function(tell, *arguments)


class Worker:
    """A process that takes one call at a time; ending a call ends the process."""

    def __init__(self, niceness: int) -> None:
        self.channel = FORKS.Queue()
        self.executor = ProcessPoolExecutor(
            1, mp_context=FORKS, initializer=take_channel, initargs=(self.channel, niceness)
        )
        self.executor.submit(int)

    def kill(self) -> None:
        """End the process now."""
        for process in list((self.executor._processes or {}).values()):
            process.kill()
        self.executor.shutdown(wait=False, cancel_futures=True)


class LocalRunning:
    """A call in a worker process."""

    def __init__(self, pool: "LocalPool", worker: Worker, future: Future[Any]) -> None:
        self.pool, self.worker, self.future = pool, worker, future

    def wait(self, seconds: float) -> bool:
        """Whether the answer came; a worker that is done goes back among the spare ones."""
        with contextlib.suppress(NotYet):
            self.future.exception(seconds)
        if self.future.done():
            self.pool.give_back(self.worker, whole=self.future.exception() is None)
            return True
        return False

    def news(self) -> list[Told]:
        """Everything in the channel."""
        return list(drained(self.worker.channel))

    def end(self) -> None:
        """Kill the process; a fresh one takes its place."""
        self.worker.kill()
        self.pool.give_back(self.worker, whole=False)

    def answer(self) -> Any:
        """The result of the future."""
        return self.future.result()


def drained(channel: Any) -> Iterator[Any]:
    """What lies in a channel."""
    with contextlib.suppress(queue.Empty, OSError, EOFError):
        while True:
            yield channel.get_nowait()


class LocalPool:
    """Warm worker processes of this machine, made when the first call comes; two stay ready.

    `niceness` says how far they stand behind the pages, from 0 to 19.
    """

    def __init__(self, niceness: int = BEHIND_THE_PAGES) -> None:
        self.niceness = niceness
        self.spare: list[Worker] = []
        self.busy: set[Worker] = set()
        self.lock = threading.Lock()
        self.closed = False

    def submit(self, function: Callable[..., Any], *arguments: object) -> LocalRunning:
        """Start a call on a spare worker, or on a new one."""
        with self.lock:
            worker = self.spare.pop() if self.spare else Worker(self.niceness)
            self.busy.add(worker)
        for _ in drained(worker.channel):
            pass
        return LocalRunning(self, worker, worker.executor.submit(call, function, arguments))

    def warm(self) -> None:
        """Have the spare workers ready before the first call."""
        with self.lock:
            while len(self.spare) < SPARE_WORKERS and not self.closed:
                self.spare.append(Worker(self.niceness))

    def give_back(self, worker: Worker, whole: bool) -> None:
        """Keep a worker as a spare one, or let it go."""
        with self.lock:
            if worker not in self.busy:
                return
            self.busy.discard(worker)
            kept = whole and not self.closed and len(self.spare) < SPARE_WORKERS
            if kept:
                self.spare.append(worker)
        if not kept:
            worker.kill()
            self.warm()

    def close(self) -> None:
        """End all processes."""
        with self.lock:
            self.closed = True
            workers = [*self.spare, *self.busy]
            self.spare.clear()
            self.busy.clear()
        for worker in workers:
            worker.kill()
