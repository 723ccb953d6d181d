"""Answers kept by the very objects that they were worked out from, the oldest given up first."""

from collections import OrderedDict
from collections.abc import Callable
from threading import Lock
from typing import Generic, TypeVar

T = TypeVar("T")
Key = tuple[int | str, ...]


class Remembered(Generic[T]):
    """Answers by identity: frozen values are compared by which object they are, which takes no
    time.

    Safe between threads; of several that ask at once, one works the answer out and the others wait
    for it.
    """

    def __init__(self, most: int) -> None:
        self.most = most
        self.kept: OrderedDict[Key, tuple[tuple[object, ...], T]] = OrderedDict()
        self.lock = Lock()
        self.working: dict[Key, Lock] = {}

    def of(self, about: tuple[object, ...], make: Callable[[], T], name: str = "") -> T:
        """The answer about these objects, worked out where it is not kept; the objects are held, so
        that no other takes their place.
        """
        key: Key = (name, *map(id, about))
        with self.lock:
            found = self.look(key)
            if found is not None:
                return found[1]
            turn = self.working.setdefault(key, Lock())
        with turn:
            with self.lock:
                found = self.look(key)
            return found[1] if found is not None else self.work(key, about, make)

    def look(self, key: Key) -> tuple[tuple[object, ...], T] | None:
        """What is kept, as the one used last."""
        found = self.kept.get(key)
        if found is not None:
            self.kept.move_to_end(key)
        return found

    def work(self, key: Key, about: tuple[object, ...], make: Callable[[], T]) -> T:
        """Work an answer out and keep it; an error is kept by nobody."""
        try:
            answer = make()
            with self.lock:
                self.kept[key] = (about, answer)
                while len(self.kept) > self.most:
                    self.kept.popitem(last=False)
            return answer
        finally:
            with self.lock:
                self.working.pop(key, None)

    def put(self, about: tuple[object, ...], answer: T, name: str = "") -> None:
        """Keep an answer that was worked out elsewhere."""
        with self.lock:
            self.kept[(name, *map(id, about))] = (about, answer)
